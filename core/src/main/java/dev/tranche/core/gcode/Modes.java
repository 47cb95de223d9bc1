package dev.tranche.core.gcode;

import dev.tranche.core.machine.Dialect;
import java.util.ArrayList;
import java.util.List;

/**
 * How a file counts places and filament: what it said last of each, and of which it spoke later.
 *
 * <p>Firmwares differ: for some G90 and G91 are about filament, too, and whatever was said later holds; for others only M82
 * and M83 are (common practice in open firmware). So more has to be known than what holds under one reading.
 *
 * @param relativeMoves whether G91 was said last, not G90
 * @param relativeFilament whether M83 was said last, not M82
 * @param filamentLast whether M82 or M83 was said after the last G90 or G91
 */
public record Modes(boolean relativeMoves, boolean relativeFilament, boolean filamentLast) {
    /** What machines begin with. */
    public static final Modes ABSOLUTE = new Modes(false, false, false);

    /** After G90 or G91. */
    Modes moving(boolean relative) {
        return new Modes(relative, relativeFilament, false);
    }

    /** After M82 or M83. */
    Modes feeding(boolean relative) {
        return new Modes(relativeMoves, relative, true);
    }

    /** Whether numbers of filament are added, for a firmware of that dialect. */
    public boolean addsFilament(Dialect dialect) {
        return dialect.movesCountFilament() && !filamentLast ? relativeMoves : relativeFilament;
    }

    /** Whether firmwares count filament differently here. */
    public boolean readsDifferently() {
        return !filamentLast && relativeMoves != relativeFilament;
    }

    /** Whether it means the same to every firmware. */
    public boolean means(Modes other) {
        return relativeMoves == other.relativeMoves
                && relativeFilament == other.relativeFilament
                && addsFilament(Dialect.COMMON) == other.addsFilament(Dialect.COMMON);
    }

    /** The commands after which it means the same to every firmware, when places are absolute. */
    public List<String> commands() {
        String filament = relativeFilament ? "M83" : "M82";
        if (readsDifferently()) {
            return List.of(filament, relativeMoves ? "G91" : "G90");
        }
        List<String> commands = new ArrayList<>();
        if (relativeMoves) {
            commands.add("G91");
        }
        commands.add(filament);
        return commands;
    }
}
