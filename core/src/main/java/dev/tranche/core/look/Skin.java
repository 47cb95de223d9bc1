package dev.tranche.core.look;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Triangles;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.coverage.CoverageSimplifier;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineSegment;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;

/**
 * The outside of a printed piece as coloured triangles: every layer upright, as it is printed, with its colours. Layers of one
 * shape and colour are one; fades come in steps.
 *
 * <p>It is made for looking at, and simplified until all of it has some {@value #MOST} triangles: outlines by {@value #FINE} mm
 * at least and {@value #COARSE} mm at most; layers of the same colours are one that are together no thicker than
 * {@value #STEPS} times that. No hole and no peg is so small that it is left out, so that a sieve has as many as its holes need.
 */
public final class Skin {
    private static final int MOST = 40_000;
    /** More is no use than this above the fewest that there can be. */
    private static final double NEARLY = 1.2;

    private static final double FINE = 0.02;
    private static final double COARSE = 1;
    /** Steps of layers are seen less than outlines that are off, by so much. */
    private static final double STEPS = 3;

    /** The thickest that layers of slightly other shapes are drawn as one, mm. */
    public static final double THICKEST = STEPS * COARSE;

    /** A fade is drawn in so many steps. */
    private static final int TONES = 48;

    private static final int MOST_SLICES = 1_500;
    /** More corners of one outline take too long to be cut into triangles. */
    private static final int MOST_CORNERS = 60_000;
    /** How far beside a wall one looks whether there is plastic, mm. */
    private static final double BESIDE = 0.03;
    /** What is seen of a thin layer is laid over its surface at this height, mm. */
    private static final double OVER = 0.004;

    private float[] corners = new float[9 * 1024];
    private byte[] colours = new byte[3 * 1024];
    private int triangles;

    private final Colouring colouring;
    private final Paints paints;

    /** Layers {@code first} to {@code last} that are drawn as one. */
    private record Slice(int first, int last, LayerColours colours, MultiPolygon outline) {}

    private record Cell(SpoolId spool, MultiPolygon area) {}

    /**
     * A slice with outlines as they are drawn. Neighbours keep one border between them, or one would see through.
     *
     * @param outline of all its cells
     */
    private record Drawn(Slice slice, List<Cell> cells, MultiPolygon outline) {
        static Drawn of(Slice slice, double tolerance) {
            List<Cell> cells = slice.colours.tints().stream()
                    .flatMap(t -> t.cells().stream().map(c -> new Cell(t.spool(), c)))
                    .toList();
            if (cells.isEmpty()) {
                return new Drawn(slice, List.of(), Areas.NOTHING);
            }
            MultiPolygon[] areas = cells.stream().map(Cell::area).toArray(MultiPolygon[]::new);
            Geometry[] simple =
                    areas.length == 1 ? new Geometry[] {Skin.simple(areas[0], tolerance)} : simple(areas, tolerance);
            List<Cell> drawn = IntStream.range(0, areas.length)
                    .mapToObj(i -> new Cell(cells.get(i).spool, Areas.of(simple[i])))
                    .toList();
            return new Drawn(
                    slice,
                    drawn,
                    drawn.size() == 1
                            ? drawn.get(0).area
                            : Areas.union(drawn.stream().map(Cell::area).toList()));
        }

        /**
         * Corners go that make a triangle of less than this squared (Visvalingam and Whyatt). Corners s apart on a circle of
         * radius r are s²/8r off and make triangles of s³/2r; this is for a millimetre.
         */
        private static double side(double tolerance) {
            return Math.sqrt(4 * tolerance * Math.sqrt(8 * tolerance));
        }

        private static Geometry[] simple(Geometry[] areas, double tolerance) {
            CoverageSimplifier simplifier = new CoverageSimplifier(areas);
            simplifier.setRemovableRingSizeFactor(0);
            Geometry[] simple = simplifier.simplify(side(tolerance));
            return tolerance < COARSE && Arrays.stream(simple).anyMatch(a -> a.getNumPoints() > MOST_CORNERS)
                    ? simple(areas, 2 * tolerance)
                    : simple;
        }
    }

    private Skin(Colouring colouring, Paints paints) {
        this.colouring = colouring;
        this.paints = paints;
    }

    /** The whole piece, in its plan's own colours. */
    public static Skin of(Colouring colouring, Paints paints, Progress progress) {
        Skin skin = new Skin(colouring, paints);
        double tolerance = FINE;
        List<Slice> slices = skin.slices(tolerance);
        // What is of many small holes has its corners however coarse it is drawn.
        double most = Math.max(MOST, NEARLY * triangles(skin.slices(COARSE), COARSE));
        while (tolerance < COARSE && triangles(slices, tolerance) > most) {
            tolerance = Math.min(COARSE, tolerance * 1.3);
            slices = skin.slices(tolerance);
        }
        double roughness = tolerance;
        List<Drawn> drawn =
                slices.parallelStream().map(slice -> Drawn.of(slice, roughness)).toList();
        for (int i = 0; i < drawn.size(); i++) {
            progress.at(i, drawn.size());
            skin.add(
                    drawn.get(i),
                    i == 0 ? Areas.NOTHING : drawn.get(i - 1).outline,
                    i + 1 == drawn.size() ? Areas.NOTHING : drawn.get(i + 1).outline);
        }
        return skin;
    }

    /** Where it is cut above {@code layer}: the colours of that layer. */
    public static Skin cut(Colouring colouring, int layer, Paints paints) {
        Skin skin = new Skin(colouring, paints);
        double height = colouring.model().grid().top(layer).millimetres();
        for (Tint tint : colouring.layer(layer).tints()) {
            for (MultiPolygon cell : tint.cells()) {
                skin.face(
                        simple(cell, FINE),
                        height,
                        true,
                        paints.at(tint.spool(), layer).colour());
            }
        }
        return skin;
    }

    /**
     * What thin layers look like, to be laid over it.
     *
     * @param patches seen from {@code view}
     */
    public Skin with(List<Patch> patches, View view) {
        LayerGrid grid = colouring.model().grid();
        boolean above = view == View.ABOVE;
        for (Patch patch : patches) {
            if (patch.strangeness() > 1) {
                for (Patch.Spot spot : patch.spots()) {
                    double height = above
                            ? grid.top(spot.layer()).millimetres() + OVER
                            : grid.bottom(spot.layer()).millimetres() - OVER;
                    face(simple(spot.area(), FINE), height, above, Srgb.of(patch.colour()));
                }
            }
        }
        return this;
    }

    private List<Slice> slices(double tolerance) {
        LayerGrid grid = colouring.model().grid();
        double thick = STEPS * tolerance / grid.layerHeight().millimetres();
        int lump = Math.max(grid.count() / MOST_SLICES, (int) thick);
        List<Slice> slices = new ArrayList<>();
        int first = 1;
        for (int layer = 1; layer <= grid.count(); layer++) {
            boolean goesOn = layer < grid.count()
                    && tones(layer + 1).equals(tones(first))
                    && (colouring.layer(layer + 1) == colouring.layer(first)
                            || layer - first + 1 < lump
                                    && colouring
                                            .layer(layer + 1)
                                            .spools()
                                            .equals(colouring.layer(first).spools()));
            if (!goesOn) {
                int middle = (first + layer) / 2;
                slices.add(new Slice(
                        first,
                        layer,
                        colouring.layer(middle),
                        colouring.model().section(middle).outline()));
                first = layer + 1;
            }
        }
        return slices;
    }

    /** What tells two layers of the same paints apart: how far each of their fades has turned, roughly. */
    private List<Integer> tones(int layer) {
        return paints.mixtures().list().isEmpty()
                ? List.of()
                : colouring.layer(layer).tints().stream()
                        .map(t -> paints.shaded(t.spool(), layer).shade() * TONES / Mixture.TURNED)
                        .toList();
    }

    /** About how many there will be. */
    private static long triangles(List<Slice> slices, double tolerance) {
        return slices.parallelStream()
                .flatMap(s -> Areas.polygons(s.outline))
                .flatMap(Areas::rings)
                .mapToLong(ring -> 4L * simple(ring, tolerance).getNumPoints())
                .sum();
    }

    private static MultiPolygon simple(MultiPolygon area, double tolerance) {
        MultiPolygon pieces = area.getFactory()
                .createMultiPolygon(Areas.polygons(area)
                        .map(piece -> simple(piece, tolerance))
                        .toArray(Polygon[]::new));
        MultiPolygon simple = pieces.isValid() ? pieces : Areas.of(pieces.buffer(0));
        return simple.getNumPoints() > MOST_CORNERS && tolerance < COARSE ? simple(area, 2 * tolerance) : simple;
    }

    private static Polygon simple(Polygon piece, double tolerance) {
        List<LinearRing> rings =
                Areas.rings(piece).map(ring -> simple(ring, tolerance)).toList();
        return piece.getFactory()
                .createPolygon(rings.get(0), rings.subList(1, rings.size()).toArray(LinearRing[]::new));
    }

    /** Without corners that are less than the tolerance off, but those without which a ring would be gone. */
    private static LinearRing simple(LinearRing ring, double tolerance) {
        double half = Area.ofRing(ring.getCoordinateSequence()) / ring.getLength();
        Geometry simple = DouglasPeuckerSimplifier.simplify(ring, Math.min(tolerance, half / 2));
        return simple instanceof LinearRing left && !left.isEmpty() ? left : ring;
    }

    private void add(Drawn drawn, MultiPolygon below, MultiPolygon above) {
        LayerGrid grid = colouring.model().grid();
        Slice slice = drawn.slice;
        double low = grid.bottom(slice.first).millimetres();
        double high = grid.top(slice.last).millimetres();
        boolean one = drawn.cells.size() == 1;
        Coordinate[] ofUpper = inOrder(above);
        Coordinate[] ofLower = inOrder(below);
        IndexedPointInAreaLocator plastic = new IndexedPointInAreaLocator(drawn.outline);
        for (Cell cell : drawn.cells) {
            Srgb colour = paints.at(cell.spool, (slice.first + slice.last) / 2).colour();
            // What the next layer covers is not seen; drawn all the same, it would be drawn a hundredfold.
            MultiPolygon top = above.equalsExact(drawn.outline) ? Areas.NOTHING : Areas.difference(cell.area, above);
            MultiPolygon bottom = below.equalsExact(drawn.outline) ? Areas.NOTHING : Areas.difference(cell.area, below);
            face(top, high, true, colour);
            face(bottom, low, false, colour);
            walls(
                    cell.area,
                    new Seam(low, inOrder(bottom), ofLower),
                    new Seam(high, inOrder(top), ofUpper),
                    colour,
                    c -> one || plastic.locate(c) == Location.EXTERIOR);
        }
    }

    /**
     * Where a wall ends: corners of others that lie on its edge are corners of it, too.
     *
     * @param face corners of what of the wall's own ends there, in their order
     * @param next corners of what lies beyond, in theirs
     */
    private record Seam(double height, Coordinate[] face, Coordinate[] next) {
        private static final double ON = 1e-7;

        List<Coordinate> along(Coordinate from, Coordinate to) {
            LineSegment edge = new LineSegment(from, to);
            List<Coordinate> between = new ArrayList<>();
            addOn(edge, face, between);
            addOn(edge, next, between);
            if (between.isEmpty()) {
                return List.of(from, to);
            }
            between.sort(Comparator.comparingDouble(from::distance));
            between.add(0, from);
            between.add(to);
            return between.stream().distinct().toList();
        }

        private static void addOn(LineSegment edge, Coordinate[] others, List<Coordinate> on) {
            double lowest = edge.minY() - ON;
            double highest = edge.maxY() + ON;
            Coordinate before = new Coordinate(edge.minX() - ON, Double.NEGATIVE_INFINITY);
            int at = -Arrays.binarySearch(others, before) - 1;
            while (at < others.length && others[at].x <= edge.maxX() + ON) {
                Coordinate other = others[at++];
                // Holes of a grid stand above one another by the hundred: a look at Y saves nearly all distances.
                if (other.y >= lowest
                        && other.y <= highest
                        && !other.equals2D(edge.p0)
                        && !other.equals2D(edge.p1)
                        && edge.distance(other) < ON) {
                    on.add(other);
                }
            }
        }
    }

    private static Coordinate[] inOrder(Geometry area) {
        Coordinate[] corners = area.getCoordinates();
        Arrays.sort(corners);
        return corners;
    }

    private void walls(Geometry area, Seam foot, Seam head, Srgb colour, Predicate<Coordinate> outside) {
        for (int p = 0; p < area.getNumGeometries(); p++) {
            if (area.getGeometryN(p) instanceof Polygon polygon && !polygon.isEmpty()) {
                Polygon wound = (Polygon) polygon.norm().reverse();
                wall(wound.getExteriorRing(), foot, head, colour, outside);
                for (int r = 0; r < wound.getNumInteriorRing(); r++) {
                    wall(wound.getInteriorRingN(r), foot, head, colour, outside);
                }
            }
        }
    }

    /** Of a ring that has its plastic on the left. */
    private void wall(LineString ring, Seam foot, Seam head, Srgb colour, Predicate<Coordinate> outside) {
        Coordinate[] c = ring.getCoordinates();
        for (int i = 1; i < c.length; i++) {
            double dx = c[i].x - c[i - 1].x;
            double dy = c[i].y - c[i - 1].y;
            double length = Math.hypot(dx, dy);
            if (length > 0
                    && outside.test(new Coordinate(
                            (c[i].x + c[i - 1].x) / 2 + BESIDE * dy / length,
                            (c[i].y + c[i - 1].y) / 2 - BESIDE * dx / length))) {
                List<Coordinate> below = foot.along(c[i - 1], c[i]);
                List<Coordinate> above = head.along(c[i - 1], c[i]);
                for (int b = 1; b < below.size(); b++) {
                    triangle(colour, below.get(b - 1), foot.height, below.get(b), foot.height, c[i - 1], head.height);
                }
                for (int a = 1; a < above.size(); a++) {
                    triangle(colour, c[i], foot.height, above.get(a), head.height, above.get(a - 1), head.height);
                }
            }
        }
    }

    private void face(MultiPolygon area, double height, boolean up, Srgb colour) {
        Areas.polygons(area).forEach(polygon -> {
            Coordinate[] c = Triangles.of(polygon);
            for (int i = 0; i < c.length; i += 3) {
                triangle(colour, c[i], height, c[up ? i + 1 : i + 2], height, c[up ? i + 2 : i + 1], height);
            }
        });
    }

    private void triangle(Srgb colour, Coordinate a, double az, Coordinate b, double bz, Coordinate c, double cz) {
        if (corners.length < 9 * (triangles + 1)) {
            corners = Arrays.copyOf(corners, 2 * corners.length);
            colours = Arrays.copyOf(colours, 2 * colours.length);
        }
        float[] of = {
            (float) a.x,
            (float) a.y,
            (float) az,
            (float) b.x,
            (float) b.y,
            (float) bz,
            (float) c.x,
            (float) c.y,
            (float) cz
        };
        System.arraycopy(of, 0, corners, 9 * triangles, 9);
        colours[3 * triangles] = (byte) colour.red();
        colours[3 * triangles + 1] = (byte) colour.green();
        colours[3 * triangles + 2] = (byte) colour.blue();
        triangles++;
    }

    public int triangles() {
        return triangles;
    }

    /** X, Y or Z of corner 0, 1 or 2 of a triangle, mm; corners run counter-clockwise seen from outside. */
    public float corner(int triangle, int corner, int axis) {
        return corners[9 * triangle + 3 * corner + axis];
    }

    /** Red, green or blue of a triangle, 0…255. */
    public int colour(int triangle, int channel) {
        return colours[3 * triangle + channel] & 0xFF;
    }
}
