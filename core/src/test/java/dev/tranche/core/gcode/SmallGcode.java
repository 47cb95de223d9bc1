package dev.tranche.core.gcode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Small sliced files for tests: an outline on every layer, written as programs write. */
public final class SmallGcode {
    private final List<String> lines = new ArrayList<>();
    private String ending = "\n";
    private boolean relative;
    private boolean inches;
    private double e;
    private double scale = 1;
    private int drawn;
    private double halfX = 10;
    private double halfY = 10;
    private double centreX = 100;
    private double centreY = 100;

    public SmallGcode() {
        lines.add("; a small file for tests, façade");
        lines.add("M190 S60");
        lines.add("M109 S210");
        lines.add("G28 ; home");
        lines.add("G90");
        lines.add("M82");
    }

    public SmallGcode crlf() {
        ending = "\r\n";
        return this;
    }

    public SmallGcode relativeExtrusion() {
        relative = true;
        lines.add("M83");
        return this;
    }

    public SmallGcode inches() {
        inches = true;
        scale = 1 / 25.4;
        lines.add("G20");
        return this;
    }

    public SmallGcode centredAt(double x, double y) {
        centreX = x;
        centreY = y;
        return this;
    }

    /** Layers from here on are as large, mm; else they are squares 20 mm wide. */
    public SmallGcode sized(double width, double depth) {
        halfX = width / 2;
        halfY = depth / 2;
        return this;
    }

    /** A priming line at the bed's edge, higher than the first layer. */
    public SmallGcode primed() {
        lines.add("G1 Z0.3 F600");
        lines.add("G1 X5 Y5 F6000");
        extrude(5, 60, 3);
        return this;
    }

    /** Layers at these heights of the nozzle. */
    public SmallGcode layers(double... tops) {
        for (int i = 0; i < tops.length; i++) {
            layer(tops[i]);
        }
        return this;
    }

    /** {@code count} layers on an even grid. */
    public SmallGcode grid(double first, double height, int count) {
        for (int i = 0; i < count; i++) {
            layer(first + i * height);
        }
        return this;
    }

    /** An outline at the height the nozzle is at, {@code width} by {@code depth} between the middles of its lines. */
    public SmallGcode outline(double x, double y, double width, double depth, double feed) {
        lines.add("G1 X" + mm(x) + " Y" + mm(y) + " F7200");
        extrude(x + width, y, width * feed);
        extrude(x + width, y + depth, depth * feed);
        extrude(x, y + depth, width * feed);
        extrude(x, y, depth * feed);
        return this;
    }

    /**
     * An outline that begins a little above {@code from} and climbs to {@code to} on its first side, so that no seam is seen
     * (a scarf joint; common practice).
     */
    public SmallGcode scarf(double x, double y, double width, double depth, double feed, double from, double to) {
        double low = from + 0.02;
        lines.add("G1 X" + mm(x) + " Y" + mm(y) + " Z" + mm(low) + " F7200");
        for (int i = 1; i <= 5; i++) {
            e += width * feed / 5;
            lines.add("G1 X" + mm(x + width * i / 5) + " Y" + mm(y) + " Z" + mm(low + (to - low) * i / 5) + " E"
                    + mm(relative ? width * feed / 5 : e));
        }
        extrude(x + width, y + depth, depth * feed);
        extrude(x, y + depth, width * feed);
        extrude(x, y, depth * feed);
        return this;
    }

    /** On to a height. */
    public SmallGcode rise(double z) {
        lines.add("G1 Z" + mm(z) + " F600");
        return this;
    }

    private void layer(double z) {
        lines.add(";LAYER STARTS " + drawn++);
        lines.add("G1 Z" + mm(z) + " F600");
        lines.add("G1 X" + mm(centreX - halfX) + " Y" + mm(centreY - halfY) + " F7200");
        push(1.5);
        extrude(centreX + halfX, centreY - halfY, 0.66);
        extrude(centreX + halfX, centreY + halfY, 0.66);
        extrude(centreX - halfX, centreY + halfY, 0.66);
        extrude(centreX - halfX, centreY - halfY, 0.66);
        push(-1.5);
    }

    /** A little plastic at a place of its own, as a tower has it. */
    public SmallGcode dab(double x, double y) {
        lines.add("G1 X" + mm(x) + " Y" + mm(y) + " F7200");
        push(1.5);
        extrude(x + 5, y, 0.3);
        push(-1.5);
        return this;
    }

    private void push(double length) {
        e += length;
        lines.add("G1 E" + mm(relative ? length : e) + " F" + mm(1800));
    }

    private void extrude(double x, double y, double length) {
        e += length;
        lines.add("G1 X" + mm(x) + " Y" + mm(y) + " E" + mm(relative ? length : e) + " F" + mm(1800));
    }

    public SmallGcode line(String text) {
        lines.add(text);
        return this;
    }

    private String mm(double value) {
        return String.format(Locale.ROOT, inches ? "%.7f" : "%.5f", value * scale);
    }

    public byte[] bytes() {
        return (String.join(ending, lines) + ending).getBytes(StandardCharsets.ISO_8859_1);
    }

    public String text() {
        return new String(bytes(), StandardCharsets.ISO_8859_1);
    }
}
