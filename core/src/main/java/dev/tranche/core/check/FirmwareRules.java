package dev.tranche.core.check;

import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Dialect.Counting;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.function.UnaryOperator;

/** What a sliced file takes its firmware to be, and what is known of the printer's. */
final class FirmwareRules {
    private FirmwareRules() {}

    private static UnaryOperator<Rig> able(UnaryOperator<Abilities> how) {
        return rig -> rig.with(rig.printer().with(how.apply(rig.printer().abilities())));
    }

    /** Where firmwares count filament differently, nobody but the owner knows which count to hand back. */
    static List<Finding> howFilamentCounts(PlanFacts facts) {
        Printer printer = facts.printer();
        Dialect dialect = printer.abilities().dialect();
        return facts.file().filter(SlicedFile::readingsDiffer).stream()
                .filter(f -> !dialect.saysHowFilamentCounts() || !f.makesSenseTo(dialect))
                .map(f -> f.sense() == Counting.NOT_SAID ? eitherWay() : oneWay(f.sense(), printer))
                .toList();
    }

    private static Finding eitherWay() {
        return Finding.of(
                Severity.STOP,
                "filament-readings",
                "The G-code changes between G90 and G91 without saying M82 or M83 again, which firmwares read differently; say in the printer's abilities how yours counts filament.");
    }

    /** What a program wrote for a firmware is thread or nothing to another. */
    private static Finding oneWay(Counting sense, Printer printer) {
        Dialect dialect = printer.abilities().dialect();
        String meant =
                "The G-code makes lines of plastic only where filament is counted by " + sense.title() + ", and ";
        return Finding.of(
                        Severity.STOP,
                        "filament-readings",
                        meant
                                + (dialect.saysHowFilamentCounts()
                                        ? printer.name() + " is said to count it by "
                                                + dialect.filament().title()
                                                + "; slice it for this printer, or say that it counts so."
                                        : "firmwares differ in that; say that yours counts so, or slice it for yours."))
                .mendedBy(Fix.ofRig(
                        "Count it by " + sense.title(),
                        able(a -> a.reading(a.dialect().counting(sense)))));
    }

    /** To a firmware that passes over G10 such a file leaves threads everywhere; one that obeys it has to hear of it in swaps. */
    static List<Finding> drawsByFirmware(PlanFacts facts) {
        Printer printer = facts.printer();
        return facts.file().filter(SlicedFile::drawsByFirmware).stream()
                .filter(f -> !printer.abilities().understands(Command.G10)
                        || !printer.abilities().understands(Command.G11))
                .map(f -> Finding.of(
                                Severity.WARN,
                                "draws-by-firmware",
                                Words.format(
                                        "The G-code has the firmware draw filament back (G10), and nothing says that %s can, so swaps pass over it; say that it can, or slice without.",
                                        printer.name()))
                        .mendedBy(Fix.ofRig(
                                "It obeys G10 and G11", able(a -> a.understanding(Command.G10, Command.G11)))))
                .toList();
    }
}
