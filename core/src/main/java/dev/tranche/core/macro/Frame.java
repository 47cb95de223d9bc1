package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import java.util.List;
import java.util.Optional;

/** What stands round lines that are put into a file, so that they mean one thing and the file goes on as it takes for granted. */
final class Frame {
    private final LineWriter out;

    Frame(LineWriter out) {
        this.out = out;
    }

    /** Absolute places, relative extrusion, millimetres. */
    void open(ControllerState entry) {
        if (entry.units().inches()) {
            out.line("the file is in inches; these lines are in millimetres", Word.of("G21"));
        }
        if (entry.units().countsVolume()) {
            out.line("the file counts volume; these lines count length", Word.of("M200"), Word.of("D0"));
        }
        out.line("places are absolute", Word.of("G90"));
        out.line("filament is counted from where it is", Word.of("M83"));
    }

    /** The file's own feed, units, modes and count; by their names where a program fills them in. */
    void close(ControllerState exit, Optional<Spelling> names) {
        String feed = names.map(Spelling::f).orElse(Numerals.number(exit.feed() * 60, 1));
        if (!feed.isEmpty()) {
            out.line(
                    "feed of the file",
                    Word.of("G1"),
                    Word.of("F" + feed, Numerals.number(exit.feed(), 1) + " mm/s before these lines"));
        }
        if (exit.units().inches()) {
            out.line("the file is in inches", Word.of("G20"));
        }
        if (exit.units().countsVolume()) {
            out.line(
                    "the file counts volume",
                    Word.of("M200"),
                    Word.of("D" + Numerals.number(exit.units().diameter(), 3), "diameter in the file"));
        }
        for (String command :
                names.map(n -> List.of(n.mode())).orElse(exit.modes().commands())) {
            out.line(
                    command.startsWith("M") ? "how the file counts filament" : "how the file counts places",
                    Word.of(command));
        }
        String e = names.map(Spelling::e).orElse(count(exit));
        if (!e.isEmpty()) {
            out.line("the extruder's count in the file", Word.of("G92"), Word.of("E" + e, "count before these lines"));
        }
    }

    /** The extruder's count in the file's unit, to a hundredth of a micrometre of filament. */
    private static String count(ControllerState exit) {
        double unit = exit.units().filament();
        return Numerals.number(exit.e() / unit, 5 + (int) Math.max(0, Math.ceil(Math.log10(unit))));
    }
}
