package dev.tranche.core.speech;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class WordsTest {
    @Test
    void a_name_that_is_taken_gets_a_number_and_is_never_longer_than_it_may_be() {
        assertThat(Words.free("Teal", 40, n -> false)).isEqualTo("Teal");
        assertThat(Words.free("Teal", 40, Set.of("Teal", "Teal 2")::contains)).isEqualTo("Teal 3");
        String longest = "T".repeat(40);
        assertThat(Words.free(longest, 40, n -> false)).isEqualTo(longest);
        assertThat(Words.free(longest, 40, longest::equals)).isEqualTo("T".repeat(38) + " 2");
    }

    @Test
    void one_layer_is_named_alone_and_several_from_first_to_last() {
        assertThat(Words.layers(3, 3)).isEqualTo("layer 3");
        assertThat(Words.layers(3, 5)).isEqualTo("layers 3–5");
    }

    @Test
    void of_many_names_a_sentence_holds_three_and_how_many_others_there_are() {
        assertThat(Words.some(List.of("Tile"))).isEqualTo("“Tile”");
        assertThat(Words.some(List.of("Tile", "Pot, blended", "Tag"))).isEqualTo("“Tile”, “Pot, blended”, “Tag”");
        assertThat(Words.some(Collections.nCopies(1000, "Tile"))).isEqualTo("“Tile”, “Tile”, “Tile” and 997 others");
    }
}
