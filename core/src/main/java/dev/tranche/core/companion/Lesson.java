package dev.tranche.core.companion;

import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.List;

/**
 * What was believed of something, and what measurements say: their median, so that one slip does not count.
 *
 * @param believed before
 * @param measured each as it was; at least one
 */
public record Lesson(double believed, List<Double> measured) {
    private static final double ROUNDING = 1e-9;

    public Lesson {
        measured = List.copyOf(measured);
        if (measured.isEmpty()) {
            throw new Refusal("Nothing was measured.");
        }
    }

    /** What is to be believed after. */
    public double learned() {
        double[] sorted =
                measured.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1
                ? sorted[middle]
                : Arrays.stream(sorted, middle - 1, middle + 1).average().orElseThrow();
    }

    /** Whether that is what is believed already, rounded to steps of {@code step}. */
    public boolean isBelieved(double step) {
        return Math.abs(learned() - believed) <= step / 2 * (1 + ROUNDING);
    }

    public int count() {
        return measured.size();
    }
}
