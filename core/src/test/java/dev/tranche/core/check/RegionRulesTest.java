package dev.tranche.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** On a tile of 20 × 20 × 2 mm with a step of 10 × 10 mm up to 3 mm, all in soot. */
class RegionRulesTest {
    private static Region disc(String name, Spool spool, double diameter) {
        return new Region(name, new Shape.Zone(new Outline.Disc(diameter), 10, 10, 0, false), spool.id(), Range.ALL);
    }

    private static Range mm(double from, double to) {
        return Range.between(Height.ofMillimetres(from), Height.ofMillimetres(to));
    }

    private static Optional<Finding> find(Bench bench, String key) {
        return bench.findings().stream().filter(f -> f.key().startsWith(key)).findFirst();
    }

    private static Finding only(Bench bench, String key) {
        return find(bench, key).orElseThrow(() -> new AssertionError(key + " in " + bench.findings()));
    }

    private static void mends(Bench bench, String key) {
        bench.plan = only(bench, key).fix().orElseThrow().colours().apply(bench.plan);
        assertThat(find(bench, key)).isEmpty();
    }

    @Test
    void a_region_under_another_is_buried_and_its_button_lets_it_win() {
        Bench bench = new Bench().region(disc("eye", Spools.CHALK, 6)).region(disc("face", Spools.BURGUNDY, 12));
        assertThat(only(bench, "buried").sentence()).contains("“eye” is buried").contains("3.00 mm");
        mends(bench, "buried");
        assertThat(bench.plan.regions().get(1).name()).isEqualTo("eye");
    }

    @Test
    void a_region_that_shows_a_little_is_not_called_buried() {
        Bench bench = new Bench().region(disc("rim", Spools.CHALK, 12)).region(disc("face", Spools.BURGUNDY, 11));
        assertThat(find(bench, "buried")).isEmpty();
    }

    @Test
    void a_zone_that_meets_nothing_is_said_and_removed() {
        Bench bench = new Bench().region(disc("sky", Spools.CHALK, 6).over(mm(5, 6)));
        mends(bench, "nowhere");
        assertThat(bench.plan.regions().size()).isZero();
    }

    @Test
    void an_inlay_that_sits_too_deep_is_never_seen_until_it_reaches_the_top() {
        Bench bench = new Bench().region(disc("dot", Spools.CHALK, 6).over(mm(1, 2.6)));
        assertThat(only(bench, "unseen").sentence())
                .contains("0.40 mm below its top")
                .contains("1.00 mm above");
        mends(bench, "unseen");
        Bench band = new Bench().region(disc("band", Spools.CHALK, 60).over(mm(1, 1.6)));
        assertThat(find(band, "unseen")).as("it is seen from the side").isEmpty();
    }

    @Test
    void a_zone_planned_above_the_model_ends_at_its_top() {
        Bench bench = new Bench().region(disc("dot", Spools.CHALK, 6).over(mm(2, 4.2)));
        assertThat(only(bench, "proud").sentence()).contains("1.20 mm above the model");
        mends(bench, "proud");
    }

    @Test
    void an_inlay_of_one_layer_lets_the_colour_behind_shine_through() {
        Bench bench = new Bench().region(disc("face", Spools.CHALK, 8).over(mm(0, 0.2)));
        assertThat(only(bench, "shines-through").sentence())
                .contains("“face” is 1 layer deep")
                .contains("A Soot shines through B Chalk");
        mends(bench, "shines-through");
    }

    @Test
    void a_line_thinner_than_plastic_is_lost_and_said_to_be() {
        Region hair = new Region(
                "hair", new Shape.Zone(new Outline.Box(8, 0.2), 10, 10, 0, false), Spools.CHALK.id(), mm(0, 0.4));
        Finding finding = only(new Bench().region(hair), "thin-B");
        assertThat(finding.sentence()).contains("1 piece of B Chalk on layers 1–2 is thinner than a line");
        assertThat(finding.layer()).hasValue(1);
    }

    @Test
    void a_swap_on_many_layers_is_a_warning_also_where_most_of_the_print_has_one_colour() {
        assertThat(only(new Bench().region(disc("core", Spools.CHALK, 6)), "side-by-side")
                        .sentence())
                .contains("on 15 of 15 layers")
                .contains("15 swaps");
        assertThat(only(new Bench().region(disc("core", Spools.CHALK, 6).over(mm(0, 2.0))), "side-by-side")
                        .sentence())
                .contains("on 10 of 15 layers");
        assertThat(find(new Bench().region(disc("core", Spools.CHALK, 6).over(mm(0, 0.4))), "side-by-side"))
                .isEmpty();
    }

    @Test
    void a_tower_is_not_called_needless_where_layers_have_two_colours() {
        assertThat(find(new Bench().region(disc("core", Spools.CHALK, 6)), "tower-not-needed"))
                .isEmpty();
    }

    /** Round inlaid pieces, the first layer drawn in by x leaves hairlines of 2 x: common practice. */
    @Test
    void a_first_layer_that_is_drawn_in_leaves_gaps_between_its_colours() {
        Bench bench = new Bench().region(disc("core", Spools.CHALK, 6));
        assertThat(find(bench, "first-layer-gaps")).isEmpty();
        bench.plan = bench.plan.withLayers(LayerSettings.COMMON.shrunkBy(0.15));
        assertThat(only(bench, "first-layer-gaps").sentence()).contains("a gap of 0.30 mm along 19 mm");
        mends(bench, "first-layer-gaps");
    }

    @Test
    void a_part_on_nothing_floats_and_a_lifted_model_needs_support() {
        Bench bench = new Bench();
        bench.body = Optional.of(
                bench.body().with(new Shapes().box(25, 0, 1, 5, 5, 1).body()));
        assertThat(only(bench, "floating").sentence()).contains("The part “part 2” begins at 1.00 mm");
        Bench lifted = new Bench();
        Body up = lifted.body().placed(Placement.AS_IS.lifted(1));
        lifted.body = Optional.of(up);
        lifted.grid = LayerSettings.COMMON.on(up.height());
        assertThat(only(lifted, "lifted").sentence()).contains("1.00 mm above the bed");
    }

    @Test
    void a_file_sliced_in_one_colour_has_no_place_for_a_swap_inside_a_layer() {
        Bench bench = new Bench().region(disc("core", Spools.CHALK, 6));
        bench.sliced(new SmallGcode().grid(0.2, 0.2, 15));
        assertThatThrownBy(() -> bench.reckoning().patch())
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("changes colour inside layer 1")
                .hasMessageContaining("coloured 3MF");
    }

    @Test
    void swaps_inside_layers_add_up_like_any_others() {
        var ledger = new Bench().region(disc("core", Spools.CHALK, 6)).ledger();
        assertThat(ledger.swaps()).hasSize(15).allMatch(s -> s.within());
        assertThat(ledger.swaps().get(0).height()).isEqualTo(Height.ofMillimetres(0.2));
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
        assertThat(ledger.stretches()).hasSize(16);
        double printing =
                ledger.stretches().stream().mapToDouble(s -> s.to() - s.from()).sum();
        assertThat(printing).isCloseTo(ledger.base().seconds(), within(1e-6));
        assertThat(List.copyOf(ledger.stretches()).get(15).to()).isCloseTo(ledger.totalSeconds(), within(1e-6));
    }

    @Test
    void hundreds_of_swaps_are_opened_by_kind_and_still_add_up() {
        Bench tall = new Bench();
        tall.mesh = new Shapes().box(0, 0, 0, 20, 20, 10).mesh();
        tall.grid = LayerSettings.COMMON.on(tall.mesh.height());
        var swaps = tall.region(disc("core", Spools.CHALK, 6)).ledger().swapCount();
        assertThat(swaps.value()).isEqualTo(50);
        assertThat(swaps.parts()).extracting(p -> p.label()).containsExactly("Soot → Chalk", "Chalk → Soot");
        assertThat(swaps.parts().stream().mapToDouble(p -> p.value()).sum()).isEqualTo(50);
    }
}
