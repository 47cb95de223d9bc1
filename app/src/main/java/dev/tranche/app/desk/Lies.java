package dev.tranche.app.desk;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Pick;
import java.util.Optional;

/** What somebody means who points at plastic of a layer: a zone or trace, else a part of several, else the colour by height. */
sealed interface Lies {
    /** @param region its place in the order */
    record InZone(int region) implements Lies {}

    /** @param part number of the solid */
    record InPart(int part) implements Lies {}

    /** @param start number of the colour start whose band it is */
    record ByHeight(int start) implements Lies {}

    static Lies of(Workpiece work, int layer, Pick pick) {
        if (pick.region() != Field.BASE
                && !work.colours().regions().get(pick.region()).shape().isByPart()) {
            return new InZone(pick.region());
        }
        return pick.part().isPresent() && work.partNames().size() > 1
                ? new InPart(pick.part().getAsInt())
                : new ByHeight(work.trancheOf(layer).index());
    }

    /** What lies at (x, y), mm of the model, on the layer that the page shows. */
    static Optional<Pick> pick(Workpiece work, Shown at, double x, double y) {
        return Pick.at(work.colouring(), layer(work, at), x, y);
    }

    static int layer(Workpiece work, Shown at) {
        return DeskViews.limited(work, at.layer() == null ? 1 : at.layer());
    }
}
