package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Film;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Mixture.Blend;
import dev.tranche.core.plan.Mixture.Fade;
import dev.tranche.core.plan.Recipe.Portion;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class MixtureTest {
    private static final SpoolId SKY = Spools.SKY.id();
    private static final SpoolId MUSTARD = Spools.MUSTARD.id();
    private static final SpoolId FIRST = new SpoolId(-1);
    private static final LayerGrid GRID = new LayerGrid(h(0.2), h(0.2), h(10));

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    private static Recipe mix(double sky, double mustard) {
        return new Recipe(List.of(new Portion(SKY, sky), new Portion(MUSTARD, mustard)));
    }

    private static Fade fade(double begins, double ends) {
        return new Fade(FIRST, Recipe.of(SKY), Recipe.of(MUSTARD), h(begins), h(ends));
    }

    private static ColourPlan plan() {
        return ColourPlan.of(LayerSettings.COMMON, SKY);
    }

    @Test
    void a_paint_that_colours_nothing_can_go_and_one_that_is_printed_with_stays() {
        ColourPlan idle = plan().with(fade(2, 8), GRID);
        ColourPlan numbered = idle.with(idle.ordering().numbered(List.of(MUSTARD, FIRST, SKY)));
        ColourPlan gone = numbered.without(FIRST);
        assertThat(gone.mixtures().list()).isEmpty();
        assertThat(gone.palette()).doesNotContain(FIRST);
        assertThat(gone.ordering().numbering()).containsExactly(MUSTARD, SKY);
        ColourPlan printed = idle.startAt(h(2), FIRST, GRID);
        assertThatThrownBy(() -> printed.without(FIRST)).hasMessageContaining("is printed with that paint");
        assertThatThrownBy(() -> gone.without(FIRST)).hasMessageContaining("not in this plan any more");
    }

    @Test
    void shares_add_up_to_one_within_a_thousandth() {
        // Domain §10.
        assertThat(mix(0.667, 0.3335).portions()).hasSize(2);
        assertThatThrownBy(() -> mix(0.7, 0.2))
                .isInstanceOf(Refusal.class)
                .hasMessage("The weights sum to 0.9 and must sum to 1; change one of them by 0.1.");
        assertThatThrownBy(() -> mix(1.2, -0.2)).isInstanceOf(Refusal.class).hasMessageContaining("0 to 1");
        assertThatThrownBy(() -> mix(Double.NaN, 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Recipe(List.of())).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Recipe(List.of(new Portion(SKY, 0.5), new Portion(SKY, 0.5))))
                .hasMessageContaining("names a spool twice");
        assertThatThrownBy(() -> Recipe.of(FIRST)).hasMessageContaining("choose spools");
        assertThatThrownBy(() -> new Blend(FIRST, Recipe.of(SKY))).hasMessageContaining("is that spool");
        assertThat(Recipe.of(Map.of(SKY, 1.0, MUSTARD, 0.0))).isEqualTo(Recipe.of(SKY));
    }

    @Test
    void a_fade_rises_and_turns_evenly_and_its_ends_hold() {
        Fade fade = fade(2, 8);
        assertThat(fade.recipe(fade.shade(h(1)))).isEqualTo(Recipe.of(SKY));
        assertThat(fade.recipe(fade.shade(h(5)))).isEqualTo(mix(0.5, 0.5));
        assertThat(fade.recipe(fade.shade(h(9)))).isEqualTo(Recipe.of(MUSTARD));
        assertThatThrownBy(() -> fade(8, 2)).hasMessageContaining("does not rise");
        assertThatThrownBy(() -> fade(2, 2)).hasMessageContaining("does not rise");
        assertThatThrownBy(() -> new Fade(FIRST, mix(0.5, 0.5), mix(0.5, 0.5), h(1), h(2)))
                .hasMessageContaining("changes nothing");
    }

    @Property(tries = 300)
    void whatever_the_height_all_of_a_fade_is_of_its_spools(@ForAll @DoubleRange(min = 0, max = 20) double mm) {
        Fade fade = new Fade(FIRST, mix(0.8, 0.2), mix(0.1, 0.9), h(2), h(8));
        Recipe there = fade.recipe(fade.shade(h(mm)));
        assertThat(there.share(SKY) + there.share(MUSTARD)).isCloseTo(1, within(1e-9));
        assertThat(there.share(SKY)).isBetween(0.1 - 1e-9, 0.8 + 1e-9);
        double exact = 0.8 - 0.7 * Math.max(0, Math.min(1, (mm - 2) / 6));
        assertThat(there.share(SKY)).isCloseTo(exact, within(1e-6));
    }

    @Test
    void a_mixture_is_printed_as_the_spool_it_would_be() {
        Spool heavy = new Spool(
                new SpoolId(7),
                "Ore",
                Material.PETG,
                Spools.SOOT.colour(),
                2.0,
                new BigDecimal("50"),
                240,
                235,
                100,
                0.4);
        Spool light = new Spool(
                new SpoolId(8),
                "Fog",
                Material.PETG,
                Spools.CHALK.colour(),
                1.0,
                new BigDecimal("20"),
                230,
                225,
                300,
                1.2);
        Map<SpoolId, Spool> shelf = Map.of(heavy.id(), heavy, light.id(), light);
        Blend blend =
                new Blend(FIRST, new Recipe(List.of(new Portion(heavy.id(), 0.25), new Portion(light.id(), 0.75))));
        Spool mixed = new Mixtures(List.of(blend)).onto(shelf).get(FIRST);
        assertThat(mixed.name()).isEqualTo("Ore 25 + Fog 75");
        // By hand: 0.25 × 2 + 0.75 × 1 g/cm³; by mass 0.5 g of 50 and 0.75 g of 20 in 1.25 g.
        assertThat(mixed.density()).isCloseTo(1.25, within(1e-12));
        assertThat(mixed.pricePerKilogram().doubleValue()).isCloseTo(32, within(1e-9));
        assertThat(mixed.temperature()).isEqualTo(235);
        assertThat(mixed.firstLayerTemperature()).isEqualTo(240);
        // 100 g of the heavy one are 40 % of all the grams there can be; 300 g of the other 60 %.
        assertThat(mixed.gramsLeft()).isCloseTo(250, within(1e-9));
        assertThat(mixed.coverDepth()).isCloseTo(1 / (0.25 / 0.4 + 0.75 / 1.2), within(1e-12));
        // Kubelka and Munk (1931): ratios of absorption to scattering add up by volume.
        double red = new Film(mixed.colour().linear(), 1).thick().red();
        double ratio = 0.25 * ratio(heavy.colour().linear().red())
                + 0.75 * ratio(light.colour().linear().red());
        assertThat(ratio(red) / ratio).isCloseTo(1, within(0.05));
    }

    private static double ratio(double r) {
        double limited = Math.min(0.95, Math.max(0.02, r));
        return (1 - limited) * (1 - limited) / (2 * limited);
    }

    @Test
    void each_layer_of_a_fade_has_a_colour_of_its_own() {
        ColourPlan plan = plan().with(fade(2, 8), GRID);
        Paints paints = new Paints(plan.mixtures().onto(Spools.SHELF), plan.mixtures(), GRID);
        assertThat(paints.at(FIRST, 1).colour()).isEqualTo(Spools.SKY.colour());
        assertThat(paints.at(FIRST, 50).colour()).isEqualTo(Spools.MUSTARD.colour());
        double before = -100;
        for (int layer = 11; layer <= 41; layer++) {
            double yellow = paints.at(FIRST, layer).colour().lab().b();
            assertThat(yellow).isGreaterThan(before);
            before = yellow;
        }
        assertThat(paints.at(SKY, 20)).isSameAs(Spools.SKY);
    }

    @Test
    void a_plan_letters_the_spools_of_a_mixture_and_the_mixture_itself() {
        ColourPlan plan = plan().with(fade(2, 8), GRID);
        assertThat(plan.palette()).containsExactly(SKY, MUSTARD, FIRST);
        assertThat(plan.letter(FIRST)).isEqualTo('C');
        assertThat(plan.spools()).containsExactly(SKY);
        assertThat(plan.mixed()).isEmpty();
        ColourPlan printed = plan.startAt(h(2), FIRST, GRID);
        assertThat(printed.spools()).containsExactly(SKY, FIRST);
        assertThat(printed.mixed()).hasSize(1);
        assertThat(printed.mixtures().next()).isEqualTo(new SpoolId(-2));
    }

    @Test
    void a_fade_that_ends_above_the_print_is_refused() {
        assertThatThrownBy(() -> plan().with(fade(2, 10.2), GRID))
                .isInstanceOf(Refusal.class)
                .hasMessage("The fade ends at 10.20 mm and the print at 10.00 mm; end it lower.");
    }

    @Test
    void fades_go_with_the_borders_at_which_they_begin_and_end() {
        ColourPlan plan =
                plan().with(fade(2, 8), GRID).startAt(h(2), FIRST, GRID).startAt(h(8), MUSTARD, GRID);
        assertThat(plan.move(1, h(3), GRID).mixtures().get(FIRST)).isEqualTo(fade(3, 8));
        assertThat(plan.move(2, h(6), GRID).mixtures().get(FIRST)).isEqualTo(fade(2, 6));
        // One that has nothing to do with a border stays.
        ColourPlan apart = plan().with(fade(2.5, 8), GRID).startAt(h(2), FIRST, GRID);
        assertThat(apart.move(1, h(3), GRID).mixtures().get(FIRST)).isEqualTo(fade(2.5, 8));
    }

    @Test
    void a_scaled_model_takes_its_fades_along() {
        ColourPlan plan = plan().with(fade(2, 8), GRID);
        assertThat(plan.scaledBy(2).mixtures().get(FIRST)).isEqualTo(fade(4, 16));
    }

    @Test
    void another_shelf_knows_the_spools_of_a_mixture_by_other_numbers() {
        ColourPlan plan = plan().with(fade(2, 8), GRID).startAt(h(2), FIRST, GRID);
        ColourPlan other = plan.renumbered(s -> new SpoolId(s.value() + 100));
        assertThat(other.palette()).containsExactly(new SpoolId(104), new SpoolId(105), FIRST);
        assertThat(other.mixtures().get(FIRST).spools()).isEqualTo(Set.of(new SpoolId(104), new SpoolId(105)));
        assertThat(other.starts().get(1).spool()).isEqualTo(FIRST);
    }
}
