package dev.tranche.core.plan;

import dev.tranche.core.colour.Film;
import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
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
 * @param coverDepth thickness at which it hides what lies under it, mm
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
        double gramsLeft,
        double coverDepth) {
    /** Where nobody has looked: PLA hides at about this, from memory. */
    public static final double USUAL_COVER = 0.8;

    public static final int LONGEST_NAME = 40;
    static final int MOST_GRAMS = 100_000;

    private static final double CLEAR = 5;

    public Spool {
        name = Words.oneLine(name == null ? "" : name);
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
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
        // 22 and 22.00 are one price.
        pricePerKilogram = pricePerKilogram.stripTrailingZeros();
        pricePerKilogram = pricePerKilogram.scale() < 0 ? pricePerKilogram.setScale(0) : pricePerKilogram;
        temperature("first-layer temperature", firstLayerTemperature);
        temperature("temperature", temperature);
        if (!(gramsLeft >= 0 && gramsLeft <= MOST_GRAMS)) {
            throw Refusal.of("%s g left on a spool cannot be; give 0 to 100 000.", gramsLeft);
        }
        if (!(coverDepth >= 0.05 && coverDepth <= 20)) {
            throw Refusal.of("A cover depth of %s mm is out of range; give 0.05 to 20.", coverDepth);
        }
    }

    /** A kilogram of which only this is known: the rest is what is usual of its material, and 20 a kilogram. */
    public static Spool full(String name, Material material, Srgb colour) {
        return new Spool(
                new SpoolId(0),
                name,
                material,
                colour,
                material.density(),
                BigDecimal.valueOf(20),
                material.usualFirstLayer(),
                material.usualTemperature(),
                1000,
                usualCover(material, colour));
    }

    /** A spool of which nobody knows how well it covers. */
    public Spool(
            SpoolId id,
            String name,
            Material material,
            Srgb colour,
            double density,
            BigDecimal pricePerKilogram,
            int firstLayerTemperature,
            int temperature,
            double gramsLeft) {
        this(
                id,
                name,
                material,
                colour,
                density,
                pricePerKilogram,
                firstLayerTemperature,
                temperature,
                gramsLeft,
                USUAL_COVER);
    }

    /**
     * Thickness at which a plastic of that colour hides what lies under it until somebody has measured it, mm: black early, clean
     * yellows and oranges late, and materials that are milky by themselves later than PLA (all from memory).
     */
    public static double usualCover(Material material, Srgb colour) {
        Lab lab = colour.lab();
        double chroma = Math.hypot(lab.a(), lab.b());
        double inPla = lab.lightness() < 20 ? 0.4 : lab.lightness() > 65 && chroma > 45 ? 1.2 : USUAL_COVER;
        boolean milky = material == Material.PETG || material == Material.TPU;
        // In whole tenths, as it is shown and given away.
        return Math.rint(10 * (milky ? 1.5 * inPla : inPla)) / 10;
    }

    /** The same filament under another number, with other remains. */
    public Spool as(SpoolId other, double left) {
        return new Spool(
                other,
                name,
                material,
                colour,
                density,
                pricePerKilogram,
                firstLayerTemperature,
                temperature,
                left,
                coverDepth);
    }

    /** The same filament, of which is known how thick it hides what lies beneath, mm. */
    public Spool covering(double depth) {
        return new Spool(
                id,
                name,
                material,
                colour,
                density,
                pricePerKilogram,
                firstLayerTemperature,
                temperature,
                gramsLeft,
                depth);
    }

    /** Whether one looks through it: it hides nothing within {@value #CLEAR} mm. */
    public boolean isClear() {
        return coverDepth > CLEAR;
    }

    /** In layers so thin that what lies beneath shows. */
    public Film film() {
        return Film.of(colour, coverDepth);
    }

    private static void temperature(String what, int celsius) {
        if (celsius < 150 || celsius > 450) {
            throw Refusal.of("A %s of %d °C is out of range; give 150 to 450.", what, celsius);
        }
    }
}
