package dev.tranche.app.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.operation.union.UnaryUnionOp;

/** Capital letters made of strokes with round ends, as cut with a router; drawn for the demo. */
final class Lettering {
    private static final GeometryFactory PLANE = new GeometryFactory();
    private static final double WIDTH = 4;
    private static final double GAP = 2.2;

    /** Strokes on a field of 4 by 6: points as x y pairs, strokes apart by a slash. */
    private static final Map<Character, String> STROKES = Map.of(
            'A', "0 0 2 6 4 0/0.8 2.2 3.2 2.2",
            'B', "0 0 0 6 2.6 6 3.6 5.2 3.6 3.9 2.6 3.2 0 3.2/2.6 3.2 4 2.4 4 0.9 2.8 0 0 0",
            'D', "0 0 0 6 2.2 6 4 4.4 4 1.6 2.2 0 0 0",
            'E', "4 0 0 0 0 6 4 6/0 3.1 3.2 3.1",
            'H', "0 0 0 6/4 0 4 6/0 3.1 4 3.1",
            'N', "0 0 0 6 4 0 4 6",
            'S', "0 0.8 0.9 0 3.1 0 4 0.9 4 2.3 3.1 3.1 0.9 3.1 0 3.9 0 5.1 0.9 6 3.1 6 4 5.2");

    private Lettering() {}

    /**
     * @param x where the word's middle is, as {@code y}
     * @param height of the letters, mm
     * @param stroke width of a stroke, mm
     */
    static Geometry word(String word, double x, double y, double height, double stroke) {
        double scale = (height - stroke) / 6;
        double length = word.length() * WIDTH + (word.length() - 1) * GAP;
        List<Geometry> lines = new ArrayList<>();
        for (int i = 0; i < word.length(); i++) {
            double left = x + (i * (WIDTH + GAP) - length / 2) * scale;
            for (String line : STROKES.get(word.charAt(i)).split("/")) {
                lines.add(stroke(line, left, y - 3 * scale, scale).buffer(stroke / 2, 6));
            }
        }
        return UnaryUnionOp.union(lines);
    }

    private static Geometry stroke(String line, double left, double bottom, double scale) {
        String[] numbers = line.split(" ");
        Coordinate[] points = new Coordinate[numbers.length / 2];
        for (int i = 0; i < points.length; i++) {
            points[i] = new Coordinate(
                    left + Double.parseDouble(numbers[2 * i]) * scale,
                    bottom + Double.parseDouble(numbers[2 * i + 1]) * scale);
        }
        return PLANE.createLineString(points);
    }
}
