package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a firmware will not do of a macro's lines: told from the lines, without running them. */
final class AbilityFaults {
    private final Macro macro;
    private final Printer printer;
    private final List<Fault> faults = new ArrayList<>();

    private AbilityFaults(Macro macro, Printer printer) {
        this.macro = macro;
        this.printer = printer;
    }

    static List<Fault> of(Macro macro, Printer printer, List<RenderedLine> lines) {
        AbilityFaults abilities = new AbilityFaults(macro, printer);
        lines.forEach(abilities::look);
        return abilities.faults;
    }

    private void look(RenderedLine line) {
        Optional<Command> command = Command.startingLine(line.words().get(0).text());
        if (!line.written() && command.isPresent()) {
            lacking(line, command.get());
            return;
        }
        command.ifPresent(c -> ignored(line, c));
        if (!printer.abilities().commentsAfterCommands() && OwnLine.hasCommentAfterCommand(line.text())) {
            faults.add(
                    Fault.of(
                            Severity.STOP,
                            line.step(),
                            "A comment follows a command on one line, which this firmware chokes on; give the comment a line of its own."));
        }
        OwnLine.stranger(line.text())
                .ifPresent(code -> faults.add(Fault.of(
                        Severity.NOTE,
                        line.step(),
                        code + " is not among the abilities Tranche knows, so nothing is known of what it does.")));
    }

    private void ignored(RenderedLine line, Command command) {
        boolean needed = command != Command.M600 && command != Command.M300;
        for (Word word : line.words()) {
            if (word.ignored()) {
                faults.add(Fault.of(
                        needed ? Severity.STOP : Severity.WARN,
                        line.step(),
                        Words.format(
                                "This firmware takes no notice of %s of %s (%s), so it is left out.",
                                word.text().charAt(0), command, word.setting())));
            }
        }
    }

    private void lacking(RenderedLine line, Command command) {
        boolean needed = command.stops()
                || command == Command.T
                || command == Command.G4
                || command.name().startsWith("M16");
        Fault fault = Fault.of(
                needed ? Severity.STOP : Severity.WARN,
                line.step(),
                Words.format(
                        "%s does not understand %s (%s); the line is left out.",
                        printer.name(), command, command.meaning()));
        faults.add(
                line.step() < 0
                        ? fault
                        : Substitutes.offer(
                                fault, macro.steps().get(line.step()).step(), printer, command));
    }
}
