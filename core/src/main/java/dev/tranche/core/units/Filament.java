package dev.tranche.core.units;

import dev.tranche.core.speech.Refusal;

/**
 * Filament as a printer takes it: a round strand of one diameter.
 *
 * @param diameter mm, 0.5 to 10; 1.75 and 2.85 are common
 */
public record Filament(double diameter) {
    public static final Filament COMMON = new Filament(1.75);

    public Filament {
        if (!(diameter >= 0.5 && diameter <= 10)) {
            throw Refusal.of("A filament diameter of %s mm cannot be; 1.75 and 2.85 are common.", diameter);
        }
    }

    /** Cross-section π d²/4, in mm². */
    public double area() {
        return Math.PI * diameter * diameter / 4;
    }

    /** Length of strand that holds {@code volume}, in mm. */
    public double length(Volume volume) {
        return volume.cubicMillimetres() / area();
    }

    /** Volume of {@code length} mm of strand. */
    public Volume volume(double length) {
        return new Volume(length * area());
    }
}
