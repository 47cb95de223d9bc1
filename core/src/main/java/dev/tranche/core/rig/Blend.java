package dev.tranche.core.rig;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;

/**
 * Weights over the inputs of a nozzle that blends.
 *
 * @param weights one an input, 0 or more; their sum is 1 within 0.001
 */
public record Blend(List<Double> weights) {
    private static final double TOLERANCE = Recipe.TOLERANCE;

    public Blend {
        weights = List.copyOf(weights);
        if (weights.size() < 2 || weights.size() > 6) {
            throw Refusal.of("A blend needs a weight for each of 2 to 6 inputs, not %d.", weights.size());
        }
        Recipe.check(weights);
    }

    /** All of one input. */
    public static Blend only(int input, int inputs) {
        List<Double> weights = new ArrayList<>();
        for (int i = 0; i < inputs; i++) {
            weights.add(i == input ? 1.0 : 0.0);
        }
        return new Blend(weights);
    }

    /** Whether nobody could tell it from {@code other}. */
    public boolean isLike(Blend other) {
        for (int i = 0; i < weights.size(); i++) {
            if (other.weights.size() != weights.size() || Math.abs(weights.get(i) - other.weights.get(i)) > TOLERANCE) {
                return false;
            }
        }
        return true;
    }

    /** What it looks like when its inputs hold {@code colours}. */
    public Srgb colour(List<Srgb> colours) {
        for (int i = 0; i < weights.size(); i++) {
            if (weights.get(i) > 1 - TOLERANCE) {
                return colours.get(i);
            }
        }
        List<LinearRgb> linear = colours.stream().map(Srgb::linear).toList();
        return Srgb.of(Melt.mix(linear, weights));
    }

    /** The lines that make the firmware keep this blend as extruder T{@code extruder}: M163 for each input, M164. */
    public List<String> definition(int extruder) {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < weights.size(); i++) {
            lines.add("M163 S" + i + " P" + Words.thousandths(weights.get(i)));
        }
        lines.add("M164 S" + extruder);
        return lines;
    }
}
