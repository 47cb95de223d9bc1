package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ColouringTest {
    private static final double LINE = 0.45;
    private static final SpoolId SOOT = Spools.SOOT.id();
    private static final SpoolId CHALK = Spools.CHALK.id();
    private static final SpoolId BURGUNDY = Spools.BURGUNDY.id();

    private static CutModel cut(Body body) {
        return CutModel.of(body, LayerSettings.COMMON.on(body.height()), Progress.UNHEARD);
    }

    private static CutModel cut(Shapes shapes) {
        return cut(shapes.body());
    }

    /** Boxes as parts of one model. */
    private static CutModel parts(Shapes... solids) {
        Body all = solids[0].body();
        for (int i = 1; i < solids.length; i++) {
            all = all.with(solids[i].body());
        }
        return cut(all);
    }

    private static Colouring colour(CutModel model, Region... regions) {
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, SOOT).with(new Regions(List.of(regions)));
        return Colouring.of(plan, model, LINE, Progress.UNHEARD);
    }

    private static Region disc(SpoolId spool, double x, double y, double diameter) {
        return new Region("disc", new Shape.Zone(new Outline.Disc(diameter), x, y, 0, false), spool, Range.ALL);
    }

    private static Region box(SpoolId spool, double x, double y, double w, double d) {
        return new Region("box", new Shape.Zone(new Outline.Box(w, d), x, y, 0, false), spool, Range.ALL);
    }

    private static Region part(SpoolId spool, Integer... numbers) {
        return new Region("part", new Shape.Parts(List.of(numbers)), spool, Range.ALL);
    }

    private static double area(Colouring colouring, int layer, SpoolId spool) {
        return colouring.layer(layer).tint(spool).map(Tint::squareMillimetres).orElse(0.0);
    }

    @Test
    void a_zone_takes_its_area_from_the_colour_by_height() {
        Colouring c = colour(cut(new Shapes().box(0, 0, 0, 30, 20, 3)), box(CHALK, 10, 10, 6, 4));
        assertThat(area(c, 1, CHALK)).isCloseTo(24, within(1e-9));
        assertThat(area(c, 1, SOOT)).isCloseTo(576, within(1e-9));
        Tint chalk = c.layer(1).tint(CHALK).orElseThrow();
        assertThat(chalk.area().getLength()).isCloseTo(20, within(1e-9));
        assertThat(chalk.area().getNumGeometries()).isEqualTo(1);
        assertThat(c.layer(1).spools()).containsExactly(SOOT, CHALK);
    }

    @Test
    void a_zone_that_reaches_beyond_the_model_colours_only_the_model() {
        Colouring c = colour(cut(new Shapes().box(0, 0, 0, 30, 20, 3)), disc(CHALK, 0, 0, 10));
        assertThat(area(c, 3, CHALK)).isCloseTo(Math.PI * 25 / 4, within(0.02));
        assertThat(colour(cut(new Shapes().box(0, 0, 0, 30, 20, 3)), disc(CHALK, 500, 0, 10))
                        .layer(1)
                        .spools())
                .containsExactly(SOOT);
    }

    @Test
    void where_regions_overlap_the_last_wins() {
        CutModel plate = cut(new Shapes().box(0, 0, 0, 30, 20, 3));
        Region low = box(CHALK, 10, 10, 10, 10);
        Region high = box(BURGUNDY, 15, 10, 10, 10);
        assertThat(area(colour(plate, low, high), 1, CHALK)).isCloseTo(50, within(1e-9));
        assertThat(area(colour(plate, low, high), 1, BURGUNDY)).isCloseTo(100, within(1e-9));
        assertThat(area(colour(plate, high, low), 1, BURGUNDY)).isCloseTo(50, within(1e-9));
    }

    @Test
    void a_region_covers_only_its_own_layers_down_to_one() {
        CutModel plate = cut(new Shapes().box(0, 0, 0, 30, 20, 3));
        Region single = disc(CHALK, 15, 10, 8).over(Range.ofLayers(plate.grid(), 7, 7));
        Colouring c = colour(plate, single);
        for (int layer = 1; layer <= 15; layer++) {
            assertThat(c.layer(layer).spools().contains(CHALK)).isEqualTo(layer == 7);
        }
    }

    @Test
    void regions_of_one_spool_that_touch_are_one_piece() {
        Colouring c = colour(
                cut(new Shapes().box(0, 0, 0, 30, 20, 3)), box(CHALK, 5, 10, 10, 10), box(CHALK, 15, 10, 10, 10));
        Tint chalk = c.layer(1).tint(CHALK).orElseThrow();
        assertThat(chalk.area().getNumGeometries()).isEqualTo(1);
        assertThat(chalk.area().getLength()).isCloseTo(60, within(1e-9));
    }

    @Test
    void parts_have_their_own_colours_and_a_later_part_wins_where_they_overlap() {
        CutModel model = parts(
                new Shapes().box(0, 0, 0, 30, 20, 2),
                new Shapes().box(10, 5, 1, 10, 10, 2),
                new Shapes().box(0, 0, 0, 5, 5, 2));
        Colouring c = colour(model, part(CHALK, 1), part(BURGUNDY, 2));
        assertThat(area(c, 1, SOOT)).isCloseTo(600 - 25, within(1e-6));
        assertThat(area(c, 8, CHALK)).isCloseTo(100, within(1e-6));
        assertThat(area(c, 8, SOOT)).isCloseTo(600 - 100 - 25, within(1e-6));
        assertThat(area(c, 12, CHALK)).isCloseTo(100, within(1e-6));
        assertThat(c.layer(12).spools()).containsExactly(CHALK);
        Colouring buried = colour(model, part(CHALK, 1), part(BURGUNDY, 0));
        assertThat(area(buried, 8, CHALK)).isZero();
        assertThat(buried.reliefs().get(0).buried()).isCloseTo(1.0, within(1e-9));
        assertThat(buried.reliefs().get(0).shown()).isCloseTo(1.0, within(1e-9));
        assertThat(buried.reliefs().get(0).proud()).isCloseTo(1.0, within(1e-9));
    }

    @Test
    void a_part_and_a_zone_over_it_follow_the_order_too() {
        CutModel model = parts(new Shapes().box(0, 0, 0, 20, 20, 1), new Shapes().box(20, 0, 0, 20, 20, 1));
        Region right = part(CHALK, 1);
        Region band = box(BURGUNDY, 20, 10, 20, 4);
        assertThat(area(colour(model, right, band), 1, BURGUNDY)).isCloseTo(80, within(1e-6));
        assertThat(area(colour(model, band, right), 1, BURGUNDY)).isCloseTo(40, within(1e-6));
        assertThat(area(colour(model, band, right), 1, CHALK)).isCloseTo(400, within(1e-6));
    }

    @Test
    void hidden_parts_take_no_part() {
        Body body = new Shapes()
                .box(0, 0, 0, 20, 20, 1)
                .body()
                .with(new Shapes().box(30, 0, 0, 20, 20, 4).body());
        assertThat(CutModel.height(body, java.util.Set.of(1))).isEqualTo(Height.ofMillimetres(1));
        CutModel model = CutModel.of(
                body, java.util.Set.of(1), LayerSettings.COMMON.on(Height.ofMillimetres(1)), Progress.UNHEARD);
        assertThat(model.section(2).area()).isCloseTo(400, within(1e-6));
    }

    @Test
    void what_is_thinner_than_a_line_is_not_in_the_layer() {
        Colouring c = colour(
                cut(new Shapes().box(0, 0, 0, 30, 20, 3)),
                box(CHALK, 15, 10, 20, 0.3),
                box(BURGUNDY, 15, 15, 0.2, 0.2));
        assertThat(c.layer(1).spools()).containsExactly(SOOT);
        assertThat(c.layer(1).tint(CHALK).orElseThrow().lost()).isEqualTo(1);
        assertThat(c.layer(1).tint(BURGUNDY).orElseThrow().lost()).as("a speck").isZero();
    }

    @Test
    void the_volume_of_a_zone_in_a_ball_is_that_of_the_solid_two_walls_cut_from_it() {
        // A cylinder through the middle of a sphere: 4/3 π (r³ − (r² − a²)^3/2).
        CutModel ball = cut(new Shapes().sphere(10, 120, 240));
        Colouring c = colour(ball, disc(CHALK, 0, 0, 12));
        double sum = 0;
        for (int layer = 1; layer <= ball.grid().count(); layer++) {
            sum += area(c, layer, CHALK) * ball.grid().thickness(layer).millimetres();
        }
        assertThat(sum).isCloseTo(4 / 3.0 * Math.PI * (1000 - Math.pow(64, 1.5)), within(2.5));
    }

    /** An inlay's relief is what calipers would show: how deep it lies, and under how much plastic. */
    @Test
    void an_inlay_inside_the_model_says_how_far_it_is_from_being_seen() {
        CutModel plate = cut(new Shapes().box(0, 0, 0, 30, 20, 3));
        Region inside = disc(CHALK, 15, 10, 8).over(Range.between(Height.ofMillimetres(1), Height.ofMillimetres(2.6)));
        Relief relief = colour(plate, inside).reliefs().get(0);
        assertThat(relief.above()).isCloseTo(0.4, within(1e-9));
        assertThat(relief.below()).isCloseTo(1.0, within(1e-9));
        assertThat(relief.shown()).isCloseTo(1.6, within(1e-9));
    }

    @Property(tries = 60)
    void an_edit_gives_what_starting_anew_would_give(@ForAll long seed) {
        Random random = new Random(seed);
        CutModel model = parts(new Shapes().cone(15, 4, 40), new Shapes().box(-4, -4, 0, 8, 8, 5));
        ColourPlan before = ColourPlan.of(LayerSettings.COMMON, SOOT).with(random(random, model));
        ColourPlan after = before.with(edited(random, before.regions(), model));
        Colouring stepwise = Colouring.of(before, model, LINE, Progress.UNHEARD).with(after, LINE);
        Colouring anew = Colouring.of(after, model, LINE, Progress.UNHEARD);
        for (int layer = 1; layer <= model.grid().count(); layer++) {
            assertThat(stepwise.layer(layer).spools())
                    .isEqualTo(anew.layer(layer).spools());
            double all = 0;
            for (Tint tint : anew.layer(layer).tints()) {
                assertThat(area(stepwise, layer, tint.spool())).isEqualTo(tint.squareMillimetres());
                assertThat(tint.area().getArea()).isCloseTo(tint.squareMillimetres(), within(1e-6));
                all += tint.squareMillimetres();
            }
            assertThat(all)
                    .as("colours cover the layer and do not overlap")
                    .isCloseTo(model.section(layer).area(), within(1e-6));
        }
    }

    private static Regions random(Random random, CutModel model) {
        List<Region> regions = new ArrayList<>();
        for (int i = random.nextInt(5); i >= 0; i--) {
            regions.add(one(random, model));
        }
        return new Regions(regions);
    }

    private static Region one(Random random, CutModel model) {
        SpoolId spool = List.of(SOOT, CHALK, BURGUNDY).get(random.nextInt(3));
        Region region =
                switch (random.nextInt(4)) {
                    case 0 -> part(spool, random.nextInt(2));
                    case 1 -> disc(spool, random.nextInt(20) - 10, random.nextInt(20) - 10, 2 + random.nextInt(12));
                    case 2 -> box(spool, random.nextInt(20) - 10, random.nextInt(20) - 10, 1 + random.nextInt(9), 3);
                    default -> traced(random, spool);
                };
        int from = random.nextInt(3000);
        return region.over(new Range(
                Height.ofMicrometres(from),
                random.nextBoolean()
                        ? Optional.empty()
                        : Optional.of(Height.ofMicrometres(from + 1 + random.nextInt(2500)))));
    }

    private static Region traced(Random random, SpoolId spool) {
        List<Shape.Trace.Course> courses = new ArrayList<>();
        for (int from = random.nextInt(1000); from < 5000; from += 1 + random.nextInt(1500)) {
            Shape.Zone zone = new Shape.Zone(
                    new Outline.Disc(2 + random.nextInt(9)),
                    random.nextInt(20) - 10,
                    random.nextInt(20) - 10,
                    0,
                    false);
            courses.add(new Shape.Trace.Course(
                    Height.ofMicrometres(from), random.nextInt(4) == 0 ? Optional.empty() : Optional.of(zone)));
        }
        return new Region("trace", new Shape.Trace(courses), spool, Range.ALL);
    }

    private static Regions edited(Random random, Regions regions, CutModel model) {
        int index = random.nextInt(regions.size());
        return switch (random.nextInt(4)) {
            case 0 -> regions.plus(one(random, model));
            case 1 -> regions.without(index);
            case 2 -> regions.moved(index, random.nextInt(regions.size()));
            default -> regions.replace(index, regions.get(index).in(BURGUNDY));
        };
    }

    @Test
    void a_trace_has_its_own_outline_on_each_layer_and_lies_in_the_model_as_a_whole() {
        List<Shape.Trace.Course> courses = List.of(
                course(0.2, Optional.of(new Outline.Box(10, 4))),
                course(0.6, Optional.empty()),
                course(1.0, Optional.of(new Outline.Box(4, 10))));
        Region trace = new Region(
                "trace",
                new Shape.Trace(courses),
                CHALK,
                Range.between(Height.ofMillimetres(0.2), Height.ofMillimetres(1.6)));
        Colouring c = colour(cut(new Shapes().box(-8, -8, 0, 16, 16, 2)), trace, disc(BURGUNDY, 0, 0, 2));
        for (int layer = 1; layer <= 10; layer++) {
            double round = area(c, 1, BURGUNDY);
            boolean there = layer == 2 || layer == 3 || layer >= 6 && layer <= 8;
            assertThat(area(c, layer, CHALK)).as("layer " + layer).isCloseTo(there ? 40 - round : 0, within(1e-6));
        }
        assertThat(Pick.at(c, 3, 4, 0).orElseThrow().region()).isZero();
        assertThat(Pick.at(c, 7, 4, 0).orElseThrow().region()).isEqualTo(Field.BASE);
        assertThat(c.division(2)).isSameAs(c.division(3)).isNotSameAs(c.division(6));
        assertThat(c.reliefs().get(0).shown()).isCloseTo(1.0, within(1e-9));
        assertThat(c.reliefs().get(0).above()).isCloseTo(0.4, within(1e-9));
        assertThat(c.reliefs().get(0).below()).isCloseTo(0.2, within(1e-9));
    }

    private static Shape.Trace.Course course(double from, Optional<Outline> outline) {
        return new Shape.Trace.Course(Height.ofMillimetres(from), outline.map(o -> new Shape.Zone(o, 0, 0, 0, false)));
    }

    @Test
    void a_point_of_a_layer_says_which_part_and_region_lie_there() {
        CutModel model = parts(new Shapes().box(0, 0, 0, 30, 20, 2), new Shapes().box(10, 5, 0, 10, 10, 2));
        Colouring c = colour(model, part(CHALK, 1), disc(BURGUNDY, 3, 3, 4));
        assertThat(Pick.at(c, 1, 15, 10)).hasValueSatisfying(p -> {
            assertThat(p.part()).hasValue(1);
            assertThat(p.spool()).isEqualTo(CHALK);
        });
        assertThat(Pick.at(c, 1, 3, 3).orElseThrow().region()).isEqualTo(1);
        assertThat(Pick.at(c, 1, 28, 18).orElseThrow().region()).isEqualTo(Field.BASE);
        assertThat(Pick.at(c, 1, 28, 18).orElseThrow().part()).hasValue(0);
        assertThat(Pick.at(c, 1, 50, 18)).isEmpty();
    }

    /** Rims of a ball through rims of discs that overlap: where edges nearly coincide, and pieces shrink to nothing. */
    @Test
    void twelve_discs_round_a_ball_cover_each_layer_once_wherever_they_are_nudged() {
        CutModel ball = cut(new Shapes().sphere(30, 90, 180));
        for (double nudge : new double[] {0, 0.5, -0.37}) {
            Region[] discs = new Region[12];
            for (int i = 0; i < 12; i++) {
                double angle = i * Math.PI / 6;
                SpoolId spool = List.of(SOOT, CHALK, BURGUNDY).get(i % 3);
                discs[i] = disc(spool, 18 * Math.cos(angle) + nudge, 18 * Math.sin(angle), 12);
            }
            Colouring c = colour(ball, discs);
            for (int layer = 1; layer <= ball.grid().count(); layer++) {
                double all = 0;
                for (Tint tint : c.layer(layer).tints()) {
                    all += tint.area().getArea();
                    assertThat(tint.area().getArea()).isCloseTo(tint.squareMillimetres(), within(1e-5));
                }
                assertThat(all)
                        .as("layer " + layer)
                        .isCloseTo(ball.section(layer).area(), within(1e-5));
            }
        }
    }
}
