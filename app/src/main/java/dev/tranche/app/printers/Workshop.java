package dev.tranche.app.printers;

import dev.tranche.app.storage.CoreJson;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.units.Refusal;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The printers a hobbyist owns, each with its swap macro. */
@Service
@Transactional
public class Workshop {
    private final PrinterRepository printers;
    private final CoreJson json;

    Workshop(PrinterRepository printers, CoreJson json) {
        this.printers = printers;
        this.json = json;
    }

    /** A printer with its macro, and the purges measured on it. */
    public record Machine(long id, Printer printer, SwapMacro macro, List<MeasuredPurge> purges) {}

    @Transactional(readOnly = true)
    public List<Machine> all() {
        return printers.findByRetiredFalseOrderById().stream()
                .map(this::machine)
                .toList();
    }

    @Transactional(readOnly = true)
    public Machine get(long id) {
        return machine(entity(id));
    }

    public Machine add(Printer printer, SwapMacro macro) {
        PrinterEntity entity = new PrinterEntity();
        write(entity, printer, macro);
        entity.purges = json.write(List.of());
        return machine(printers.save(entity));
    }

    public void change(long id, Printer printer, SwapMacro macro) {
        write(entity(id), printer, macro);
    }

    /** Keeps a measured purge; one already known for the pair is replaced. */
    public void measured(long id, MeasuredPurge purge) {
        List<MeasuredPurge> purges = new ArrayList<>(get(id).purges());
        purges.removeIf(p -> p.out().equals(purge.out()) && p.in().equals(purge.in()));
        purges.add(purge);
        entity(id).purges = json.write(purges);
    }

    public void forget(long id, SpoolId out, SpoolId in) {
        List<MeasuredPurge> purges = new ArrayList<>(get(id).purges());
        purges.removeIf(p -> p.out().equals(out) && p.in().equals(in));
        entity(id).purges = json.write(purges);
    }

    /** Takes a printer away; the caller has seen to it that no plan names it. */
    public void remove(long id) {
        entity(id).retired = true;
    }

    private void write(PrinterEntity entity, Printer printer, SwapMacro macro) {
        entity.printer = json.write(printer);
        entity.macro = json.write(macro);
    }

    private Machine machine(PrinterEntity e) {
        return new Machine(
                e.id,
                json.read(e.printer, Printer.class),
                json.read(e.macro, SwapMacro.class),
                List.of(json.read(e.purges, MeasuredPurge[].class)));
    }

    private PrinterEntity entity(long id) {
        return printers.findById(id).orElseThrow(() -> new Refusal("That printer is no longer there; choose another."));
    }
}
