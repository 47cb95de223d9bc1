package dev.tranche.core.plan;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Words;
import java.math.BigDecimal;

/**
 * A real filament on the shelf.
 *
 * @param name as its owner calls it, at most 40 letters
 * @param colour as printed
 * @param density g/cm³
 * @param pricePerKilogram in the user's currency
 * @param firstLayerTemperature °C, as {@code temperature} for the rest
 * @param gramsLeft on the spool
 */
public record Spool(
        SpoolId id,
        String name,
        Material material,
        Srgb colour,
        double density,
        BigDecimal pricePerKilogram,
        int firstLayerTemperature,
        int temperature,
        double gramsLeft) {
    public Spool {
        name = Words.oneLine(name == null ? "" : name);
        if (name.isEmpty() || name.length() > 40) {
            throw new Refusal("A spool needs a name of at most 40 letters.");
        }
        if (colour == null) {
            throw new Refusal("A spool needs a colour; choose one, or type it as #RRGGBB.");
        }
        if (!(density >= 0.5 && density <= 10)) {
            throw Refusal.of("A density of %s g/cm³ is out of range; give 0.5 to 10.", density);
        }
        if (pricePerKilogram.signum() < 0 || pricePerKilogram.compareTo(BigDecimal.valueOf(100_000)) > 0) {
            throw new Refusal("A price per kilogram must be 0 or more, and at most 100 000.");
        }
        temperature("first-layer temperature", firstLayerTemperature);
        temperature("temperature", temperature);
        if (!(gramsLeft >= 0 && gramsLeft <= 100_000)) {
            throw Refusal.of("%s g left on a spool cannot be; give 0 to 100 000.", gramsLeft);
        }
    }

    private static void temperature(String what, int celsius) {
        if (celsius < 150 || celsius > 450) {
            throw Refusal.of("A %s of %d °C is out of range; give 150 to 450.", what, celsius);
        }
    }
}
