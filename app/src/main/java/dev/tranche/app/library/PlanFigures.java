package dev.tranche.app.library;

import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.work.Workpiece;
import java.util.List;

/**
 * What a card shows of a plan; kept, so that a list of plans reckons nothing.
 *
 * @param purge g
 * @param added s, as {@code total}
 * @param outline of the small section, px
 */
record PlanFigures(
        int swaps,
        double purge,
        double added,
        double total,
        int layers,
        String printer,
        int width,
        int height,
        String outline,
        List<SectionDrawing.Stratum> strata) {

    static PlanFigures of(Workpiece work) {
        SectionDrawing small = SectionDrawing.small(work, 260, 130);
        return new PlanFigures(
                work.ledger().spoolSwaps(),
                work.ledger().purgeGrams().value(),
                work.ledger().addedTime().value(),
                work.ledger().totalSeconds(),
                work.grid().count(),
                work.machine().printer().name(),
                small.width(),
                small.height(),
                small.outline(),
                small.strata());
    }

    public List<SpoolMark> marks() {
        return strata.stream().map(SectionDrawing.Stratum::mark).toList();
    }
}
