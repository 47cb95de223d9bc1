package dev.tranche.core.format;

import dev.tranche.core.geometry.Arrangement;
import dev.tranche.core.geometry.Effort;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.PathIterator;
import java.awt.geom.Rectangle2D;
import java.awt.geom.RoundRectangle2D;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.batik.parser.AWTPathProducer;
import org.apache.batik.parser.AWTPolygonProducer;
import org.apache.batik.parser.AWTTransformProducer;
import org.apache.batik.parser.ParseException;
import org.apache.batik.parser.PathParser;
import org.apache.batik.parser.PointsParser;
import org.apache.batik.parser.TransformListParser;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Reads what an SVG drawing fills: paths and basic shapes with their transforms, units and fill rules, all taken
 * together as one area in mm, Y upwards.
 *
 * <p>What has no fill, lettering that is not drawn as paths, pictures and references are passed over and counted. Sizes
 * in style sheets are not looked at; a view box maps onto width and height, at 96 px an inch where they have no unit.
 *
 * <p>Source: W3C, "Scalable Vector Graphics (SVG) 1.1 (Second Edition)" (2011), chapters 7 to 11.
 *
 * @param area what is filled, mm; not empty
 * @param passedOver elements that draw something which is not taken
 */
public record Svg(MultiPolygon area, int passedOver) {
    /** Curves are followed to within this, mm. */
    private static final double FLATNESS = 0.01;

    private static final double MILLIMETRES_PER_PIXEL = 25.4 / 96;
    /** Further than any bed, mm. */
    private static final double FARTHEST = 100_000;

    private static final int MOST_POINTS = 200_000;
    private static final int MOST_SHAPES = 5_000;
    private static final int MOST_CROSSINGS = 250_000;
    private static final int DEEPEST = 256;
    private static final int LONGEST_NUMBER = 60;
    private static final Pattern LENGTH = Pattern.compile("([-+]?[0-9]*\\.?[0-9]+(?:[eE][-+]?[0-9]+)?)\\s*([a-z%]*)");
    private static final Set<String> UNDRAWN =
            Set.of("defs", "symbol", "clipPath", "mask", "marker", "pattern", "metadata", "title", "desc", "style");
    private static final Set<String> PASSED_OVER = Set.of("text", "image", "use", "line", "foreignObject");

    /** What an element inherits. */
    private record Scope(AffineTransform transform, boolean filled, boolean evenOdd, boolean shown) {}

    /**
     * @param in read to its end and left open
     * @param progress learns that the work goes on, and may stop it
     * @throws Refusal if it is no SVG drawing, fills nothing, or crosses itself too often
     */
    public static Svg read(InputStream in, Progress progress) {
        try {
            return new Reading(ThreeMf.xml(in), progress).svg();
        } catch (XMLStreamException e) {
            throw Refusal.of(
                    "The drawing cannot be read as SVG, on line %d; save it again as plain SVG.",
                    e.getLocation() == null ? 0 : e.getLocation().getLineNumber());
        }
    }

    private static final class Reading {
        private final XMLStreamReader xml;
        private final Deque<Scope> scopes = new ArrayDeque<>();
        private final List<Coordinate[]> rings = new ArrayList<>();
        private final Progress progress;
        private final Effort effort;
        private int shapes;
        private int points;
        private int passedOver;

        Reading(XMLStreamReader xml, Progress progress) {
            this.xml = xml;
            this.progress = progress;
            this.effort = new Effort(
                    MOST_CROSSINGS,
                    "The drawing's lines cross in too many places; simplify it, or save only the outline you need.",
                    progress);
        }

        Svg svg() throws XMLStreamException {
            boolean root = true;
            while (xml.hasNext()) {
                int event = xml.next();
                if (event == XMLStreamReader.START_ELEMENT) {
                    if (root && !xml.getLocalName().equals("svg")) {
                        throw Refusal.of(
                                "The file begins with <%s> and is no SVG drawing; save the outline as SVG.",
                                Words.quoted(xml.getLocalName()));
                    }
                    scopes.push(root ? outermost() : inner(scopes.peek()));
                    root = false;
                    element(xml.getLocalName(), scopes.peek());
                } else if (event == XMLStreamReader.END_ELEMENT) {
                    scopes.pop();
                }
            }
            if (rings.isEmpty()) {
                throw new Refusal(
                        passedOver == 0
                                ? "The drawing fills nothing; give its outline a fill, as lines have no area."
                                : "The drawing fills nothing that can be taken; convert text and strokes to filled paths.");
            }
            // Each shape's own rings are in order: what they fill together is where any of them does.
            MultiPolygon all = Arrangement.fill(rings, Arrangement.Rule.POSITIVE, effort);
            if (all.isEmpty()) {
                throw new Refusal("The drawing fills nothing; give its outline a fill, as lines have no area.");
            }
            return new Svg(all, passedOver);
        }

        /** From the view box, or pixels, to mm with Y upwards. */
        private Scope outermost() {
            AffineTransform toMm = AffineTransform.getScaleInstance(1, -1);
            String box = attribute("viewBox");
            double[] view = box == null ? null : numbers(box, "viewBox", 4);
            double width = length("width", view == null ? 0 : view[2] * MILLIMETRES_PER_PIXEL);
            double height = length("height", view == null ? 0 : view[3] * MILLIMETRES_PER_PIXEL);
            if (view == null) {
                toMm.scale(MILLIMETRES_PER_PIXEL, MILLIMETRES_PER_PIXEL);
            } else if (view[2] > 0 && view[3] > 0) {
                // preserveAspectRatio is xMidYMid meet unless it says none.
                double sx = width > 0 ? width / view[2] : height > 0 ? height / view[3] : MILLIMETRES_PER_PIXEL;
                double sy = height > 0 ? height / view[3] : sx;
                boolean stretch = "none".equals(attribute("preserveAspectRatio"));
                toMm.scale(stretch ? sx : Math.min(sx, sy), stretch ? sy : Math.min(sx, sy));
                toMm.translate(-view[0], -view[1]);
            } else {
                throw refusal("viewBox", box);
            }
            return inner(new Scope(toMm, true, false, true));
        }

        private Scope inner(Scope outer) {
            if (scopes.size() > DEEPEST) {
                throw Refusal.of("The drawing nests groups over %d deep; ungroup it.", DEEPEST);
            }
            AffineTransform transform = new AffineTransform(outer.transform());
            String own = attribute("transform");
            if (own != null) {
                transform.concatenate(parsed("transform", own, () -> {
                    TransformListParser parser = new TransformListParser();
                    AWTTransformProducer producer = new AWTTransformProducer();
                    parser.setTransformListHandler(producer);
                    parser.parse(own);
                    return producer.getAffineTransform();
                }));
            }
            String fill = property("fill");
            String rule = property("fill-rule");
            boolean hidden = "none".equals(property("display")) || UNDRAWN.contains(xml.getLocalName());
            return new Scope(
                    transform,
                    fill == null || fill.equals("inherit")
                            ? outer.filled()
                            : !fill.equals("none") && !fill.equals("transparent"),
                    rule == null || rule.equals("inherit") ? outer.evenOdd() : rule.equals("evenodd"),
                    outer.shown() && !hidden && !"hidden".equals(property("visibility")));
        }

        private void element(String name, Scope scope) {
            if (!scope.shown()) {
                return;
            }
            if (PASSED_OVER.contains(name)) {
                passedOver++;
                return;
            }
            java.awt.Shape shape =
                    switch (name) {
                        case "path" -> path(attribute("d"));
                        case "polygon", "polyline" -> polygon(attribute("points"));
                        case "rect" -> rectangle();
                        case "circle" -> ellipse(length("r", 0), length("r", 0));
                        case "ellipse" -> ellipse(length("rx", 0), length("ry", 0));
                        default -> null;
                    };
            if (shape == null) {
                return;
            }
            if (!scope.filled()) {
                passedOver++;
                return;
            }
            take(shape, scope);
        }

        private static java.awt.Shape polygon(String points) {
            return points == null || points.isBlank()
                    ? null
                    : parsed("points", points, () -> {
                        PointsParser parser = new PointsParser();
                        AWTPolygonProducer producer = new AWTPolygonProducer();
                        parser.setPointsHandler(producer);
                        parser.parse(points);
                        return producer.getShape();
                    });
        }

        private static java.awt.Shape path(String d) {
            return d == null || d.isBlank() || d.equals("none")
                    ? null
                    : parsed("path data", d, () -> {
                        PathParser parser = new PathParser();
                        AWTPathProducer producer = new AWTPathProducer();
                        parser.setPathHandler(producer);
                        parser.parse(d);
                        return producer.getShape();
                    });
        }

        private java.awt.Shape rectangle() {
            double rx = length("rx", -1);
            double ry = length("ry", -1);
            double w = length("width", 0);
            double h = length("height", 0);
            double roundX = Math.min(Math.max(0, rx < 0 ? ry : rx), w / 2);
            double roundY = Math.min(Math.max(0, ry < 0 ? rx : ry), h / 2);
            if (w <= 0 || h <= 0) {
                return null;
            }
            return roundX > 0 && roundY > 0
                    ? new RoundRectangle2D.Double(length("x", 0), length("y", 0), w, h, 2 * roundX, 2 * roundY)
                    : new Rectangle2D.Double(length("x", 0), length("y", 0), w, h);
        }

        private java.awt.Shape ellipse(double rx, double ry) {
            return rx <= 0 || ry <= 0
                    ? null
                    : new Ellipse2D.Double(length("cx", 0) - rx, length("cy", 0) - ry, 2 * rx, 2 * ry);
        }

        /** Filled by its rule, flattened in mm. */
        private void take(java.awt.Shape shape, Scope scope) {
            progress.beat();
            List<Coordinate[]> loops = loops(shape, scope.transform());
            if (points > MOST_POINTS || ++shapes > MOST_SHAPES) {
                throw new Refusal("The drawing has too many corners; simplify it, or save only the outline you need.");
            }
            MultiPolygon area = Arrangement.fill(
                    loops, scope.evenOdd() ? Arrangement.Rule.EVEN_ODD : Arrangement.Rule.NONZERO, effort);
            Arrangement.addRings(rings, area, true);
        }

        /** Lines of a shape, each round to where it began. */
        private List<Coordinate[]> loops(java.awt.Shape shape, AffineTransform transform) {
            List<Coordinate[]> loops = new ArrayList<>();
            List<Coordinate> loop = new ArrayList<>();
            double[] at = new double[6];
            for (PathIterator i = shape.getPathIterator(transform, FLATNESS); !i.isDone(); i.next()) {
                int segment = i.currentSegment(at);
                if (segment == PathIterator.SEG_MOVETO || segment == PathIterator.SEG_CLOSE) {
                    close(loop, loops);
                }
                if (segment != PathIterator.SEG_CLOSE) {
                    loop.add(corner(at[0], at[1]));
                } else if (!loops.isEmpty()) {
                    // What follows without a move begins where the last loop did.
                    loop.add(loops.get(loops.size() - 1)[0]);
                }
                if (++points > MOST_POINTS) {
                    break;
                }
            }
            close(loop, loops);
            return loops;
        }

        private static void close(List<Coordinate> loop, List<Coordinate[]> loops) {
            if (loop.size() > 2) {
                loop.add(loop.get(0));
                loops.add(loop.toArray(Coordinate[]::new));
            }
            loop.clear();
        }

        private Coordinate corner(double x, double y) {
            if (!(Math.abs(x) < FARTHEST && Math.abs(y) < FARTHEST)) {
                throw Refusal.of(
                        "The drawing has a corner at (%s, %s) mm, which is no place; scale it down or save it again.",
                        x, y);
            }
            return new CoordinateXY(x, y);
        }

        private String attribute(String name) {
            return xml.getAttributeValue(null, name);
        }

        /** From the style attribute, which wins, or the attribute of that name. */
        private String property(String name) {
            String style = attribute("style");
            if (style != null) {
                for (String declaration : style.split(";")) {
                    String[] parts = declaration.split(":", 2);
                    if (parts.length == 2 && parts[0].strip().equals(name)) {
                        return parts[1].strip();
                    }
                }
            }
            String plain = attribute(name);
            return plain == null ? null : plain.strip();
        }

        /** In user units inside the drawing, in mm for the drawing's own width and height. */
        private double length(String name, double otherwise) {
            String text = attribute(name);
            if (text == null || text.equals("auto")) {
                return otherwise;
            }
            Matcher m = LENGTH.matcher(text.strip().toLowerCase(Locale.ROOT));
            if (text.length() > LONGEST_NUMBER || !m.matches()) {
                throw refusal(name, text);
            }
            if (m.group(2).equals("%")) {
                return otherwise;
            }
            double perPixel =
                    switch (m.group(2)) {
                        case "", "px" -> 1;
                        case "mm" -> 1 / MILLIMETRES_PER_PIXEL;
                        case "cm" -> 10 / MILLIMETRES_PER_PIXEL;
                        case "in" -> 96;
                        case "pt" -> 96 / 72.0;
                        case "pc" -> 16;
                        default -> throw refusal(name, text);
                    };
            double pixels = Double.parseDouble(m.group(1)) * perPixel;
            return scopes.isEmpty() ? pixels * MILLIMETRES_PER_PIXEL : pixels;
        }

        private double[] numbers(String text, String what, int count) {
            String[] words = text.strip().split("[\\s,]+");
            double[] numbers = new double[count];
            if (words.length != count) {
                throw refusal(what, text);
            }
            for (int i = 0; i < count; i++) {
                try {
                    numbers[i] = Double.parseDouble(words[i]);
                } catch (NumberFormatException e) {
                    throw refusal(what, text);
                }
            }
            return numbers;
        }

        private Refusal refusal(String what, String text) {
            return Refusal.of(
                    "The drawing's %s on line %d, “%s”, cannot be read; save it again as plain SVG.",
                    what, xml.getLocation().getLineNumber(), Words.quoted(text));
        }

        private interface Parsing<T> {
            T run();
        }

        private static <T> T parsed(String what, String text, Parsing<T> parsing) {
            try {
                return parsing.run();
            } catch (ParseException e) {
                throw Refusal.of(
                        "The drawing's %s “%s” cannot be read; save it again as plain SVG.", what, Words.quoted(text));
            }
        }
    }
}
