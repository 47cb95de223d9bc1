package dev.tranche.core.rig;

import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Fault;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.macro.Step;
import dev.tranche.core.rig.Rack.Disagreement;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;

/** Rules on a printer, its rack and its macros together. */
public final class RigChecks {
    private RigChecks() {}

    /** All findings, worst first. */
    public static List<RigFinding> findings(Rig rig) {
        List<RigFinding> all = new ArrayList<>(between(rig));
        for (int i = 0; i < rig.macros().macros().size(); i++) {
            if (rig.macros().macros().get(i).on()) {
                all.addAll(ofMacro(rig, i));
            }
        }
        all.sort(Comparator.comparing(RigFinding::severity));
        return all;
    }

    /** Findings on what does not fit together, without those of single macros. */
    public static List<RigFinding> between(Rig rig) {
        List<RigFinding> all = new ArrayList<>();
        all.addAll(oneMacroAnEvent(rig));
        all.addAll(hostDoesItAgain(rig));
        all.addAll(hostPairs(rig));
        all.addAll(disagreements(rig));
        all.sort(Comparator.comparing(RigFinding::severity));
        return all;
    }

    /** What the dry runs of macro {@code index} say, for every extruder it may be run for. */
    public static List<RigFinding> ofMacro(Rig rig, int index) {
        Macro macro = rig.macros().macro(index);
        Map<String, RigFinding> found = new LinkedHashMap<>();
        for (int t : extruders(rig, macro)) {
            for (Fault fault : rig.tryOut(macro, t).faults()) {
                found.putIfAbsent(fault.step() + fault.sentence(), finding(index, fault));
            }
        }
        return List.copyOf(found.values());
    }

    /** The extruders a macro has to be tried for: all where it is not the same for all. */
    private static List<Integer> extruders(Rig rig, Macro macro) {
        boolean differs =
                macro.steps().stream().anyMatch(s -> !s.only().isEmpty() || s.step() instanceof Step.PressSwitch);
        int last = rig.rack().size() - 1;
        return differs ? IntStream.rangeClosed(0, last).boxed().toList() : List.of(Math.min(1, last));
    }

    /** What one dry run of macro {@code index} says, as findings that mend the rig. */
    public static List<RigFinding> findings(Rig rig, int index, DryRun run) {
        rig.macros().macro(index);
        return run.faults().stream().map(f -> finding(index, f)).toList();
    }

    private static RigFinding finding(int index, Fault fault) {
        return new RigFinding(
                fault.severity(),
                OptionalInt.of(index),
                fault.step(),
                fault.sentence(),
                fault.mend()
                        .map(m -> new RigFinding.Mend(
                                m.label(),
                                rig -> rig.with(rig.macros()
                                        .replace(
                                                index,
                                                m.change().apply(rig.macros().macro(index)))))));
    }

    private static List<RigFinding> oneMacroAnEvent(Rig rig) {
        List<RigFinding> found = new ArrayList<>();
        for (Event event : Event.values()) {
            List<Macro> firing = rig.macros().firing(event);
            if (firing.size() > 1) {
                found.add(RigFinding.of(
                                Severity.STOP,
                                Words.format(
                                        "%s fires %d macros, “%s” and “%s” among them, so everything would happen twice; keep one on.",
                                        event.title(),
                                        firing.size(),
                                        firing.get(0).name(),
                                        firing.get(1).name()))
                        .mendedBy(
                                "Keep “" + firing.get(0).name() + "” only", r -> r.with(keepFirst(r.macros(), event))));
            }
        }
        if (rig.macros().firing(Event.SWAP).isEmpty()) {
            found.add(RigFinding.of(
                            Severity.STOP,
                            "No macro is on for a swap, so nothing would happen there; add one, or take the ready one.")
                    .mendedBy(
                            "Add the ready macro",
                            r -> r.with(r.macros()
                                    .add(r.macros()
                                            .method()
                                            .ready()
                                            .answer(Event.SWAP)
                                            .orElseThrow()))));
        }
        return found;
    }

    private static MacroBook keepFirst(MacroBook book, Event event) {
        MacroBook kept = book;
        boolean first = true;
        for (int i = 0; i < book.macros().size(); i++) {
            Macro macro = book.macros().get(i);
            if (macro.event() == event && macro.on()) {
                kept = first ? kept : kept.replace(i, macro.turned(false));
                first = false;
            }
        }
        return kept;
    }

    /** A macro that acts by itself and pauses on a command that makes the host act as well. */
    private static List<RigFinding> hostDoesItAgain(Rig rig) {
        if (rig.macros().answer(Event.HOST_PAUSE).isEmpty()) {
            return List.of();
        }
        List<RigFinding> found = new ArrayList<>();
        for (int i = 0; i < rig.macros().macros().size(); i++) {
            Macro macro = rig.macros().macros().get(i);
            Optional<Command> pauses = pause(rig, macro);
            if (macro.on() && !macro.event().isHosts() && pauses.isPresent() && actsItself(macro)) {
                int index = i;
                RigFinding finding = RigFinding.of(
                        Severity.STOP,
                        Words.format(
                                "%s fires twice: “%s” parks by itself, and its %s makes the host run its pause macro as well; let one of them act.",
                                macro.event().title(), macro.name(), pauses.get()));
                found.add(new RigFinding(
                        finding.severity(),
                        OptionalInt.of(index),
                        -1,
                        finding.sentence(),
                        Optional.of(new RigFinding.Mend(
                                "Let the host act", r -> r.with(r.macros().replace(index, leftToHost(macro)))))));
            }
        }
        return found;
    }

    private static Optional<Command> pause(Rig rig, Macro macro) {
        return commands(rig, macro).stream()
                .filter(rig.printer().abilities()::pausesHost)
                .findFirst();
    }

    /** The commands that {@code macro} wants of the firmware, whether it understands them or not. */
    public static Set<Command> commands(Rig rig, Macro macro) {
        Set<Command> commands = new TreeSet<>();
        for (int t : extruders(rig, macro)) {
            for (RenderedLine line : rig.tryOut(macro, t).lines()) {
                Command.startingLine(line.words().get(0).text()).ifPresent(commands::add);
            }
        }
        return commands;
    }

    private static boolean actsItself(Macro macro) {
        return macro.steps().stream().filter(MacroStep::on).anyMatch(s -> acts(s.step()));
    }

    private static boolean acts(Step step) {
        return step instanceof Step.Park
                || step instanceof Step.Unload
                || step instanceof Step.Lift
                || step instanceof Step.FirmwareRoutine;
    }

    /** Only what speaks and stops. */
    private static Macro leftToHost(Macro macro) {
        List<MacroStep> steps = macro.steps().stream()
                .map(s -> s.step() instanceof Step.Message
                                || s.step() instanceof Step.Tone
                                || s.step() instanceof Step.WaitForPerson
                        ? s
                        : s.turned(false))
                .toList();
        return new Macro(macro.name(), macro.event(), macro.on(), macro.person(), steps);
    }

    private static List<RigFinding> hostPairs(Rig rig) {
        boolean pause = rig.macros().answer(Event.HOST_PAUSE).isPresent();
        boolean resume = rig.macros().answer(Event.HOST_RESUME).isPresent();
        if (pause == resume) {
            return List.of();
        }
        return List.of(
                RigFinding.of(
                        Severity.STOP,
                        pause
                                ? "There is a host pause macro and no host resume macro, so what the pause moves stays moved; add the other half."
                                : "There is a host resume macro and no host pause macro, so there is nothing to go back from; add the other half."));
    }

    private static List<RigFinding> disagreements(Rig rig) {
        List<Disagreement> all = rig.rack().disagreements(rig.printer());
        if (all.isEmpty()) {
            return List.of();
        }
        Disagreement first = all.get(0);
        String more = all.size() == 1 ? "" : Words.format(", and %d more differ", all.size() - 1);
        return List.of(RigFinding.of(
                        Severity.STOP,
                        Words.format(
                                "T%d believes in a %s of %s, where the one nozzle has %s%s; all extruders share it, so settle it.",
                                first.extruder(), first.what(), first.believed(), first.known(), more))
                .mendedBy("Let all agree with the printer", r -> r.with(r.rack().agreeingWith(r.printer()))));
    }
}
