package dev.tranche.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Film;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Pick;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;

class LooksTest {
    private static final LayerSettings FIFTHS = LayerSettings.COMMON;
    private static final Spool POND = Spools.spool(1, "Pond", "#2F6C8C").covering(0.8);
    private static final Spool CHALK = Spools.spool(2, "Chalk", "#F4F1E8").covering(0.5);
    private static final Spool SOOT = Spools.spool(3, "Soot", "#1B1B1D").covering(0.5);
    private static final Spool PLUM = Spools.spool(4, "Plum", "#6B3A5B").covering(0.8);
    private static final List<Spool> ALL = List.of(POND, CHALK, SOOT, PLUM);

    /** A little to each side, mm. */
    private static final List<double[]> SIDES =
            List.of(new double[] {0.06, 0}, new double[] {-0.06, 0}, new double[] {0, 0.06}, new double[] {0, -0.06});

    private static CutModel cut(Body body) {
        return CutModel.of(body, FIFTHS.on(body.height()), Progress.UNHEARD);
    }

    private static Colouring coloured(CutModel model, ColourPlan plan) {
        return Colouring.of(plan, model, 0.45, Progress.UNHEARD);
    }

    private static Looks looks(Colouring colouring) {
        return new Looks(colouring, shelf(ALL));
    }

    private static Map<SpoolId, Spool> shelf(List<Spool> spools) {
        Map<SpoolId, Spool> shelf = new HashMap<>();
        spools.forEach(s -> shelf.put(s.id(), s));
        return shelf;
    }

    private static Height mm(double height) {
        return Height.ofMillimetres(height);
    }

    /** §18: one layer of pond on a millimetre of chalk, computed independently. */
    @Test
    void one_layer_of_pond_on_a_plate_of_chalk_is_light_blue_all_over() {
        CutModel plate = cut(new Shapes().box(0, 0, 0, 30, 20, 1.2).body());
        ColourPlan plan = ColourPlan.of(FIFTHS, CHALK.id()).startAt(mm(1.0), POND.id(), plate.grid());
        List<Patch> above = looks(coloured(plate, plan)).from(View.ABOVE, Progress.UNHEARD);
        assertThat(above).hasSize(1);
        assertThat(above.get(0).squareMillimetres()).isCloseTo(600, within(1e-9));
        assertThat(Srgb.of(above.get(0).colour()).hex()).isEqualTo("#2F93BB");
        assertThat(above.get(0).plies()).containsExactly(new Ply(POND.id(), 200), new Ply(CHALK.id(), Ply.THICK));
        List<Patch> below = looks(coloured(plate, plan)).from(View.BELOW, Progress.UNHEARD);
        assertThat(below).hasSize(1);
        assertThat(below.get(0).strangeness()).isLessThan(1);
    }

    /** §18: 0.2 mm of pond lets through linear 0.009, 0.412, 0.596, and twice that 0.000, 0.172, 0.365. */
    @Test
    void a_panel_held_to_light_has_the_colours_computed_elsewhere() {
        CutModel panel = cut(new Shapes()
                .box(0, 0, 0, 30, 20, 0.2)
                .box(10, 5, 0.2, 10, 10, 0.2)
                .body());
        List<Patch> light =
                looks(coloured(panel, ColourPlan.of(FIFTHS, POND.id()))).from(View.LIGHT, Progress.UNHEARD);
        assertThat(light).hasSize(2);
        isClose(light.get(0).colour(), new LinearRgb(0.009, 0.412, 0.596));
        isClose(light.get(1).colour(), new LinearRgb(0.000, 0.172, 0.365));
        assertThat(light.get(1).squareMillimetres()).isCloseTo(100, within(1e-9));
    }

    @Test
    void what_lies_under_a_bridge_is_not_seen_from_above_and_its_underside_is_seen_from_beneath() {
        CutModel bridge = cut(new Shapes()
                .box(0, 0, 0, 5, 10, 4)
                .box(15, 0, 0, 5, 10, 4)
                .box(0, 0, 4, 20, 10, 2)
                .body());
        ColourPlan plan = ColourPlan.of(FIFTHS, CHALK.id()).startAt(mm(4), POND.id(), bridge.grid());
        Looks looks = looks(coloured(bridge, plan));
        assertThat(looks.from(View.ABOVE, Progress.UNHEARD))
                .extracting(Patch::spool)
                .containsExactly(POND.id());
        assertThat(area(looks.from(View.ABOVE, Progress.UNHEARD))).isCloseTo(200, within(1e-9));
        assertThat(looks.from(View.BELOW, Progress.UNHEARD))
                .extracting(Patch::spool)
                .containsExactlyInAnyOrder(POND.id(), CHALK.id());
        assertThat(looks.from(View.BELOW, Progress.UNHEARD))
                .extracting(Patch::squareMillimetres)
                .containsExactly(100.0, 100.0);
        Patch underside = looks.from(View.BELOW, Progress.UNHEARD).stream()
                .filter(p -> p.spool().equals(POND.id()))
                .findFirst()
                .orElseThrow();
        assertThat(underside.spots().get(0).layer()).isEqualTo(21);
    }

    @Property(tries = 25)
    void at_any_point_the_patch_is_the_one_whose_colour_following_the_layers_down_gives(@ForAll Random random) {
        Colouring colouring = any(random);
        Looks looks = looks(colouring);
        for (View view : View.values()) {
            List<Patch> patches = looks.from(view, Progress.UNHEARD);
            assertThat(area(patches)).isCloseTo(shadow(colouring.model()).getArea(), within(1e-4));
            Envelope box = colouring.model().footprint();
            for (int i = 0; i < 25; i++) {
                double x = box.getMinX() + random.nextDouble() * box.getWidth();
                double y = box.getMinY() + random.nextDouble() * box.getHeight();
                LinearRgb there = followed(colouring, view, x, y);
                Optional<Patch> patch = at(patches, x, y);
                assertThat(patch.isPresent()).isEqualTo(there != null);
                if (there != null && isInside(colouring, view, x, y)) {
                    Srgb seen = Srgb.of(patch.get().colour());
                    Srgb wanted = Srgb.of(there);
                    assertThat(seen.red()).isCloseTo(wanted.red(), within(1));
                    assertThat(seen.green()).isCloseTo(wanted.green(), within(1));
                    assertThat(seen.blue()).isCloseTo(wanted.blue(), within(1));
                    if (SIDES.stream()
                                    .map(s -> nearest(colouring, view, x + s[0], y + s[1]))
                                    .distinct()
                                    .count()
                            == 1) {
                        assertThat(spots(patch.get(), x, y).map(Patch.Spot::region))
                                .containsExactly(nearest(colouring, view, x, y));
                    }
                }
            }
        }
    }

    @Property(tries = 30)
    void an_opaque_plan_shows_the_colour_of_the_topmost_layer_everywhere(@ForAll Random random) {
        Colouring colouring = any(random);
        Looks looks = new Looks(
                colouring, shelf(ALL.stream().map(s -> s.covering(0.05)).toList()));
        for (Patch patch : looks.from(View.ABOVE, Progress.UNHEARD)) {
            assertThat(patch.strangeness()).isLessThan(0.5);
            for (Patch.Spot spot : patch.spots()) {
                Coordinate inside = spot.area().getInteriorPoint().getCoordinate();
                int top = colouring.model().grid().count();
                Optional<Pick> pick = Optional.empty();
                while (pick.isEmpty()) {
                    pick = Pick.at(colouring, top--, inside.x, inside.y);
                }
                assertThat(patch.spool()).isEqualTo(pick.get().spool());
                assertThat(spot.region()).isEqualTo(pick.get().region());
                assertThat(spot.layer()).isGreaterThanOrEqualTo(top + 1);
            }
        }
    }

    @Property(tries = 20)
    void edits_leave_nothing_of_what_was_seen_before(@ForAll Random random) {
        Colouring colouring = any(random);
        looks(colouring).from(View.ABOVE, Progress.UNHEARD);
        for (int edit = 0; edit < 3; edit++) {
            colouring = colouring.with(any(random, colouring.model()), 0.45);
            Looks after = looks(colouring);
            Looks anew = looks(coloured(colouring.model(), colouring.plan()));
            for (View view : View.values()) {
                Map<List<Ply>, Double> seen = sizes(after.from(view, Progress.UNHEARD));
                Map<List<Ply>, Double> wanted = sizes(anew.from(view, Progress.UNHEARD));
                assertThat(seen).containsOnlyKeys(wanted.keySet());
                seen.forEach((plies, size) -> assertThat(size).isCloseTo(wanted.get(plies), within(1e-6)));
            }
        }
    }

    private static Map<List<Ply>, Double> sizes(List<Patch> patches) {
        return patches.stream().collect(Collectors.toMap(Patch::plies, Patch::squareMillimetres));
    }

    /** Whether it looks the same a little to each side: steps narrower than a line bulges are passed over. */
    private static boolean isInside(Colouring colouring, View view, double x, double y) {
        LinearRgb here = followed(colouring, view, x, y);
        return SIDES.stream().allMatch(s -> here.equals(followed(colouring, view, x + s[0], y + s[1])));
    }

    /** What Kubelka's layers give at one point, light followed ply by ply from the far side, with nothing shared. */
    private static LinearRgb followed(Colouring colouring, View view, double x, double y) {
        LinearRgb seen = new LinearRgb(1, 1, 1);
        double[] back = {0, 0, 0};
        double[] through = {1, 1, 1};
        int plies = 0;
        int count = colouring.model().grid().count();
        for (int i = 1; i <= count; i++) {
            int layer = view == View.BELOW ? count + 1 - i : i;
            Optional<Pick> pick = Pick.at(colouring, layer, x, y);
            if (pick.isPresent()) {
                plies++;
                double thick = colouring.model().grid().thickness(layer).millimetres();
                Film film = film(colouring, pick.get().spool(), layer);
                seen = film.over(seen, thick);
                LinearRgb r = film.over(new LinearRgb(0, 0, 0), thick);
                LinearRgb t = film.slab(thick).through();
                double[] rs = {r.red(), r.green(), r.blue()};
                double[] ts = {t.red(), t.green(), t.blue()};
                for (int c = 0; c < 3; c++) {
                    double bounced = 1 / (1 - rs[c] * back[c]);
                    through[c] *= ts[c] * bounced;
                    back[c] = rs[c] + ts[c] * ts[c] * back[c] * bounced;
                }
            }
        }
        return plies == 0 ? null : view == View.LIGHT ? new LinearRgb(through[0], through[1], through[2]) : seen;
    }

    private static Colouring any(Random random) {
        Body body = random.nextBoolean()
                ? new Shapes().sphere(2, 12, 16).body()
                : boxes(random).body();
        if (random.nextBoolean()) {
            body = body.with(boxes(random).body());
        }
        CutModel model = cut(body);
        return coloured(model, any(random, model));
    }

    private static Shapes boxes(Random random) {
        Shapes shapes = new Shapes().box(-2, -2, 0, 4 + random.nextInt(4), 4, 0.2 + random.nextInt(8) * 0.2);
        return shapes.box(random.nextInt(3), 2.5, 0.4, 3, 3, 1 + random.nextInt(3) * 0.3);
    }

    private static ColourPlan any(Random random, CutModel model) {
        ColourPlan plan = ColourPlan.of(FIFTHS, one(random));
        for (int i = random.nextInt(4); i > 0; i--) {
            double height = model.grid().modelHeight().millimetres() * random.nextDouble();
            if (height > 0 && model.grid().goesAbove(mm(height)) && mm(height).isAbove(Height.ZERO)) {
                plan = plan.startAt(mm(height), one(random), model.grid());
            }
        }
        List<Region> regions = new ArrayList<>();
        for (int i = random.nextInt(4); i > 0; i--) {
            Shape shape = random.nextInt(3) == 0
                    ? new Shape.Parts(
                            List.of(random.nextInt(model.body().solids().size())))
                    : new Shape.Zone(
                            random.nextBoolean() ? new Outline.Disc(3) : new Outline.Box(4, 1.5),
                            random.nextDouble() * 3,
                            random.nextDouble() * 3,
                            random.nextInt(90),
                            false);
            int count = model.grid().count();
            int first = 1 + random.nextInt(count);
            regions.add(new Region(
                    "r" + i,
                    shape,
                    one(random),
                    Range.ofLayers(model.grid(), first, first + random.nextInt(count - first + 1))));
        }
        plan = plan.with(new Regions(regions));
        return random.nextBoolean() ? mixing(plan, random, model) : plan;
    }

    /** With a fade and a blend in the place of some of its spools. */
    private static ColourPlan mixing(ColourPlan plain, Random random, CutModel model) {
        Height top = model.grid().printedHeight();
        Height begins = top.times(0.6 * random.nextDouble());
        Mixture fade = new Mixture.Fade(
                new SpoolId(-1),
                Recipe.of(POND.id()),
                new Recipe(List.of(new Recipe.Portion(PLUM.id(), 0.3), new Recipe.Portion(CHALK.id(), 0.7))),
                begins,
                begins.plus(top.times(0.1 + 0.3 * random.nextDouble())));
        Mixture blend = new Mixture.Blend(
                new SpoolId(-2),
                new Recipe(List.of(new Recipe.Portion(SOOT.id(), 0.1), new Recipe.Portion(CHALK.id(), 0.9))));
        ColourPlan plan = plain.with(fade, model.grid()).with(blend, model.grid());
        plan = plan.recolour(random.nextInt(plan.starts().size()), new SpoolId(-1 - random.nextInt(2)));
        return plan.with(new Regions(plan.regions().list().stream()
                .map(r -> random.nextInt(3) == 0 ? r.in(new SpoolId(-1 - random.nextInt(2))) : r)
                .toList()));
    }

    /** A mixture's optics by hand: ratios of absorption to scattering by volume, and so what hides. */
    private static Film film(Colouring colouring, SpoolId paint, int layer) {
        if (!paint.isMixture()) {
            return shelf(ALL).get(paint).film();
        }
        double middle = (colouring.model().grid().bottom(layer).millimetres()
                        + colouring.model().grid().top(layer).millimetres())
                / 2;
        double plum = 0;
        double chalk = 0.9;
        double soot = 0.1;
        double pond = 0;
        if (colouring.plan().mixtures().get(paint) instanceof Mixture.Fade f) {
            double way = Math.max(
                    0,
                    Math.min(
                            1,
                            (middle - f.begins().millimetres())
                                    / (f.ends().millimetres() - f.begins().millimetres())));
            plum = 0.3 * way;
            chalk = 0.7 * way;
            pond = 1 - way;
            soot = 0;
        }
        Srgb colour = pond > 0.9995
                ? POND.colour()
                : Srgb.of(Melt.mix(
                        List.of(
                                PLUM.colour().linear(),
                                CHALK.colour().linear(),
                                POND.colour().linear(),
                                SOOT.colour().linear()),
                        List.of(plum, chalk, pond, soot)));
        return Film.of(colour, 1 / (plum / 0.8 + chalk / 0.5 + pond / 0.8 + soot / 0.5));
    }

    private static SpoolId one(Random random) {
        return ALL.get(random.nextInt(ALL.size())).id();
    }

    private static MultiPolygon shadow(CutModel model) {
        return Areas.union(model.sections().stream().map(Section::outline).toList());
    }

    private static double area(List<Patch> patches) {
        return patches.stream().mapToDouble(Patch::squareMillimetres).sum();
    }

    private static Optional<Patch> at(List<Patch> patches, double x, double y) {
        return patches.stream()
                .filter(p -> spots(p, x, y).findFirst().isPresent())
                .findFirst();
    }

    private static Stream<Patch.Spot> spots(Patch patch, double x, double y) {
        Coordinate point = new Coordinate(x, y);
        return patch.spots().stream()
                .filter(s -> SimplePointInAreaLocator.locate(point, s.area()) != Location.EXTERIOR);
    }

    /** The region that colours what is nearest to the eye. */
    private static int nearest(Colouring colouring, View view, double x, double y) {
        int count = colouring.model().grid().count();
        return IntStream.rangeClosed(1, count)
                .mapToObj(i -> Pick.at(colouring, view == View.BELOW ? i : count + 1 - i, x, y))
                .flatMap(Optional::stream)
                .findFirst()
                .map(Pick::region)
                .orElse(Integer.MIN_VALUE);
    }

    private static void isClose(LinearRgb is, LinearRgb wanted) {
        assertThat(is.red()).isCloseTo(wanted.red(), within(0.001));
        assertThat(is.green()).isCloseTo(wanted.green(), within(0.001));
        assertThat(is.blue()).isCloseTo(wanted.blue(), within(0.001));
    }
}
