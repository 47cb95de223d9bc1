package dev.tranche.core.macro;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/** Steps that contradict each other or the printer, told from their order alone. */
final class StepOrder {
    private final Macro macro;
    private final Printer printer;
    private final Moment moment;
    private final List<Fault> faults = new ArrayList<>();

    private StepOrder(Macro macro, Printer printer, Moment moment) {
        this.macro = macro;
        this.printer = printer;
        this.moment = moment;
    }

    static List<Fault> faults(Macro macro, Printer printer, Moment moment) {
        StepOrder order = new StepOrder(macro, printer, moment);
        order.loads();
        order.places();
        order.stops();
        order.selector();
        order.hostNames();
        return order.faults;
    }

    private void loads() {
        OptionalInt unload = first(s -> s instanceof Step.Unload);
        OptionalInt load = first(s -> s instanceof Step.Load);
        if (unload.isPresent() && load.isPresent() && load.getAsInt() < unload.getAsInt()) {
            int from = unload.getAsInt();
            int to = load.getAsInt();
            faults.add(Fault.of(
                            Severity.STOP,
                            to,
                            "Load stands before Unload, so new filament meets the old one; put Unload first.")
                    .mendedBy("Put Unload before Load", m -> m.move(from, to)));
        }
        if (unload.isPresent()
                && load.isEmpty()
                && first(s -> s instanceof Step.WaitForPerson || s instanceof Step.Dwell, unload.getAsInt())
                        .isEmpty()) {
            faults.add(Fault.of(
                            Severity.STOP,
                            unload.getAsInt(),
                            "The filament is unloaded and never loaded again; add Load after it, or a wait in which a person loads.")
                    .mendedBy(
                            "Add Load after it",
                            m -> m.insert(unload.getAsInt() + 1, MacroStep.always(new Step.Load(0, 30)))));
        }
        double tube = printer.drive().gearsToNozzle();
        for (int i = 0; i < macro.steps().size(); i++) {
            if (!happens(i)) {
                continue;
            }
            Step step = at(i);
            double extra = step instanceof Step.Unload u ? u.extra() : step instanceof Step.Load l ? l.extra() : 0;
            int index = i;
            if (extra > tube / 3) {
                faults.add(Fault.of(
                                Severity.STOP,
                                i,
                                Words.format(
                                        "%s of %s mm is over a third more than the %s mm from gears to nozzle; take less, or measure again.",
                                        step.title(), Numerals.mm(tube + extra), Numerals.mm(tube)))
                        .mendedBy(
                                "Take the measured length",
                                m -> m.replace(index, m.step(index).with(atMeasuredLength(step)))));
            } else if (tube + extra <= 0) {
                faults.add(Fault.of(
                        Severity.STOP,
                        i,
                        Words.format(
                                "%s moves nothing: %s mm less than the %s mm from gears to nozzle leave none.",
                                step.title(), Numerals.mm(-extra), Numerals.mm(tube))));
            }
        }
    }

    private static Step atMeasuredLength(Step step) {
        return step instanceof Step.Unload u
                ? new Step.Unload(0, u.speed())
                : new Step.Load(0, ((Step.Load) step).speed());
    }

    private void places() {
        OptionalInt leave = first(s -> s instanceof Step.Park
                || s instanceof Step.Lift
                || s instanceof Step.Cut
                || s instanceof Step.PressSwitch);
        OptionalInt back = first(s -> s instanceof Step.Return);
        if (back.isPresent() && leave.isPresent() && back.getAsInt() < leave.getAsInt()) {
            int from = back.getAsInt();
            faults.add(Fault.of(
                            Severity.STOP,
                            from,
                            "Return stands before the nozzle has left the print, so it goes nowhere; put it last.")
                    .mendedBy("Put Return last", m -> m.move(from, m.steps().size() - 1)));
        }
        boolean away = macro.event() == Event.HOST_RESUME || macro.beginsAside(printer);
        for (int i = 0; i < macro.steps().size(); i++) {
            if (!happens(i)) {
                continue;
            }
            Step step = at(i);
            if (step instanceof Step.Return) {
                away = false;
            } else if (step instanceof Step.Park || step instanceof Step.Cut || step instanceof Step.PressSwitch) {
                away = printer.parkSpot().isPresent() || !(step instanceof Step.Park);
            } else if ((step instanceof Step.Purge || step instanceof Step.Prime || step instanceof Step.Load)
                    && !away) {
                faults.add(Fault.of(
                        Severity.WARN,
                        i,
                        Words.format(
                                "%s pushes filament out over the print; park before it, and return after it.",
                                step.title())));
            }
        }
    }

    private void stops() {
        List<Integer> stops = new ArrayList<>();
        for (int i = 0; i < macro.steps().size(); i++) {
            if (happens(i) && (at(i) instanceof Step.WaitForPerson || at(i) instanceof Step.FirmwareRoutine)) {
                stops.add(i);
            }
        }
        if (stops.size() > 1) {
            int last = stops.get(stops.size() - 1);
            faults.add(Fault.of(
                            Severity.STOP,
                            last,
                            Words.format("The machine would stop %d times for one event; keep one stop.", stops.size()))
                    .mendedBy(
                            "Switch this stop off",
                            m -> m.replace(last, m.step(last).turned(false))));
        }
    }

    private void selector() {
        OptionalInt press = first(s -> s instanceof Step.PressSwitch);
        if (press.isEmpty()) {
            return;
        }
        if (printer.selector().isEmpty()) {
            faults.add(Fault.of(
                    Severity.STOP,
                    press.getAsInt(),
                    Words.format(
                            "%s has no selector box; describe its switch on the printer's page.", printer.name())));
        } else if (moment.slot() > printer.selector().get().presses().size()) {
            faults.add(Fault.of(
                    Severity.STOP,
                    press.getAsInt(),
                    Words.format(
                            "The selector box has %d slots, and extruder T%d would be slot %d; add a press count for it.",
                            printer.selector().get().presses().size(), moment.extruder(), moment.slot())));
        }
    }

    /** A host's script is written once, so it cannot know what a swap knows. */
    private void hostNames() {
        if (!macro.event().isHosts()) {
            return;
        }
        for (int i = 0; i < macro.steps().size(); i++) {
            Set<MacroName> unknown = new TreeSet<>(names(at(i)));
            unknown.removeIf(MacroName::isKnownToHosts);
            boolean needsPlan = at(i) instanceof Step.Purge
                    || at(i) instanceof Step.Heat
                    || at(i) instanceof Step.PressSwitch
                    || at(i) instanceof Step.SelectExtruder
                    || at(i) instanceof Step.Cool;
            if (happens(i) && (needsPlan || !unknown.isEmpty())) {
                String what = needsPlan
                        ? at(i).title()
                        : "{{" + unknown.iterator().next().code() + "}}";
                faults.add(Fault.of(
                        Severity.STOP,
                        i,
                        Words.format(
                                "%s needs to know the swap, and a host's script is the same for all; put it into the swap macro.",
                                what)));
            }
            if (happens(i)
                    && at(i) instanceof Step.WaitForPerson w
                    && printer.abilities().pausesHost(w.by())) {
                faults.add(Fault.of(
                        Severity.STOP,
                        i,
                        Words.format(
                                "%s in a script of the host makes the host pause again, without end; switch it off.",
                                w.by())));
            }
        }
    }

    private static Set<MacroName> names(Step step) {
        if (step instanceof Step.Message m) {
            return Template.of(m.text()).names();
        } else if (step instanceof Step.Raw r) {
            return Template.of(r.lines()).names();
        } else if (step instanceof Step.FirmwareRoutine r) {
            Set<MacroName> both = new TreeSet<>(Template.of(r.before()).names());
            both.addAll(Template.of(r.after()).names());
            return both;
        }
        return Set.of();
    }

    private Step at(int index) {
        return macro.steps().get(index).step();
    }

    private boolean happens(int index) {
        return macro.steps().get(index).happensFor(moment.extruder());
    }

    private OptionalInt first(Predicate<Step> kind) {
        return first(kind, 0);
    }

    private OptionalInt first(Predicate<Step> kind, int from) {
        for (int i = from; i < macro.steps().size(); i++) {
            if (happens(i) && kind.test(at(i))) {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }
}
