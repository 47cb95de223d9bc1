package dev.tranche.app.pictures;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.sequence.Band;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;

/**
 * The section with its bands as brackets beside it.
 *
 * @param section without rulers
 * @param width px of the whole, with the brackets
 */
public record BandDrawing(SectionDrawing section, int width, List<Bracket> brackets) {
    private static final double CLOSEST = 13;

    /**
     * @param y px of its upper end
     * @param bottom px of its lower end
     * @param cut whether it ends for another reason than its height
     * @param text its layers, where there is room
     */
    public record Bracket(double y, double bottom, boolean cut, String text, String title) {}

    public static BandDrawing of(Workpiece work, List<Band> bands, int width, int height) {
        SectionDrawing section = SectionDrawing.small(work, width - 70, height);
        List<Bracket> brackets = new ArrayList<>();
        double lastText = Double.POSITIVE_INFINITY;
        for (Band band : bands) {
            double top = section.bottom() - work.grid().top(band.last()).millimetres() * section.perMillimetre();
            double bottom = section.bottom() - work.grid().bottom(band.first()).millimetres() * section.perMillimetre();
            double middle = (top + bottom) / 2;
            boolean room = lastText - middle >= CLOSEST;
            lastText = room ? middle : lastText;
            String layers = Words.layers(band.first(), band.last());
            brackets.add(new Bracket(
                    top,
                    bottom,
                    band.end() instanceof Band.End.Circle || band.end() instanceof Band.End.Halt,
                    room ? layers.substring(layers.indexOf(' ') + 1) : "",
                    layers));
        }
        return new BandDrawing(section, width, brackets);
    }
}
