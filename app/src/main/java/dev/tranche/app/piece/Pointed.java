package dev.tranche.app.piece;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.look.Skin;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Pick;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * What somebody pointed at on a piece.
 *
 * @param layer it is of
 * @param what it is, for people
 */
public record Pointed(int layer, String what) {

    /**
     * What lies at a place of its surface, of the nearest layer that reaches so far.
     *
     * @param x mm in the model's own axes, as {@code y}
     * @param z mm above the bed
     */
    static Optional<Pointed> at(Workpiece work, double x, double y, double z) {
        double most = work.grid().printedHeight().millimetres();
        int layer = work.grid().layerAt(Height.ofMillimetres(Math.max(0, Math.min(most, z))));
        // What is drawn of a slope is not where each of its layers ends.
        int reach = (int) Math.ceil(Skin.THICKEST / work.grid().layerHeight().millimetres());
        return IntStream.rangeClosed(0, 2 * reach)
                .map(i -> i % 2 == 0 ? layer - i / 2 : layer + (i + 1) / 2)
                .filter(near -> near >= 1 && near <= work.grid().count())
                .mapToObj(near -> Pick.at(work.colouring(), near, x, y).map(p -> of(work, near, p)))
                .flatMap(Optional::stream)
                .findFirst();
    }

    /** What is seen at a place, from above or from beneath. */
    static Optional<Pointed> seen(Workpiece work, double x, double y, boolean above) {
        int count = work.grid().count();
        for (int i = 0; i < count; i++) {
            int layer = above ? count - i : i + 1;
            Optional<Pick> pick = Pick.at(work.colouring(), layer, x, y);
            if (pick.isPresent()) {
                return pick.map(p -> of(work, layer, p));
            }
        }
        return Optional.empty();
    }

    private static Pointed of(Workpiece work, int layer, Pick pick) {
        String region = pick.region() == Field.BASE
                ? ""
                : " of “" + work.colours().regions().get(pick.region()).name() + "”";
        return new Pointed(
                layer,
                Words.format(
                        "%s %s%s on layer %d, %s to %s mm",
                        work.colours().letter(pick.spool()),
                        work.spool(pick.spool()).name(),
                        region,
                        layer,
                        work.grid().bottom(layer),
                        work.grid().top(layer)));
    }
}
