package dev.tranche.core.purge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Volume;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PurgeModelTest {
    private static final PurgeModel USUAL = PurgeModel.usual(new Volume(60));

    private static double purge(PurgeModel model, String out, String in) {
        return model.between(Spools.spool(1, "out", out), Spools.spool(2, "in", in))
                .volume()
                .cubicMillimetres();
    }

    /**
     * Computed apart from this code: linear light and CIEDE2000 by the colour library culori 4.0.2 (npm registry), with
     * Kubelka's and Munk's ratio and the wash-out of a stirred tank written out beside it. Rounded up to whole mm³ here.
     */
    @ParameterizedTest
    @CsvSource({
        "#F4F1E8,#6E1F2B,96.65",
        "#6E1F2B,#F4F1E8,511.37",
        "#1B1B1D,#F4F1E8,456.06",
        "#F4F1E8,#1B1B1D,83.79",
        "#8A8D8F,#3E7D3A,77.45",
        "#2F6C8C,#D9B85C,376.73",
        "#A4583A,#2F6C8C,243.11",
        "#D9B85C,#1B1B1D,86.04"
    })
    void purges_agree_with_an_independent_computation(String out, String in, double volume) {
        assertThat(purge(USUAL, out, in)).isEqualTo(Math.ceil(volume), within(0.001));
    }

    @Property(tries = 200)
    void light_after_dark_needs_more_than_dark_after_light(
            @ForAll @IntRange(max = 60) int dark, @ForAll @IntRange(min = 180, max = 245) int light) {
        // Common practice.
        String black = new Srgb(dark, dark, dark).hex();
        String white = new Srgb(light, light, light).hex();
        assertThat(purge(USUAL, black, white)).isGreaterThan(purge(USUAL, white, black));
    }

    @Property(tries = 100)
    void purge_grows_with_dead_volume_and_with_strictness(
            @ForAll @IntRange(max = 0xFFFFFF) int a,
            @ForAll @IntRange(max = 0xFFFFFF) int b,
            @ForAll @DoubleRange(min = 10, max = 100) double dead) {
        String out = "#%06X".formatted(a);
        String in = "#%06X".formatted(b);
        double usual = purge(new PurgeModel(new Volume(dead), new PurgeSettings(2, 1), List.of()), out, in);
        assertThat(purge(new PurgeModel(new Volume(dead), new PurgeSettings(1, 1), List.of()), out, in))
                .isGreaterThanOrEqualTo(usual);
        assertThat(purge(new PurgeModel(new Volume(dead * 2), new PurgeSettings(2, 1), List.of()), out, in))
                .isGreaterThanOrEqualTo(usual);
    }

    @Test
    void the_same_spool_or_one_nobody_can_tell_apart_needs_none() {
        assertThat(USUAL.between(Spools.SOOT, Spools.SOOT).volume()).isEqualTo(Volume.NONE);
        assertThat(purge(USUAL, "#3E7D3A", "#3E7D3B")).isZero();
    }

    @Test
    void the_factor_and_another_class_of_plastic_multiply() {
        var petg = Spools.spool(9, "PETG", "#F4F1E8", Material.PETG, 100);
        Purge plain = USUAL.between(Spools.SOOT, Spools.CHALK);
        Purge other = USUAL.between(Spools.SOOT, petg);
        assertThat(other.volume().cubicMillimetres())
                .isEqualTo(1.5 * plain.volume().cubicMillimetres());
        Purge more =
                new PurgeModel(new Volume(60), new PurgeSettings(2, 1.2), List.of()).between(Spools.SOOT, Spools.CHALK);
        assertThat(more.volume().cubicMillimetres())
                .isCloseTo(1.2 * plain.volume().cubicMillimetres(), within(1e-9));
    }

    @Test
    void a_measured_pair_overrides_the_model_in_its_own_direction_only() {
        var measured = List.of(new MeasuredPurge(Spools.SOOT.id(), Spools.CHALK.id(), new Volume(300)));
        PurgeModel model = new PurgeModel(new Volume(60), new PurgeSettings(2, 1.2), measured);
        Purge known = model.between(Spools.SOOT, Spools.CHALK);
        assertThat(known.measured()).isTrue();
        assertThat(known.volume().cubicMillimetres()).isCloseTo(360, within(1e-9));
        assertThat(model.between(Spools.CHALK, Spools.SOOT).measured()).isFalse();
    }

    @Test
    void measured_pairs_refit_the_dead_volume_by_least_squares() {
        // Made with V₀ = 80 from the model itself, so the fit has to find 80 again; rounding up costs a little.
        PurgeModel eighty = PurgeModel.usual(new Volume(80));
        List<MeasuredPurge> measured = List.of(
                new MeasuredPurge(
                        Spools.SOOT.id(),
                        Spools.CHALK.id(),
                        eighty.between(Spools.SOOT, Spools.CHALK).volume()),
                new MeasuredPurge(
                        Spools.CHALK.id(),
                        Spools.BURGUNDY.id(),
                        eighty.between(Spools.CHALK, Spools.BURGUNDY).volume()));
        PurgeModel model = new PurgeModel(new Volume(60), PurgeSettings.USUAL, measured);
        assertThat(model.fittedDeadVolume(Spools.SHELF).orElseThrow().cubicMillimetres())
                .isCloseTo(80, within(0.3));
        assertThat(PurgeModel.usual(new Volume(60)).fittedDeadVolume(Spools.SHELF))
                .isEmpty();
    }

    @Test
    void absurd_measurements_are_refused() {
        assertThatThrownBy(() -> new MeasuredPurge(Spools.SOOT.id(), Spools.SOOT.id(), new Volume(10)))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new MeasuredPurge(Spools.SOOT.id(), Spools.CHALK.id(), new Volume(0)))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new MeasuredPurge(Spools.SOOT.id(), Spools.CHALK.id(), new Volume(9000)))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void a_tower_carries_its_shell_up_to_the_last_swap() {
        // By hand: 120 mm³ before layer 3 at 0.2 mm and 30 mm wide are 20 mm deep; a shell of 2 (30 + 20) · 0.45 · 0.2
        // = 9 mm³ on layers 1 and 2, and the purge itself on layer 3.
        var grid = dev.tranche.core.plan.LayerSettings.COMMON.on(dev.tranche.core.units.Height.ofMillimetres(2));
        Tower tower = Tower.of(30, grid, java.util.Map.of(3, new Volume(120)), 0.45);
        assertThat(tower.depth()).isCloseTo(20, within(1e-9));
        assertThat(tower.plastic().cubicMillimetres()).isCloseTo(9 + 9 + 120, within(1e-9));
        assertThat(tower.idle().cubicMillimetres()).isCloseTo(18, within(1e-9));
    }

    @Test
    void absurd_settings_are_refused() {
        assertThatThrownBy(() -> new PurgeModel(new Volume(60), new PurgeSettings(0, 1), List.of()))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new PurgeModel(new Volume(60), new PurgeSettings(2, 0), List.of()))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void a_nozzle_that_was_emptied_takes_its_dead_volume_to_fill_again() {
        PurgeModel fills = new PurgeModel(new Volume(60), PurgeSettings.USUAL, List.of(), true);
        // Two greys that nobody tells apart.
        assertThat(purge(USUAL, "#808080", "#818181")).isZero();
        assertThat(purge(fills, "#808080", "#818181")).isEqualTo(60);
        assertThat(purge(fills, "#6E1F2B", "#F4F1E8")).isEqualTo(purge(USUAL, "#6E1F2B", "#F4F1E8"));
        assertThat(fills.between(Spools.CHALK, Spools.CHALK).volume()).isEqualTo(Volume.NONE);
    }

    /** Three dead volumes leave e⁻³ of the other plastic, one twentieth (ideal stirred tank). */
    @Test
    void another_plastic_takes_three_dead_volumes_at_least() {
        Spool out = Spools.spool(1, "out", "#808080");
        Spool in = new Spool(
                new SpoolId(2), "in", Material.PETG, out.colour(), 1.27, out.pricePerKilogram(), 240, 235, 1000);
        assertThat(USUAL.between(out, in).volume().cubicMillimetres()).isEqualTo(180);
        assertThat(USUAL.between(out, in).isForNozzle()).isTrue();
        assertThat(Math.exp(-180 / 60.0)).isCloseTo(0.05, within(0.001));
    }

    @Test
    void what_was_measured_counts_even_if_it_is_less() {
        PurgeModel model = new PurgeModel(
                new Volume(60),
                PurgeSettings.USUAL,
                List.of(new MeasuredPurge(Spools.SOOT.id(), Spools.CHALK.id(), new Volume(20))),
                true);
        assertThat(model.between(Spools.SOOT, Spools.CHALK).volume().cubicMillimetres())
                .isEqualTo(20);
    }
}
