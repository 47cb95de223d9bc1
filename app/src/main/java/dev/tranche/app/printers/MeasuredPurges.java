package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;

/** Lengths of filament people measured, as volumes, beside what the model says. */
@Service
public class MeasuredPurges {
    private final Workshop workshop;
    private final Shelf shelf;

    MeasuredPurges(Workshop workshop, Shelf shelf) {
        this.workshop = workshop;
        this.shelf = shelf;
    }

    /** A measured pair, in mm of filament, and what the model would have said. */
    record Row(Spool out, Spool in, double measured, double computed) {}

    /** @param length mm of filament */
    public void add(long printer, SpoolId out, SpoolId in, double length) {
        Filament filament = workshop.get(printer).printer().filament();
        if (out.isMixture() || in.isMixture()) {
            throw new Refusal("A blend is reckoned from its spools; measure those.");
        }
        if (length <= 0) {
            throw new Refusal("A measured purge needs a length above 0 mm of filament.");
        }
        workshop.measured(printer, new MeasuredPurge(out, in, filament.volume(length)));
    }

    List<Row> rows(Machine machine) {
        Map<SpoolId, Spool> spools = shelf.byId();
        Filament filament = machine.printer().filament();
        PurgeModel model = PurgeModel.usual(machine.printer().deadVolume());
        return machine.purges().stream()
                .map(m -> new Row(
                        spools.get(m.out()),
                        spools.get(m.in()),
                        filament.length(m.volume()),
                        filament.length(model.between(spools.get(m.out()), spools.get(m.in()))
                                .volume())))
                .toList();
    }

    /** What dead volume fits all that was measured on a printer. */
    public Optional<Volume> fitted(Machine machine) {
        return new PurgeModel(machine.printer().deadVolume(), PurgeSettings.USUAL, machine.purges())
                .fittedDeadVolume(shelf.byId());
    }
}
