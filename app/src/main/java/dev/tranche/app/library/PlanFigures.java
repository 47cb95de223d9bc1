package dev.tranche.app.library;

import dev.tranche.app.work.Workpiece;

/**
 * What a card says of a plan; kept, so that a list of plans reckons nothing.
 *
 * @param purge g
 * @param added s, as {@code total}
 */
record PlanFigures(int swaps, double purge, double added, double total, int layers, String printer) {

    static PlanFigures of(Workpiece work) {
        return new PlanFigures(
                work.ledger().spoolSwaps(),
                work.ledger().purgeGrams().value(),
                work.ledger().addedTime().value(),
                work.ledger().totalSeconds(),
                work.grid().count(),
                work.machine().printer().name());
    }
}
