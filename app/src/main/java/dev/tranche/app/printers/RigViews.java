package dev.tranche.app.printers;

import dev.tranche.app.drawing.BedDrawing;
import dev.tranche.app.drawing.StripDrawing;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.web.Figures;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroName;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.rig.Difference;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.rig.RigChecks;
import dev.tranche.core.rig.RigFinding;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the templates of a printer's pages. */
@Component
public class RigViews {
    private final Workshop workshop;
    private final Figures figures;
    private final MeasuredTimes times;

    RigViews(Workshop workshop, Figures figures, MeasuredTimes times) {
        this.times = times;
        this.workshop = workshop;
        this.figures = figures;
    }

    /** A finding with what a page needs to name it. */
    record Told(String key, RigFinding finding) {}

    /** Which macros an event fires. */
    record Fires(Event event, List<Numbered> macros, boolean twice) {}

    /** A macro with its place in the book. */
    record Numbered(int index, Macro macro) {}

    /**
     * A step as a row of the editor.
     *
     * @param proposed what Tranche would tell the person to do at it; empty where it is no stop
     */
    record StepRow(int index, MacroStep step, List<StepField> fields, String only, boolean lacking, String proposed) {
        /** Whether it has numbers that are the printer's unless typed. */
        public boolean measured() {
            return fields.stream().anyMatch(StepField::optional);
        }

        public String told() {
            return step.told().isEmpty() ? proposed : step.told();
        }
    }

    /**
     * Where a macro is tried out.
     *
     * @param t extruder that prints next
     */
    record Place(Double x, Double y, Double z, Integer t) {}

    static String key(RigFinding finding) {
        return Integer.toHexString((finding.macro() + "/" + finding.step() + "/" + finding.sentence()).hashCode());
    }

    private static List<Told> told(List<RigFinding> findings) {
        return findings.stream().map(f -> new Told(key(f), f)).toList();
    }

    /** What every page of a printer shows. */
    public void frame(Machine machine, String tab, Model model) {
        model.addAttribute("machine", machine);
        model.addAttribute("rig", machine.rig());
        model.addAttribute("printer", machine.printer());
        model.addAttribute("machines", workshop.all());
        model.addAttribute("broken", workshop.broken());
        model.addAttribute("tab", tab);
        Optional<Machine> origin = machine.origin().flatMap(workshop::find);
        model.addAttribute("origin", origin.map(o -> o.printer().name()).orElse(null));
        model.addAttribute(
                "differences",
                origin.map(o -> Difference.between(machine.rig(), o.rig())).orElse(List.of()));
        List<RigFinding> findings = RigChecks.findings(machine.rig());
        model.addAttribute("findings", told(findings));
        model.addAttribute(
                "stops",
                findings.stream().filter(f -> f.severity() == Severity.STOP).count());
    }

    /** Findings on what does not fit together, for a page that is not about macros. */
    void between(Rig rig, Model model) {
        model.addAttribute("between", told(RigChecks.between(rig)));
    }

    /** What macros ask of the firmware that it does not do, where something else does it. */
    void mends(Rig rig, Model model) {
        model.addAttribute(
                "mends",
                told(RigChecks.findings(rig).stream()
                        .filter(f -> f.mend().isPresent())
                        .toList()));
    }

    void macros(Machine machine, Model model) {
        frame(machine, "macros", model);
        MacroBook book = machine.rig().macros();
        List<Fires> fires = new ArrayList<>();
        for (Event event : Event.values()) {
            List<Numbered> macros = new ArrayList<>();
            for (int i = 0; i < book.macros().size(); i++) {
                if (book.macros().get(i).event() == event) {
                    macros.add(new Numbered(i, book.macros().get(i)));
                }
            }
            fires.add(new Fires(event, macros, book.firing(event).size() > 1));
        }
        model.addAttribute("fires", fires);
        model.addAttribute("events", Event.values());
        model.addAttribute("methods", SwapMethod.values());
        boolean hosted = !book.firing(Event.HOST_PAUSE).isEmpty()
                && !book.firing(Event.HOST_RESUME).isEmpty();
        model.addAttribute("scripts", hosted ? HostTexts.of(machine.rig()) : null);
    }

    void macro(Machine machine, int index, Place asked, Model model) {
        frame(machine, "macros", model);
        Rig rig = machine.rig();
        Macro macro = rig.macros().macro(index);
        Moment moment = moment(rig, macro, asked);
        DryRun run = run(rig, index, asked);
        List<StepRow> rows = new ArrayList<>();
        for (int i = 0; i < macro.steps().size(); i++) {
            MacroStep step = macro.steps().get(i);
            boolean lacking = step.step()
                    .needs()
                    .filter(c -> !rig.printer().abilities().understands(c))
                    .isPresent();
            rows.add(new StepRow(
                    i, step, StepField.of(step.step()), only(step), lacking, proposed(rig, macro, i, moment)));
        }
        model.addAttribute("index", index);
        model.addAttribute("macro", macro);
        model.addAttribute(
                "measured",
                times.of(machine.id(), macro.event(), macro)
                        .map(l -> Words.format(
                                "measured at %s: %s", Words.count(l.count(), "stop"), figures.time(l.learned())))
                        .orElse(""));
        model.addAttribute("rows", rows);
        model.addAttribute("run", run);
        model.addAttribute("moment", moment);
        model.addAttribute("faults", told(RigChecks.findings(rig, index, run)));
        model.addAttribute("bed", BedDrawing.of(rig.printer(), run, moment.entry(), 380, 330));
        model.addAttribute("strip", StripDrawing.of(macro, run, figures, 1000));
        model.addAttribute("menu", StepMenu.ALL);
        model.addAttribute("names", MacroName.values());
        model.addAttribute("never", Duty.NEVER);
        model.addAttribute("book", rig.macros().macros());
    }

    private static String proposed(Rig rig, Macro macro, int index, Moment moment) {
        return Duty.isAsked(macro, index, rig.printer(), moment)
                ? Duty.proposed(macro, index, rig.printer(), moment)
                : "";
    }

    private static String only(MacroStep step) {
        return step.only().stream().map(t -> "T" + t).collect(Collectors.joining(" "));
    }

    /** The dry run that a page with {@code asked} shows. */
    DryRun run(Rig rig, int index, Place asked) {
        Macro macro = rig.macros().macro(index);
        return DryRun.of(macro, rig.macros(), rig.printer(), moment(rig, macro, asked));
    }

    private static Moment moment(Rig rig, Macro macro, Place asked) {
        int last = rig.rack().size() - 1;
        int t = asked.t() == null ? Math.min(1, last) : Math.max(0, Math.min(last, asked.t()));
        Moment typical = rig.typical(macro.event(), t);
        ControllerState e = typical.entry();
        return typical.at(ControllerState.standingAt(
                asked.x() == null ? e.x() : asked.x(),
                asked.y() == null ? e.y() : asked.y(),
                asked.z() == null ? e.z() : asked.z(),
                e.nozzleTemperature()));
    }

    /** Names of the macros that are on, by the commands they use. */
    static Map<Command, List<String>> users(Rig rig) {
        Map<Command, List<String>> users = new EnumMap<>(Command.class);
        for (Macro macro : rig.macros().macros()) {
            if (macro.on()) {
                RigChecks.commands(rig, macro).forEach(c -> users.computeIfAbsent(c, k -> new ArrayList<>())
                        .add(macro.name()));
            }
        }
        return users;
    }
}
