package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;

class RawLinesTest {
    private static final int LONGEST = 1 << 20;

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private static RawLines of(String text) {
        return new RawLines(new ByteArrayInputStream(ascii(text)));
    }

    @Test
    void lines_put_together_again_are_the_file_to_the_byte() throws IOException {
        String text = "G1\n\nX\r\n" + "y".repeat(LONGEST) + "\n" + "z".repeat(LONGEST + 7) + "\nend";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        List<Integer> lengths = new ArrayList<>();
        try (RawLines lines = of(text)) {
            while (lines.next()) {
                lengths.add(lines.length());
                lines.writeTo(out, 0);
            }
        }
        assertThat(out.toByteArray()).isEqualTo(ascii(text));
        assertThat(lengths).containsExactly(3, 1, 3, LONGEST, 1, LONGEST, 8, 3);
    }

    @Test
    void marks_are_told_at_both_ends_of_a_line_whatever_its_break() throws IOException {
        RawLines lines = of("; mark 7 \r\nG1 X1 ; added\n;\nadded");
        lines.next();
        assertThat(lines.startsWith(ascii("; mark "))).isTrue();
        assertThat(lines.startsWith(ascii("; mark 8"))).isFalse();
        assertThat(lines.textAfter(7)).isEqualTo("7");
        lines.next();
        assertThat(lines.endsWith(ascii(" ; added"))).isTrue();
        assertThat(lines.endsWith(ascii("; adde"))).isFalse();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        lines.writeTo(out, 3);
        assertThat(out.toByteArray()).isEqualTo(ascii("X1 ; added\n"));
        lines.next();
        assertThat(lines.startsWith(ascii("; mark "))).isFalse();
        assertThat(lines.startsWith(ascii(";\n"))).isTrue();
        assertThat(lines.endsWith(ascii(" ; added"))).isFalse();
        lines.next();
        assertThat(lines.endsWith(ascii("added"))).isTrue();
        assertThat(lines.next()).isFalse();
    }

    @Test
    void the_file_is_closed_with_them() throws IOException {
        AtomicBoolean closed = new AtomicBoolean();
        new RawLines(new FilterInputStream(new ByteArrayInputStream(new byte[0])) {
                    @Override
                    public void close() {
                        closed.set(true);
                    }
                })
                .close();
        assertThat(closed).isTrue();
    }
}
