package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.gcode.SlicedFile.Markers;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.IntFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Comments stand before each of five layers of 0.2 mm; what is made up here is no program's. */
class MarkerHuntTest {
    private static final int LAYERS = 5;

    private final MarkerHunt hunt = new MarkerHunt();

    private void say(String comment, int runs, double height) {
        byte[] bytes = ("G1 ;" + comment + "\nG1 X9").getBytes(StandardCharsets.ISO_8859_1);
        hunt.comment(bytes, 3, bytes.length - 6, runs, height);
    }

    /** @param comment what stands before the layer with so many beneath it */
    private Optional<Markers> before(int first, IntFunction<String> comment) {
        for (int beneath = first; beneath < LAYERS; beneath++) {
            say(comment.apply(beneath), beneath, 0.2 * beneath);
        }
        return hunt.found(LAYERS, 0.2 * LAYERS);
    }

    private Optional<Markers> before(IntFunction<String> comment) {
        return before(0, comment);
    }

    private static String height(int layer) {
        return String.format(Locale.ROOT, "%.2f", 0.2 * layer);
    }

    @Test
    void a_number_that_rises_by_one_with_each_layer_numbers_the_layers() {
        assertThat(before(i -> "layer " + (i + 7) + " of 40"))
                .contains(new Markers(";layer 7 of 40", 0, OptionalLong.of(7)));
    }

    @Test
    void layers_of_a_raft_may_be_numbered_from_below_nothing() {
        assertThat(before(i -> "layer: " + (i - 2))).contains(new Markers(";layer: -2", 0, OptionalLong.of(-2)));
    }

    @Test
    void a_dash_in_a_word_is_no_sign() {
        assertThat(before(i -> "part-" + (i + 3))).contains(new Markers(";part-3", 0, OptionalLong.of(3)));
        assertThat(new MarkerHuntTest().before(i -> "-" + (LAYERS - i)))
                .contains(new Markers(";-5", 0, OptionalLong.of(-5)));
    }

    @Test
    void a_dash_before_no_number_is_text() {
        assertThat(before(i -> "-- layer " + i + " -")).contains(new Markers(";-- layer 0 -", 0, OptionalLong.of(0)));
    }

    @Test
    void comments_may_begin_after_the_raft() {
        assertThat(before(2, i -> "n" + i)).contains(new Markers(";n2", 2, OptionalLong.of(2)));
    }

    @Test
    void a_number_that_is_the_height_of_the_layer_tells_it() {
        assertThat(before(i -> "at " + height(i + 1) + " mm."))
                .contains(new Markers(";at 0.20 mm.", 0, OptionalLong.empty()));
    }

    @Test
    void numbers_are_told_from_heights_by_their_points() {
        assertThat(before(i -> "v1.0.7 z" + height(i + 1)))
                .contains(new Markers(";v1.0.7 z0.20", 0, OptionalLong.empty()));
    }

    @Test
    void what_numbers_the_layers_goes_before_what_gives_their_heights() {
        for (int i = 0; i < LAYERS; i++) {
            say("z" + height(i + 1), i, 0.2 * i);
            if (i > 0) {
                say("layer " + i, i, 0.2 * i);
            }
        }
        assertThat(hunt.found(LAYERS, 0.2 * LAYERS)).contains(new Markers(";layer 1", 1, OptionalLong.of(1)));
    }

    @Test
    void of_several_the_one_that_begins_first_is_taken() {
        for (int i = 0; i < LAYERS; i++) {
            if (i > 1) {
                say("late " + i, i, 0.2 * i);
            }
            if (i > 0) {
                say("early " + i, i, 0.2 * i);
            }
        }
        assertThat(hunt.found(LAYERS, 0.2 * LAYERS)).map(Markers::example).contains(";early 1");
    }

    @Test
    void a_comment_that_also_says_times_numbers_layers_all_the_same() {
        assertThat(before(i -> "layer " + (i + 1) + " of 40, 00:1" + i + ":30 of 01:20:00"))
                .map(Markers::firstNumber)
                .contains(OptionalLong.of(1));
    }

    @ParameterizedTest
    @ValueSource(strings = {"twice", "skips", "stops", "halves", "drifts", "once"})
    void what_does_not_go_with_the_layers_does_not_number_them(String how) {
        for (int i = 0; i < LAYERS; i++) {
            switch (how) {
                case "twice" -> {
                    say("n" + 2 * i, i, 0.2 * i);
                    say("n" + (2 * i + 1), i, 0.2 * i);
                }
                case "skips" -> say("n" + (i < 3 ? i : i + 1), i, 0.2 * i);
                case "stops" -> say((i < 4 ? "n" : "m") + i, i, 0.2 * i);
                case "halves" -> say("n" + (i + 0.5), i, 0.2 * i);
                case "drifts" -> say("z" + (0.2 * (i + 1) + (i == 2 ? 0.03 : 0)), i, 0.2 * i);
                default -> say(i == LAYERS - 1 ? "n4" : "-", i, 0.2 * i);
            }
        }
        assertThat(hunt.found(LAYERS, 0.2 * LAYERS)).isEmpty();
    }

    @Test
    void the_last_height_belongs_to_the_last_layer() {
        for (int i = 0; i < LAYERS; i++) {
            say("z" + (i == LAYERS - 1 ? 7.5 : 0.2 * (i + 1)), i, 0.2 * i);
        }
        assertThat(hunt.found(LAYERS, 0.2 * LAYERS)).isEmpty();
    }
}
