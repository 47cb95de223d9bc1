package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.look.Patch;
import dev.tranche.core.look.Ply;
import dev.tranche.core.look.View;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * A piece seen from one side, true to scale.
 *
 * @param scale px a mm
 * @param frame from mm to px; from beneath left and right are exchanged
 * @param ground what it lies on, or the light behind it, as #RRGGBB
 * @param stains one a colour, the largest first
 * @param bar length of a bar to measure by, mm
 */
public record PieceDrawing(
        int width, int height, double scale, Frame frame, String ground, List<Stain> stains, int bar) {
    private static final int EDGE = 16;
    /** Room below for the bar. */
    private static final int FOOT = 30;
    /** Less is not seen, px. */
    private static final double FINE = 0.2;

    private static final String PAPER = "#FFFFFF";

    /**
     * All that is seen in one colour.
     *
     * @param hex its colour
     * @param stack what lies there, nearest first
     * @param strange whether it is not the colour of its spool
     * @param areas where it is, mm
     */
    public record Stain(
            String hex,
            String stack,
            boolean strange,
            double squareMillimetres,
            String path,
            List<MultiPolygon> areas) {
        public String squareCentimetres() {
            return Words.format(squareMillimetres < 1000 ? "%.2f cm²" : "%.1f cm²", squareMillimetres / 100);
        }
    }

    /**
     * @param lamp how bright the light is behind a piece that is held to light, white paper being 1
     */
    public static PieceDrawing of(
            Workpiece work, View view, List<Patch> patches, boolean own, int lamp, int width, int height) {
        Envelope box = work.cut().model().footprint();
        double scale = Math.min(
                (width - 2 * EDGE) / Math.max(1e-6, box.getWidth()),
                (height - 2 * EDGE - FOOT) / Math.max(1e-6, box.getHeight()));
        int w = (int) Math.ceil(box.getWidth() * scale) + 2 * EDGE;
        int h = (int) Math.ceil(box.getHeight() * scale) + 2 * EDGE + FOOT;
        boolean turned = view == View.BELOW;
        Frame frame = new Frame(
                EDGE,
                h - EDGE - FOOT,
                turned ? box.getMaxX() : box.getMinX(),
                box.getMinY(),
                turned ? -scale : scale,
                scale);
        Map<String, List<Patch>> byColour = patches.stream()
                .collect(Collectors.groupingBy(p -> key(work, view, p, own), LinkedHashMap::new, Collectors.toList()));
        List<Stain> stains = new ArrayList<>();
        byColour.values().forEach(p -> stains.add(stain(work, view, p, own, lamp, frame)));
        return new PieceDrawing(
                w, h, scale, frame, PAPER, List.copyOf(stains), (int) Math.max(1, Ticks.step(box.getWidth(), 4)));
    }

    private static String key(Workpiece work, View view, Patch patch, boolean own) {
        return own ? patch.plies().get(0).paint().toString() : patch.plies().toString();
    }

    private static Stain stain(Workpiece work, View view, List<Patch> alike, boolean own, int lamp, Frame frame) {
        Patch first = alike.get(0);
        SvgPath path = SvgPath.coarse();
        List<MultiPolygon> areas = new ArrayList<>();
        for (Patch patch : alike) {
            for (Patch.Spot spot : patch.spots()) {
                areas.add(spot.area());
                path.polygons(spot.area(), frame, FINE);
            }
        }
        return new Stain(
                colour(work, view, first, own, lamp).hex(),
                own ? name(work, first.plies().get(0)) : stack(work, first),
                !own && (view == View.LIGHT || first.strangeness() > 3),
                alike.stream().mapToDouble(Patch::squareMillimetres).sum(),
                path.toString(),
                List.copyOf(areas));
    }

    private static Srgb colour(Workpiece work, View view, Patch patch, boolean own, int lamp) {
        Spool spool = work.paints().of(patch.plies().get(0).paint());
        if (own || view != View.LIGHT && patch.plies().get(0).isThick()) {
            return spool.colour();
        }
        LinearRgb c = patch.colour();
        double by = view == View.LIGHT ? lamp : 1;
        return Srgb.of(new LinearRgb(by * c.red(), by * c.green(), by * c.blue()));
    }

    private static String stack(Workpiece work, Patch patch) {
        return patch.plies().stream().map(p -> ply(work, p)).collect(Collectors.joining(" on "));
    }

    private static String ply(Workpiece work, Ply ply) {
        String name = name(work, ply);
        return ply.isThick() ? name : Words.format("%.2f mm of %s", ply.millimetres(), name);
    }

    /** A fade by what it is made of there. */
    private static String name(Workpiece work, Ply ply) {
        return work.colours()
                .mixtures()
                .find(ply.spool())
                .map(m -> m.recipe(ply.paint().shade()).name(s -> work.spool(s).name()))
                .orElseGet(() -> work.spool(ply.spool()).name());
    }

    /** Length of the bar, px. */
    public double barLength() {
        return SvgPath.hundredths(bar * scale);
    }

    /** From px to mm, as a transform that a browser can turn round. */
    public String matrix() {
        return Words.format("matrix(%.6f 0 0 %.6f %.4f %.4f)", frame.scaleX(), -frame.scaleY(), frame.x(0), frame.y(0));
    }
}
