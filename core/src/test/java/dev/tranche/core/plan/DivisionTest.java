package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.Divider;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.locationtech.jts.geom.MultiPolygon;

/** Regions that begin and end on different layers, over one another, some of them twice. */
class DivisionTest {
    private static final CutModel BLOCK = CutModel.of(
            new Shapes().box(0, 0, 0, 20, 20, 2).body(),
            LayerSettings.COMMON.on(Height.ofMillimetres(2)),
            Progress.UNHEARD);

    /** The reference is to divide it without knowing whose it was; before and after a zone was moved as well. */
    @Property(tries = 100)
    void what_was_somebodys_is_divided_as_if_nobody_had_it(@ForAll Random random) {
        List<Region> regions = regions(random);
        Colouring before = colouring(regions);
        int moved = random.nextInt(regions.size());
        Region of = regions.get(moved);
        regions.set(moved, new Region(of.name(), zone(random), of.spool(), of.range()));
        Colouring after = before.with(plan(regions), 0.42);
        MultiPolygon whole = BLOCK.section(1).outline();
        for (int i = 0; i < 6; i++) {
            Division was = (random.nextBoolean() ? before : after)
                    .division(1 + random.nextInt(BLOCK.grid().count()));
            Division now = after.division(1 + random.nextInt(BLOCK.grid().count()));
            for (Divider.Taken taken : was.divide(whole)) {
                Map<Integer, MultiPolygon> expected = byTaker(now.divide(taken.area()));
                Map<Integer, MultiPolygon> got = byTaker(now.divide(taken.area(), was, taken.taker()));
                assertThat(got.keySet()).isEqualTo(expected.keySet());
                got.forEach((taker, area) -> assertThat(
                                area.symDifference(expected.get(taker)).getArea())
                        .isCloseTo(0, within(1e-5)));
            }
        }
    }

    private static Map<Integer, MultiPolygon> byTaker(List<Divider.Taken> all) {
        return all.stream()
                .filter(t -> t.area().getArea() > 1e-5)
                .collect(Collectors.toMap(
                        Divider.Taken::taker, Divider.Taken::area, (a, b) -> Areas.union(List.of(a, b))));
    }

    private static List<Region> regions(Random random) {
        List<Region> regions = new ArrayList<>();
        for (int i = 0; i < 2 + random.nextInt(6); i++) {
            boolean twice = i > 0 && random.nextInt(4) == 0;
            Shape shape = twice ? regions.get(random.nextInt(i)).shape() : zone(random);
            int first = 1 + random.nextInt(5);
            regions.add(new Region(
                    "zone " + i,
                    shape,
                    new SpoolId(1 + random.nextInt(3)),
                    Range.ofLayers(BLOCK.grid(), first, first + random.nextInt(5))));
        }
        return regions;
    }

    private static Shape zone(Random random) {
        Outline outline = random.nextBoolean()
                ? new Outline.Disc(2 + 10 * random.nextDouble())
                : new Outline.Box(2 + 10 * random.nextDouble(), 2 + 10 * random.nextDouble());
        return new Shape.Zone(outline, 20 * random.nextDouble(), 20 * random.nextDouble(), 0, false);
    }

    private static ColourPlan plan(List<Region> regions) {
        return ColourPlan.of(LayerSettings.COMMON, new SpoolId(1)).with(new Regions(regions));
    }

    private static Colouring colouring(List<Region> regions) {
        return Colouring.of(plan(regions), BLOCK, 0.42, Progress.UNHEARD);
    }
}
