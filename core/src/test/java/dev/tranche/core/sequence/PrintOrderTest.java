package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.function.Function;
import org.junit.jupiter.api.Test;

class PrintOrderTest {
    private static final SpoolId A = Spools.SOOT.id();
    private static final SpoolId B = Spools.CHALK.id();

    private static PrintOrder order(double height, Function<LayerGrid, Range> range) {
        CutModel model = CutModel.of(
                new Shapes().box(0, 0, 0, 30, 20, height).body(),
                LayerSettings.COMMON.on(Height.ofMillimetres(height)),
                Progress.UNHEARD);
        Region half = new Region(
                "half", new Shape.Zone(new Outline.Box(15, 20), 7.5, 10, 0, false), B, range.apply(model.grid()));
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, A).with(new Regions(List.of(half)));
        return PrintOrder.numbered(Colouring.of(plan, model, 0.45, Progress.UNHEARD), plan.numbering());
    }

    /** A B ∣ B A ∣ A: common practice. */
    @Test
    void an_inlay_in_the_first_two_layers_takes_two_swaps() {
        PrintOrder order = order(3, grid -> Range.ofLayers(grid, 1, 2));
        assertThat(order.passes().subList(0, 5)).extracting(Pass::spool).containsExactly(A, B, B, A, A);
        assertThat(order.swaps()).extracting(Pass::layer).containsExactly(1, 2);
        assertThat(order.mixedLayers()).isEqualTo(2);
    }

    /** Two colours side by side on 40 layers take 40 swaps where each is carried over: common practice. */
    @Test
    void colours_side_by_side_take_a_swap_a_layer() {
        PrintOrder order = order(8, grid -> Range.ALL);
        assertThat(order.swaps()).hasSize(40);
        assertThat(order.swaps()).allMatch(p -> !p.first());
    }

    @Test
    void the_shares_of_a_layer_are_those_of_its_areas() {
        PrintOrder order = order(3, grid -> Range.ALL);
        assertThat(order.passes().get(0).share()).isCloseTo(0.5, within(1e-9));
        assertThat(order.passes().get(1).to()).isEqualTo(1);
    }
}
