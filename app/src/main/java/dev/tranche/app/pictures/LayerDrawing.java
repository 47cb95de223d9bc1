package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * One layer from above.
 *
 * @param layer from 1
 * @param toPixels matrix that takes mm of the model to px, as SVG writes it
 * @param patches its plastic, a piece a region
 * @param ghost outline of the layer below
 * @param zones outlines of the zones that reach the layer
 * @param closings straight lines that close the outline where the model is open
 * @param lines of the bed's grid
 * @param pitch of that grid, mm
 * @param colours what it holds, one a spool
 */
public record LayerDrawing(
        int width,
        int height,
        int layer,
        String toPixels,
        List<Patch> patches,
        String ghost,
        List<Zone> zones,
        String closings,
        String lines,
        String pitch,
        List<Colour> colours) {
    private static final int MARGIN = 14;

    /**
     * The plastic of one region, or of the colour by height.
     *
     * @param hex the colour of a fade on this very layer; empty of anything else
     */
    public record Patch(SpoolMark mark, int region, String path, String hex) {}

    /**
     * The outline of a zone, whole, with its middle.
     *
     * @param movable what is traced of a file stays where it is
     */
    public record Zone(int region, String name, String path, double x, double y, boolean chosen, boolean movable) {}

    /** One colour of the layer in figures. */
    public record Colour(SpoolMark mark, String area, String perimeter, int pieces, boolean prints) {}

    /**
     * @param chosen region whose zone is being worked on, or −1
     * @param drawnIn whether the first layer is shown as its slicing program draws it in
     * @param outlines that are drawn already
     */
    public static LayerDrawing of(
            Workpiece work, int layer, int chosen, boolean drawnIn, Outlines outlines, int width, int height) {
        Frame frame = frame(work, width, height);
        LayerColours colours = work.colouring().layer(layer);
        double shrink = drawnIn && layer == 1 ? work.colours().layers().shrink() : 0;
        String ghost = layer == 1
                ? ""
                : outlines.of(work.cut().model().section(layer - 1).outline(), frame);
        Envelope box = work.cut().model().footprint();
        double pitch = Ticks.step(Math.max(box.getWidth(), box.getHeight()), 8);
        return new LayerDrawing(
                width,
                height,
                layer,
                Words.format("matrix(%s 0 0 %s %s %s)", frame.scaleX(), -frame.scaleY(), frame.x(0), frame.y(0)),
                colours.fields().stream()
                        .filter(f -> !f.isEmpty())
                        .map(f -> patch(work, layer, f, shrink, outlines, frame))
                        .toList(),
                ghost,
                zones(work, layer, chosen, outlines, frame),
                closings(work.cut().model().section(layer), frame),
                lines(frame, width, height, pitch),
                SvgPath.round(pitch),
                colours.tints().stream().map(t -> colour(work, t)).toList());
    }

    static Frame frame(Workpiece work, int width, int height) {
        Envelope box = work.cut().model().footprint();
        double scale = Math.min(
                (width - 2 * MARGIN) / Math.max(box.getWidth(), 1e-3),
                (height - 2 * MARGIN) / Math.max(box.getHeight(), 1e-3));
        double left = (width - box.getWidth() * scale) / 2;
        double bottom = (height + box.getHeight() * scale) / 2;
        return new Frame(left, bottom, box.getMinX(), box.getMinY(), scale, scale);
    }

    private static Patch patch(Workpiece work, int layer, Field field, double shrink, Outlines outlines, Frame frame) {
        MultiPolygon area = shrink == 0 ? field.area() : Areas.of(field.area().buffer(-shrink));
        SpoolMark mark = SpoolMark.of(work, field.spool());
        String hex = mark.fade().isEmpty()
                ? ""
                : work.paints().at(field.spool(), layer).colour().hex();
        return new Patch(mark, field.region(), outlines.of(area, frame), hex);
    }

    private static List<Zone> zones(Workpiece work, int layer, int chosen, Outlines outlines, Frame frame) {
        List<Zone> zones = new ArrayList<>();
        List<Region> regions = work.colours().regions().list();
        for (int i = 0; i < regions.size(); i++) {
            Region region = regions.get(i);
            boolean movable = region.shape() instanceof Shape.Zone;
            boolean covers = region.range().covers(layer, work.grid());
            // What is traced of a file has its colour's own outline, and is told apart only while it is worked on.
            if (covers && movable || i == chosen && (covers || movable)) {
                Optional<Shape> there = region.shape().on(layer, work.grid());
                if (there.isPresent() && there.get() instanceof Shape.Zone zone) {
                    zones.add(new Zone(
                            i,
                            region.name(),
                            outlines.of(zone.area(), frame),
                            frame.x(zone.x()),
                            frame.y(zone.y()),
                            i == chosen,
                            movable));
                }
            }
        }
        return zones;
    }

    private static String closings(Section section, Frame frame) {
        SvgPath path = new SvgPath();
        section.closings()
                .forEach(c -> path.move(frame.x(c.p0.x), frame.y(c.p0.y)).line(frame.x(c.p1.x), frame.y(c.p1.y)));
        return path.toString();
    }

    private static Colour colour(Workpiece work, Tint tint) {
        MultiPolygon area = tint.area();
        return new Colour(
                SpoolMark.of(work, tint.spool()),
                Words.format("%.1f", tint.squareMillimetres()),
                Words.format("%.0f", Areas.perimeter(area)),
                area.getNumGeometries(),
                tint.prints());
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
