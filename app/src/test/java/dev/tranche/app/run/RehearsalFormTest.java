package dev.tranche.app.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.gcode.BlockStamp.What;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Encounter;
import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What goes wrong in a rehearsal is typed, and refused where it cannot be. */
class RehearsalFormTest {
    private static final List<SpoolId> FILAMENTS = List.of(new SpoolId(7), new SpoolId(9));

    private static RehearsalForm form(String swap, Long spool, String late, Long ends, String after) {
        return new RehearsalForm("100", null, swap, spool, late, "", "2", ends, after, "5");
    }

    @Test
    void what_is_typed_is_dealt_in_the_words_that_hands_use() {
        Setup setup = form("2", 9L, "1.5", 9L, "120").setup(FILAMENTS);
        assertThat(setup.faults()).containsExactly("gives-up 2", "ends 1 120.0", "power 300.0");
        assertThat(setup.puts()).isEqualTo(Map.of(2, new SpoolId(9)));
        assertThat(setup.late()).isEqualTo(Duration.ofSeconds(90));
        assertThat(setup.isHonest()).isFalse();
        assertThat(Setup.PLAIN.isHonest()).isTrue();
    }

    @Test
    void a_spool_that_is_not_in_the_plan_is_refused_with_a_sentence() {
        assertThatThrownBy(() -> form("2", 8L, "", null, "").setup(FILAMENTS))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("not in this plan");
        assertThatThrownBy(() -> form("", null, "", 8L, "10").setup(FILAMENTS))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("not in this plan");
        assertThatThrownBy(() -> form("two", 9L, "", null, "").setup(FILAMENTS)).isInstanceOf(Refusal.class);
    }

    @Test
    void another_spool_is_put_in_at_that_swap_and_not_at_the_first_load_or_a_halt_of_the_same_number() {
        Setup setup = form("1", 9L, "", null, "").setup(FILAMENTS);
        assertThat(setup.deed(stop(What.SWAP, 1)).puts()).contains(new SpoolId(9));
        assertThat(setup.deed(stop(What.LOAD, 1)).puts()).contains(new SpoolId(7));
        assertThat(setup.deed(stop(What.SWAP, 2)).puts()).contains(new SpoolId(7));
    }

    @Test
    void a_swap_that_is_not_there_or_not_named_is_refused_with_a_sentence() {
        assertThatThrownBy(() -> form("3", 9L, "", null, "").setup(FILAMENTS).requireSwaps(2))
                .isInstanceOf(Refusal.class)
                .hasMessage(
                        "There is no swap 3 in this plan, which has 2 swaps; give another number, or let it go as planned.");
        assertThatThrownBy(() -> form("", 9L, "", null, "").setup(FILAMENTS))
                .isInstanceOf(Refusal.class)
                .hasMessage("Give the number of the swap at which the other spool is put in.");
        assertThat(form("2", 9L, "", null, "").setup(FILAMENTS).requireSwaps(2).puts())
                .hasSize(1);
    }

    private static Encounter stop(What what, int number) {
        return new Encounter(Optional.of(what), number, 2, 100, 60, Optional.of(new SpoolId(7)), List.of());
    }
}
