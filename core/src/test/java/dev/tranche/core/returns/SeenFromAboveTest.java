package dev.tranche.core.returns;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Course;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/** What a path leads over, against looking down on it from above, place by place. */
class SeenFromAboveTest {
    private static final int SAMPLES = 2_000;
    private static final List<Spool> ALL = List.of(Spools.SOOT, Spools.CHALK, Spools.BURGUNDY);

    @Property(tries = 150)
    void as_somebody_sees_it_who_looks_down_on_every_place_of_the_way(@ForAll long seed) {
        Random random = new Random(seed);
        Shapes shapes = new Shapes();
        int boxes = 1 + random.nextInt(4);
        for (int i = 0; i < boxes; i++) {
            shapes.box(
                    random.nextInt(30),
                    random.nextInt(30),
                    0,
                    5 + random.nextInt(20),
                    5 + random.nextInt(20),
                    0.4 + 0.2 * random.nextInt(8));
        }
        Body body = Body.of(shapes.mesh());
        LayerGrid grid = LayerSettings.COMMON.on(shapes.mesh().height());
        CutModel model = CutModel.of(body, grid, Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id());
        for (int i = random.nextInt(3); i > 0; i--) {
            Height bottom = grid.bottom(2 + random.nextInt(grid.count() - 1));
            plan = plan.startAt(bottom, ALL.get(random.nextInt(3)).id(), grid);
        }
        for (int i = random.nextInt(3); i > 0; i--) {
            Outline outline = new Outline.Box(4 + random.nextInt(20), 4 + random.nextInt(20));
            plan = plan.with(plan.regions()
                    .plus(new Region(
                            "zone " + i,
                            new Shape.Zone(outline, random.nextInt(40), random.nextInt(40), random.nextInt(90), false),
                            ALL.get(random.nextInt(3)).id(),
                            Range.ALL)));
        }
        Colouring colouring = Colouring.of(plan, model, 0.45, Progress.UNHEARD);
        Footprint footprint = Footprint.of(model);
        Standing standing = new Standing(
                colouring.layers(),
                footprint.inModel(),
                Optional.of(colouring.outlooks().from(false, Progress.UNHEARD)));
        Map<Integer, Set<SpoolId>> printed = new HashMap<>();
        List<Pass> passes = PrintOrder.numbered(colouring, plan.palette()).passes();
        int until = random.nextInt(passes.size());
        int standingBy = 0;
        for (Pass pass : passes.subList(0, until)) {
            standing.print(pass, standingBy++);
            printed.computeIfAbsent(pass.layer(), l -> new HashSet<>()).add(pass.spool());
        }
        Pass next = passes.get(until);
        Spot spot = new Spot(100 + random.nextInt(20), 80, random.nextInt(360));
        Coordinate from = new Coordinate(60 + random.nextInt(90), 30 + random.nextInt(90));
        Coordinate to = new Coordinate(60 + random.nextInt(90), 30.5 + random.nextInt(90));
        Course course = Course.between(
                footprint.into(spot).transform(from, new Coordinate()),
                footprint.into(spot).transform(to, new Coordinate()));
        double seen = standing.otherThan(next, until, course, true).stream()
                .mapToDouble(s -> s.span().length())
                .sum();
        int found = 0;
        for (int i = 0; i < SAMPLES; i++) {
            Coordinate at = course.at((i + 0.5) / SAMPLES);
            if (!isIn(colouring, next.layer(), Set.of(next.spool()), at).isPresent()) {
                Optional<SpoolId> above = Optional.empty();
                for (int layer = grid.count(); layer >= 1 && above.isEmpty(); layer--) {
                    above = isIn(colouring, layer, printed.getOrDefault(layer, Set.of()), at);
                }
                found += above.isPresent() && !above.get().equals(next.spool()) ? 1 : 0;
            }
        }
        assertThat(seen * SAMPLES).isCloseTo(found, within(2.0 + SAMPLES * 0.2 / course.length()));
    }

    @Test
    void where_a_layer_is_printed_in_part_the_one_beneath_is_seen_beside_it() {
        // 20 × 10 mm, upright: its layers are all alike, chalk to the right of the middle.
        Shapes tile = new Shapes().box(0, 0, 0, 20, 10, 2);
        CutModel model = CutModel.of(tile.body(), LayerSettings.COMMON.on(Height.ofMillimetres(2)), Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id());
        plan = plan.with(plan.regions()
                .plus(new Region(
                        "right",
                        new Shape.Zone(new Outline.Box(10, 10), 15, 5, 0, false),
                        Spools.CHALK.id(),
                        Range.ALL)));
        Colouring colouring = Colouring.of(plan, model, 0.45, Progress.UNHEARD);
        assertThat(colouring.layer(5)).isSameAs(colouring.layer(6));
        List<Pass> passes = PrintOrder.numbered(colouring, plan.palette()).passes();
        Standing standing = new Standing(colouring.layers(), Footprint.of(model).inModel(), Optional.empty());
        // Five layers whole, and of the sixth the chalk, which is in the nozzle.
        passes.subList(0, 11).forEach(p -> standing.print(p, passes.indexOf(p)));
        assertThat(passes.get(10)).matches(p -> p.layer() == 6 && p.spool().equals(Spools.CHALK.id()));
        Course across = Course.between(new Coordinate(-10, 5), new Coordinate(30, 5));
        Pass burgundy = new Pass(7, Spools.BURGUNDY.id(), 0, 1, 1, Optional.empty());
        assertThat(standing.otherThan(burgundy, 11, across, false))
                .containsExactly(
                        new Standing.Seen(Spools.SOOT.id(), new Span(0.25, 0.5)),
                        new Standing.Seen(Spools.CHALK.id(), new Span(0.5, 0.75)));
        // Before anything was printed nothing is seen.
        assertThat(standing.otherThan(burgundy, 0, across, false)).isEmpty();
    }

    @Test
    void a_wall_that_leans_in_is_seen_whole_however_little_of_each_layer_is() {
        // 5 mm on 60 mm: a sixtieth of a millimetre of each layer, from the foot at -5 to -1.67 at 40 mm.
        CutModel model = CutModel.of(
                new Shapes().cone(5, 60, 64).body(),
                LayerSettings.COMMON.on(Height.ofMillimetres(60)),
                Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id())
                .startAt(model.grid().bottom(200), Spools.CHALK.id(), model.grid());
        Colouring colouring = Colouring.of(plan, model, 0.45, Progress.UNHEARD);
        Standing standing = new Standing(colouring.layers(), Footprint.of(model).inModel(), Optional.empty());
        List<Pass> passes = PrintOrder.numbered(colouring, plan.palette()).passes();
        passes.subList(0, 199).forEach(p -> standing.print(p, p.layer()));
        Course course = Course.between(new Coordinate(-20, 0), new Coordinate(0, 0));
        List<Standing.Seen> seen = standing.otherThan(passes.get(199), 200, course, true);
        assertThat(seen).singleElement().satisfies(s -> {
            assertThat(s.spool()).isEqualTo(Spools.SOOT.id());
            assertThat(s.span().length() * 20).isCloseTo(5 - 5.0 / 3, within(0.04));
        });
    }

    private static Optional<SpoolId> isIn(Colouring colouring, int layer, Set<SpoolId> spools, Coordinate at) {
        return colouring.layer(layer).tints().stream()
                .filter(t -> spools.contains(t.spool()))
                .filter(t -> t.cells().stream().anyMatch(c -> SimplePointInAreaLocator.isContained(at, c)))
                .map(Tint::spool)
                .findFirst();
    }

    @Property(tries = 200)
    void a_place_on_the_bed_is_the_same_place_in_the_model_however_it_stands(@ForAll long seed) {
        Random random = new Random(seed);
        Shapes shapes = new Shapes().box(random.nextInt(30), -random.nextInt(30), 0, 10, 4, 1);
        CutModel model = CutModel.of(
                Body.of(shapes.mesh()), LayerSettings.COMMON.on(shapes.mesh().height()), Progress.UNHEARD);
        Footprint footprint = Footprint.of(model);
        Spot spot = new Spot(random.nextInt(200), random.nextInt(200), random.nextInt(360));
        Envelope own = model.section(1).outline().getEnvelopeInternal();
        // The middle of the model is where the copy stands, and each corner of it is a corner there.
        Coordinate middle = footprint.into(spot).transform(new Coordinate(spot.x(), spot.y()), new Coordinate());
        assertThat(middle.distance(own.centre())).isCloseTo(0, within(1e-9));
        for (Coordinate corner : footprint.at(spot).getCoordinates()) {
            Coordinate inModel = footprint.into(spot).transform(corner, new Coordinate());
            assertThat(footprint.from(spot).transform(inModel, new Coordinate()).distance(corner))
                    .isCloseTo(0, within(1e-9));
            assertThat(Math.abs(inModel.x - own.centre().x)).isCloseTo(5, within(1e-9));
            assertThat(Math.abs(inModel.y - own.centre().y)).isCloseTo(2, within(1e-9));
        }
    }
}
