package dev.tranche.core.colour;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;

class FewerTest {
    private static final Srgb RED = Srgb.parse("#C02020");
    private static final Srgb ORANGE = Srgb.parse("#D06020");
    private static final Srgb BLUE = Srgb.parse("#2040C0");

    @Test
    void what_there_is_least_of_is_taken_for_the_nearest() {
        Map<Srgb, Double> amounts = new LinkedHashMap<>();
        amounts.put(ORANGE, 1.0);
        amounts.put(RED, 5.0);
        amounts.put(BLUE, 9.0);
        assertThat(Fewer.of(amounts, 2, 0))
                .containsExactly(Map.entry(BLUE, BLUE), Map.entry(RED, RED), Map.entry(ORANGE, RED));
        assertThat(Fewer.of(amounts, 3, 0))
                .allSatisfy((c, stands) -> assertThat(stands).isEqualTo(c));
        assertThat(new HashSet<>(Fewer.of(amounts, 1, 0).values())).containsExactly(BLUE);
    }

    @Test
    void what_hardly_differs_is_one_however_many_may_be() {
        Map<Srgb, Double> greys = new HashMap<>();
        for (int i = 0; i < 40; i++) {
            greys.put(new Srgb(100 + i, 100 + i, 100 + i), 40.0 - i);
        }
        Map<Srgb, Srgb> fewer = Fewer.of(greys, 100, 6);
        assertThat(fewer.values()).doesNotContainNull();
        fewer.forEach(
                (c, stands) -> assertThat(stands.lab().differenceTo(c.lab())).isLessThanOrEqualTo(6));
        assertThat(new HashSet<>(fewer.values()).size()).isBetween(2, 5);
    }
}
