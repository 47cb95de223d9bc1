package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.machine.Motion;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MotionClockTest {
    private static final Motion MOTION = new Motion(300, 50, 10, 30, 500, 0.02);

    private static double straight(double... lengths) {
        MotionClock clock = new MotionClock(MOTION);
        for (double l : lengths) {
            clock.move(l, 0, 0, 1, l, l, 60, 0, 0);
        }
        clock.stop();
        return clock.total();
    }

    /** Closed form of the trapezoid: L/v + v/a, or 2√(L/a) where the speed is never reached. */
    @ParameterizedTest
    @CsvSource({"100,1.7867", "2,0.1265"})
    void a_move_from_rest_to_rest_takes_the_time_of_its_trapezoid(double length, double seconds) {
        assertThat(straight(length)).isCloseTo(seconds, within(0.00005));
    }

    @Property
    void a_straight_line_takes_as_long_in_pieces_as_whole(
            @ForAll @DoubleRange(min = 1, max = 200) double length, @ForAll @IntRange(min = 1, max = 2000) int pieces) {
        double[] lengths = new double[pieces];
        java.util.Arrays.fill(lengths, length / pieces);
        assertThat(straight(lengths)).isCloseTo(straight(length), within(1e-6));
    }

    @Test
    void turning_back_means_coming_to_rest() {
        MotionClock clock = new MotionClock(MOTION);
        clock.move(50, 0, 0, 1, 50, 50, 60, 0, 0);
        clock.move(-50, 0, 0, 1, 50, 50, 60, 0, 0);
        clock.stop();
        assertThat(clock.total()).isCloseTo(2 * straight(50), within(1e-9));
    }

    @Test
    void a_right_angle_is_taken_at_the_speed_the_junction_deviation_allows() {
        // v² = a δ s/(1 − s) with s = sin 45°: here 500 · 0.02 · 0.7071/0.2929 = 24.14, v = 4.913 mm/s.
        MotionClock clock = new MotionClock(MOTION);
        clock.move(50, 0, 0, 1, 50, 50, 60, 0, 0);
        clock.move(0, 50, 0, 1, 50, 50, 60, 0, 0);
        clock.stop();
        double v = Math.sqrt(500 * 0.02 * Math.sqrt(0.5) / (1 - Math.sqrt(0.5)));
        double saved = 2 * (v / 500 - v * v / (2 * 500) / 60);
        assertThat(clock.total()).isCloseTo(2 * straight(50) - saved, within(1e-9));
    }

    @Test
    void a_lift_is_held_to_the_speed_of_z_and_an_extruder_stops_the_carriage() {
        MotionClock clock = new MotionClock(MOTION);
        clock.move(0, 0, 10, 0, 10, 10, 60, 0, 0);
        clock.stop();
        assertThat(clock.total()).isCloseTo(10.0 / 10 + 10.0 / 500, within(1e-9));
        MotionClock retracting = new MotionClock(MOTION);
        retracting.move(50, 0, 0, 1, 50, 50, 60, 0, 0);
        retracting.move(0, 0, 0, -2, 0, 0, 30, 0, 0);
        retracting.move(50, 0, 0, 1, 50, 50, 60, 0, 0);
        retracting.stop();
        double retraction = 2.0 / 30 + 30.0 / 500;
        assertThat(retracting.total()).isCloseTo(2 * straight(50) + retraction, within(1e-9));
    }

    /** Step-by-step numerical integration of the same speeds as an independent witness. */
    @Property(tries = 100)
    void times_agree_with_stepwise_integration(
            @ForAll @DoubleRange(min = 0.5, max = 80) double length,
            @ForAll @DoubleRange(min = 5, max = 200) double speed,
            @ForAll @DoubleRange(min = 100, max = 3000) double acceleration) {
        MotionClock clock = new MotionClock(MOTION);
        clock.move(length, 0, 0, 1, length, length, speed, acceleration, 0);
        clock.stop();
        double dt = 1e-4;
        double at = 0;
        double v = 0;
        double t = 0;
        while (at < length) {
            double braking = v * v / (2 * acceleration);
            v = length - at <= braking
                    ? Math.max(acceleration * dt, v - acceleration * dt)
                    : Math.min(speed, v + acceleration * dt);
            at += v * dt;
            t += dt;
        }
        assertThat(clock.total()).isCloseTo(t, within(0.01 * t + 0.01));
    }

    @Test
    void time_is_summed_by_account() {
        MotionClock clock = new MotionClock(MOTION);
        clock.move(50, 0, 0, 1, 50, 50, 60, 0, 3);
        clock.pause(2, 7);
        clock.move(50, 0, 0, 1, 50, 50, 60, 0, 3);
        clock.stop();
        assertThat(clock.seconds(3)).isCloseTo(2 * straight(50), within(1e-9));
        assertThat(clock.seconds(7)).isEqualTo(2);
        assertThat(clock.seconds(100)).isZero();
    }
}
