package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HookNames;
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

    Machine printer(Seen at, PrinterForm form) {
        Rig typed = form.on(workshop.get(at.id()).rig());
        return workshop.edit(at.id(), at.seen(), "the printer's measures", rig -> typed);
    }

    Machine abilities(Seen at, AbilitiesForm form) {
        return workshop.edit(
                at.id(), at.seen(), "abilities", rig -> rig.with(rig.printer().with(form.abilities())));
    }

    Machine mend(Seen at, List<RigFinding> findings, String key) {
        RigFinding.Mend mend = findings.stream()
                .filter(f -> RigViews.key(f).equals(key))
                .findFirst()
                .flatMap(RigFinding::mend)
                .orElseThrow(() -> new Refusal("That finding is no longer there; it may be mended already."));
        return workshop.edit(at.id(), at.seen(), mend.label().toLowerCase(Locale.ROOT), mend.change());
    }

    // --- Macros

    Machine addMacro(Seen at, Event event, boolean ready) {
        return book(at, "add a " + event.title().toLowerCase(Locale.ROOT) + " macro", book -> {
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

    Machine takeReady(Seen at, SwapMethod method) {
        return book(at, "ready macros: " + method.title().toLowerCase(Locale.ROOT), book -> method.ready()
                .naming(book.hostNames())
                .naming(book.hookNames()));
    }

    Machine nameHost(Seen at, HostNames names) {
        return book(at, "the host's names", book -> book.naming(names));
    }

    Machine nameHooks(Seen at, HookNames names) {
        return book(at, "the slicing program's words", book -> book.naming(names));
    }

    Machine removeMacro(Seen at, int macro) {
        String name = macro(at.id(), macro).name();
        return book(at, "remove the macro " + name, book -> book.remove(macro));
    }

    Machine turn(Seen at, int macro, boolean on) {
        String name = macro(at.id(), macro).name();
        return change(at, macro, "switch " + name + (on ? " on" : " off"), m -> m.turned(on));
    }

    Machine describe(Seen at, int macro, MacroForm form) {
        return change(at, macro, "name and person's time of a macro", form::on);
    }

    // --- Steps

    Machine addStep(Seen at, int macro, Step step, int place) {
        return change(at, macro, "add " + step.title(), m -> m.insert(place, MacroStep.always(step)));
    }

    Machine changeStep(Seen at, int macro, int index, StepForm form) {
        MacroStep changed = form.on(macro(at.id(), macro).step(index));
        return change(at, macro, "change " + changed.step().title(), m -> m.replace(index, changed));
    }

    Machine moveStep(Seen at, int macro, int from, int to) {
        return change(at, macro, "move a step", m -> m.move(from, to));
    }

    Machine removeStep(Seen at, int macro, int index) {
        return change(at, macro, "remove a step", m -> m.remove(index));
    }

    // --- Rack

    Machine rack(Seen at, String label, UnaryOperator<Rack> change) {
        return workshop.edit(at.id(), at.seen(), label, rig -> rig.with(change.apply(rig.rack())));
    }

    Machine extruder(Seen at, int number, ExtruderForm form) {
        Optional<Spool> spool = form.spool() == null ? Optional.empty() : Optional.of(spool(form.spool()));
        return rack(at, "change T" + number, rack -> rack.replace(number, form.on(rack.extruder(number), spool)));
    }

    Machine feed(Seen at, int input, Long spool) {
        Optional<SpoolId> chosen = Optional.ofNullable(spool).map(s -> spool(s).id());
        return rack(at, "spool of input " + (input + 1), rack -> rack.feeding(input, chosen));
    }

    private Spool spool(long id) {
        return Optional.ofNullable(shelf.byId().get(new SpoolId(id)))
                .orElseThrow(() -> new Refusal("That spool is not on the shelf; choose another."));
    }

    private Machine book(Seen at, String label, UnaryOperator<MacroBook> change) {
        return workshop.edit(at.id(), at.seen(), label, rig -> rig.with(change.apply(rig.macros())));
    }

    private Machine change(Seen at, int macro, String label, UnaryOperator<Macro> change) {
        return book(at, label, book -> book.replace(macro, change.apply(book.macro(macro))));
    }

    private Macro macro(long id, int index) {
        return workshop.get(id).rig().macros().macro(index);
    }
}
