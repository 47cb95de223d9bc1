package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Envelope;

class SurveyTest {
    static SlicedFile survey(byte[] bytes) throws IOException {
        return Survey.read(
                new ByteArrayInputStream(bytes), bytes.length, Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
    }

    static SlicedFile survey(SmallGcode gcode) throws IOException {
        return survey(gcode.bytes());
    }

    private static List<String> heights(SlicedFile file) {
        return file.layers().stream().map(l -> l.z().toString()).toList();
    }

    @Test
    void a_layer_is_a_run_of_extruding_moves_at_one_height() throws IOException {
        SlicedFile file = survey(new SmallGcode().layers(0.2, 0.4, 0.6));
        assertThat(heights(file)).containsExactly("0.20", "0.40", "0.60");
        assertThat(file.layers().get(0).extruded()).isCloseTo(4 * 0.66, within(1e-6));
        assertThat(file.layers().get(1).extent().getMinX()).isCloseTo(90, within(1e-6));
        assertThat(file.layers().get(1).extent().getHeight()).isCloseTo(20, within(1e-6));
        assertThat(file.order()).isEqualTo(SlicedFile.Order.LAYER_BY_LAYER);
    }

    @Test
    void the_door_to_a_layer_is_after_the_retraction_and_before_the_first_move_towards_it() throws IOException {
        SmallGcode gcode = new SmallGcode().layers(0.2, 0.4);
        SlicedLayer.Door door = survey(gcode).layers().get(1).door().orElseThrow();
        String before = gcode.text().substring(0, (int) door.offset());
        String after = gcode.text().substring((int) door.offset());
        assertThat(before).endsWith(";LAYER STARTS 1\n").contains("E2.64000 F1800.00000\n");
        assertThat(after).startsWith("G1 Z0.40000");
        assertThat(door.state().draw().length()).isCloseTo(1.5, within(1e-6));
        assertThat(door.state().x()).isCloseTo(90, within(1e-9));
        assertThat(door.state().z()).isCloseTo(0.2, within(1e-9));
        assertThat(door.state().e()).isCloseTo(2.64, within(1e-6));
        assertThat(door.state().nozzleTemperature()).isEqualTo(210);
    }

    @Test
    void a_wipe_and_a_retraction_by_the_firmware_come_before_the_door() throws IOException {
        SmallGcode gcode = new SmallGcode().layers(0.2);
        gcode.line("G1 X92 Y90 E2.0")
                .line("G10")
                .line("; next")
                .line("G92 E0")
                .line("G0 Z0.4")
                .line("G0 X50 Y50");
        gcode.line("G11").line("G1 X60 E1");
        SlicedLayer.Door door = survey(gcode).layers().get(1).door().orElseThrow();
        assertThat(gcode.text().substring(0, (int) door.offset())).endsWith("G10\n; next\nG92 E0\n");
        assertThat(door.state().e()).isZero();
        assertThat(door.state().x()).isEqualTo(92);
    }

    @Test
    void travels_within_a_layer_are_no_doors_to_the_next() throws IOException {
        SmallGcode gcode = new SmallGcode()
                .layers(0.2)
                .line("G1 X10 Y10")
                .line("G1 X20 E9")
                .line("G1 Z0.4")
                .line("G1 X30 E10");
        SlicedLayer.Door door = survey(gcode).layers().get(1).door().orElseThrow();
        assertThat(gcode.text().substring((int) door.offset())).startsWith("G1 Z0.4\nG1 X30 E10");
    }

    @Test
    void lifts_without_extrusion_are_no_layers() throws IOException {
        SlicedFile file = survey(new SmallGcode()
                .layers(0.2)
                .line("G1 Z1.2")
                .line("G1 X5 Y5")
                .line("G1 Z0.2")
                .line("G1 X20 E9")
                .layers());
        assertThat(heights(file)).containsExactly("0.20");
    }

    @Test
    void crlf_relative_extrusion_inches_and_latin_1_change_nothing_but_how_it_is_written() throws IOException {
        SlicedFile plain = survey(new SmallGcode().grid(0.2, 0.2, 5));
        for (SmallGcode other : List.of(
                new SmallGcode().crlf().grid(0.2, 0.2, 5),
                new SmallGcode().relativeExtrusion().grid(0.2, 0.2, 5),
                new SmallGcode().inches().grid(0.2, 0.2, 5))) {
            SlicedFile file = survey(other);
            assertThat(heights(file)).isEqualTo(heights(plain));
            assertThat(file.extruded()).isCloseTo(plain.extruded(), within(1e-3));
            assertThat(file.seconds()).isCloseTo(plain.seconds(), within(0.02));
        }
        assertThat(survey(new SmallGcode().crlf().grid(0.2, 0.2, 2)).crlf()).isTrue();
    }

    @Test
    void comments_that_count_layers_are_discovered() throws IOException {
        var markers = survey(new SmallGcode().grid(0.2, 0.2, 5)).markers().orElseThrow();
        assertThat(markers.example()).isEqualTo(";LAYER STARTS 0");
        assertThat(markers.firstNumber()).hasValue(0);
        assertThat(markers.firstRun()).isZero();
    }

    /** As programs of many kinds write them; {0} counts from {2}, {1} is the height of the nozzle. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "; layer {0}, Z = {1}|1|1",
                ";{0}/40|0|0",
                "(layer {0})|0|0",
                "( layer {0} of 5, {1} mm )|7|7",
                ";LAYER:{0}|-2|-2",
                "M117 Layer {0} of 5|1|1",
                "; at {1}||0.2 mm",
                "(z={1})||0.2 mm",
                ";-- {0} --|0|0"
            })
    void whatever_counts_or_measures_layers_is_discovered(String comment, Integer from, String first)
            throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int i = 0; i < 5; i++) {
            String z = String.format(java.util.Locale.ROOT, "%.3f", 0.2 * (i + 1));
            gcode.line(comment.replace("{0}", Integer.toString(i + (from == null ? 0 : from)))
                            .replace("{1}", z))
                    .line("G1 X0 Y0 Z" + z)
                    .line("G1 X9 E" + (i + 1));
        }
        SlicedFile file = survey(gcode);
        GridMatch match = GridMatch.of(file, LayerSettings.COMMON.on(Height.ofMillimetres(1)));
        assertThat(match.markerOf(1)).contains(first.replace("0.2 mm", "0.20 mm"));
        assertThat(match.markerOf(5)).contains(from == null ? "1.00 mm" : Integer.toString(from + 4));
    }

    @Test
    void comments_that_merely_hold_numbers_are_not() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int i = 0; i < 5; i++) {
            gcode.line("; fan at " + 50 * (i % 2))
                    .line("G1 X0 Y0 Z" + 0.2 * (i + 1))
                    .line("G1 X9 E" + (i + 1));
        }
        assertThat(survey(gcode).markers()).isEmpty();
    }

    @Test
    void stops_and_tool_changes_are_found_with_line_and_layer() throws IOException {
        SlicedFile file = survey(new SmallGcode()
                .line("T0")
                .line("M600 ; first")
                .layers(0.2)
                .line("M0")
                .layers(0.4)
                .line("T1")
                .layers(0.6));
        assertThat(file.stops()).extracting(SlicedFile.Stop::text).containsExactly("M600 ; first", "M0");
        assertThat(file.stops()).extracting(SlicedFile.Stop::before).containsExactly(-1, 0);
        assertThat(file.changesTools()).isTrue();
        SlicedLayer.Stint last = file.layers().get(2).stints().get(0);
        assertThat(last.tool()).isEqualTo(1);
        assertThat(last.door()).isPresent();
    }

    @Test
    void what_a_stop_says_keeps_its_letters_however_they_are_written() throws IOException {
        String said = "M0 W\u00E4hle gr\u00FCn";
        String file =
                new String(new SmallGcode().layers(0.2).line("STOP").layers(0.4).bytes(), StandardCharsets.US_ASCII);
        for (Charset charset : List.of(StandardCharsets.UTF_8, StandardCharsets.ISO_8859_1)) {
            assertThat(survey(file.replace("STOP", said).getBytes(charset)).stops())
                    .extracting(SlicedFile.Stop::text)
                    .containsExactly(said);
        }
    }

    @Test
    void a_pause_in_words_is_a_stop_and_what_only_begins_like_one_is_not() throws IOException {
        SlicedFile file = survey(new SmallGcode()
                .layers(0.2)
                .line("PAUSE")
                .layers(0.4)
                .line("pause X=10 ; by hand")
                .layers(0.6)
                .line("PAUSE_NEVER")
                .line("PAUSES")
                .layers(0.8));
        assertThat(file.stops()).extracting(SlicedFile.Stop::text).containsExactly("PAUSE", "pause X=10 ; by hand");
    }

    @Test
    void a_layer_printed_with_two_tools_tells_time_and_plastic_of_each() throws IOException {
        SlicedFile one = survey(new SmallGcode().line("T0").layers(0.2).layers(0.4));
        SlicedFile file = survey(new SmallGcode()
                .line("T0")
                .layers(0.2)
                .line("T1")
                .line("G4 S20")
                .layers(0.2)
                .layers(0.4)
                .line("T0"));
        assertThat(file.layers()).hasSize(2);
        assertThat(file.layers().get(0).stints())
                .extracting(SlicedLayer.Stint::tool)
                .containsExactly(0, 1);
        assertThat(file.layers().get(0).stints().get(1).seconds()).isGreaterThan(20);
        assertThat(file.layers().get(0).stints().get(1).extruded())
                .isCloseTo(file.layers().get(0).stints().get(0).extruded(), within(1e-9));
        assertThat(file.layers().get(0).extruded())
                .isCloseTo(2 * one.layers().get(0).extruded(), within(1e-9));
        // A tool that is chosen and lays no plastic prints nothing.
        assertThat(file.layers().get(1).stints())
                .extracting(SlicedLayer.Stint::tool)
                .containsExactly(1);
        assertThat(one.changesTools()).isFalse();
    }

    @Test
    void a_priming_line_above_the_first_layer_is_not_an_object() throws IOException {
        SlicedFile file = survey(new SmallGcode().primed().grid(0.2, 0.2, 3));
        assertThat(file.order()).isEqualTo(SlicedFile.Order.LAYER_BY_LAYER);
        assertThat(heights(file)).containsExactly("0.30", "0.20", "0.40", "0.60");
    }

    @Test
    void falling_back_is_one_object_after_another_and_rising_while_extruding_a_spiral() throws IOException {
        SlicedFile objects =
                survey(new SmallGcode().grid(0.2, 0.2, 3).centredAt(50, 50).grid(0.2, 0.2, 3));
        assertThat(objects.order()).isEqualTo(SlicedFile.Order.SEVERAL_TIMES);

        SmallGcode spiral = new SmallGcode().line("G1 X0 Y0 Z0.2").line("M83");
        for (int i = 0; i < 300; i++) {
            spiral.line("G1 X%d Y%d Z%.3f E0.1".formatted(i % 2 * 10, i / 2 % 2 * 10, 0.2 + i * 0.01));
        }
        assertThat(survey(spiral).order()).isEqualTo(SlicedFile.Order.SPIRAL);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void a_wall_that_climbs_to_its_layer_is_of_that_layer(boolean first) throws IOException {
        SmallGcode gcode = new SmallGcode().rise(0.2).outline(0, 0, 30, 10, 0.01);
        for (int layer = 2; layer <= 40; layer++) {
            gcode.line("; layer " + layer);
            double top = 0.2 * layer;
            if (!first) {
                gcode.rise(top).outline(1, 1, 8, 8, 0.01);
            }
            gcode.scarf(0, 0, 10, 10, 0.01, top - 0.2, top);
            gcode.scarf(15, 0, 10, 10, 0.01, top - 0.2, top);
        }
        SlicedFile file = survey(gcode);
        assertThat(file.order()).isEqualTo(SlicedFile.Order.LAYER_BY_LAYER);
        assertThat(file.layers()).hasSize(40);
        assertThat(heights(file)).startsWith("0.20", "0.40", "0.60").endsWith("8.00");
        assertThat(file.layers().subList(1, 40)).allSatisfy(l -> {
            assertThat(l.extruded()).isCloseTo(first ? 0.8 : 1.12, within(1e-9));
            assertThat(l.door()).isPresent();
        });
        assertThat(file.markers()).isPresent();
    }

    @Test
    void walls_that_climb_may_come_down_again_with_the_next_thing() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int x : new int[] {0, 60}) {
            gcode.rise(0.2).outline(x, 0, 30, 10, 0.01);
            gcode.scarf(x, 0, 30, 10, 0.01, 0.2, 0.4).scarf(x, 0, 30, 10, 0.01, 0.4, 0.6);
        }
        assertThat(heights(survey(gcode))).containsExactly("0.20", "0.40", "0.60", "0.20", "0.40", "0.60");
    }

    @Test
    void arcs_count_by_their_length() throws IOException {
        // A quarter circle of radius 10 at 10 mm/s: π/2 s and a ramp of v/a in all.
        String text = "G90\nM82\nG1 Z0.2 X10 Y0 F600\nG4 P0\nG3 X0 Y10 I-10 J0 E1\n";
        SlicedFile centre = survey(text.getBytes(StandardCharsets.US_ASCII));
        SlicedFile radius = survey(text.replace("I-10 J0", "R10").getBytes(StandardCharsets.US_ASCII));
        double expected = Math.PI / 2 + 10 / Motion.COMMON.acceleration();
        assertThat(centre.layers().get(0).seconds()).isCloseTo(expected, within(1e-9));
        assertThat(radius.layers().get(0).seconds()).isCloseTo(expected, within(1e-9));
    }

    @Test
    void waiting_and_heating_take_their_time_before_the_print() throws IOException {
        SlicedFile cold = survey("G1 Z0.2\nG1 X1 E1".getBytes(StandardCharsets.US_ASCII));
        SlicedFile waits = survey("G4 S7\nG4 P500\nG1 Z0.2\nG1 X1 E1".getBytes(StandardCharsets.US_ASCII));
        assertThat(waits.secondsBefore() - cold.secondsBefore()).isCloseTo(7.5, within(1e-9));
        // First-order system to 210 °C: 150 s × ln((400 − 20)/(400 − 210)).
        SlicedFile heats = survey("M109 S210\nG1 Z0.2\nG1 X1 E1".getBytes(StandardCharsets.US_ASCII));
        assertThat(heats.secondsBefore() - cold.secondsBefore()).isCloseTo(150 * Math.log(2), within(1e-6));
    }

    @Test
    void what_is_no_print_is_refused_with_the_reason() {
        assertThatThrownBy(() -> survey("<html>hello</html>".getBytes(StandardCharsets.US_ASCII)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no G-code");
        assertThatThrownBy(() -> survey("G28\nG1 X10 Y10\nG1 Z5\n".getBytes(StandardCharsets.US_ASCII)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("never extrudes");
        assertThatThrownBy(() -> survey(new byte[0])).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> survey(new byte[3 << 20]))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("million characters");
    }

    @Test
    void a_file_that_ends_in_the_middle_of_a_line_is_read_as_far_as_it_goes() throws IOException {
        byte[] bytes = new SmallGcode().layers(0.2, 0.4).bytes();
        SlicedFile file = survey(java.util.Arrays.copyOf(bytes, bytes.length - 9));
        assertThat(file.layers()).hasSize(2);
    }

    @Test
    void lines_longer_than_the_buffer_and_numbers_of_every_shape_are_read() throws IOException {
        String text = ";" + "x".repeat(400_000)
                + "\nN10 g1 x+1.50 Y-.5 z0.2 F1200*71\nG1X5 Y1.E2.0000000000000000001 (aside X9)\n";
        GcodeScanner scanner = new GcodeScanner(new ByteArrayInputStream(text.getBytes(StandardCharsets.US_ASCII)));
        scanner.next();
        assertThat(scanner.isComment()).isTrue();
        scanner.next();
        assertThat(scanner.is('G', 1)).isTrue();
        assertThat(scanner.get('X')).isEqualTo(1.5);
        assertThat(scanner.get('Y')).isEqualTo(-0.5);
        assertThat(scanner.get('F')).isEqualTo(1200);
        scanner.next();
        assertThat(scanner.get('X')).isEqualTo(5);
        assertThat(scanner.get('E')).isEqualTo(2);
        assertThat(scanner.next()).isFalse();
    }

    @Property(tries = 2000)
    void numbers_are_read_to_the_last_bit(
            @ForAll @LongRange(min = 0, max = 99_999_999_999L) long digits,
            @ForAll @IntRange(max = 11) int decimals,
            @ForAll boolean negative)
            throws IOException {
        String text = (negative ? "-" : "")
                + java.math.BigDecimal.valueOf(digits, decimals).toPlainString();
        GcodeScanner scanner = new GcodeScanner(
                new ByteArrayInputStream(("G1 X" + text + "Y" + text + " Z1").getBytes(StandardCharsets.US_ASCII)));
        scanner.next();
        assertThat(scanner.get('X')).isEqualTo(Double.parseDouble(text));
        assertThat(scanner.get('Y')).isEqualTo(Double.parseDouble(text));
        assertThat(scanner.get('Z')).isEqualTo(1);
    }

    @Test
    void the_words_of_a_message_are_not_commands() throws IOException {
        GcodeScanner scanner =
                new GcodeScanner(new ByteArrayInputStream("M117 G1 X50 E9".getBytes(StandardCharsets.US_ASCII)));
        scanner.next();
        assertThat(scanner.is('M', 117)).isTrue();
        assertThat(scanner.has('X')).isFalse();
    }

    @Test
    void the_door_before_layer_1_comes_after_heating_and_homing() throws IOException {
        SlicedFile file = survey("G28\nG1 Z5 F600\nM109 S200\nG92 E0\nG1 X10 Y10 F6000\nG1 Z0.2\nG1 X20 E1 F1200\n"
                .getBytes(StandardCharsets.US_ASCII));
        assertThat(file.layers().get(0).door().orElseThrow().line()).isEqualTo(5);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "G1 F1200",
                "G0 F9000",
                "F1500",
                "G1 X110 F900",
                "G91\nG1 X0\nG90\nM83",
                "M204 S800",
                "; a corner"
            })
    void a_wall_is_one_line_though_something_is_said_at_its_corner(String said) throws IOException {
        String wall = "G0 X90 Y90 F6000\nG1 X110 E1 F1800\n" + said + "\nG1 Y110 E1\n" + said.replace("X110", "Y110")
                + "\nG1 X90 E1\nG1 Y90 E1\n";
        String text = "G28\nG90\nM83\nG1 Z0.2 F600\n" + wall + "G1 Z0.4 F600\n" + wall;
        assertThat(survey(text.getBytes(StandardCharsets.ISO_8859_1)).layers())
                .hasSize(2)
                .allSatisfy(layer -> assertThat(layer.lines())
                        .singleElement()
                        .extracting(SlicedLayer.Line::extent)
                        .isEqualTo(new Envelope(90, 110, 90, 110)));
    }

    private static SlicedFile withLine(String line) throws IOException {
        String text = new SmallGcode().layers(0.2, 0.4).text().replace("G28 ; home\n", "G28 ; home\n" + line + "\n");
        return survey(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    @Test
    void a_command_with_a_sign_or_a_fraction_is_another_command() throws IOException {
        assertThat(withLine("T-1").layers().get(0).stints().get(0).tool()).isZero();
        // G-1 is not G1, and G92.1 is not G92: neither moves the place where the print begins.
        assertThat(withLine("G-1 X900 Y900 E5").layers().get(0).extruded()).isCloseTo(4 * 0.66, within(1e-6));
        assertThat(withLine("G92.1 E500").layers().get(0).extruded()).isCloseTo(4 * 0.66, within(1e-6));
    }

    @Test
    void numbers_no_printer_could_follow_are_refused_with_their_line() {
        assertThatThrownBy(() -> withLine("G1 X5 E" + "9".repeat(400)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Line 5")
                .hasMessageContaining("400 digits");
        assertThatThrownBy(() -> withLine("G1 X5 E10000000"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Line 5");
        assertThatThrownBy(() -> withLine("G4 S99999999"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Line 5");
    }

    @Test
    void a_stamp_that_counts_from_nought_is_nobodys() throws IOException {
        assertThat(withLine("; tranche begin plan=a state=b swap=0").blocks()).isEmpty();
    }

    /** Firmwares that are told in words have commands of their owner's own; common practice. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "LOAD_T1",
                "T1_PARK",
                "start_t1 now",
                "PURGE_G1 X90 Y90 E10 F600",
                "PARK_M0",
                "WARM_M109 S180",
                "ECHO_M83 ; in words",
                "GO X5 G91"
            })
    void a_command_in_words_is_none_of_the_letters_in_it(String own) throws IOException {
        String said = ";".repeat(own.length());
        SlicedFile plain = survey(new SmallGcode().grid(0.2, 0.2, 3).line(said).grid(0.8, 0.2, 3));
        SlicedFile file = survey(new SmallGcode().grid(0.2, 0.2, 3).line(own).grid(0.8, 0.2, 3));
        assertThat(file.toolLines()).isEmpty();
        assertThat(file.stops()).isEmpty();
        assertThat(file.layers()).isEqualTo(plain.layers());
        assertThat(file.seconds()).isEqualTo(plain.seconds());
    }
}
