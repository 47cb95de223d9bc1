package dev.tranche.core.estimate;

import dev.tranche.core.speech.Refusal;
import java.math.BigDecimal;

/**
 * What the current costs that a print takes.
 *
 * @param watts the printer draws on average
 * @param perKilowattHour in the user's currency
 */
public record Power(double watts, BigDecimal perKilowattHour) {
    public Power {
        if (!(watts >= 0 && watts <= 20_000)) {
            throw Refusal.of("A power of %s W is out of range; give 0 to 20 000.", watts);
        }
        if (perKilowattHour.signum() < 0 || perKilowattHour.compareTo(BigDecimal.valueOf(1_000)) > 0) {
            throw new Refusal("A price per kilowatt hour must be 0 or more, and at most 1000.");
        }
    }

    public double kilowattHours(double seconds) {
        return watts * seconds / 3_600_000;
    }

    public double cost(double seconds) {
        return kilowattHours(seconds) * perKilowattHour.doubleValue();
    }
}
