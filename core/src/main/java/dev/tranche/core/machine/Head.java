package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;

/**
 * What hangs beside and above the nozzle and has to clear what stands already, where one thing is printed whole before the next.
 *
 * @param radius mm from the nozzle to the farthest of it that hangs lower than {@code height}
 * @param height mm from the tip of the nozzle up to what is wider than that: the beam or the rods
 */
public record Head(double radius, double height) {
    /** A wide head under low rods, mm; from memory, to be measured. */
    public static final Head COMMON = new Head(40, 30);

    public Head {
        if (!(radius > 0 && radius <= 500)) {
            throw Refusal.of("A head that reaches %s mm round the nozzle is out of range; give 1 to 500 mm.", radius);
        }
        if (!(height > 0 && height <= 2000)) {
            throw Refusal.of("A beam %s mm above the nozzle is out of range; give 1 to 2000 mm.", height);
        }
    }
}
