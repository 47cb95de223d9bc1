package dev.tranche.app.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.pictures.BandDrawing;
import dev.tranche.app.pictures.ClockDrawing;
import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.pictures.OrderDrawing;
import dev.tranche.app.pictures.Outlines;
import dev.tranche.app.pictures.ScoreDrawing;
import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.pictures.ThinDrawing;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.QuietTime;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.WashOut;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

class DrawingTest extends OnePlanTest {
    @Autowired
    private Figures figures;

    private Workpiece twoColours() {
        PlanState plan = plan("drawn");
        return workbench.openNow(plans.edit(
                plan.id(),
                0,
                "start",
                p -> p.startAt(
                        Height.ofMillimetres(2.4),
                        shelf.all().get(1).id(),
                        p.layers().on(Height.ofMillimetres(5)))));
    }

    @Test
    void a_flat_is_offered_to_begin_a_colour_at_where_there_is_one_beside_the_models_own_top() {
        assertThat(SectionDrawing.of(twoColours(), 234, 470).offersFlats()).isTrue();
        PlanState block =
                plan("a plain block", new Shapes().box(0, 0, 0, 20, 20, 5).mesh());
        assertThat(SectionDrawing.of(workbench.openNow(block), 234, 470).offersFlats())
                .isFalse();
    }

    @Test
    void of_many_flats_the_largest_are_offered_first_and_the_others_at_one_press() {
        Shapes stairs = new Shapes();
        for (int step = 0; step < 40; step++) {
            stairs.box(step * (step + 1) / 4.0, 0, 0, (step + 1) / 2.0, 10, 0.4 * (step + 1));
        }
        SectionDrawing section = SectionDrawing.of(workbench.openNow(plan("stairs", stairs.mesh())), 234, 470);
        assertThat(section.mainFlats())
                .extracting(SectionDrawing.Flat::height)
                .containsExactly(IntStream.range(23, 39)
                        .mapToObj(step -> Height.ofMillimetres(0.4 * (step + 1)).toString())
                        .toArray(String[]::new));
        assertThat(section.otherFlats()).hasSize(23);
    }

    @Test
    void the_section_draws_layers_that_stand_on_one_another_as_one_outline() {
        SectionDrawing section = SectionDrawing.of(twoColours(), 234, 470);
        assertThat(section.strata()).hasSize(2);
        assertThat(section.strata().get(0).path().chars().filter(c -> c == 'M')).hasSize(1);
        // The base is a block of four lines; above it stands a step of 8, from 24 mm to 14 mm wide.
        assertThat(section.strata().get(0).path())
                .matches("M[\\d. ]+(v[-\\d.]+h[-\\d.]+v[-\\d.]+|h[-\\d.]+v[-\\d.]+h[-\\d.]+)z");
        assertThat(section.strata().get(1).path().chars().filter(c -> c == 'M')).hasSize(1);
        assertThat(section.strata().get(1).path().chars().filter(c -> "hv".indexOf(c) >= 0))
                .hasSize(7);
        double border = section.bottom() - 2.4 * section.perMillimetre();
        assertThat(section.borders()).singleElement().satisfies(b -> {
            assertThat(b.y()).isCloseTo(border, within(1e-6));
            assertThat(b.layer()).isEqualTo(13);
        });
        assertThat(section.surfaces()).extracting(SectionDrawing.Flat::height).containsExactly("2.40", "4.00", "5.00");
    }

    @Test
    void the_ribbon_of_the_score_is_as_long_as_the_print_and_its_swaps() {
        Workpiece work = twoColours();
        ScoreDrawing score = ScoreDrawing.of(work, figures, 13, 1, 1240, 150);
        double ribbon = score.bars().stream()
                        .mapToDouble(ScoreDrawing.Bar::width)
                        .sum()
                + score.steps().stream().mapToDouble(ScoreDrawing.Step::width).sum();
        assertThat(ribbon).isCloseTo(score.right() - score.left(), within(0.01));
        assertThat(score.steps()).singleElement().satisfies(s -> {
            assertThat(s.layer()).isEqualTo(13);
            assertThat(s.x())
                    .isCloseTo(score.bars().get(0).x() + score.bars().get(0).width(), within(0.01));
        });
        assertThat(score.cursor(work, 1)).isCloseTo(score.left(), within(0.01));
        assertThat(score.cursor(work, 13)).isCloseTo(score.bars().get(1).x(), within(0.01));
    }

    @Test
    void a_nearer_score_shows_the_time_round_the_cursor() {
        Workpiece work = twoColours();
        ScoreDrawing near = ScoreDrawing.of(work, figures, 13, 8, 1240, 150);
        assertThat(near.zoom()).isEqualTo(8);
        assertThat(near.cursor(work, 13)).isBetween(near.left(), near.right());
        assertThat(ScoreDrawing.of(work, figures, 13, 100_000, 1240, 150).zoom())
                .isEqualTo(64);
    }

    @Test
    void the_layer_plan_keeps_the_models_proportions() {
        LayerDrawing layer = LayerDrawing.of(twoColours(), 1, -1, false, new Outlines(), 460, 440);
        assertThat(layer.ghost()).isEmpty();
        assertThat(layer.colours()).extracting(LayerDrawing.Colour::area).containsExactly("600.0");
        // 30 mm over 432 px: 14.4 px a mm, so 20 mm are 288 px, in the middle of 440.
        assertThat(layer.patches().get(0).path()).isEqualTo("M446 364v-288h-432v288z");
    }

    @Test
    void thin_places_are_marked_each_and_labelled_where_there_is_room() {
        Shapes hairs = new Shapes();
        for (double x : new double[] {0, 1, 20, 21, 40}) {
            hairs.box(x, 0, 0, 0.3, 20, 1);
        }
        Workpiece work = workbench.openNow(plan("hairs", hairs.mesh()));
        ThinDrawing thin = ThinDrawing.of(work, 1, (t, w) -> Thin.of(t.area(), w), 460, 440);
        assertThat(thin.stretches())
                .hasSize(5)
                .extracting(ThinDrawing.Stretch::width)
                .containsOnly("0.30");
        assertThat(thin.stretches().stream().filter(ThinDrawing.Stretch::labelled))
                .hasSize(3);
        assertThat(thin.more()).isFalse();
    }

    @Test
    void no_more_than_forty_thin_places_are_marked_and_that_there_are_others_is_told() {
        for (int hairs : new int[] {40, 41}) {
            Shapes comb = new Shapes();
            for (int i = 0; i < hairs; i++) {
                comb.box(i, 0, 0, 0.3, 20, 1);
            }
            Workpiece work = workbench.openNow(plan("comb " + hairs, comb.mesh()));
            ThinDrawing thin = ThinDrawing.of(work, 1, (t, w) -> Thin.of(t.area(), w, ThinDrawing.TOLD), 460, 440);
            assertThat(thin.stretches()).hasSize(40);
            assertThat(thin.more()).isEqualTo(hairs > 40);
        }
    }

    @Test
    void rulers_step_by_numbers_people_count_in() {
        assertThat(Ticks.step(3.2, 9)).isEqualTo(0.5);
        assertThat(Ticks.step(60, 9)).isEqualTo(10);
        assertThat(Ticks.step(400, 12)).isEqualTo(50);
        assertThat(Ticks.seconds(8 * 3600, 12)).isEqualTo(3600);
        assertThat(Ticks.seconds(14 * 86_400, 14)).isEqualTo(86_400);
        assertThat(Ticks.seconds(300 * 86_400, 14)).isEqualTo(50 * 86_400);
        assertThat(Ticks.seconds(700_000 * 86_400.0, 14)).isEqualTo(50_000 * 86_400L);
    }

    @Test
    void spools_are_told_apart_without_colour() {
        Workpiece work = twoColours();
        assertThat(SpoolMark.palette(work)).extracting(SpoolMark::letter).containsExactly('A', 'B');
        assertThat(SpoolMark.palette(work))
                .extracting(m -> m.kind() + " " + m.angle())
                .doesNotHaveDuplicates();
    }

    @Test
    void figures_are_written_as_a_scale_and_a_clock_show_them() {
        assertThat(figures.plain(411.9 - 37.8)).as("a spool after two prints").isEqualTo("374.1");
        assertThat(figures.plain(123_456.789)).isEqualTo("123456.789");
        assertThat(figures.time(42)).isEqualTo("42 s");
        assertThat(figures.exact(1.44)).isEqualTo("1.4 s");
        assertThat(figures.exact(90)).isEqualTo("1 min 30 s");
        assertThat(figures.exact(0)).isEqualTo("0 s");
        assertThat(figures.time(7 * 60 + 20)).isEqualTo("7 min 20 s");
        assertThat(figures.time(7 * 60)).isEqualTo("7 min");
        assertThat(figures.time(4020)).isEqualTo("1 h 07 min");
        assertThat(figures.time(3599)).isEqualTo("59 min 59 s");
        assertThat(figures.about(7 * 60 + 20)).isEqualTo("7 min");
        assertThat(figures.about(42)).isEqualTo("42 s");
        assertThat(figures.about(3599)).isEqualTo("1 h 00 min");
        assertThat(figures.bytes(21_474_836_480L)).isEqualTo("21.5 GB");
        // Shown together they add up: 9 min and 8 min are not 16 min.
        assertThat(figures.times(1000 * 3.6 + 510, 470)).containsExactly("1 h 08 min", "8 min", "1 h 16 min");
        assertThat(figures.times(46, 68)).containsExactly("46 s", "1 min 08 s", "1 min 54 s");
        assertThat(figures.times(7200, 20)).containsExactly("2 h 00 min", "20 s", "2 h 00 min");
        assertThat(figures.grams(12.44)).isEqualTo("12.4 g");
        assertThat(figures.money(0.125)).isEqualTo("0.13 €");
        assertThat(figures.plain(220.0)).isEqualTo("220");
        assertThat(figures.bytes(343_201)).isEqualTo("344 kB");
    }

    private static DryRun run(Rig rig) {
        return rig.tryOut(rig.macros().answer(Event.SWAP).orElseThrow(), 1);
    }

    @Test
    void the_bed_keeps_its_proportions_and_shows_where_the_nozzle_goes() {
        Rig rig = Beginning.SELECTOR.rig("Drawn");
        ControllerState entry = rig.typical(Event.SWAP, 1).entry();
        BedDrawing bed = BedDrawing.of(rig.printer(), run(rig), entry, 374, 334);
        // 350 × 310 mm of travel in 350 × 310 px: a millimetre is a pixel, 12 px from the edges.
        assertThat(bed.park().orElseThrow().x()).isCloseTo(12 + 5, within(1e-6));
        assertThat(bed.park().orElseThrow().y()).isCloseTo(334 - 12 - 305, within(1e-6));
        assertThat(bed.lever().orElseThrow().x()).isCloseTo(362, within(1e-6));
        assertThat(bed.legs()).noneMatch(BedDrawing.Leg::beyond);
        assertThat(bed.legs()).anyMatch(l -> l.step() == 5 && l.path().contains("359 17"));
    }

    @Test
    void a_disc_of_filament_has_an_area_as_its_volume() {
        Rig rig = Beginning.DIRECT_PAUSE.rig("Drawn");
        Macro pushes = Macro.of(Event.HALT, new Step.Park(), new Step.Prime(20, 4), new Step.Prime(80, 4));
        BedDrawing bed = BedDrawing.of(
                rig.printer(), rig.tryOut(pushes, 0), rig.typical(Event.HALT, 0).entry(), 400, 400);
        assertThat(bed.drops()).hasSize(2);
        assertThat(bed.drops().get(1).radius()).isCloseTo(2 * bed.drops().get(0).radius(), within(1e-9));
    }

    @Test
    void the_strip_of_a_macro_is_as_wide_as_its_paper_and_tells_the_persons_time() {
        Rig rig = Beginning.DIRECT_PAUSE.rig("Drawn");
        Macro swap = rig.macros().answer(Event.SWAP).orElseThrow();
        StripDrawing strip = StripDrawing.of(swap, run(rig), figures, 1000);
        StripDrawing.Block last = strip.blocks().get(strip.blocks().size() - 1);
        assertThat(last.x() + last.width()).isCloseTo(999, within(0.5));
        assertThat(strip.blocks())
                .filteredOn(StripDrawing.Block::person)
                .singleElement()
                .satisfies(b -> {
                    assertThat(b.title()).isEqualTo("7 Wait for the person: 1 min 30 s");
                    assertThat(b.step()).isEqualTo(6);
                });
    }

    @Test
    void the_switch_is_drawn_on_the_side_it_is_pressed_from() {
        Printer printer = Beginning.SELECTOR.rig("Drawn").printer();
        LeverDrawing far = LeverDrawing.of(printer, new Lever(Axis.X, 350, 3, false), 380);
        assertThat(far.waitX()).isLessThan(far.switchX());
        assertThat(far.sum()).isEqualTo("350 − 3 = 347 mm");
        LeverDrawing home = LeverDrawing.of(printer, new Lever(Axis.X, 0, 3, true), 380);
        assertThat(home.waitX()).isGreaterThan(home.switchX());
        assertThat(home.homeX()).isEqualTo(home.low());
    }

    @Test
    void a_halt_is_marked_where_it_falls() {
        PlanState plan = plan("halted");
        Workpiece work = workbench.openNow(plans.edit(
                plan.id(),
                0,
                "halt",
                p -> p.haltAt(
                        new Halt(Height.ofMillimetres(2), "look"), p.layers().on(Height.ofMillimetres(5)))));
        SectionDrawing section = SectionDrawing.of(work, 234, 470);
        assertThat(section.halts()).singleElement().satisfies(h -> {
            assertThat(h.layer()).isEqualTo(11);
            assertThat(h.y()).isCloseTo(section.bottom() - 2 * section.perMillimetre(), within(1e-6));
        });
        ScoreDrawing score = ScoreDrawing.of(work, figures, 11, 1, 1240, 150);
        assertThat(score.bars()).singleElement().satisfies(b -> assertThat(b.width())
                .isCloseTo(score.right() - score.left(), within(0.01)));
        assertThat(score.halts()).singleElement().satisfies(h -> assertThat(h.x())
                .isBetween(score.left(), score.right()));
    }

    private Workpiece halves() {
        PlanState plan = plan("halves");
        return workbench.openNow(plans.edit(
                plan.id(),
                0,
                "half",
                p -> p.with(p.regions()
                        .plus(new Region(
                                "half",
                                new Shape.Zone(new Outline.Box(15, 20), 7.5, 10, 0, false),
                                shelf.all().get(1).id(),
                                Range.ALL)))));
    }

    @Test
    void the_order_of_a_layer_is_a_column_and_each_swap_a_dot() {
        Workpiece work = halves();
        OrderDrawing layered = OrderDrawing.of(work, work.order(), List.of(), 1, 1000);
        assertThat(layered.cells()).hasSize(50);
        assertThat(layered.dots()).hasSize(25);
        // The loaded colour goes on, so two neighbours in different columns are alike.
        assertThat(layered.cells().get(1).mark())
                .isEqualTo(layered.cells().get(2).mark());
        assertThat(layered.mixed()).isTrue();
        OrderDrawing banded = OrderDrawing.of(
                work, work.orders().banded(), work.orders().bands().list(), 1, 1000);
        assertThat(banded.dots()).hasSameSizeAs(work.orders().banded().swaps());
        assertThat(banded.numbers().get(0).text()).startsWith("1–");
    }

    @Test
    void the_brackets_of_the_bands_cover_the_section_from_bed_to_top() {
        Workpiece work = halves();
        BandDrawing drawing = BandDrawing.of(work, work.orders().bands().list(), 300, 330);
        assertThat(drawing.brackets().get(0).bottom())
                .isCloseTo(drawing.section().bottom(), within(1e-9));
        for (int i = 1; i < drawing.brackets().size(); i++) {
            assertThat(drawing.brackets().get(i).bottom())
                    .isCloseTo(drawing.brackets().get(i - 1).y(), within(1e-9));
        }
    }

    @Test
    void the_clock_shows_each_stop_at_its_time_and_the_hours_at_which_nobody_is_there() {
        Workpiece work = halves();
        ZonedDateTime start = ZonedDateTime.parse("2026-11-25T22:00:00+01:00[Europe/Berlin]");
        List<QuietTime> night = QuietTime.parse("22:30-6:30");
        Schedule schedule = Schedule.of(work.ledger(), start, Duration.ofMinutes(10), night);
        ClockDrawing drawing = ClockDrawing.of(work, schedule, night, figures, 1180);
        assertThat(drawing.begins()).isLessThan(drawing.quiet().get(0).x());
        assertThat(drawing.stops()).filteredOn(ClockDrawing.Stop::missed).hasSize((int) schedule.missed());
        assertThat(drawing.stops())
                .filteredOn(ClockDrawing.Stop::missed)
                .allMatch(s -> s.x() >= drawing.quiet().get(0).x());
        assertThat(drawing.hours()).hasSizeBetween(4, 16);
    }

    @Test
    void the_curve_of_a_purge_is_clean_where_it_meets_the_tolerance() {
        Spool out = shelf.all().get(0);
        Spool in = shelf.all().get(1);
        Volume dead = new Volume(60);
        Volume clean = PurgeModel.usual(dead).between(out, in).volume();
        WashOut curve = WashOut.of(out, in, dead, 2, clean.times(1.25), 90);
        double length = Filament.COMMON.length(clean);
        WashOutDrawing drawing =
                WashOutDrawing.of(curve, length, OptionalDouble.of(length / 2), Filament.COMMON, 460, 250);
        double wide = drawing.right() - drawing.left();
        assertThat((drawing.cleanX() - drawing.left()) / wide).isCloseTo(0.8, within(1e-6));
        assertThat((drawing.measured().getAsDouble() - drawing.left()) / wide).isCloseTo(0.4, within(1e-6));
        assertThat(drawing.swatches().get(0).hex())
                .isNotEqualTo(drawing.swatches().get(15).hex());
        assertThat(drawing.curve()).startsWith("M").contains("L");
    }
}
