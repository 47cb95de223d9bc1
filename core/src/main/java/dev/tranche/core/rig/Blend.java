package dev.tranche.core.rig;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
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
    private static final double TOLERANCE = 0.001;

    public Blend {
        weights = List.copyOf(weights);
        if (weights.size() < 2 || weights.size() > 6) {
            throw Refusal.of("A blend needs a weight for each of 2 to 6 inputs, not %d.", weights.size());
        }
        double sum = 0;
        for (double w : weights) {
            if (!(w >= 0 && w <= 1)) {
                throw Refusal.of("A weight of %s is out of range; give 0 to 1, such as 0.7.", w);
            }
            sum += w;
        }
        if (Math.abs(sum - 1) > TOLERANCE) {
            throw Refusal.of(
                    "The weights sum to %s and must sum to 1; change one of them by %s.",
                    decimal(sum), decimal(1 - sum));
        }
    }

    /** All of one input. */
    public static Blend only(int input, int inputs) {
        List<Double> weights = new ArrayList<>();
        for (int i = 0; i < inputs; i++) {
            weights.add(i == input ? 1.0 : 0.0);
        }
        return new Blend(weights);
    }

    /**
     * Between this blend and {@code other}.
     *
     * @param share of the way, 0…1
     */
    public Blend towards(Blend other, double share) {
        if (other.weights.size() != weights.size()) {
            throw Refusal.of(
                    "One blend has %d inputs and the other %d; give both the printer's inputs.",
                    weights.size(), other.weights.size());
        }
        List<Double> between = new ArrayList<>();
        for (int i = 0; i < weights.size(); i++) {
            between.add(weights.get(i) + share * (other.weights.get(i) - weights.get(i)));
        }
        return new Blend(between);
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
            lines.add("M163 S" + i + " P" + decimal(weights.get(i)));
        }
        lines.add("M164 S" + extruder);
        return lines;
    }

    static String decimal(double value) {
        String text = Words.format("%.3f", value).replaceAll("0+$", "");
        return text.endsWith(".") ? text.substring(0, text.length() - 1) : text;
    }
}
