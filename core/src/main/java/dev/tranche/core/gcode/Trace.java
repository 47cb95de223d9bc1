package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Line;
import org.locationtech.jts.geom.Envelope;

/** The line of plastic that is being drawn, between two travels; the same object for one line after another. */
final class Trace {
    private int tool;
    private boolean drawing;
    private double extruded;
    private double length;
    private double minX;
    private double minY;
    private double maxX;
    private double maxY;

    /** Whether the last move laid plastic, so that the next begins where plastic is. */
    boolean isDrawing() {
        return drawing;
    }

    void begin(int by, double x, double y) {
        tool = by;
        drawing = true;
        extruded = 0;
        length = 0;
        minX = x;
        maxX = x;
        minY = y;
        maxY = y;
    }

    /** On to a place, mm, with so much filament on a way of so many mm. */
    void draw(double x, double y, double filament, double way) {
        if (x < minX) {
            minX = x;
        }
        if (x > maxX) {
            maxX = x;
        }
        if (y < minY) {
            minY = y;
        }
        if (y > maxY) {
            maxY = y;
        }
        extruded += filament;
        length += way;
    }

    /** Ends the line. */
    Line lift() {
        drawing = false;
        return new Line(tool, new Envelope(minX, maxX, minY, maxY), extruded, length);
    }
}
