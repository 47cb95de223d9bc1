package dev.tranche.app.api;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.SpoolUse;
import dev.tranche.core.estimate.Swap;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;

/** A ledger as it is sent. */
record LedgerAnswer(
        @Schema(description = "name of the plan") String name,
        @Schema(description = "the printer it is reckoned for") String printer,
        int layers,
        int copies,
        @Schema(description = "whether times come from sliced G-code, or are estimated from the model")
                boolean timedFromGcode,
        @Schema(description = "spool to load before the start") String firstSpool,
        List<SwapAnswer> swaps,
        @Schema(description = "how many of them change a spool; the others only turn what the nozzle blends")
                int spoolSwaps,
        @Schema(description = "purge pushed through at all swaps, mm of filament") double purgeMillimetres,
        @Schema(description = "what is thrown away, with a tower's idle layers") double wasteGrams,
        @Schema(description = "the same print in one colour") double plainSeconds,
        @Schema(description = "what colours add: exactly the whole less the plain print") double addedSeconds,
        double totalSeconds,
        @Schema(description = "plastic, and current where a tariff is set") double cost,
        String currency,
        List<SpoolAnswer> spools,
        List<FindingAnswer> findings,
        @Schema(description = "each figure with what it was computed from") List<FigureAnswer> figures) {

    record SwapAnswer(
            @Schema(description = "from 1; turns of a blend are counted apart from swaps of a spool") int number,
            int layer,
            @Schema(description = "the layer as programs that count from 0 show it") int layerFromZero,
            @Schema(description = "whether it comes inside the layer, not before it") boolean withinLayer,
            @Schema(description = "of the nozzle, mm") double height,
            String out,
            String in,
            double purgeMillimetres,
            @Schema(description = "from the start of the print, earlier swaps included") double startsAtSeconds,
            double seconds,
            @Schema(description = "whether somebody has to be there") boolean needsPerson,
            @Schema(description = "whether only what the nozzle blends turns, and no spool is changed")
                    boolean turnsOnly) {}

    record SpoolAnswer(
            String letter,
            String name,
            double grams,
            double wasteGrams,
            double gramsLeft,
            double seconds,
            double cost) {}

    record FindingAnswer(
            String severity,
            String key,
            String sentence,
            Integer layer,
            @Schema(description = "what accepting it means; nothing if it cannot be accepted") String acceptance,
            boolean accepted) {}

    record FigureAnswer(String label, double value, String unit, String how, List<FigureAnswer> parts) {
        static FigureAnswer of(Derivation d) {
            return new FigureAnswer(
                    d.label(),
                    d.value(),
                    d.unit().name(),
                    d.how(),
                    d.parts().stream().map(FigureAnswer::of).toList());
        }
    }

    static LedgerAnswer of(Workpiece work, String currency) {
        Ledger ledger = work.ledger();
        return new LedgerAnswer(
                work.plan().name(),
                work.machine().printer().name(),
                work.grid().count(),
                ledger.terms().copies(),
                work.match().isPresent(),
                work.label(work.firstSpool()),
                ledger.swaps().stream().map(s -> swap(work, s)).toList(),
                ledger.spoolSwaps(),
                ledger.purgeLength().value(),
                ledger.wasteGrams().value(),
                ledger.plainSeconds(),
                ledger.addedSeconds(),
                ledger.totalSeconds(),
                ledger.cost().value(),
                currency,
                ledger.uses().stream().map(u -> spool(work, u)).toList(),
                work.findings().stream().map(LedgerAnswer::finding).toList(),
                ledger.figures().stream().map(FigureAnswer::of).toList());
    }

    private static SwapAnswer swap(Workpiece work, Swap s) {
        return new SwapAnswer(
                s.moment().number(),
                s.layer(),
                s.layer() - 1,
                s.within(),
                s.height().millimetres(),
                work.label(s.out()),
                work.label(s.in()),
                work.ledger().filament().length(s.pushed()),
                s.startsAt(),
                s.seconds(),
                s.needsPerson(),
                s.turns());
    }

    private static SpoolAnswer spool(Workpiece work, SpoolUse u) {
        return new SpoolAnswer(
                String.valueOf(work.colours().letter(u.spool().id())),
                u.spool().name(),
                u.grams(),
                u.wasteGrams(),
                u.spool().gramsLeft(),
                u.seconds(),
                u.cost().doubleValue());
    }

    static FindingAnswer finding(Finding f) {
        return new FindingAnswer(
                f.severity().name(),
                f.key(),
                f.sentence(),
                f.layer().isPresent() ? f.layer().getAsInt() : null,
                f.acceptance().orElse(null),
                f.accepted());
    }
}
