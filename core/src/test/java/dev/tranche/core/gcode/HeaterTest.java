package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

/** First order: the way to the limit shrinks to 1/e in a time constant (any textbook of control). */
class HeaterTest {
    private static final Heater HEATER = new Heater(400, 150);

    @Test
    void two_thirds_of_the_way_to_its_limit_take_about_a_time_constant() {
        assertThat(HEATER.secondsFrom(20, 400 - 380 / Math.E)).isCloseTo(150, within(1e-9));
        assertThat(HEATER.after(20, 390, 150)).isCloseTo(400 - 380 / Math.E, within(1e-9));
        assertThat(HEATER.secondsDown(220, 20 + 200 / Math.E)).isCloseTo(150, within(1e-9));
        assertThat(HEATER.cooled(220, 150)).isCloseTo(20 + 200 / Math.E, within(1e-9));
    }

    @Test
    void what_is_asked_beyond_its_limit_or_beneath_the_room_is_come_near_to() {
        assertThat(HEATER.secondsFrom(20, 1000)).isCloseTo(150 * Math.log(380), within(1e-9));
        assertThat(HEATER.secondsDown(220, 0)).isCloseTo(150 * Math.log(200), within(1e-9));
        assertThat(HEATER.after(20, 100, 1e6)).isEqualTo(100);
    }

    @Test
    void nothing_is_waited_for_that_is_there() {
        assertThat(HEATER.secondsFrom(210, 200)).isZero();
        assertThat(HEATER.secondsDown(200, 210)).isZero();
        assertThat(HEATER.after(210, 200, 10)).isEqualTo(210);
    }

    @Property
    void after_the_seconds_it_takes_it_is_there(
            @ForAll @DoubleRange(min = 20, max = 300) double one,
            @ForAll @DoubleRange(min = 21, max = 300) double other) {
        double low = Math.min(one, other);
        double high = Math.max(one, other);
        assertThat(HEATER.after(low, 399, HEATER.secondsFrom(low, high))).isCloseTo(high, within(1e-6));
        assertThat(HEATER.cooled(high, HEATER.secondsDown(high, Math.max(21, low))))
                .isCloseTo(Math.max(21, low), within(1e-6));
    }
}
