package dev.tranche.core.colour;

import java.util.function.DoubleBinaryOperator;

/**
 * Thin plastics stacked: what the stack by itself gives back of light from above and from beneath, and what of it comes
 * through, which is the same both ways.
 *
 * <p>Source: P. Kubelka, "New Contributions to the Optics of Intensely Light-Scattering Materials. Part II: Nonhomogeneous
 * Layers", Journal of the Optical Society of America 44 (1954): R₁₂ = R₁ + T₁² R₂ / (1 − R₁ R₂), T₁₂ = T₁ T₂ / (1 − R₁ R₂),
 * where within the fraction R₁ is that of the side which faces the other layer.
 *
 * @param above given back of light from above, each channel 0…1, as {@code beneath} and {@code through}
 */
public record Slab(LinearRgb above, LinearRgb beneath, LinearRgb through) {
    private static final LinearRgb BLACK = new LinearRgb(0, 0, 0);
    private static final LinearRgb WHITE = new LinearRgb(1, 1, 1);

    /** No plastic at all. */
    public static final Slab NOTHING = new Slab(BLACK, BLACK, WHITE);

    /** This one lying on another. */
    public Slab on(Slab lower) {
        LinearRgb bounced = each(beneath, lower.above, (r1, r2) -> 1 / (1 - r1 * r2));
        return new Slab(
                sum(above, product(product(through, through), product(lower.above, bounced))),
                sum(lower.beneath, product(product(lower.through, lower.through), product(beneath, bounced))),
                product(product(through, lower.through), bounced));
    }

    /** What is seen of it from above, lying on something that gives back {@code background}. */
    public LinearRgb over(LinearRgb background) {
        return on(new Slab(background, background, BLACK)).above;
    }

    /**
     * Whether nothing laid under it could change what is seen from above: over black and over white it is the same colour to
     * {@code steps} of 255 a channel.
     */
    public boolean hides(double steps) {
        LinearRgb black = over(BLACK);
        LinearRgb white = over(WHITE);
        return Math.max(
                        Srgb.level(white.red()) - Srgb.level(black.red()),
                        Math.max(
                                Srgb.level(white.green()) - Srgb.level(black.green()),
                                Srgb.level(white.blue()) - Srgb.level(black.blue())))
                <= steps;
    }

    private static LinearRgb sum(LinearRgb a, LinearRgb b) {
        return each(a, b, Double::sum);
    }

    private static LinearRgb product(LinearRgb a, LinearRgb b) {
        return each(a, b, (x, y) -> x * y);
    }

    private static LinearRgb each(LinearRgb a, LinearRgb b, DoubleBinaryOperator f) {
        return new LinearRgb(
                f.applyAsDouble(a.red(), b.red()),
                f.applyAsDouble(a.green(), b.green()),
                f.applyAsDouble(a.blue(), b.blue()));
    }
}
