package dev.tranche.app.printers;

import dev.tranche.app.history.Broken;
import dev.tranche.app.history.Histories;
import dev.tranche.app.history.Reading;
import dev.tranche.app.history.Version;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.LastRead;
import dev.tranche.app.storage.Restored;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The printers a hobbyist owns, each set up for swapping. Every edit is a revision that undo takes back. */
@Service
@Transactional(noRollbackFor = Broken.class)
public class Workshop {
    private final PrinterRepository printers;
    private final Histories histories;
    private final Json json;
    private final LastRead<List<Machine>> all = new LastRead<>();

    Workshop(PrinterRepository printers, Histories histories, Json json) {
        this.printers = printers;
        this.histories = histories;
        this.json = json;
    }

    /**
     * A printer as it is stored.
     *
     * @param version of its rig
     * @param purges measured on it
     * @param origin the printer it is a variant of
     */
    public record Machine(long id, Version<Rig> version, List<MeasuredPurge> purges, Optional<Long> origin) {
        public Rig rig() {
            return version.content();
        }

        public Printer printer() {
            return rig().printer();
        }
    }

    /** All that can be read. */
    @Reading
    public List<Machine> all() {
        return all.get(() -> printers.findByRetiredFalseOrderById().stream()
                .flatMap(e -> whole(e).stream())
                .toList());
    }

    /** What tells one state of each printer from any other, in one statement. */
    @Reading
    public Map<Long, String> stamps() {
        return printers.stamps().stream()
                .collect(Collectors.toMap(
                        row -> (Long) row[0],
                        row -> row[1] + "-" + row[2].toString().hashCode()));
    }

    /** Printers that cannot be read; their own pages say why. */
    @Reading
    public List<Long> broken() {
        return printers.findByRetiredFalseOrderById().stream()
                .filter(e -> whole(e).isEmpty())
                .map(e -> e.id)
                .toList();
    }

    /** A printer, if it is there and can be read. */
    @Reading
    public Optional<Machine> find(long id) {
        return printers.findById(id).flatMap(this::whole);
    }

    private Optional<Machine> whole(PrinterEntity e) {
        try {
            return Optional.of(machine(e));
        } catch (Broken said) {
            return Optional.empty();
        }
    }

    @Reading
    public Machine get(long id) {
        return all().stream().filter(m -> m.id() == id).findFirst().orElseGet(() -> machine(entity(id)));
    }

    public Machine add(Rig rig) {
        return add(rig, Optional.empty());
    }

    /** A copy of a printer under a name of its own. */
    public Machine variant(long id, String name) {
        Rig rig = get(id).rig();
        return add(rig.with(rig.printer().named(name)), Optional.of(id));
    }

    private Machine add(Rig rig, Optional<Long> origin) {
        all.changed();
        PrinterEntity entity = new PrinterEntity();
        entity.purges = PrinterFormat.PURGES.write(List.of(), json);
        entity.origin = origin.orElse(null);
        printers.save(entity);
        return machine(entity, histories.begin(history(entity.id), rig));
    }

    /**
     * Makes an edit.
     *
     * @param seen the edition the page showed when the edit was made
     * @param label what it does, for undo
     */
    public Machine edit(long id, long seen, String label, UnaryOperator<Rig> change) {
        all.changed();
        return machine(entity(id), histories.edit(history(id), seen, label, change));
    }

    public Machine undo(long id, long seen) {
        all.changed();
        return machine(entity(id), histories.undo(history(id), seen));
    }

    public Machine redo(long id, long seen) {
        all.changed();
        return machine(entity(id), histories.redo(history(id), seen));
    }

    /** Keeps a measured purge; one already known for the pair is replaced. */
    public void measured(long id, MeasuredPurge purge) {
        List<MeasuredPurge> purges = new ArrayList<>(get(id).purges());
        purges.removeIf(p -> p.out().equals(purge.out()) && p.in().equals(purge.in()));
        purges.add(purge);
        all.changed();
        entity(id).purges = PrinterFormat.PURGES.write(purges, json);
    }

    public void forget(long id, SpoolId out, SpoolId in) {
        List<MeasuredPurge> purges = new ArrayList<>(get(id).purges());
        purges.removeIf(p -> p.out().equals(out) && p.in().equals(in));
        all.changed();
        entity(id).purges = PrinterFormat.PURGES.write(purges, json);
    }

    /** Takes a printer away; the caller has seen to it that no plan names it. */
    public void remove(long id) {
        all.changed();
        entity(id).retired = true;
    }

    @EventListener(Restored.class)
    public void restored() {
        all.changed();
    }

    public void restore(long id) {
        all.changed();
        entity(id).retired = false;
    }

    /** What was taken away and can be read, the last first. */
    @Reading
    public List<Machine> removed() {
        return printers.findByRetiredTrueOrderByIdDesc().stream()
                .flatMap(e -> whole(e).stream())
                .toList();
    }

    private static Histories.Owner<Rig> history(long id) {
        return new Histories.Owner<>("printer", Long.toString(id), PrinterFormat.RIG);
    }

    private Machine machine(PrinterEntity e) {
        return machine(e, histories.now(history(e.id)));
    }

    private Machine machine(PrinterEntity e, Version<Rig> version) {
        return new Machine(e.id, version, PrinterFormat.PURGES.read(e.purges, 1, json), Optional.ofNullable(e.origin));
    }

    private PrinterEntity entity(long id) {
        return printers.findById(id).orElseThrow(() -> new Refusal("That printer is no longer there; choose another."));
    }
}
