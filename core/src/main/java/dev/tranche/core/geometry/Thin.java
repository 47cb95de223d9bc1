package dev.tranche.core.geometry;

import java.util.List;
import org.locationtech.jts.algorithm.InteriorPointArea;
import org.locationtech.jts.algorithm.construct.MaximumInscribedCircle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * What of an area is too thin for a line of plastic: what is lost when it is drawn in by half a line and let out again
 * (a morphological opening).
 *
 * @param area a stretch that is too thin, mm
 * @param width where it is widest, mm
 */
public record Thin(Polygon area, double width) {
    /** Less than this is the rounding of a corner, mm². */
    private static final double SPECK = 0.05;

    /** Whether a line {@code width} mm wide fits into {@code piece} anywhere. */
    public static boolean holdsLine(Polygon piece, double width) {
        double disc = width * width * Math.PI / 4;
        double area = Areas.size(piece);
        if (area < disc) {
            return false;
        }
        if (isBroad(piece, area, width / 2)) {
            return true;
        }
        // A disc of that width round the middle of the widest stretch settles it for nearly all.
        Coordinate middle = InteriorPointArea.getInteriorPoint(piece);
        if (middle != null && piece.getBoundary().distance(piece.getFactory().createPoint(middle)) >= width / 2) {
            return true;
        }
        return !piece.buffer(-width / 2).isEmpty();
    }

    /**
     * Whether area and perimeter alone prove that a disc of radius {@code r} fits. Drawn in by t, an area with n holes has a
     * rim of at most P + 2π t (n − 1): so were it all within r of its rim, its area would be at most r P + π r² (n − 1).
     *
     * <p>Source: B. Sz.-Nagy, "Über Parallelmengen nichtkonvexer ebener Bereiche", Acta Scientiarum Mathematicarum 20
     * (1959), from memory; checked against JTS.
     */
    private static boolean isBroad(Polygon piece, double area, double r) {
        return area > r * Areas.perimeter(piece) + Math.PI * r * r * Math.max(0, piece.getNumInteriorRing() - 1);
    }

    /** Every stretch of {@code area} that is thinner than {@code width} mm. */
    public static List<Thin> of(MultiPolygon area, double width) {
        return of(area, width, Integer.MAX_VALUE);
    }

    /** Not more than {@code most} of them; what comes after these is not looked at. */
    public static List<Thin> of(MultiPolygon area, double width, int most) {
        return of(area, width, most, Opening.AT_ONCE);
    }

    /** @param atOnce corners that are looked at together */
    static List<Thin> of(MultiPolygon area, double width, int most, int atOnce) {
        return Areas.polygons(area)
                .flatMap(piece -> new Opening(width, SPECK, most, atOnce).lost(piece).stream())
                .filter(stretch -> stretch.getArea() > SPECK)
                .limit(most)
                .map(stretch -> new Thin(stretch, 2 * inscribed(stretch)))
                .toList();
    }

    private static double inscribed(Polygon stretch) {
        return new MaximumInscribedCircle(stretch, 0.005).getRadiusLine().getLength();
    }
}
