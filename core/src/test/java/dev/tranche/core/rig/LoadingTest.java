package dev.tranche.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.LongStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class LoadingTest {
    private static List<SpoolId> sequence(long... spools) {
        return LongStream.of(spools).mapToObj(SpoolId::new).toList();
    }

    private static Loading load(int extruders, long... spools) {
        return Loading.of(Rack.of(Printers.plain(), extruders), sequence(spools));
    }

    private static List<Integer> extruders(Loading loading) {
        return loading.stages().stream().map(Loading.Stage::extruder).toList();
    }

    @Test
    void two_extruders_alternate_through_five_spools() {
        // Common practice: a person puts the next spool in while the other prints.
        assertThat(extruders(load(2, 1, 2, 3, 4, 5))).containsExactly(0, 1, 0, 1, 0);
    }

    @Test
    void one_extruder_takes_them_all() {
        assertThat(extruders(load(1, 1, 2, 1))).containsExactly(0, 0, 0);
        assertThat(load(1, 1, 2, 1).stages()).allMatch(Loading.Stage::fresh);
    }

    @Test
    void a_spool_that_comes_again_stays_where_it_is_if_it_can() {
        Loading loading = load(3, 1, 2, 3, 1, 2, 3);
        assertThat(extruders(loading)).containsExactly(0, 1, 2, 0, 1, 2);
        assertThat(loading.stages())
                .extracting(Loading.Stage::fresh)
                .containsExactly(true, true, true, false, false, false);
    }

    @Test
    void a_spool_of_the_rack_prints_from_its_own_extruder() {
        Rack rack = Rack.of(Printers.plain(), 3);
        rack = rack.replace(2, rack.extruder(2).with(Spools.SOOT));
        Loading loading = Loading.of(rack, List.of(Spools.SOOT.id(), Spools.CHALK.id()));
        assertThat(extruders(loading)).containsExactly(2, 0);
        assertThat(loading.stages().get(0).fresh()).isFalse();
    }

    @Property(tries = 300)
    void the_spool_that_prints_is_in_its_extruder_and_nothing_is_put_in_needlessly(
            @ForAll @Size(min = 1, max = 12) List<@IntRange(min = 1, max = 6) Integer> spools,
            @ForAll @IntRange(min = 1, max = 6) int extruders) {
        List<SpoolId> sequence = new ArrayList<>();
        for (int spool : spools) {
            SpoolId id = new SpoolId(spool);
            if (sequence.isEmpty() || !sequence.get(sequence.size() - 1).equals(id)) {
                sequence.add(id);
            }
        }
        Loading loading = Loading.of(Rack.of(Printers.plain(), extruders), sequence);
        int fresh = 0;
        for (int i = 0; i < sequence.size(); i++) {
            Loading.Stage stage = loading.stages().get(i);
            assertThat(stage.contents().get(stage.extruder())).contains(sequence.get(i));
            fresh += stage.fresh() ? 1 : 0;
        }
        Set<SpoolId> distinct = new HashSet<>(sequence);
        assertThat(fresh).isGreaterThanOrEqualTo(distinct.size());
        if (extruders >= distinct.size()) {
            assertThat(fresh).isEqualTo(distinct.size());
        }
    }
}
