package dev.tranche.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class DerivationTest {
    private static Derivation part(String label, double value) {
        return Derivation.of(label, value, Unit.SECONDS, "");
    }

    private static List<Double> values(Derivation figure) {
        return figure.parts().stream().map(Derivation::value).toList();
    }

    @Test
    void parts_that_are_shown_add_up_to_the_sum_that_is_shown() {
        // Each alone would be rounded down, and two seconds would be missing: the largest remainders get them
        // (Hamilton).
        Derivation sum =
                Derivation.sum("all", Unit.SECONDS, "", List.of(part("a", 10.4), part("b", 20.45), part("c", 30.35)));
        Derivation shown = sum.rounded();
        assertThat(shown.value()).isEqualTo(61);
        assertThat(values(shown)).containsExactly(10.0, 21.0, 30.0);
    }

    @Test
    void what_is_no_sum_of_its_parts_is_rounded_alone_and_so_are_they() {
        // 1.26 g are 1.3 as a kitchen scale shows; a part without any is a part all the same.
        List<Derivation> parts = List.of(
                Derivation.of("a", 0.66, Unit.GRAMS, ""),
                Derivation.of("none", 0, Unit.GRAMS, ""),
                Derivation.of("b", 0.66, Unit.GRAMS, ""));
        assertThat(values(Derivation.sum("all", Unit.GRAMS, "", parts).rounded()))
                .map(v -> Math.round(10 * v))
                .containsExactly(7L, 0L, 6L);
        Derivation other = new Derivation("other", 1.5, Unit.GRAMS, "", parts).rounded();
        assertThat(other.value()).isCloseTo(1.5, within(1e-9));
        assertThat(values(other)).map(v -> Math.round(10 * v)).containsExactly(7L, 0L, 7L);
    }

    @Test
    void so_do_the_parts_of_parts() {
        Derivation inner = Derivation.sum("inner", Unit.SECONDS, "", List.of(part("a", 0.4), part("b", 0.4)));
        Derivation shown = Derivation.sum("all", Unit.SECONDS, "", List.of(inner, part("c", 0.4), part("d", 0.3)))
                .rounded();
        assertThat(shown.value()).isEqualTo(2);
        assertThat(shown.parts().get(0).value())
                .isEqualTo(values(shown.parts().get(0)).stream()
                        .mapToDouble(v -> v)
                        .sum());
        assertThat(values(shown).stream().mapToDouble(v -> v).sum()).isEqualTo(2);
    }

    @Test
    void parts_that_are_no_sum_are_each_rounded_by_themselves() {
        List<Derivation> factors = List.of(part("a", 2.4), part("b", 3.4));
        assertThat(values(new Derivation("product", 8.16, Unit.SECONDS, "a × b", factors).rounded()))
                .containsExactly(2.0, 3.0);
        // What is taken off is no share of a sum.
        List<Derivation> less = List.of(part("a", 5.4), part("b", -2.6));
        assertThat(values(new Derivation("rest", 2.8, Unit.SECONDS, "a less b", less).rounded()))
                .containsExactly(5.0, -3.0);
        // The one part of a figure may be another figure.
        assertThat(values(new Derivation("whole", 5.4, Unit.SECONDS, "", List.of(part("half", 2.7))).rounded()))
                .containsExactly(3.0);
    }

    @Test
    void many_parts_of_one_name_are_taken_together_and_few_are_not() {
        List<Derivation> few =
                IntStream.range(0, 5).mapToObj(i -> part("wipe", 2)).toList();
        assertThat(Derivation.sum("all", Unit.SECONDS, "", few).parts()).hasSize(5);
        List<Derivation> many =
                IntStream.range(0, 5_000).mapToObj(i -> part("wipe", 2)).toList();
        Derivation all = Derivation.sum("all", Unit.SECONDS, "", many);
        assertThat(all.value()).isEqualTo(10_000);
        assertThat(values(all)).containsExactly(10_000.0);
        assertThat(all.parts().get(0).how()).startsWith("5000 times");
    }
}
