package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import java.util.OptionalDouble;

/**
 * Something on the frame that the carriage presses by driving against it: a switch, a cutter.
 *
 * <p>The carriage waits the travel short of it and presses by the travel. A lever at the far end of an axis from
 * home is pressed away from home; one at the homing end is the mirror of that. A switch at 350 mm with 3 mm of
 * travel waits at 347 mm (common practice).
 *
 * @param axis along which it is pressed
 * @param position mm, where it is fully pressed
 * @param travel mm from touching it to fully pressed
 * @param atHomingEnd whether it sits at the end where the axis homes
 * @param across mm on the other axis, where it can be met; wherever the carriage is, if that does not matter
 */
public record Lever(Axis axis, double position, double travel, boolean atHomingEnd, OptionalDouble across) {
    public Lever {
        if (across.isPresent() && !(Math.abs(across.getAsDouble()) <= 3000)) {
            throw Refusal.of(
                    "A switch at %s mm across is on no machine; give its place on the other axis, in mm.",
                    across.getAsDouble());
        }
        if (!(Math.abs(position) <= 3000)) {
            throw Refusal.of("A switch at %s mm is on no machine; give its place on the axis, in mm.", position);
        }
        if (!(travel >= 0.1 && travel <= 30)) {
            throw Refusal.of("A press of %s mm is out of range; give 0.1 to 30 mm, 3 is common.", travel);
        }
    }

    /** One that can be met anywhere along the other axis. */
    public Lever(Axis axis, double position, double travel, boolean atHomingEnd) {
        this(axis, position, travel, atHomingEnd, OptionalDouble.empty());
    }

    /** +1 where it is pressed towards high numbers, −1 towards low ones. */
    public int direction(Corner home) {
        return home.homesLow(axis) != atHomingEnd ? 1 : -1;
    }

    /** Where the carriage waits before it presses, mm. */
    public double waiting(Corner home) {
        return position - direction(home) * travel;
    }
}
