package dev.tranche.core.estimate;

import dev.tranche.core.speech.Refusal;
import java.util.Optional;

/**
 * On what terms a plan is reckoned.
 *
 * @param copies of it on the plate; a sliced file holds them all already
 * @param power what current costs, if that is to be counted
 * @param filling of the model, as long as no sliced file says better
 */
public record Terms(int copies, Optional<Power> power, PrintSettings filling) {
    public static final int MOST_COPIES = 1000;
    public static final Terms ONE = new Terms(1, Optional.empty());

    public Terms(int copies, Optional<Power> power) {
        this(copies, power, PrintSettings.COMMON);
    }

    public Terms {
        if (copies < 1 || copies > MOST_COPIES) {
            throw Refusal.of("%d copies are out of range; give 1 to %d.", copies, MOST_COPIES);
        }
    }
}
