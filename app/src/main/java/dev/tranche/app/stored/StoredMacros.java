package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HookNames;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.SwapMethod;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The macros of a printer. */
record StoredMacros(
        String method,
        List<OneMacro> macros,
        Names hostNames,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Program> program) {

    static StoredMacros of(MacroBook m) {
        return new StoredMacros(
                m.method().name(),
                m.macros().stream().map(OneMacro::of).toList(),
                Names.of(m.hostNames()),
                Optional.of(m.hookNames())
                        .filter(h -> !h.equals(HookNames.COMMON))
                        .map(Program::of));
    }

    public MacroBook book() {
        return new MacroBook(
                SwapMethod.valueOf(method),
                macros.stream().map(OneMacro::macro).toList(),
                hostNames.names(),
                program.map(Program::names).orElse(HookNames.COMMON));
    }

    /** A step in its place. */
    record Placed(
            StoredStep step,
            boolean on,
            List<Integer> only,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<String> told) {
        static Placed of(MacroStep m) {
            return new Placed(
                    StoredStep.of(m.step()),
                    m.on(),
                    List.copyOf(m.only()),
                    Optional.of(m.told()).filter(t -> !t.isEmpty()));
        }

        MacroStep placed() {
            return new MacroStep(step.step(), on, Set.copyOf(only), told.orElse(""));
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
    record Names(
            String x, String y, String e, String f, @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<String> mode) {
        /** What scripts said before a host could be asked. */
        private static final String ABSOLUTE = "M82";

        static Names of(HostNames h) {
            return new Names(h.x(), h.y(), h.e(), h.f(), Optional.of(h.mode()).filter(m -> !m.equals(ABSOLUTE)));
        }

        public HostNames names() {
            return new HostNames(x, y, e, f, mode.orElse(ABSOLUTE));
        }
    }

    /** How the slicing program writes what it knows. */
    record Program(
            String oldTool,
            String newTool,
            String layer,
            String x,
            String y,
            String z,
            String e,
            String mode,
            String purge,
            String ifTools,
            String ifLayer,
            String end,
            int firstLayer) {
        static Program of(HookNames h) {
            return new Program(
                    h.old(),
                    h.next(),
                    h.layer(),
                    h.x(),
                    h.y(),
                    h.z(),
                    h.e(),
                    h.mode(),
                    h.purge(),
                    h.ifTools(),
                    h.ifLayer(),
                    h.end(),
                    h.firstLayer());
        }

        HookNames names() {
            return new HookNames(oldTool, newTool, layer, x, y, z, e, mode, purge, ifTools, ifLayer, end, firstLayer);
        }
    }
}
