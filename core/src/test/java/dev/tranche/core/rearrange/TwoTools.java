package dev.tranche.core.rearrange;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Files of a bar, 40 × 10 mm with layers of 0.2 mm, of four stripes printed with T0, T1, T0 and T1, as programs write them: the
 * tool that is loaded begins each layer.
 */
public final class TwoTools {
    /** What a program may do. */
    public enum Way {
        /** Filament is counted from where it is. */
        ADDED,
        /** The nozzle rises a little for each travel, in relative places. */
        HOPS,
        /** Filament is drawn back by the firmware's own length. */
        BY_FIRMWARE,
        /** Fans and accelerations change from layer to layer and from tool to tool. */
        TRIMS,
        /** It counts anew from layer to layer. */
        COUNTS_ANEW,
        CRLF,
        INCHES,
        /** One side is half a circle. */
        ARCS,
        /** Filament is drawn back along the last line. */
        WIPES,
        /** Both tools are primed before the print, and the second is drawn back far until it is needed. */
        PRIMES,
        /** A tool that rests is let cool, and heated again when it is chosen. */
        COOLS,
        /** The tools print at heats of their own, said before the change or after it. */
        HEATS,
        /** Each change of tools is printed onto a tower. */
        TOWER,
        /** The right stripe comes first. */
        FROM_OUTSIDE,
        /** Filament goes out of the nozzle at a change of tools, and the other in. */
        UNLOADS,
        /** When a tool is chosen, it is said again where the nozzle is. */
        SAYS_WHERE
    }

    private final Set<Way> ways;
    private final int layers;
    private final StringBuilder out = new StringBuilder();
    private final double unit;
    private double e;
    private double x;
    private double y;
    private double z;

    public TwoTools(Set<Way> ways, int layers) {
        this.ways = ways;
        this.layers = layers;
        this.unit = does(Way.INCHES) ? 25.4 : 1;
    }

    private boolean does(Way way) {
        return ways.contains(way);
    }

    public byte[] bytes() {
        line("; made for tests");
        line("G21");
        line("G90");
        line("M190 S60");
        line("M109 S210");
        line("G28");
        if (does(Way.INCHES)) {
            line("G20");
        }
        line(does(Way.ADDED) ? "M83" : "M82");
        line("G92 E0");
        if (does(Way.PRIMES)) {
            primes();
        }
        line("T0");
        int tool = 0;
        pressure(tool);
        for (int layer = 1; layer <= layers; layer++) {
            line("; layer " + layer);
            line("G1 Z" + number(0.2 * layer / unit) + " F" + number(600 / unit));
            z = 0.2 * layer;
            if (does(Way.COUNTS_ANEW) && !does(Way.ADDED)) {
                line("G92 E0");
                e = 0;
            }
            for (int nth = 0; nth < 2; nth++) {
                if (nth == 1) {
                    if (does(Way.COOLS)) {
                        line("M104 T" + tool + " S150");
                        line("M109 T" + (1 - tool) + " S210");
                    }
                    tool = 1 - tool;
                    String heat = does(Way.HEATS) ? "M109 S" + (210 + 20 * tool) : ";";
                    // What is said without a number is said to the tool that is chosen.
                    boolean before = layer % 2 == 0 && !does(Way.COOLS);
                    line(before ? heat : ";");
                    line(does(Way.TRIMS) ? "M486 S" + tool : ";");
                    line(does(Way.TRIMS) ? "EXCLUDE_OBJECT_START NAME=stripe_" + tool : ";");
                    if (does(Way.UNLOADS)) {
                        line("G1 " + filament(-30) + " F" + number(1200 / unit));
                        line("G1 " + filament(-50));
                    }
                    line("T" + tool);
                    line(before ? ";" : heat);
                    pressure(tool);
                    if (does(Way.UNLOADS)) {
                        line("G1 " + filament(80) + " F" + number(1200 / unit));
                    }
                    if (tool == 1 && layer == 1 && does(Way.PRIMES)) {
                        line("G1 " + filament(10) + " F" + number(1800 / unit));
                    }
                }
                if (nth == 1 && does(Way.SAYS_WHERE)) {
                    line("G1 Z" + number(z / unit) + " F" + number(600 / unit));
                }
                if (nth == 1 && does(Way.TOWER)) {
                    tower(layer);
                }
                if (does(Way.TRIMS)) {
                    line(layer == 1 ? "M107" : "M106 S" + (50 * tool + 100));
                    line("M204 S" + (500 + 100 * tool + 10 * layer));
                }
                stripes(tool);
            }
        }
        line("; the end");
        line("M107");
        line("G91");
        line("G1 Z" + number(5 / unit) + " F" + number(600 / unit));
        line("G90");
        line("G1 X0 Y" + number(150 / unit));
        line("M104 S0");
        return out.toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** Said once at a change of tools; in numbers, or in words by firmwares that have such commands. */
    private void pressure(int tool) {
        if (does(Way.TRIMS)) {
            line("M900 K" + number(0.045 + 0.02 * tool));
            line("SET_PRESSURE_ADVANCE ADVANCE=" + number(0.04125 + 0.02 * tool));
        }
    }

    private void primes() {
        line("G1 Z" + number(0.3 / unit) + " F" + number(600 / unit));
        z = 0.3;
        for (int tool = 1; tool >= 0; tool--) {
            line("T" + tool);
            line("G0 X" + number(5 / unit) + " Y" + number((5 + 5 * tool) / unit) + " F" + number(7200 / unit));
            x = 5;
            y = 5 + 5 * tool;
            feed(45, y);
            if (tool == 1) {
                line("G1 " + filament(-10) + " F" + number(1800 / unit));
            }
        }
    }

    /** Its two stripes, one outline in another; the way from one stripe to the next leads over the other tool's. */
    private void stripes(int tool) {
        List<double[]> boxes = new ArrayList<>();
        for (int stripe = 0; stripe < 2; stripe++) {
            double left = 60.2 + 10 * tool + 20 * stripe;
            boxes.add(new double[] {left, 60.2, 9.6, 9.6});
            boxes.add(new double[] {left + 2, 62.2, 5.6, 5.6});
        }
        if (does(Way.FROM_OUTSIDE)) {
            Collections.reverse(boxes);
        }
        for (double[] box : boxes) {
            travel(box[0], box[1]);
            push(1);
            feed(box[0] + box[2], box[1]);
            feed(box[0] + box[2], box[1] + box[3]);
            if (does(Way.ARCS)) {
                arc(box[0], box[1] + box[3], box[2] / 2);
            } else {
                feed(box[0], box[1] + box[3]);
            }
            feed(box[0], box[1]);
            if (does(Way.WIPES) && !does(Way.BY_FIRMWARE)) {
                wipe(box[0] + 0.4, box[1]);
            } else {
                push(-1);
            }
        }
    }

    private void tower(int layer) {
        travel(30, 60);
        push(1);
        for (int i = 1; i <= 6; i++) {
            boolean along = layer % 2 == 0;
            feed(along ? 30 + i % 2 * 6 : 30 + i, along ? 60 + i : 60 + i % 2 * 6);
        }
        push(-1);
    }

    private void travel(double toX, double toY) {
        if (does(Way.HOPS)) {
            line("G91");
            line("G1 Z" + number(0.3 / unit) + " F" + number(600 / unit));
            line("G90");
            line(does(Way.ADDED) ? "M83" : "M82");
        }
        line("G0 X" + number(toX / unit) + " Y" + number(toY / unit) + " F" + number(7200 / unit));
        if (does(Way.HOPS)) {
            line("G1 Z" + number(z / unit) + " F" + number(600 / unit));
        }
        x = toX;
        y = toY;
    }

    private void push(double length) {
        if (does(Way.BY_FIRMWARE)) {
            line(length > 0 ? "G11" : "G10");
        } else {
            line("G1 " + filament(length) + " F" + number(1800 / unit));
        }
    }

    private void feed(double toX, double toY) {
        double length = Math.hypot(toX - x, toY - y) * 0.033;
        line("G1 X" + number(toX / unit) + " Y" + number(toY / unit) + " " + filament(length) + " F"
                + number(1800 / unit));
        x = toX;
        y = toY;
    }

    private void arc(double toX, double toY, double radius) {
        line("G3 X" + number(toX / unit) + " Y" + number(toY / unit) + " I" + number(-radius / unit) + " J0 "
                + filament(Math.PI * radius * 0.033));
        x = toX;
        y = toY;
    }

    private void wipe(double toX, double toY) {
        line("G1 X" + number(toX / unit) + " Y" + number(toY / unit) + " " + filament(-1));
        x = toX;
        y = toY;
    }

    private String filament(double length) {
        e += length;
        return "E" + number((does(Way.ADDED) ? length : e) / unit);
    }

    private void line(String text) {
        out.append(text).append(does(Way.CRLF) ? "\r\n" : "\n");
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.7f", value).replaceAll("0+$", "").replaceAll("\\.$", "");
    }
}
