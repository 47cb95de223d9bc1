package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.machine.Motion;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
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
        Arrays.fill(lengths, length / pieces);
        assertThat(straight(lengths)).isCloseTo(straight(length), within(1e-6));
    }

    private record Move(double dx, double dy, double speed, double acceleration) {
        double length() {
            return Math.hypot(dx, dy);
        }
    }

    /**
     * The same rule without a queue: all moves are known, speeds are limited from the last back to the first and from
     * the first on to the last, and each move is added up by itself.
     */
    private static double[] allAtOnce(List<Move> moves) {
        int n = moves.size();
        double[] at = new double[n + 1];
        for (int i = 1; i < n; i++) {
            Move in = moves.get(i - 1);
            Move out = moves.get(i);
            double cosine = (in.dx * out.dx + in.dy * out.dy) / (in.length() * out.length());
            double s = Math.sqrt(Math.max(0, (1 + cosine) / 2));
            double cap = Math.min(in.speed, out.speed);
            double bend = s < 1 ? Math.sqrt(out.acceleration * MOTION.junctionDeviation() * s / (1 - s)) : cap;
            at[i] = Math.min(cap, bend);
        }
        for (int i = n - 1; i >= 0; i--) {
            Move m = moves.get(i);
            at[i] = Math.min(at[i], Math.sqrt(at[i + 1] * at[i + 1] + 2 * m.acceleration * m.length()));
        }
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            Move m = moves.get(i);
            double a = m.acceleration;
            at[i + 1] = Math.min(at[i + 1], Math.sqrt(at[i] * at[i] + 2 * a * m.length()));
            double top = Math.min(m.speed, Math.sqrt(a * m.length() + (at[i] * at[i] + at[i + 1] * at[i + 1]) / 2));
            double slopes = (2 * top * top - at[i] * at[i] - at[i + 1] * at[i + 1]) / (2 * a);
            seconds[i] = (2 * top - at[i] - at[i + 1]) / a + Math.max(0, m.length() - slopes) / top;
        }
        return seconds;
    }

    /** Short moves that never come to rest make the queue long; each has an account of its own. */
    @Property(tries = 60)
    void a_path_takes_as_long_as_if_all_of_it_had_been_known_at_once(
            @ForAll @IntRange(min = 1, max = 3000) int count,
            @ForAll @DoubleRange(min = 0.01, max = 5) double about,
            @ForAll Random random) {
        List<Move> moves = new ArrayList<>();
        MotionClock clock = new MotionClock(MOTION);
        double way = 0;
        for (int i = 0; i < count; i++) {
            way += random.nextInt(20) == 0 ? random.nextDouble() * 6 : random.nextDouble() * 0.02;
            double length = about * (0.1 + random.nextDouble());
            Move move = new Move(
                    length * Math.cos(way),
                    length * Math.sin(way),
                    20 + 100 * random.nextDouble(),
                    200 + 2000 * random.nextDouble());
            moves.add(move);
            clock.move(move.dx, move.dy, 0, 1, move.length(), move.length(), move.speed, move.acceleration, i);
        }
        clock.stop();
        double[] known = allAtOnce(moves);
        assertThat(clock.total()).isCloseTo(DoubleStream.of(known).sum(), within(1e-6));
        for (int i = 0; i < count; i++) {
            assertThat(clock.seconds(i)).as("move " + i).isCloseTo(known[i], within(1e-7));
        }
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
        assertThat(clock.seconds(64)).isZero();
    }
}
