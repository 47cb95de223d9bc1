package dev.tranche.core.speech;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Letters of files that do not say how they are written. */
class LettersTest {
    private static String archived(String name, Charset charset) {
        return new String(name.getBytes(charset), StandardCharsets.ISO_8859_1);
    }

    /** A name without the flag for UTF-8 is written as DOS wrote it. Source: PKWARE, APPNOTE.TXT 6.3.10, appendix D. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "W\u00FCrfel/Stra\u00DFe.stl",
                "drag\u00F3n.stl",
                "pi\u00F1a \u00E9 caf\u00E9.gcode",
                "\u00C4nderung.3mf",
                "sm\u00F8rr\u00E9.obj"
            })
    void names_in_archives_are_read_as_programs_of_the_west_write_them(String name) {
        assertThat(Letters.name(archived(name, Charset.forName("IBM850")))).isEqualTo(name);
        assertThat(Letters.name(archived(name, StandardCharsets.UTF_8))).isEqualTo(name);
        assertThat(Letters.name(archived(Normalizer.normalize(name, Normalizer.Form.NFD), StandardCharsets.UTF_8)))
                .isEqualTo(name);
        assertThat(Letters.name(archived(name, StandardCharsets.ISO_8859_1))).isEqualTo(name);
        assertThat(Letters.name(name)).isEqualTo(name);
    }

    @ParameterizedTest
    @ValueSource(strings = {"\u00A1hola!.stl", "5 \u00A3.stl", "\u041A\u0443\u0431.stl", "a\u00D7b.stl", "plain.stl"})
    void names_that_an_archive_gave_as_they_are_stay(String name) {
        assertThat(Letters.name(name)).isEqualTo(name);
    }

    @Test
    void text_that_begins_with_the_mark_of_utf16_is_read_as_that() {
        assertThat(Letters.of("\uFEFFKreide;\u00FC".getBytes(StandardCharsets.UTF_16LE)))
                .isEqualTo("Kreide;\u00FC");
        assertThat(Letters.of("\uFEFFKreide;\u00FC".getBytes(StandardCharsets.UTF_16BE)))
                .isEqualTo("Kreide;\u00FC");
        assertThat(Letters.of("\uFEFF\u00FC".getBytes(StandardCharsets.UTF_8))).isEqualTo("\u00FC");
        assertThat(Letters.of(new byte[] {(byte) 0xFF})).isEqualTo("\u00FF");
    }
}
