package dev.tranche.core.macro;

import dev.tranche.core.units.Refusal;
import java.util.List;

/**
 * The steps of a swap, in order.
 *
 * @param method how the swap is carried out
 * @param steps at least one
 */
public record SwapMacro(SwapMethod method, List<Step> steps) {
    private static final int MOST_STEPS = 200;

    public SwapMacro {
        steps = List.copyOf(steps);
        if (steps.isEmpty()) {
            throw new Refusal("A swap macro needs at least one step.");
        }
        if (steps.size() > MOST_STEPS) {
            throw Refusal.of("A swap macro of %d steps is too long; %d are allowed.", steps.size(), MOST_STEPS);
        }
    }

    public static SwapMacro ready(SwapMethod method) {
        return new SwapMacro(method, method.ready());
    }
}
