package dev.tranche.core.check;

import dev.tranche.core.speech.Severity;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The result of a rule.
 *
 * @param key the same for the same finding in the same place; letters, digits and dashes
 * @param sentence what is so, why it matters, what to do
 * @param layer where to look, from 1
 * @param fix a change of the plan that mends it
 */
public record Finding(Severity severity, String key, String sentence, OptionalInt layer, Optional<Fix> fix) {

    static Finding of(Severity severity, String key, String sentence) {
        return new Finding(severity, key, sentence, OptionalInt.empty(), Optional.empty());
    }

    Finding at(int where) {
        return new Finding(severity, key, sentence, OptionalInt.of(where), fix);
    }

    Finding mendedBy(Fix how) {
        return new Finding(severity, key, sentence, layer, Optional.of(how));
    }
}
