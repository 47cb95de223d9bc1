package dev.tranche.core.estimate;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;

/**
 * How a slicing program is taken to fill the model, as long as no sliced file says better.
 *
 * @param walls lines along every outline
 * @param shellLayers solid layers under a top and over an underside
 * @param infill share of plastic elsewhere, 0…1
 */
public record PrintSettings(int walls, int shellLayers, double infill) {
    private static final int MOST_WALLS = 50;
    private static final int MOST_LAYERS = 1000;

    public static final PrintSettings COMMON = new PrintSettings(2, 4, 0.15);

    public PrintSettings {
        if (walls < 0 || walls > MOST_WALLS) {
            throw Refusal.of("%d walls are out of range; give 0 to %d.", walls, MOST_WALLS);
        }
        if (shellLayers < 0 || shellLayers > MOST_LAYERS) {
            throw Refusal.of("%d solid layers are out of range; give 0 to %d.", shellLayers, MOST_LAYERS);
        }
        if (!(infill >= 0 && infill <= 1)) {
            throw Refusal.of("An infill of %s %% cannot be; give 0 to 100.", Words.thousandths(infill * 100));
        }
    }

    PrintSettings filled(double share) {
        return new PrintSettings(walls, shellLayers, share);
    }

    /** To whole per cents of infill. */
    public PrintSettings rounded() {
        return filled(Math.round(infill * 100) / 100.0);
    }

    /** For a sentence: “2 walls, 4 solid layers, 15 % infill”. */
    public String words() {
        return Words.count(walls, "wall") + ", " + Words.count(shellLayers, "solid layer") + ", "
                + Words.thousandths(infill * 100) + " % infill";
    }
}
