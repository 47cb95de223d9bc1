package dev.tranche.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** On a tile of 20 × 20 × 2 mm with a step of 10 × 10 mm up to 3 mm, in layers of 0.2 mm, soot unless said otherwise. */
class LookRulesTest {
    private static Optional<Finding> find(Bench bench, String key) {
        return bench.findings().stream().filter(f -> f.key().startsWith(key)).findFirst();
    }

    private static Finding shines(Bench bench) {
        return find(bench, "shines-through").orElseThrow(() -> new AssertionError(bench.findings()));
    }

    private static void mends(Bench bench) {
        bench.plan = shines(bench).fix().orElseThrow().colours().apply(bench.plan);
        assertThat(find(bench, "shines-through")).isEmpty();
    }

    private static Region disc(Spool spool, double from, double to) {
        return new Region(
                "dot",
                new Shape.Zone(new Outline.Disc(6), 10, 10, 0, false),
                spool.id(),
                Range.between(Height.ofMillimetres(from), Height.ofMillimetres(to)));
    }

    @Test
    void one_layer_of_chalk_by_height_is_grey_over_soot_and_its_button_starts_it_lower() {
        Bench bench = new Bench().start(2.8, Spools.CHALK);
        assertThat(shines(bench).sentence())
                .contains("B Chalk from 2.80 mm on is 1 layer deep where it is seen from above, over 1.0 cm²")
                .contains("A Soot shines through")
                .contains("layers hide it");
        assertThat(shines(bench).layer()).hasValue(15);
        mends(bench);
        assertThat(bench.plan.starts().get(1).wished().isAbove(Height.ofMillimetres(2.5)))
                .isFalse();
    }

    @Test
    void a_first_colour_of_one_layer_is_grey_from_beneath_and_its_button_lets_the_next_start_higher() {
        Bench bench = new Bench();
        bench.plan = bench.plan.recolour(0, Spools.CHALK.id());
        bench.start(0.2, Spools.SOOT);
        assertThat(shines(bench).sentence())
                .contains("A Chalk from the bed on is 1 layer deep where it is seen from beneath, over 4.0 cm²")
                .contains("B Soot shines through");
        mends(bench);
        assertThat(bench.plan.starts().get(1).wished().isAbove(Height.ofMillimetres(0.5)))
                .isTrue();
    }

    @Test
    void a_zone_of_one_layer_on_top_is_made_deeper() {
        Bench bench = new Bench().region(disc(Spools.CHALK, 2.8, 3.0));
        assertThat(shines(bench).sentence()).contains("“dot” is 1 layer deep where it is seen from above");
        mends(bench);
    }

    @Test
    void a_thin_part_is_said_too_but_its_shape_is_its_own() {
        Bench bench = new Bench();
        bench.body = Optional.of(new Shapes()
                .box(0, 0, 0, 20, 20, 2)
                .body()
                .with(new Shapes().box(5, 5, 2, 10, 10, 0.2).body()));
        bench.grid = bench.plan.layers().on(bench.body().height());
        bench.region(new Region("lettering", new Shape.Parts(List.of(1)), Spools.CHALK.id(), Range.ALL));
        assertThat(shines(bench).sentence()).contains("“lettering” is 1 layer deep where it is seen from above");
        assertThat(shines(bench).fix()).isEmpty();
    }

    @Test
    void what_hides_is_not_spoken_of() {
        assertThat(find(new Bench().start(2.0, Spools.CHALK), "shines-through")).isEmpty();
        assertThat(find(new Bench(), "shines-through")).isEmpty();
    }

    /** Wanted in clear plastic, and in panels that are held to light. */
    @Test
    void through_clear_plastic_and_in_a_light_panel_one_means_to_see() {
        Bench clear = new Bench().start(2.8, Spools.CHALK);
        clear.shelf.put(Spools.CHALK.id(), Spools.CHALK.covering(6));
        assertThat(find(clear, "shines-through")).isEmpty();
        Bench panel = new Bench();
        panel.shelf.put(Spools.BURGUNDY.id(), Spools.BURGUNDY.covering(1.2));
        panel.mesh = new Shapes().box(0, 0, 0, 20, 20, 0.6).mesh();
        panel.grid = panel.plan.layers().on(panel.mesh.height());
        panel.plan = panel.plan.recolour(0, Spools.SKY.id());
        panel.start(0.4, Spools.BURGUNDY);
        assertThat(find(panel, "shines-through")).isEmpty();
        Bench bookmark = new Bench();
        bookmark.shelf.put(Spools.SOOT.id(), Spools.SOOT.covering(0.3));
        bookmark.mesh = panel.mesh;
        bookmark.grid = panel.grid;
        bookmark.start(0.4, Spools.CHALK);
        assertThat(find(bookmark, "shines-through"))
                .as("no light comes through soot")
                .isPresent();
    }

    @Test
    void what_lies_under_clear_plastic_is_seen() {
        Bench bench = new Bench().start(2.6, Spools.MUSTARD).region(disc(Spools.CHALK, 1, 2.6));
        assertThat(find(bench, "unseen")).isPresent();
        bench.shelf.put(Spools.MUSTARD.id(), Spools.MUSTARD.covering(9));
        assertThat(find(bench, "unseen")).isEmpty();
    }

    @Test
    void what_goes_on_in_the_same_spool_up_to_where_it_is_seen_is_the_depth_of_that() {
        Bench bench = new Bench().region(disc(Spools.CHALK, 1, 1.6)).region(disc(Spools.CHALK, 1.6, 3));
        assertThat(find(bench, "unseen")).isEmpty();
        Bench other = new Bench().region(disc(Spools.CHALK, 1, 1.6)).region(disc(Spools.MUSTARD, 1.6, 3));
        assertThat(find(other, "unseen")).isPresent();
        Bench below = new Bench().region(disc(Spools.CHALK, 0, 0.6)).region(disc(Spools.CHALK, 0.6, 1));
        assertThat(find(below, "unseen")).isEmpty();
        Bench hidden = new Bench().region(disc(Spools.CHALK, 0.6, 1)).region(disc(Spools.CHALK, 1, 1.4));
        assertThat(find(hidden, "unseen")).isPresent();
    }

    /** The commonest slip of all (common practice): the tile's top is at 2.0 mm. */
    @Test
    void a_border_a_layer_or_two_off_a_flat_is_said_and_its_button_moves_it_there() {
        Bench above = new Bench().start(2.2, Spools.CHALK);
        Finding finding = find(above, "beside-flat").orElseThrow();
        assertThat(finding.sentence())
                .contains("B Chalk starts at 2.20 mm, 1 layer above the top of a base at 2.00 mm")
                .contains("runs up what stands there");
        above.plan = finding.fix().orElseThrow().colours().apply(above.plan);
        assertThat(find(above, "beside-flat")).isEmpty();
        assertThat(above.plan.starts().get(1).wished()).isEqualTo(Height.ofMillimetres(2.0));
        assertThat(find(new Bench().start(1.6, Spools.CHALK), "beside-flat")
                        .orElseThrow()
                        .sentence())
                .contains("2 layers below the top of a base at 2.00 mm");
    }

    @Test
    void a_border_at_a_flat_or_far_from_it_or_round_a_coloured_floor_is_meant_so() {
        assertThat(find(new Bench().start(2.0, Spools.CHALK), "beside-flat")).isEmpty();
        assertThat(find(new Bench().start(1.4, Spools.CHALK), "beside-flat")).isEmpty();
        assertThat(find(new Bench().start(2.8, Spools.CHALK), "beside-flat"))
                .as("near the model's own top one may start what one likes")
                .isEmpty();
        assertThat(find(new Bench().start(1.6, Spools.CHALK).start(2.0, Spools.SOOT), "beside-flat"))
                .isEmpty();
    }

    /** Thin because of what is laid in beneath it: starting the colour higher would not help. */
    @Test
    void a_colour_that_is_thin_over_an_inlay_is_said_but_its_own_start_is_left_alone() {
        Bench bench = new Bench().start(1.0, Spools.CHALK).region(disc(Spools.SOOT, 2.0, 2.8));
        Finding finding = shines(bench);
        assertThat(finding.sentence()).contains("B Chalk from 1.00 mm on is 1 layer deep");
        assertThat(finding.fix()).isEmpty();
    }

    @Test
    void a_zone_that_is_thin_over_a_later_one_is_not_made_smaller() {
        Bench bench = new Bench().region(disc(Spools.CHALK, 1.0, 3.0));
        bench.region(new Region(
                "core",
                new Shape.Zone(new Outline.Disc(5), 10, 10, 0, false),
                Spools.SOOT.id(),
                Range.between(Height.ofMillimetres(2.0), Height.ofMillimetres(2.8))));
        assertThat(shines(bench).sentence()).contains("“dot” is 1 layer deep");
        assertThat(shines(bench).fix()).isEmpty();
    }
}
