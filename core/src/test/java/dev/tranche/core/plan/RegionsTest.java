package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class RegionsTest {
    private static final SpoolId SOOT = Spools.SOOT.id();
    private static final SpoolId CHALK = Spools.CHALK.id();

    private static Region parts(String name, SpoolId spool, Integer... numbers) {
        return new Region(name, new Shape.Parts(List.of(numbers)), spool, Range.ALL);
    }

    private static Region disc(String name) {
        return new Region(name, new Shape.Zone(new Outline.Disc(5), 0, 0, 0, false), CHALK, Range.ALL);
    }

    private static List<String> names(Regions regions) {
        return regions.list().stream().map(Region::name).toList();
    }

    @Test
    void recolouring_a_piece_takes_it_out_of_the_region_it_was_in() {
        Regions panes = new Regions(List.of(parts("sky", SOOT, 1, 2, 3)));
        Regions changed = panes.colouring(Set.of(2), "pane 3", CHALK);
        assertThat(changed.get(0).shape()).isEqualTo(new Shape.Parts(List.of(1, 3)));
        assertThat(changed.get(1)).isEqualTo(parts("pane 3", CHALK, 2));
        assertThat(changed.ofPart(2)).isEqualTo(1);
        assertThat(changed.ofPart(3)).isZero();
        assertThat(changed.colouring(Set.of(2), "pane 3", SOOT).get(1).spool()).isEqualTo(SOOT);
    }

    @Test
    void a_piece_recoloured_keeps_its_place_below_the_zones_over_it() {
        Regions regions = new Regions(List.of(parts("pane", SOOT, 1), disc("sun")));
        assertThat(names(regions.colouring(Set.of(1), "pane", CHALK))).containsExactly("pane", "sun");
    }

    @Test
    void parts_left_to_the_colours_by_height_leave_no_empty_region_behind() {
        Regions regions = new Regions(List.of(parts("a", SOOT, 0), parts("b", CHALK, 1, 2)));
        assertThat(names(regions.releasing(Set.of(0, 1)))).containsExactly("b");
    }

    @Test
    void precedence_is_the_order_and_can_be_changed() {
        Regions regions = new Regions(List.of(disc("a"), disc("b"), disc("c")));
        assertThat(names(regions.moved(0, 2))).containsExactly("b", "c", "a");
        assertThat(names(regions.moved(2, 0))).containsExactly("c", "a", "b");
        assertThatThrownBy(() -> regions.moved(0, 3)).isInstanceOf(Refusal.class);
    }

    @Test
    void a_thousand_regions_are_refused() {
        List<Region> many = new ArrayList<>();
        for (int i = 0; i < 1000; i++) {
            many.add(disc("disc " + i));
        }
        assertThatThrownBy(() -> new Regions(many))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("at most 300 regions");
    }
}
