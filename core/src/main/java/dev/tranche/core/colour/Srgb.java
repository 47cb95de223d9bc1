package dev.tranche.core.colour;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Locale;
import java.util.Optional;

/**
 * A colour as it is typed and shown: eight bits a channel, IEC 61966-2-1.
 *
 * @param red 0–255
 * @param green 0–255
 * @param blue 0–255
 */
public record Srgb(int red, int green, int blue) {
    public Srgb {
        if (((red | green | blue) & ~0xFF) != 0) {
            throw Refusal.of("A colour of (%d, %d, %d) cannot be; each channel is 0 to 255.", red, green, blue);
        }
    }

    /** Reads {@code #1A2B3C}, with or without the hash, {@code #1AC} for {@code #11AACC}, or a name such as teal. */
    public static Srgb parse(String text) {
        String typed = text == null ? "" : text.strip();
        if (typed.isEmpty()) {
            throw new Refusal("A spool needs a colour; choose one, or type it as #RRGGBB.");
        }
        String hex = typed.matches("#[0-9A-Fa-f]{3}")
                ? typed.substring(1).replaceAll(".", "$0$0")
                : ColourNames.hex(typed).orElse(typed.replaceFirst("^#", ""));
        if (!hex.matches("[0-9A-Fa-f]{6}")) {
            throw Refusal.of(
                    "“%s” is not a colour; type it as #RRGGBB, such as #3E7D3A, or by a name such as green.",
                    Words.quoted(text));
        }
        int rgb = Integer.parseInt(hex, 16);
        return new Srgb(rgb >> 16 & 0xFF, rgb >> 8 & 0xFF, rgb & 0xFF);
    }

    /** The nearest displayable colour; channels outside 0…1 are limited to it. */
    public static Srgb of(LinearRgb light) {
        return new Srgb(encode(light.red()), encode(light.green()), encode(light.blue()));
    }

    /** What people call it: the nearest of the names that browsers know, if a CIEDE2000 of 3 takes it for that. */
    public Optional<String> name() {
        return ColourNames.nearest(this, 3).map(n -> n.substring(0, 1).toUpperCase(Locale.ROOT) + n.substring(1));
    }

    public LinearRgb linear() {
        return new LinearRgb(decode(red), decode(green), decode(blue));
    }

    public Lab lab() {
        return linear().lab();
    }

    public String hex() {
        return Words.format("#%02X%02X%02X", red, green, blue);
    }

    /** Whether black marks read better than white ones on this colour. */
    public boolean isLight() {
        return linear().luminance() > 0.18;
    }

    private static double decode(int channel) {
        double c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }

    private static int encode(double light) {
        return (int) Math.round(level(light));
    }

    /** The level of a channel before it is rounded to a whole one, 0…255. */
    static double level(double light) {
        double l = Math.min(1, Math.max(0, light));
        return 255 * (l <= 0.0031308 ? 12.92 * l : 1.055 * Math.pow(l, 1 / 2.4) - 0.055);
    }
}
