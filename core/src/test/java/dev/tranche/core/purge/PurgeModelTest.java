package dev.tranche.core.purge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Volume;
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

    /** Computed independently from the same published formulas (design document of the project). */
    @ParameterizedTest
    @CsvSource({
        "#F4F1E8,#6E1F2B,97",
        "#6E1F2B,#F4F1E8,511",
        "#1B1B1D,#F4F1E8,456",
        "#F4F1E8,#1B1B1D,84",
        "#8A8D8F,#3E7D3A,77"
    })
    void purges_agree_with_an_independent_computation(String out, String in, double volume) {
        assertThat(purge(USUAL, out, in)).isCloseTo(volume, within(1.0));
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
        double usual = purge(new PurgeModel(new Volume(dead), new PurgeSettings(2, 1)), out, in);
        assertThat(purge(new PurgeModel(new Volume(dead), new PurgeSettings(1, 1)), out, in))
                .isGreaterThanOrEqualTo(usual);
        assertThat(purge(new PurgeModel(new Volume(dead * 2), new PurgeSettings(2, 1)), out, in))
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
        Purge more = new PurgeModel(new Volume(60), new PurgeSettings(2, 1.2)).between(Spools.SOOT, Spools.CHALK);
        assertThat(more.volume().cubicMillimetres())
                .isCloseTo(1.2 * plain.volume().cubicMillimetres(), within(1e-9));
    }

    @Test
    void absurd_settings_are_refused() {
        assertThatThrownBy(() -> new PurgeModel(new Volume(60), new PurgeSettings(0, 1)))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new PurgeModel(new Volume(60), new PurgeSettings(2, 0)))
                .isInstanceOf(Refusal.class);
    }
}
