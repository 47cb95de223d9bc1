package dev.tranche.core.estimate;

/**
 * How a slicing program is taken to fill the model, as long as no sliced file says better.
 *
 * @param walls lines along every outline
 * @param shellLayers solid layers under a top and over an underside
 * @param infill share of plastic elsewhere, 0…1
 */
public record PrintSettings(int walls, int shellLayers, double infill) {
    public static final PrintSettings COMMON = new PrintSettings(2, 4, 0.15);

    public PrintSettings {
        if (walls < 0 || shellLayers < 0 || !(infill >= 0 && infill <= 1)) {
            throw new IllegalArgumentException("walls " + walls + ", shell " + shellLayers + ", infill " + infill);
        }
    }
}
