package dev.tranche.core.layer;

import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.OptionalDouble;

/**
 * A level place of a model that is seen from above, as it is printed.
 *
 * @param height of it, as the model has it
 * @param layer whose top it is, from 1
 * @param area mm²
 * @param seen how much of it is seen from above, 0…1; unknown where that would take long
 */
public record Flat(Height height, int layer, Form form, double area, OptionalDouble seen) {
    /** What stands round it. */
    public enum Form {
        /** The model's own top. */
        TOP("top"),
        /** Air, and nothing stands on it: lettering. */
        RAISED("raised top"),
        /** Air, and the model goes on higher within it: what lettering stands on. */
        BASE("top of a base"),
        /** Wholly under other plastic: where parts meet. */
        COVERED("place where parts meet"),
        /** Mostly the model, going on higher: what was engraved. */
        FLOOR("floor");

        private final String word;

        Form(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** Whether it is seen, so that it can be coloured for itself, and is not the model's own top. */
    public boolean isWithin() {
        return form != Form.TOP && form != Form.COVERED;
    }

    /** Such as “floor, 90 % of it seen from above”. */
    public String name() {
        return seen.isPresent() && seen.getAsDouble() < 0.995
                ? Words.format("%s, %.0f %% of it seen from above", form.word, 100 * seen.getAsDouble())
                : form.word;
    }
}
