package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import org.locationtech.jts.geom.Point;

/**
 * Stretches of one layer into which no line of plastic fits, as its {@link LayerDrawing} shows them.
 *
 * @param more whether there are others, which are not marked
 */
public record ThinDrawing(List<Stretch> stretches, boolean more) {
    /** No more are marked on one drawing. */
    private static final int MOST = 40;

    /** So many of a colour are enough to know which to mark, and whether there are more. */
    public static final int TOLD = MOST + 1;

    /** Room that a width takes, px. */
    private static final double WIDE = 26;

    private static final double TALL = 11;

    /**
     * A stretch with its width, mm.
     *
     * @param labelled whether there is room to write the width beside it
     */
    public record Stretch(String path, double x, double y, String width, boolean labelled) {
        private boolean isBeside(double otherX, double otherY) {
            return Math.abs(x - otherX) < WIDE && Math.abs(y - otherY) < TALL;
        }
    }

    /**
     * @param tooThin what of a colour is thinner than a width, mm
     * @param width of that drawing, px
     * @param height of that drawing, px
     */
    public static ThinDrawing of(
            Workpiece work, int layer, BiFunction<Tint, Double, List<Thin>> tooThin, int width, int height) {
        Frame frame = LayerDrawing.frame(work, width, height);
        double line = work.machine().printer().lineWidth();
        List<Stretch> stretches = new ArrayList<>();
        List<Thin> found = work.colouring().layer(layer).tints().stream()
                .flatMap(tint -> tooThin.apply(tint, line).stream())
                .limit(TOLD)
                .toList();
        found.stream().limit(MOST).forEach(thin -> stretches.add(stretch(thin, frame, stretches)));
        return new ThinDrawing(List.copyOf(stretches), found.size() > MOST);
    }

    private static Stretch stretch(Thin thin, Frame frame, List<Stretch> others) {
        Point at = thin.area().getInteriorPoint();
        double x = frame.x(at.getX());
        double y = frame.y(at.getY());
        return new Stretch(
                new SvgPath().polygons(Areas.of(thin.area()), frame).toString(),
                x,
                y,
                Words.format("%.2f", thin.width()),
                others.stream().noneMatch(o -> o.labelled && o.isBeside(x, y)));
    }
}
