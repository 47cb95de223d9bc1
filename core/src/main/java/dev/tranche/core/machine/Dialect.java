package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import java.util.List;

/**
 * How a firmware reads G-code where firmwares differ.
 *
 * @param filament which commands decide whether numbers of filament are added
 * @param stops lines at which this printer stops, beside the commands that all know
 * @param tools lines that choose a tool, each with the place of its number
 */
public record Dialect(Counting filament, List<OwnLine> stops, List<OwnLine> tools) {
    /** Nothing has been said; read as most hobby machines read it (common practice). */
    public static final Dialect COMMON = new Dialect(Counting.NOT_SAID);

    public Dialect {
        stops = List.copyOf(stops);
        tools = List.copyOf(tools);
        if (stops.size() > OwnLine.MOST || tools.size() > OwnLine.MOST) {
            throw Refusal.of("A printer has at most %d lines of its own of one kind; remove some.", OwnLine.MOST);
        }
        for (OwnLine tool : tools) {
            if (tool.text().chars().filter(c -> c == OwnLine.NUMBER).count() != 1) {
                throw Refusal.of(
                        "“%s” does not say where the tool's number stands; put one %s there.",
                        tool.text(), OwnLine.NUMBER);
            }
        }
    }

    /** Without lines of the printer's own. */
    public Dialect(Counting filament) {
        this(filament, List.of(), List.of());
    }

    /** The same with filament counted by other commands. */
    public Dialect counting(Counting other) {
        return new Dialect(other, stops, tools);
    }

    /** Which commands decide of filament. */
    public enum Counting {
        NOT_SAID("not known"),
        /** Whatever was said last of G90, G91, M82 and M83. */
        WITH_PLACES("M82 and M83, and G90 and G91 too"),
        BY_ITSELF("M82 and M83 alone");

        private final String title;

        Counting(String title) {
            this.title = title;
        }

        /** In words. */
        public String title() {
            return title;
        }
    }

    /** Whether G90 and G91 decide of filament, too, until M82 or M83 comes. */
    public boolean movesCountFilament() {
        return filament != Counting.BY_ITSELF;
    }

    /** Whether the owner has said which it is. */
    public boolean saysHowFilamentCounts() {
        return filament != Counting.NOT_SAID;
    }
}
