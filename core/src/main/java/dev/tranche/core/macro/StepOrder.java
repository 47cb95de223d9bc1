package dev.tranche.core.macro;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.IntStream;

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
        order.timedWait();
        order.strand();
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
                && first(s -> s.asksForPerson() || s instanceof Step.Dwell, unload.getAsInt())
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
            } else if (step instanceof Step.Park
                    || step instanceof Step.Cut
                    || step instanceof Step.PressSwitch
                    || step instanceof Step.Home) {
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

    /** A second stop is for something: to be told that it is clean. Two with nothing between are one too many. */
    private void stops() {
        OptionalInt before = OptionalInt.empty();
        for (int i = 0; i < macro.steps().size(); i++) {
            if (!happens(i)) {
                continue;
            }
            if (at(i).asksForPerson() && before.isPresent()) {
                int second = i;
                faults.add(Fault.of(
                                Severity.WARN,
                                second,
                                Words.format(
                                        "The machine stops here, and has stopped at step %d with nothing done in between; keep one of the two.",
                                        before.getAsInt() + 1))
                        .mendedBy(
                                "Switch this stop off",
                                m -> m.replace(second, m.step(second).turned(false))));
            }
            before = at(i).asksForPerson() ? OptionalInt.of(i) : OptionalInt.empty();
        }
    }

    /** Where no stop waits for the person, the longest wait has to last as long as the person takes. */
    private void timedWait() {
        boolean alone = macro.does(moment, Step::asksForPerson) || macro.feedsItself(moment.extruder());
        OptionalInt longest = IntStream.range(0, macro.steps().size())
                .filter(i -> happens(i) && at(i) instanceof Step.Dwell)
                .boxed()
                .max(Comparator.comparingInt(i -> ((Step.Dwell) at(i)).seconds()))
                .map(OptionalInt::of)
                .orElseGet(OptionalInt::empty);
        if (alone || longest.isEmpty() || macro.event().isHosts()) {
            return;
        }
        int index = longest.getAsInt();
        int waits = ((Step.Dwell) at(index)).seconds();
        double pushes = Purging.of(macro, moment).by() == Purging.By.PERSON
                ? Purging.of(macro, moment).seconds()
                : 0;
        int takes = (int) Math.ceil(macro.person().toMillis() / 1000.0 + pushes);
        if (waits < takes && takes <= 3600) {
            faults.add(Fault.of(
                            Severity.WARN,
                            index,
                            Words.format(
                                    "The wait of %d s is shorter than the %d s that the person usually takes; wait longer.",
                                    waits, takes))
                    .mendedBy(
                            Words.format("Wait %d s", takes),
                            m -> m.replace(index, m.step(index).with(new Step.Dwell(takes)))));
        }
    }

    /** What was pushed out hangs from the nozzle, and goes with it over the part. */
    private void strand() {
        if (printer.parkSpot().isEmpty()) {
            return;
        }
        boolean hangs = false;
        for (int i = 0; i < macro.steps().size(); i++) {
            Step step = at(i);
            boolean pushes = step instanceof Step.Prime
                    || step instanceof Step.Load
                    || step instanceof Step.Purge && Purging.of(macro, moment).by() == Purging.By.MACRO;
            if (!happens(i)) {
                continue;
            } else if (pushes) {
                hangs = true;
            } else if (step instanceof Step.Wipe || step.asksForPerson() || step instanceof Step.Raw) {
                hangs = false;
            } else if (step instanceof Step.Return && hangs) {
                int index = i;
                faults.add(Fault.of(
                                Severity.WARN,
                                i,
                                "The nozzle comes back with the strand that was pushed out still hanging from it; wipe before it.")
                        .mendedBy("Wipe before it", m -> m.insert(index, MacroStep.always(Step.Wipe.USUAL))));
                return;
            }
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
                    || at(i) instanceof Step.SetHeat
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

    /** The names that texts of {@code step} hold. */
    static Set<MacroName> names(Step step) {
        if (step instanceof Step.Message m) {
            return Template.of(m.text()).names();
        } else if (step instanceof Step.Raw r) {
            return Template.of(r.lines()).names();
        } else if (step instanceof Step.OwnPause p) {
            return Template.of(p.line()).names();
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
