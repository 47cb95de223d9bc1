package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** What a printer goes on with until it is told otherwise. */
class TrimTest {
    private static Trim after(String... lines) throws IOException {
        Trim trim = Trim.NONE;
        byte[] text = String.join("\n", lines).getBytes(StandardCharsets.US_ASCII);
        GcodeScanner line = new GcodeScanner(new ByteArrayInputStream(text));
        while (line.next()) {
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
}
