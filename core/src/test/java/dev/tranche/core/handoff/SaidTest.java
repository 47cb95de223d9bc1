package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SaidTest {
    @Test
    void what_is_said_can_be_taken_back() {
        Said said = Said.NOTHING
                .tool(1, Optional.of(new SpoolId(7)))
                .stops(List.of(0, 2), Optional.of(StopTable.Choice.LEAVE))
                .accepting(Set.of("another-model"));
        assertThat(said.tools()).containsEntry(1, new SpoolId(7));
        assertThat(said.stops()).containsOnlyKeys(0, 2);
        assertThat(said.tool(1, Optional.empty())
                        .stops(List.of(0, 2), Optional.empty())
                        .refusing("another-model"))
                .isEqualTo(Said.NOTHING);
    }

    @Test
    void more_than_any_file_holds_is_refused() {
        List<Integer> stops = IntStream.range(0, 1001).boxed().toList();
        assertThatThrownBy(() -> Said.NOTHING.stops(stops, Optional.of(StopTable.Choice.LEAVE)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("1000 stops");
        assertThatThrownBy(() -> Said.NOTHING.accepting(Set.of("not a key; drop table")))
                .isInstanceOf(Refusal.class);
    }
}
