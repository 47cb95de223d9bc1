package dev.tranche.core.rearrange;

import java.util.Optional;

/**
 * What came of printing a file in the plan's order.
 *
 * @param made the file in that order, or
 * @param refusal why it stays as it is, in a sentence
 */
public record Rearranging(Optional<Rearranged> made, Optional<String> refusal) {
    /** Nothing was to be put into another order. */
    public static final Rearranging NONE = new Rearranging(Optional.empty(), Optional.empty());

    public static Rearranging of(Rearranged made) {
        return new Rearranging(Optional.of(made).filter(Rearranged::isChanged), Optional.empty());
    }

    public static Rearranging refused(String sentence) {
        return new Rearranging(Optional.empty(), Optional.of(sentence));
    }
}
