package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.Controller.Effect;
import dev.tranche.core.machine.Dialect;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/**
 * A controller told line by line. What G0 to G3, G20, G28, G90 to G92 mean: Kramer, Proctor and Messina, "The NIST RS274NGC
 * Interpreter – Version 3", NISTIR 6556 (2000), §3.5; the rest is common practice in open firmware.
 */
class ControllerTest {
    private static final Offset<Double> NEAR = within(1e-3);

    private final Controller controller = new Controller(Dialect.COMMON);
    private Effect last;
    private double way;
    private double lastX;
    private double lastY;

    private ControllerTest told(String... lines) {
        try {
            GcodeScanner scanner = new GcodeScanner(
                    new ByteArrayInputStream((String.join("\n", lines) + "\n").getBytes(StandardCharsets.US_ASCII)));
            while (scanner.next()) {
                last = controller.execute(scanner);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return this;
    }

    private void standsAt(double x, double y, double z) {
        assertThat(controller.x()).isCloseTo(x, NEAR);
        assertThat(controller.y()).isCloseTo(y, NEAR);
        assertThat(controller.z()).isCloseTo(z, NEAR);
    }

    @Test
    void heat_may_be_asked_for_in_words() {
        told("SET_HEATER_TEMPERATURE HEATER=extruder TARGET=215");
        assertThat(controller.nozzleTarget()).isEqualTo(215);
        told("SET_HEATER_TEMPERATURE HEATER=heater_bed TARGET=60", "SET_HEATER_TEMPERATURE HEATER=extruder TARGET={t}");
        told("SET_HEATER_TEMPERATURE HEATER=extruder1 TARGET=190");
        assertThat(controller.nozzleTarget()).isEqualTo(215);
        told("TEMPERATURE_WAIT SENSOR=extruder MINIMUM=214");
        assertThat(last).isEqualTo(Effect.HEAT);
    }

    /** The same arc by its centre and by its radius, negative where it turns through more than half a circle (§3.5.3). */
    @Property(tries = 300)
    void an_arc_is_as_long_as_its_angle_times_its_radius_however_it_is_written(
            @ForAll @DoubleRange(min = 1, max = 80) double radius,
            @ForAll @DoubleRange(min = 0, max = 6.28) double from,
            @ForAll @DoubleRange(min = 0.2, max = 6) double turn,
            @ForAll boolean clockwise,
            @ForAll @DoubleRange(min = -5, max = 5) double rise) {
        double to = clockwise ? from - turn : from + turn;
        double cx = 100;
        double cy = 70;
        String start = words("G1 X%.6f Y%.6f Z10", cx + radius * Math.cos(from), cy + radius * Math.sin(from));
        String end = words(
                "%s X%.6f Y%.6f Z%.6f",
                clockwise ? "G2" : "G3", cx + radius * Math.cos(to), cy + radius * Math.sin(to), 10 + rise);
        String centre = words(" I%.6f J%.6f", -radius * Math.cos(from), -radius * Math.sin(from));
        // By the radius an arc of nearly half a circle hardly says on which side its centre lies.
        boolean byRadius = Math.abs(turn - Math.PI) > 0.05;
        String size = words(" R%.6f", turn > Math.PI ? -radius : radius);
        for (String form : byRadius ? new String[] {centre, size} : new String[] {centre}) {
            told(start, end + form);
            assertThat(last).isEqualTo(Effect.MOVE);
            assertThat(controller.length()).as(form).isCloseTo(Math.hypot(radius * turn, rise), within(0.01));
            assertThat(controller.sweep()).as(form).isCloseTo(clockwise ? -turn : turn, within(1e-3));
            assertThat(controller.centreX()).as(form).isCloseTo(cx, within(0.01));
            assertThat(controller.centreY()).as(form).isCloseTo(cy, within(0.01));
            assertThat(controller.chord()).as(form).isCloseTo(Math.hypot(2 * radius * Math.sin(turn / 2), rise), NEAR);
            controller.along((fromX, fromY, toX, toY) -> {
                assertThat(Math.hypot(toX - cx, toY - cy)).as(form).isCloseTo(radius, within(0.01));
                assertThat(Math.hypot(toX - fromX, toY - fromY)).as(form).isLessThan(radius / 8 + 0.01);
                way += Math.hypot(toX - fromX, toY - fromY);
                lastX = toX;
                lastY = toY;
            });
            // Chords of an eighth of a radian are shorter than their arcs by 7 in 10,000.
            assertThat(way).as(form).isCloseTo(radius * turn, within(0.001 * radius * turn + 0.01));
            assertThat(lastX).as(form).isCloseTo(controller.x(), within(0.01));
            assertThat(lastY).as(form).isCloseTo(controller.y(), within(0.01));
            way = 0;
        }
    }

    private static String words(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }

    @Test
    void an_arc_that_ends_where_it_began_is_a_whole_circle() {
        told("G1 X50 Y40", "G2 I-10 J0 E1");
        assertThat(controller.length()).isCloseTo(20 * Math.PI, NEAR);
        assertThat(controller.sweep()).isCloseTo(-2 * Math.PI, NEAR);
        assertThat(controller.chord()).isZero();
        standsAt(50, 40, 0);
        told("G1 X20 Y20");
        assertThat(controller.sweep()).isZero();
    }

    @Test
    void a_line_of_words_alone_goes_on_as_the_line_before_it() {
        told("G3 X10 Y0 I5 J0", "X0 Y0 I-5 J0");
        assertThat(controller.sweep()).isCloseTo(Math.PI, NEAR);
        told("G0 X1", "Y2");
        assertThat(controller.length()).isCloseTo(2, NEAR);
        assertThat(controller.sweep()).isZero();
    }

    @Test
    void homing_an_axis_leaves_the_others_where_they_are() {
        told("G1 X10 Y20 Z30", "G28 Z");
        standsAt(10, 20, 0);
        told("G1 Z30", "G28 X");
        standsAt(0, 20, 30);
        told("G1 X10", "G28 Y0");
        standsAt(10, 0, 30);
        told("G1 Y20", "G28");
        standsAt(0, 0, 0);
    }

    @Test
    void a_place_that_is_called_another_is_no_place_of_the_machine_until_it_is_homed() {
        told("G1 X10 Y20 Z5 E7", "G92 E0");
        assertThat(controller.e()).isZero();
        assertThat(controller.standsOnOrigin()).isTrue();
        told("G92 X0");
        standsAt(0, 20, 5);
        assertThat(controller.standsOnOrigin()).isFalse();
        // Back by as much, and the places are the machine's again.
        told("G1 X-10", "G92 X0");
        assertThat(controller.standsOnOrigin()).isTrue();
        told("G1 X3", "G92 Y0 Z1");
        standsAt(3, 0, 1);
        assertThat(controller.standsOnOrigin()).isFalse();
        told("G28 Y");
        assertThat(controller.standsOnOrigin()).isTrue();
    }

    @Test
    void inches_are_25_4_mm_for_places_filament_and_feeds() {
        told("G20", "G1 X1 Y2 E0.5 F60");
        standsAt(25.4, 50.8, 0);
        assertThat(controller.e()).isCloseTo(12.7, NEAR);
        assertThat(controller.feed()).isCloseTo(25.4, NEAR);
        told("G92 X2 Y1 Z1 E1");
        standsAt(50.8, 25.4, 25.4);
        assertThat(controller.e()).isCloseTo(25.4, NEAR);
        told("G21", "G91", "G1 X-50.8 Y0.6 Z0.6 E1");
        standsAt(0, 26, 26);
    }

    /** A mm of 1.75 mm filament holds 2.405 mm³. */
    @Test
    void an_extruder_that_counts_volume_is_counted_in_millimetres_of_its_filament() {
        told("M200 D1.75", "G1 X1 E2.40528");
        assertThat(controller.de()).isCloseTo(1, NEAR);
        told("M200 S0", "G92 E0", "G1 X2 E2");
        assertThat(controller.de()).isCloseTo(2, NEAR);
        told("M200 S1", "G92 E0", "G1 X3 E2.40528");
        assertThat(controller.de()).isCloseTo(1, NEAR);
        told("M200 D0", "G92 E0", "G1 X4 E2");
        assertThat(controller.de()).isCloseTo(2, NEAR);
        told("M200 D2.85", "G92 E0", "G1 X5 E6.37940", "M200 S1", "G92 E0", "G1 X6 E6.37940");
        assertThat(controller.de()).isCloseTo(1, NEAR);
    }

    @Test
    void speeds_factors_and_waits_are_what_firmware_makes_of_them() {
        told("G1 X1 F1200", "M220 S50", "M204 S700");
        assertThat(controller.speed()).isCloseTo(10, NEAR);
        assertThat(controller.acceleration()).isEqualTo(700);
        told("M204 P900", "G1 F0", "M220 S100");
        assertThat(controller.acceleration()).isEqualTo(900);
        assertThat(controller.speed()).isCloseTo(20, NEAR);
        told("SET_VELOCITY_LIMIT ACCEL=3000");
        assertThat(controller.acceleration()).isEqualTo(3000);
        told("M204 S600", "SET_PRESSURE_ADVANCE ADVANCE=0.04");
        assertThat(controller.acceleration()).isEqualTo(600);
        told("G4 P1500");
        assertThat(last).isEqualTo(Effect.DWELL);
        assertThat(controller.pause()).isCloseTo(1.5, NEAR);
        told("G4 S2");
        assertThat(controller.pause()).isCloseTo(2, NEAR);
    }

    @Test
    void a_nozzle_cools_to_what_it_is_told_and_no_further() {
        told("M109 S210");
        assertThat(last).isEqualTo(Effect.HEAT);
        assertThat(controller.isCooling()).isFalse();
        told("M104 S180");
        assertThat(controller.nozzleTarget()).isEqualTo(180);
        assertThat(controller.isCooling()).isTrue();
        controller.cool(5);
        assertThat(controller.state().nozzleNow()).isBetween(181.0, 209.0);
        controller.cool(1000);
        assertThat(controller.state().nozzleNow()).isEqualTo(180);
        assertThat(controller.isCooling()).isFalse();
    }

    @Test
    void filament_drawn_back_by_the_firmware_is_known_and_g10_with_words_is_another_command() {
        told("G10");
        assertThat(controller.draw().byFirmware()).isTrue();
        told("G11", "G10 L2 P1", "G10 P1");
        assertThat(controller.draw().byFirmware()).isFalse();
        told("G1 E-2 F1800");
        assertThat(controller.draw().length()).isCloseTo(2, NEAR);
        told("G1 E-0.5");
        assertThat(controller.draw().length()).isCloseTo(0.5, NEAR);
        told("G1 E3");
        assertThat(controller.draw()).isEqualTo(Draw.NONE);
    }

    @Test
    void a_tool_that_prints_at_once_after_one_that_was_not_drawn_back_is_not_drawn_back_either() {
        controller.choose(0);
        told("M83", "G1 X9 E1 F900", "G1 E-1").controller.choose(1);
        told("G1 E1", "G1 X0 E1").controller.choose(0);
        told("G1 X9 E0.3");
        assertThat(controller.drawnOtherwise()).isCloseTo(-1, NEAR);
        assertThat(controller.draw()).isEqualTo(Draw.NONE);
    }
}
