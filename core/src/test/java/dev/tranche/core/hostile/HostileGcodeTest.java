package dev.tranche.core.hostile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Sliced files that nobody sliced: each is read, or refused in one sentence, and memory does not grow with it. */
class HostileGcodeTest {
    private static SlicedFile read(InputStream in) throws IOException {
        return Survey.read(in, 1L << 28, Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
    }

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    private static String whole() {
        return new SmallGcode().grid(0.2, 0.2, 15).text();
    }

    /** A whole file with {@code chunk} so many times in the middle. */
    private static InputStream with(String chunk, int times) {
        byte[] part = chunk.getBytes(StandardCharsets.ISO_8859_1);
        String file = whole();
        int middle = file.indexOf(";LAYER STARTS 7");
        return new SequenceInputStream(Collections.enumeration(Stream.concat(
                        Stream.concat(
                                Stream.of(bytes(file.substring(0, middle))),
                                IntStream.range(0, times).mapToObj(i -> (InputStream) new ByteArrayInputStream(part))),
                        Stream.of(bytes(file.substring(middle))))
                .toList()));
    }

    private static String binary() {
        byte[] noise = new byte[1 << 20];
        new Random(11).nextBytes(noise);
        return new String(noise, StandardCharsets.ISO_8859_1);
    }

    static Stream<Arguments> refused() {
        return Stream.of(
                arguments("one line of 200 MB", with("G1 X1 ".repeat(1 << 16), 512), "over a million characters long"),
                arguments("nothing but noise", bytes(binary()), "it is no G-code"),
                arguments("an empty file", bytes(""), "it is no G-code"),
                arguments(
                        "a height of a million kilometres",
                        with("G1 X5 Y5 Z1000000000 E99\n", 1),
                        "the file is damaged"),
                arguments("a number of 400 digits", with("G1 X" + "9".repeat(400) + "\n", 1), "a number of 400 digits"),
                arguments(
                        "a million changes of tools",
                        with("T1\nT0\n".repeat(10_000), 51),
                        "changes tools over a million times"),
                arguments("ten thousand stops", with("M600\n".repeat(10_000), 1), "stops the machine over 1000 times"),
                arguments("a wait of a year", with("G4 S31536000\n", 1), "longer than any print"),
                arguments("a move that takes a year", with("G1 X190 F0.0001\n", 1), "takes over a month to move by"),
                arguments(
                        "moves that take years together",
                        with("G1 X1 F6000\n" + "G1 X2 F0.001\nG1 X1\n".repeat(1_000) + "G1 F1800\n", 1),
                        "prints for over a year"),
                arguments(
                        "a mark that ends nothing",
                        with("; tranche end swap=1\n", 1),
                        "nothing that Tranche put in begins before it"),
                arguments("a mark within a mark", with("; tranche begin plan=a state=b swap=1\n", 2), "have not ended"),
                arguments(
                        "a mark that never ends",
                        with("; tranche begin plan=a state=b swap=1\n", 1),
                        "ends inside lines"),
                arguments(
                        "more layers than there are",
                        with("G92 E0\nG1 Z5\nG1 X1 E1\nG1 Z9\nG1 X2 E2\n".repeat(10_000), 6),
                        "it is no layered print"));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("refused")
    void is_refused_in_a_sentence(String what, InputStream file, String says) {
        assertThatThrownBy(() -> read(file))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(says)
                .hasMessageEndingWith(".");
    }

    static Stream<Arguments> understood() {
        return Stream.of(
                arguments("numbers that are none", with("G1 XNaN YInf Zinfinity\nG1 X- Y+ Z.\n", 1)),
                arguments("powers of ten", with("G1 X1e9 Y1e-9\n", 1)),
                arguments(
                        "a file that ends in the middle of a line", bytes(whole().substring(0, whole().length() - 9))),
                arguments("bytes of any encoding in comments", with("; \u0000\u00ff\u0080 façade\n", 5)),
                arguments("words of macros", with("SET_THING NAME=x VALUE=1\nSTATUS_TEXT \"hello\"\n", 5)),
                arguments("200 MB of comments", with("; nothing to see\n".repeat(1 << 16), 190)));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("understood")
    void is_read(String what, InputStream file) {
        assertThatCode(() -> assertThat(read(file).layers()).hasSize(15)).doesNotThrowAnyException();
    }

    @Test
    void a_file_cut_off_anywhere_is_read_or_refused() {
        String file = whole();
        for (int end = 0; end < file.length(); end += 7) {
            String part = file.substring(0, end);
            try {
                assertThat(read(bytes(part)).layers()).isNotEmpty();
            } catch (Refusal refusal) {
                assertThat(refusal.getMessage()).endsWith(".");
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }
    }
}
