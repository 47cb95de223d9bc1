package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a printer goes on with until it is told otherwise. */
class TrimTest {
    private static Trim after(String... lines) throws IOException {
        Trim trim = Trim.NONE;
        byte[] text = String.join("\n", lines).getBytes(StandardCharsets.US_ASCII);
        GcodeScanner line = new GcodeScanner(new ByteArrayInputStream(text));
        while (line.next()) {
            if (line.isInWords()) {
                trim = trim.afterWords(line);
            }
            trim = Trim.isAbout(line.number()) ? trim.after(line) : trim;
        }
        return trim;
    }

    @Test
    void fans_are_known_by_their_number_and_stand_still_before_anything_is_said() throws IOException {
        assertThat(after("M106 S128", "M106 P1").after(Trim.NONE)).containsExactly("M106 S128", "M106 P1 S255");
        assertThat(Trim.NONE.after(after("M106 S128", "M106 P1"))).containsExactly("M107", "M107 P1");
        assertThat(after("M106 S9", "M107").after(Trim.NONE)).isEmpty();
    }

    @Test
    void what_is_said_of_printing_alone_is_said_after_what_is_said_of_all() throws IOException {
        Trim trim = after("M204 S500", "M204 P400");
        assertThat(trim.after(Trim.NONE)).containsExactly("M204 S500", "M204 P400");
        // Told S again, a firmware forgets P, so it is said again though it has not changed.
        assertThat(trim.after(after("M204 S900", "M204 P400"))).containsExactly("M204 S500", "M204 P400");
        assertThat(after("M204 P400", "M204 S500").after(trim)).containsExactly("M204 S500");
    }

    @Test
    void speed_and_flow_are_full_before_anything_is_said_and_of_the_rest_nobody_knows() throws IOException {
        assertThat(Trim.NONE.after(after("M220 S80", "M221 S95", "M205 X8 Y7.5", "M900 K0.05")))
                .containsExactly("M220 S100", "M221 S100");
        assertThat(after("M205 X8 Y7.5").after(after("M205 X8 Y10"))).containsExactly("M205 Y7.5");
    }

    @Test
    void the_thing_that_is_printed_is_named_again_once_the_one_before_has_ended() throws IOException {
        Trim west = after("EXCLUDE_OBJECT_START NAME=west", "SET_FAN_SPEED FAN=lid SPEED=1");
        Trim east = after("EXCLUDE_OBJECT_START NAME=west", "EXCLUDE_OBJECT_END", "EXCLUDE_OBJECT_START NAME=east");
        assertThat(east.after(west)).containsExactly("EXCLUDE_OBJECT_END NAME=west", "EXCLUDE_OBJECT_START NAME=east");
        assertThat(after("EXCLUDE_OBJECT_START NAME=west", "EXCLUDE_OBJECT_END NAME=west"))
                .isEqualTo(Trim.NONE);
        assertThat(Trim.NONE.after(east)).containsExactly("EXCLUDE_OBJECT_END NAME=east");
    }

    /** Commands in words, their numbers as they stand, as open firmware has them (common practice). */
    @Test
    void what_is_said_in_words_is_said_again_in_them() throws IOException {
        Trim trim = after(
                "SET_PRESSURE_ADVANCE ADVANCE=0.03125 SMOOTH_TIME=.04",
                "SET_VELOCITY_LIMIT  ACCEL=3000 ; walls",
                "SET_FAN_SPEED FAN=shelf SPEED=1",
                "SET_FAN_SPEED FAN=lid SPEED=0.5",
                "SET_VELOCITY_LIMIT ACCEL=5000 SQUARE_CORNER_VELOCITY=8");
        assertThat(trim.after(Trim.NONE))
                .containsExactly(
                        "SET_FAN_SPEED FAN=lid SPEED=0.5",
                        "SET_FAN_SPEED FAN=shelf SPEED=1",
                        "SET_PRESSURE_ADVANCE ADVANCE=0.03125",
                        "SET_PRESSURE_ADVANCE SMOOTH_TIME=0.04",
                        "SET_VELOCITY_LIMIT ACCEL=5000",
                        "SET_VELOCITY_LIMIT SQUARE_CORNER_VELOCITY=8");
        assertThat(trim.after(trim)).isEmpty();
    }

    @Test
    void a_file_that_names_ever_more_fans_is_not_remembered_for_ever() throws IOException {
        String[] fans = IntStream.range(0, 10_000)
                .mapToObj(i -> "SET_FAN_SPEED FAN=f" + i + " SPEED=1")
                .toArray(String[]::new);
        assertThat(after(fans).said()).hasSize(100);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "SET_GCODE_OFFSET Z_ADJUST=0.05",
                "SET_KINEMATIC_POSITION X=4",
                "SET_",
                "SET_VELOCITY_LIMIT",
                "SET_VELOCITY_LIMIT ACCEL=1e9 =4 ACCEL= ACCEL=.",
                "SET_VELOCITY_LIMIT ;ACCEL=4"
            })
    void what_moves_or_is_no_number_is_left_as_it_stands(String line) throws IOException {
        assertThat(after(line)).isEqualTo(Trim.NONE);
    }
}
