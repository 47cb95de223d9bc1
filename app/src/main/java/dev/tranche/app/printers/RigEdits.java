package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.rig.RigFinding;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Service;

/** What people do on a printer's pages, as edits of a rig with a name for undo. */
@Service
class RigEdits {
    private final Workshop workshop;
    private final Shelf shelf;

    RigEdits(Workshop workshop, Shelf shelf) {
        this.workshop = workshop;
        this.shelf = shelf;
    }

    Machine printer(long id, long seen, PrinterForm form) {
        Rig typed = form.on(workshop.get(id).rig());
        return workshop.edit(id, seen, "the printer's measures", rig -> typed);
    }

    Machine abilities(long id, long seen, AbilitiesForm form) {
        return workshop.edit(
                id, seen, "abilities", rig -> rig.with(rig.printer().with(form.abilities())));
    }

    Machine mend(long id, long seen, List<RigFinding> findings, String key) {
        RigFinding.Mend mend = findings.stream()
                .filter(f -> RigViews.key(f).equals(key))
                .findFirst()
                .flatMap(RigFinding::mend)
                .orElseThrow(() -> new Refusal("That finding is no longer there; it may be mended already."));
        return workshop.edit(id, seen, mend.label().toLowerCase(Locale.ROOT), mend.change());
    }

    // --- Macros

    Machine addMacro(long id, long seen, Event event, boolean ready) {
        return book(id, seen, "add a " + event.title().toLowerCase(Locale.ROOT) + " macro", book -> {
            Macro beginning = ready
                    ? book.method().ready().macros().stream()
                            .filter(m -> m.event() == event)
                            .findFirst()
                            .orElseGet(() -> Macro.of(event))
                    : Macro.of(event);
            boolean only = book.firing(event).isEmpty();
            return book.add(beginning.named(freeName(book, event.title())).turned(only));
        });
    }

    private static String freeName(MacroBook book, String wanted) {
        String name = wanted;
        for (int i = 2; has(book, name); i++) {
            name = wanted + " " + i;
        }
        return name;
    }

    private static boolean has(MacroBook book, String name) {
        return book.macros().stream().anyMatch(m -> m.name().equals(name));
    }

    Machine takeReady(long id, long seen, SwapMethod method) {
        return book(id, seen, "ready macros: " + method.title().toLowerCase(Locale.ROOT), book -> method.ready()
                .naming(book.hostNames()));
    }

    Machine nameHost(long id, long seen, HostNames names) {
        return book(id, seen, "the host's names", book -> book.naming(names));
    }

    Machine removeMacro(long id, long seen, int macro) {
        String name = macro(id, macro).name();
        return book(id, seen, "remove the macro " + name, book -> book.remove(macro));
    }

    Machine turn(long id, long seen, int macro, boolean on) {
        String name = macro(id, macro).name();
        return change(id, seen, macro, "switch " + name + (on ? " on" : " off"), m -> m.turned(on));
    }

    Machine describe(long id, long seen, int macro, MacroForm form) {
        return change(id, seen, macro, "name and person's time of a macro", form::on);
    }

    // --- Steps

    Machine addStep(long id, long seen, int macro, Step step, int at) {
        return change(id, seen, macro, "add " + step.title(), m -> m.insert(at, MacroStep.always(step)));
    }

    Machine changeStep(long id, long seen, int macro, int index, StepForm form) {
        MacroStep changed = form.on(macro(id, macro).step(index));
        return change(id, seen, macro, "change " + changed.step().title(), m -> m.replace(index, changed));
    }

    Machine moveStep(long id, long seen, int macro, int from, int to) {
        return change(id, seen, macro, "move a step", m -> m.move(from, to));
    }

    Machine removeStep(long id, long seen, int macro, int index) {
        return change(id, seen, macro, "remove a step", m -> m.remove(index));
    }

    // --- Rack

    Machine rack(long id, long seen, String label, UnaryOperator<Rack> change) {
        return workshop.edit(id, seen, label, rig -> rig.with(change.apply(rig.rack())));
    }

    Machine extruder(long id, long seen, int number, ExtruderForm form) {
        Optional<Spool> spool = form.spool() == null ? Optional.empty() : Optional.of(spool(form.spool()));
        return rack(id, seen, "change T" + number, rack -> rack.replace(number, form.on(rack.extruder(number), spool)));
    }

    Machine feed(long id, long seen, int input, Long spool) {
        Optional<SpoolId> chosen = Optional.ofNullable(spool).map(s -> spool(s).id());
        return rack(id, seen, "spool of input " + (input + 1), rack -> rack.feeding(input, chosen));
    }

    private Spool spool(long id) {
        return Optional.ofNullable(shelf.byId().get(new SpoolId(id)))
                .orElseThrow(() -> new Refusal("That spool is not on the shelf; choose another."));
    }

    private Machine book(long id, long seen, String label, UnaryOperator<MacroBook> change) {
        return workshop.edit(id, seen, label, rig -> rig.with(change.apply(rig.macros())));
    }

    private Machine change(long id, long seen, int macro, String label, UnaryOperator<Macro> change) {
        return book(id, seen, label, book -> book.replace(macro, change.apply(book.macro(macro))));
    }

    private Macro macro(long id, int index) {
        return workshop.get(id).rig().macros().macro(index);
    }
}
