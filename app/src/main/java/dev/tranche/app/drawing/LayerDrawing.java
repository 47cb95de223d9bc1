package dev.tranche.app.drawing;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Section;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;

/**
 * One layer from above.
 *
 * @param layer from 1
 * @param mark of its spool
 * @param path of its plastic
 * @param ghost outline of the layer below
 * @param lines of the bed's grid
 * @param pitch of that grid, mm
 * @param area mm²
 * @param pieces how many separate ones
 */
public record LayerDrawing(
        int width,
        int height,
        int layer,
        SpoolMark mark,
        String path,
        String ghost,
        String lines,
        String pitch,
        String area,
        int pieces) {
    private static final int MARGIN = 14;

    public static LayerDrawing of(Workpiece work, int layer, int width, int height) {
        Envelope box = work.cut().model().mesh().footprint();
        double scale = Math.min(
                (width - 2 * MARGIN) / Math.max(box.getWidth(), 1e-3),
                (height - 2 * MARGIN) / Math.max(box.getHeight(), 1e-3));
        double left = (width - box.getWidth() * scale) / 2;
        double bottom = (height + box.getHeight() * scale) / 2;
        Frame frame = new Frame(left, bottom, box.getMinX(), box.getMinY(), scale, scale);
        Section section = work.cut().model().section(layer);
        String ghost = layer == 1 ? "" : outline(work.cut().model().section(layer - 1), frame);
        double pitch = Ticks.step(Math.max(box.getWidth(), box.getHeight()), 8);
        return new LayerDrawing(
                width,
                height,
                layer,
                SpoolMark.of(work, work.trancheOf(layer).spool()),
                outline(section, frame),
                ghost,
                lines(frame, width, height, pitch),
                SvgPath.round(pitch),
                String.format(Locale.ROOT, "%.1f", section.area()),
                section.outline().getNumGeometries());
    }

    /** To a third of a pixel: finer than anyone sees, coarser than a scanned model. */
    private static String outline(Section section, Frame frame) {
        MultiPolygon polygons = section.outline();
        var drawn = polygons.getNumPoints() < 400
                ? polygons
                : DouglasPeuckerSimplifier.simplify(polygons, 0.33 / frame.scaleX());
        return new SvgPath().polygons(drawn, frame).toString();
    }

    private static String lines(Frame frame, int width, int height, double pitch) {
        List<Double> xs = steps(frame.left(), frame.originX(), frame.scaleX(), width, pitch);
        SvgPath path = new SvgPath();
        xs.forEach(x -> path.move(x, 0).line(x, height));
        for (double y : steps(height - frame.bottom(), frame.originY(), frame.scaleY(), height, pitch)) {
            path.move(0, height - y).line(width, height - y);
        }
        return path.toString();
    }

    private static List<Double> steps(double start, double origin, double scale, double size, double pitch) {
        List<Double> at = new ArrayList<>();
        double first = Math.ceil((origin - start / scale) / pitch) * pitch;
        for (double mm = first; start + (mm - origin) * scale <= size; mm += pitch) {
            at.add(start + (mm - origin) * scale);
        }
        return at;
    }
}
