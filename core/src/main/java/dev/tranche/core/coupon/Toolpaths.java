package dev.tranche.core.coupon;

import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.Joint;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;

/**
 * The toolpaths of a coupon in the middle of a printer's bed, as plain G-code with a tool for each of its spools, the loaded one
 * first on each layer. It holds no swaps; those are written into it as into any sliced file.
 */
public final class Toolpaths {
    /** Over what has been printed a travel rises so far, mm. */
    private static final double HOP = 0.6;
    /** The first layer is printed no faster, so that it sticks, mm/s (common practice). */
    private static final double FIRST = 20;

    private static final double FASTEST = 40;
    /** Filament that is pushed in without printing: mm over the bed, mm at a time, mm/s; and at which it lays bars. */
    private static final double ASIDE = 20;

    private static final double AT_A_TIME = 100;
    private static final double APPROACH = 10;
    private static final double SLOWLY = 2;

    private final StringBuilder out = new StringBuilder();
    private final Coupon coupon;
    private final Printer printer;
    private final Map<SpoolId, Spool> shelf;
    private final Coordinate shift;
    private final double lineWidth;
    private final double back;
    private double e;
    private double z;
    private double feed;
    private boolean drawn;
    private Coordinate at = new Coordinate(Double.NaN, Double.NaN);

    private Toolpaths(Coupon coupon, Printer printer, Map<SpoolId, Spool> shelf) {
        this.coupon = coupon;
        this.printer = printer;
        this.shelf = shelf;
        this.lineWidth = printer.lineWidth();
        this.back = new Joint(printer).back();
        Coordinate bed = printer.bed().bounds().centre();
        Coordinate middle = coupon.extent().centre();
        this.shift = new Coordinate(bed.x - middle.x, bed.y - middle.y);
    }

    /** @param shelf the spools it is printed with */
    public static String of(Coupon coupon, Printer printer, Map<SpoolId, Spool> shelf) {
        Toolpaths paths = new Toolpaths(coupon, printer, shelf);
        paths.begin();
        SpoolId loaded = coupon.spools().get(0);
        for (int layer = 1; layer <= coupon.layerCount(); layer++) {
            loaded = paths.layer(layer, loaded);
        }
        paths.end();
        return paths.out.toString();
    }

    private void begin() {
        Spool first = shelf.get(coupon.spools().get(0));
        int bed = bed(first.material());
        line("; %s, made by Tranche", coupon.kind().title());
        line("M140 S%d", bed);
        line("M104 S%d", first.firstLayerTemperature());
        line("G28");
        line("M190 S%d", bed);
        line("M109 S%d", first.firstLayerTemperature());
        line("G21");
        line("G90");
        line("M82");
        line("G92 E0");
        line("T0");
        if (coupon.kind() == Coupon.Kind.GEARS) {
            approach();
        }
    }

    /** The tip goes from the gears to a little before where the nozzle is taken to be. */
    private void approach() {
        line("G1 Z%.2f F%.0f", ASIDE, printer.motion().liftSpeed() * 60);
        double left = coupon.scale().first();
        while (left > 0) {
            double now = Math.min(left, AT_A_TIME);
            e += now;
            left -= now;
            line("G1 E%.4f F%.0f", e, APPROACH * 60);
        }
    }

    private void end() {
        draw();
        line("G1 Z%.2f F%.0f", z + 10, printer.motion().liftSpeed() * 60);
        line("M104 S0");
        line("M140 S0");
        line("M84");
    }

    /** °C of the bed (common practice). */
    private static int bed(Material material) {
        return switch (material) {
            case PLA, OTHER -> 60;
            case PETG -> 80;
            case ABS_ASA -> 100;
            case TPU -> 50;
        };
    }

    private SpoolId layer(int number, SpoolId before) {
        Motion motion = printer.motion();
        z = coupon.layers().firstLayer().millimetres()
                + (number - 1) * coupon.layers().layerHeight().millimetres();
        feed = 60 * (number == 1 ? FIRST : Math.min(motion.printSpeed(), FASTEST));
        line("; layer %d", number);
        if (number == 2) {
            line("M104 S%d", shelf.get(before).temperature());
            if (shelf.get(before).material() == Material.PLA) {
                line("M106 S255");
            }
        }
        draw();
        line("G1 Z%.3f F%.0f", z, motion.liftSpeed() * 60);
        SpoolId loaded = before;
        for (SpoolId spool : order(number, before)) {
            if (!spool.equals(loaded)) {
                draw();
                line("T%d", coupon.spools().indexOf(spool));
                loaded = spool;
            }
            coupon.blocks().stream()
                    .filter(b -> b.spool().equals(spool) && b.isOn(number))
                    .forEach(b -> {
                        if (coupon.kind() == Coupon.Kind.GEARS) {
                            bead(b);
                        } else {
                            fill(b, number % 2 == 0);
                        }
                    });
        }
        return loaded;
    }

    private List<SpoolId> order(int layer, SpoolId loaded) {
        List<SpoolId> order = new ArrayList<>(coupon.spools());
        order.removeIf(s -> coupon.blocks().stream()
                .noneMatch(b -> b.isOn(layer) && b.spool().equals(s)));
        order.sort(Comparator.comparing(s -> !s.equals(loaded)));
        return order;
    }

    /** One thick line, for as much filament as one step of the scale; nothing is drawn back, or the count would be lost. */
    private void bead(Block b) {
        drawn = false;
        travel(new Coordinate(b.x(), b.y() + b.depth() / 2));
        e += coupon.scale().step();
        line(
                "G1 X%.3f Y%.3f E%.4f F%.0f",
                b.x() + b.width() + shift.x,
                b.y() + b.depth() / 2 + shift.y,
                e,
                b.width() / coupon.scale().step() * SLOWLY * 60);
    }

    /** One stroke of lines side by side, along X or, on every other layer of what has several, along Y. */
    private void fill(Block b, boolean upright) {
        boolean across = upright && b.to() > b.from();
        double half = lineWidth / 2;
        int lines = Math.max(1, (int) Math.round((across ? b.width() : b.depth()) / lineWidth));
        double length = across ? b.depth() : b.width();
        for (int i = 0; i < lines; i++) {
            double side = half + i * lineWidth;
            double from = i % 2 == 0 ? half : length - half;
            double to = i % 2 == 0 ? length - half : half;
            Coordinate begin =
                    across ? new Coordinate(b.x() + side, b.y() + from) : new Coordinate(b.x() + from, b.y() + side);
            Coordinate end =
                    across ? new Coordinate(b.x() + side, b.y() + to) : new Coordinate(b.x() + to, b.y() + side);
            if (i == 0) {
                travel(begin);
            } else {
                extrude(begin);
            }
            extrude(end);
        }
    }

    private void draw() {
        if (!drawn && e > 0 && coupon.kind() != Coupon.Kind.GEARS) {
            e -= back;
            drawn = true;
            line("G1 E%.4f F%.0f", e, printer.motion().retractSpeed() * 60);
        }
    }

    private void travel(Coordinate to) {
        draw();
        double lift = printer.motion().liftSpeed() * 60;
        line("G1 Z%.3f F%.0f", z + HOP, lift);
        line(
                "G1 X%.3f Y%.3f F%.0f",
                to.x + shift.x, to.y + shift.y, printer.motion().travelSpeed() * 60);
        line("G1 Z%.3f F%.0f", z, lift);
        if (drawn) {
            e += back;
            drawn = false;
            line("G1 E%.4f F%.0f", e, printer.motion().retractSpeed() * 60);
        }
        at = to;
    }

    private void extrude(Coordinate to) {
        double volume =
                at.distance(to) * lineWidth * coupon.layers().layerHeight().millimetres();
        e += printer.filament().length(new Volume(volume));
        line("G1 X%.3f Y%.3f E%.4f F%.0f", to.x + shift.x, to.y + shift.y, e, feed);
        at = to;
    }

    private void line(String format, Object... arguments) {
        out.append(Words.format(format, arguments)).append('\n');
    }
}
