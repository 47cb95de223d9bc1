package dev.tranche.core.plan;

import static dev.tranche.core.plan.Spools.BURGUNDY;
import static dev.tranche.core.plan.Spools.CHALK;
import static dev.tranche.core.plan.Spools.SOOT;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class ColourPlanTest {
    private static final LayerGrid GRID = LayerSettings.COMMON.on(Height.ofMillimetres(6));
    private static final ColourPlan SOOT_ONLY = ColourPlan.of(LayerSettings.COMMON, SOOT.id());

    private static Height mm(double millimetres) {
        return Height.ofMillimetres(millimetres);
    }

    private static List<String> layers(ColourPlan plan) {
        return plan.tranches(GRID).stream()
                .map(t -> plan.letter(t.spool()) + " " + t.firstLayer() + "–" + t.lastLayer())
                .toList();
    }

    @Test
    void colours_by_height_make_tranches_that_cover_all_layers() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).startAt(mm(5), BURGUNDY.id(), GRID);
        assertThat(layers(plan)).containsExactly("A 1–15", "B 16–25", "C 26–30");
    }

    @Test
    void a_border_moves_between_its_neighbours_and_not_past_them() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).startAt(mm(5), BURGUNDY.id(), GRID);
        assertThat(layers(plan.move(1, mm(4), GRID))).containsExactly("A 1–20", "B 21–25", "C 26–30");
        assertThatThrownBy(() -> plan.move(1, mm(5), GRID))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("5.00 mm; merge");
        assertThatThrownBy(() -> plan.move(2, mm(2), GRID))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("3.00 mm; merge");
        assertThatThrownBy(() -> plan.move(0, mm(2), GRID))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("recolour");
        assertThatThrownBy(() -> plan.move(2, mm(8), GRID))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("above the last layer");
    }

    @Test
    void letters_follow_what_is_used_and_merging_lets_the_lower_colour_go_on() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).startAt(mm(5), SOOT.id(), GRID);
        assertThat(layers(plan)).containsExactly("A 1–15", "B 16–25", "A 26–30");
        assertThat(layers(plan.recolour(1, BURGUNDY.id()))).containsExactly("A 1–15", "B 16–25", "A 26–30");
        assertThat(layers(plan.merge(1))).containsExactly("A 1–25", "A 26–30");
        assertThat(layers(plan.merge(0))).containsExactly("B 1–25", "A 26–30");
        assertThatThrownBy(() -> SOOT_ONLY.merge(0)).isInstanceOf(Refusal.class).hasMessageContaining("only colour");
        assertThatThrownBy(() -> plan.recolour(9, SOOT.id())).isInstanceOf(Refusal.class);
    }

    @Test
    void a_start_at_the_same_height_recolours() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).startAt(mm(3), BURGUNDY.id(), GRID);
        assertThat(layers(plan)).containsExactly("A 1–15", "B 16–30");
        assertThat(layers(SOOT_ONLY.startAt(Height.ZERO, CHALK.id(), GRID))).containsExactly("A 1–30");
        ColourPlan base = plan.recolour(0, CHALK.id());
        assertThat(layers(base))
                .as("what comes in the place of another takes its letter")
                .containsExactly("A 1–15", "B 16–30");
    }

    @Test
    void starts_that_share_a_layer_or_lie_above_the_model_make_no_tranche() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).startAt(mm(3.02), BURGUNDY.id(), GRID);
        assertThat(layers(plan)).containsExactly("A 1–15", "C 16–30");
        LayerGrid lower = LayerSettings.COMMON.on(mm(2));
        assertThat(plan.tranches(lower)).singleElement().satisfies(t -> assertThat(t.lastLayer())
                .isEqualTo(10));
        assertThatThrownBy(() -> SOOT_ONLY.startAt(mm(6), CHALK.id(), GRID)).isInstanceOf(Refusal.class);
    }

    @Property
    void whatever_is_edited_every_layer_has_one_colour(
            @ForAll @Size(max = 20) List<@IntRange(min = 0, max = 5890) Integer> heights,
            @ForAll @IntRange(min = 0, max = 19) int merged) {
        ColourPlan plan = SOOT_ONLY;
        for (int height : heights) {
            plan = plan.startAt(Height.ofMicrometres(height), height % 2 == 0 ? CHALK.id() : BURGUNDY.id(), GRID);
        }
        if (merged < plan.starts().size() && plan.starts().size() > 1) {
            plan = plan.merge(merged);
        }
        List<Tranche> tranches = plan.tranches(GRID);
        int next = 1;
        for (Tranche tranche : tranches) {
            assertThat(tranche.firstLayer()).isEqualTo(next);
            next = tranche.lastLayer() + 1;
        }
        assertThat(next).isEqualTo(GRID.count() + 1);
    }

    @Test
    void a_spool_without_name_price_or_sense_is_refused() {
        assertThatThrownBy(() -> Spools.spool(1, " ", "#000000"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("name");
        assertThatThrownBy(() -> Spools.spool(1, "x", ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("colour");
        assertThatThrownBy(() -> Spools.spool(1, "x", "#000000", Material.PLA, -1))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void heights_move_along_with_a_model_that_is_scaled() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(3), CHALK.id(), GRID).haltAt(new Halt(mm(1), "look"), GRID);
        ColourPlan doubled = plan.scaledBy(2);
        assertThat(doubled.starts().list())
                .extracting(s -> s.wished().toString())
                .containsExactly("0.00", "6.00");
        assertThat(doubled.halts().list())
                .extracting(h -> h.wished().toString())
                .containsExactly("2.00");
        assertThat(doubled.scaledBy(0.5)).isEqualTo(plan);
        assertThat(plan.scaledBy(1e-6).starts().list()).hasSize(1);
        assertThat(plan.scaledBy(1e-6).halts().list()).isEmpty();
    }

    @Test
    void borders_can_be_put_where_they_print() {
        ColourPlan plan = SOOT_ONLY.startAt(mm(2.95), CHALK.id(), GRID).startAt(mm(4.44), BURGUNDY.id(), GRID);
        ColourPlan exact = plan.ontoGrid(GRID);
        assertThat(exact.starts().list())
                .extracting(s -> s.wished().toString())
                .containsExactly("0.00", "3.00", "4.40");
        assertThat(layers(exact)).isEqualTo(layers(plan));
    }

    @Test
    void halts_rise_and_two_at_one_height_are_one() {
        ColourPlan plan = SOOT_ONLY.haltAt(new Halt(mm(3), "b"), GRID).haltAt(new Halt(mm(1), "a"), GRID);
        assertThat(plan.halts().list()).extracting(Halt::note).containsExactly("a", "b");
        assertThat(plan.haltAt(new Halt(mm(1), "c"), GRID).halts().list())
                .extracting(Halt::note)
                .containsExactly("c", "b");
        assertThat(plan.withoutHalt(0).halts().list()).extracting(Halt::note).containsExactly("b");
        assertThatThrownBy(() -> plan.withoutHalt(2)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Halt(Height.ZERO, "x")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> plan.haltAt(new Halt(mm(70), "x"), GRID)).isInstanceOf(Refusal.class);
    }

    @Test
    void halts_go_onto_the_layers_with_the_colours() {
        LayerGrid grid = new LayerGrid(Height.parse("0.2"), Height.parse("0.2"), Height.parse("6"));
        LayerGrid higher = new LayerGrid(Height.parse("0.2"), Height.parse("0.2"), Height.parse("12"));
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id())
                .startAt(Height.parse("2.95"), Spools.CHALK.id(), grid)
                .haltAt(new Halt(Height.parse("1.25"), "nut"), grid)
                .haltAt(new Halt(Height.parse("1.27"), "washer"), grid)
                .haltAt(new Halt(Height.parse("9"), "above it all"), higher)
                .ontoGrid(grid);
        assertThat(plan.starts().get(1).wished()).isEqualTo(Height.parse("3"));
        assertThat(plan.halts().list()).extracting(h -> h.wished().toString()).containsExactly("1.20", "9.00");
        assertThat(plan.halts().list().get(0).note()).isEqualTo("washer");
    }
}
