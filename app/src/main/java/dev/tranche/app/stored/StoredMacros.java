package dev.tranche.app.stored;

import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.SwapMethod;
import java.time.Duration;
import java.util.List;
import java.util.Set;

/** The macros of a printer. */
record StoredMacros(String method, List<OneMacro> macros, Names hostNames) {

    static StoredMacros of(MacroBook m) {
        return new StoredMacros(
                m.method().name(), m.macros().stream().map(OneMacro::of).toList(), Names.of(m.hostNames()));
    }

    public MacroBook book() {
        return new MacroBook(
                SwapMethod.valueOf(method), macros.stream().map(OneMacro::macro).toList(), hostNames.names());
    }

    /** A step in its place. */
    record Placed(StoredStep step, boolean on, List<Integer> only) {
        static Placed of(MacroStep m) {
            return new Placed(StoredStep.of(m.step()), m.on(), List.copyOf(m.only()));
        }

        MacroStep placed() {
            return new MacroStep(step.step(), on, Set.copyOf(only));
        }
    }

    /** A macro. */
    record OneMacro(String name, String event, boolean on, Duration person, List<Placed> steps) {

        static OneMacro of(Macro m) {
            return new OneMacro(
                    m.name(),
                    m.event().name(),
                    m.on(),
                    m.person(),
                    m.steps().stream().map(Placed::of).toList());
        }

        public Macro macro() {
            return new Macro(
                    name,
                    Event.valueOf(event),
                    on,
                    person,
                    steps.stream().map(Placed::placed).toList());
        }
    }

    /** How the host writes places. */
    record Names(String x, String y, String e, String f) {

        static Names of(HostNames h) {
            return new Names(h.x(), h.y(), h.e(), h.f());
        }

        public HostNames names() {
            return new HostNames(x, y, e, f);
        }
    }
}
