package dev.tranche.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.Flat;
import dev.tranche.core.layer.Flat.Form;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A coaster of 40 × 40 mm: a floor at 2.0 mm within a rim up to 3.0 mm, and lettering on the floor up to 2.6 mm. */
class FlooringTest {
    private static final Spool CHALK = Spools.CHALK.covering(0.5);

    private static Colouring coaster() {
        return coloured(new Shapes()
                .box(0, 0, 0, 40, 40, 2)
                .box(0, 0, 2, 40, 4, 1)
                .box(0, 36, 2, 40, 4, 1)
                .box(0, 4, 2, 4, 32, 1)
                .box(36, 4, 2, 4, 32, 1)
                .box(10, 18, 2, 20, 4, 0.6));
    }

    private static Colouring coloured(Shapes shapes) {
        CutModel model =
                CutModel.of(shapes.body(), LayerSettings.COMMON.on(shapes.body().height()), Progress.UNHEARD);
        return Colouring.of(ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id()), model, 0.45, Progress.UNHEARD);
    }

    @Test
    void floor_lettering_and_rim_are_told_apart_and_named() {
        List<Flat> flats = coaster().outlooks().flats();
        assertThat(flats).extracting(Flat::form).containsExactly(Form.FLOOR, Form.RAISED, Form.TOP);
        assertThat(flats).extracting(Flat::layer).containsExactly(10, 13, 15);
        assertThat(flats.get(0).name()).isEqualTo("floor");
        assertThat(flats.get(0).seen().getAsDouble()).isCloseTo(1, within(1e-9));
    }

    @Test
    void a_floor_half_of_which_lies_under_a_bridge_says_how_much_is_seen() {
        Flat floor = coloured(new Shapes()
                        .box(0, 0, 0, 40, 40, 2)
                        .box(0, 0, 2, 4, 40, 3)
                        .box(36, 0, 2, 4, 40, 3)
                        .box(4, 0, 2, 32, 4, 3)
                        .box(4, 36, 2, 32, 4, 3)
                        .box(4, 4, 4, 16, 32, 1))
                .outlooks()
                .flats()
                .get(0);
        assertThat(floor.name()).isEqualTo("floor, 50 % of it seen from above");
    }

    @Test
    void the_top_of_a_base_is_told_from_the_lettering_that_stands_on_it() {
        List<Flat> flats = coloured(new Shapes().box(0, 0, 0, 40, 40, 2).box(5, 5, 2, 30, 10, 1))
                .outlooks()
                .flats();
        assertThat(flats).extracting(Flat::form).containsExactly(Form.BASE, Form.TOP);
    }

    /** §18: h 0.2, floor at 2.0, three layers: 8–10, back on 11 (common practice). */
    @Test
    void three_layers_of_a_floor_at_two_millimetres_are_eight_to_ten_and_back_on_eleven() {
        Colouring coaster = coaster();
        var grid = coaster.model().grid();
        Flooring floor = Flooring.of(grid, coaster.outlooks().flats().get(0), 3);
        assertThat(floor).isEqualTo(new Flooring(8, 10));
        List<Tranche> tranches = floor.on(coaster.plan(), CHALK.id(), grid).tranches(grid);
        assertThat(tranches).extracting(Tranche::firstLayer).containsExactly(1, 8, 11);
        assertThat(tranches).extracting(Tranche::spool).containsExactly(Spools.SOOT.id(), CHALK.id(), Spools.SOOT.id());
    }

    @Test
    void by_itself_it_is_as_deep_as_it_takes_to_hide_what_lies_beneath() {
        Colouring coaster = coaster();
        var shelf = new java.util.HashMap<>(Spools.SHELF);
        shelf.put(CHALK.id(), CHALK);
        List<Flat> flats = coaster.outlooks().flats();
        Flooring floor = Flooring.of(coaster, flats, flats.get(0), CHALK, shelf);
        ColourPlan plan = floor.on(coaster.plan(), CHALK.id(), coaster.model().grid());
        Looks looks = new Looks(coaster.with(plan, 0.45), shelf);
        Patch chalk = looks.from(View.ABOVE, Progress.UNHEARD).stream()
                .filter(p -> p.spool().equals(CHALK.id()))
                .findFirst()
                .orElseThrow();
        assertThat(chalk.strangeness()).isLessThan(1.01);
        assertThat(chalk.squareMillimetres()).isCloseTo(32 * 32 - 20 * 4, within(1e-6));
        Spool clear = CHALK.covering(9);
        assertThat(Flooring.of(coaster, flats, flats.get(0), clear, shelf)).isEqualTo(new Flooring(1, 10));
    }

    @Test
    void lettering_is_coloured_from_where_it_rises() {
        Colouring coaster = coaster();
        List<Flat> flats = coaster.outlooks().flats();
        Spool dense = Spools.CHALK.covering(0.2);
        assertThat(Flooring.of(coaster, flats, flats.get(1), dense, Spools.SHELF))
                .isEqualTo(new Flooring(11, 13));
    }

    @Test
    void the_models_own_top_is_refused() {
        Colouring coaster = coaster();
        Flat top = coaster.outlooks().flats().get(2);
        assertThatThrownBy(() -> Flooring.of(coaster.model().grid(), top, 3)).isInstanceOf(Refusal.class);
    }

    @Test
    void what_starts_above_a_floor_stays_and_what_started_within_it_gives_way() {
        Colouring coaster = coaster();
        var grid = coaster.model().grid();
        ColourPlan striped = coaster.plan()
                .startAt(grid.bottom(9), Spools.SKY.id(), grid)
                .startAt(grid.bottom(13), Spools.BURGUNDY.id(), grid);
        List<Tranche> tranches =
                new Flooring(8, 10).on(striped, CHALK.id(), grid).tranches(grid);
        assertThat(tranches).extracting(Tranche::firstLayer).containsExactly(1, 8, 11, 13);
        assertThat(tranches)
                .extracting(Tranche::spool)
                .containsExactly(Spools.SOOT.id(), CHALK.id(), Spools.SKY.id(), Spools.BURGUNDY.id());
        assertThat(new Flooring(1, 10).on(striped, CHALK.id(), grid).tranches(grid))
                .extracting(Tranche::firstLayer)
                .containsExactly(1, 11, 13);
    }

    /** Two parts on one another meet at 2.0 mm, where nothing is seen from above. */
    @Test
    void where_parts_meet_is_neither_floor_nor_lettering() {
        Body body = new Shapes()
                .box(0, 0, 0, 40, 40, 2)
                .body()
                .with(new Shapes().box(0, 0, 2, 40, 40, 1).body());
        CutModel model = CutModel.of(body, LayerSettings.COMMON.on(body.height()), Progress.UNHEARD);
        List<Flat> flats = Colouring.of(
                        ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id()), model, 0.45, Progress.UNHEARD)
                .outlooks()
                .flats();
        assertThat(flats).extracting(Flat::form).containsExactly(Form.COVERED, Form.TOP);
        assertThatThrownBy(() -> Flooring.of(model.grid(), flats.get(0), 3)).isInstanceOf(Refusal.class);
    }

    /** Tops at 2.0 and 2.08 mm end with the same layer of 0.2 mm. */
    @Test
    void two_flats_that_print_as_one_are_one() {
        List<Flat> flats = coloured(new Shapes()
                        .box(0, 0, 0, 40, 40, 1)
                        .box(2, 2, 1, 10, 10, 1)
                        .box(20, 2, 1, 12, 12, 1.08)
                        .box(2, 25, 1, 10, 10, 2))
                .outlooks()
                .flats();
        assertThat(flats).extracting(Flat::layer).doesNotHaveDuplicates();
        assertThat(flats.get(1).area()).isCloseTo(144, within(1.0));
    }
}
