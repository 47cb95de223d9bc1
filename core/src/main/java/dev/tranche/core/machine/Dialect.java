package dev.tranche.core.machine;

/**
 * How a firmware reads G-code where firmwares differ.
 *
 * @param filament which commands decide whether numbers of filament are added
 */
public record Dialect(Counting filament) {
    /** Nothing has been said; read as most hobby machines read it (common practice). */
    public static final Dialect COMMON = new Dialect(Counting.NOT_SAID);

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
