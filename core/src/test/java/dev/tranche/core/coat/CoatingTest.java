package dev.tranche.core.coat;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.format.Coat;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PaintedObj;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.MultiPolygon;

/** Models whose files paint their faces. */
class CoatingTest {
    private static final double LINE = 0.45;
    /** Half a square of the drawing, on either side. */
    private static final double SQUARE = 0.15;

    private interface Paint {
        Spool at(double x, double y, double z);
    }

    private static PartedModel painted(Mesh mesh, Paint paint) throws IOException {
        byte[] obj = PaintedObj.of(mesh, (x, y, z) -> paint.at(x, y, z).colour());
        return ModelReader.read(new ByteArrayInputStream(obj), obj.length, Progress.UNHEARD);
    }

    private static Spool spool(Coat.Hue hue) {
        return Spools.SHELF.values().stream()
                .filter(s -> s.colour().equals(hue.colour().orElseThrow()))
                .findFirst()
                .orElseThrow();
    }

    private static Colouring coloured(PartedModel model, Placement placement) {
        return coloured(model, placement, Regions.NONE);
    }

    private static Colouring coloured(PartedModel model, Placement placement, Regions before) {
        var body = model.body().placed(placement);
        LayerGrid grid = LayerSettings.COMMON.on(body.height());
        CutModel cut = CutModel.of(body, grid, Progress.UNHEARD);
        Regions regions = before;
        for (Region region : Coating.regions(cut, model.coats(), CoatingTest::spool, LINE, Progress.UNHEARD)) {
            regions = regions.plus(region);
        }
        Spool base = spool(model.coats().values().iterator().next().hues().get(0));
        return Colouring.of(ColourPlan.of(LayerSettings.COMMON, base.id()).with(regions), cut, LINE, Progress.UNHEARD);
    }

    private static double area(Colouring colouring, int layer, Spool spool) {
        return colouring.layer(layer).tints().stream()
                .filter(t -> t.spool().equals(spool.id()))
                .mapToDouble(t -> t.squareMillimetres())
                .sum();
    }

    /** 30 × 20 × 8 mm of soot, its eastern wall burgundy, its top sky. */
    private static PartedModel tray() throws IOException {
        return painted(
                new Shapes().box(0, 0, 0, 30, 20, 8).mesh(),
                (x, y, z) -> x == 30 ? Spools.BURGUNDY : z == 8 ? Spools.SKY : Spools.SOOT);
    }

    /** Layers of the tray's colours that hide one another, whichever lies behind. */
    private static int hiding(Colouring colouring) {
        List<Spool> all = List.of(Spools.SOOT, Spools.BURGUNDY, Spools.SKY);
        return all.stream()
                .flatMapToInt(
                        own -> all.stream().mapToInt(behind -> Inlay.layersToHide(colouring.model(), own, behind)))
                .max()
                .orElseThrow();
    }

    @Test
    void a_painted_wall_is_as_many_lines_deep_as_hide_what_lies_behind() throws IOException {
        Colouring colouring = coloured(tray(), Placement.AS_IS);
        double deep = Math.ceil(hiding(colouring) * 0.2 / LINE) * LINE;
        assertThat(deep).as("between two lines and four").isBetween(2 * LINE, 4 * LINE);
        // Where it meets the walls beside it, each has its own half of the corner.
        assertThat(area(colouring, 20, Spools.BURGUNDY)).isCloseTo((20 - deep) * deep, within(20 * SQUARE / 2));
        assertThat(area(colouring, 20, Spools.SKY)).isZero();
    }

    @Test
    void a_painted_top_is_as_many_layers_deep_and_leaves_each_wall_its_outermost_line() throws IOException {
        Colouring colouring = coloured(tray(), Placement.AS_IS);
        int count = colouring.model().grid().count();
        int layers = Math.min(10, hiding(colouring));
        double top = area(colouring, count, Spools.SKY);
        assertThat(top).isCloseTo((30 - 2 * LINE) * (20 - 2 * LINE), within(100 * SQUARE));
        assertThat(area(colouring, count, Spools.BURGUNDY)).isCloseTo(20 * LINE, within(20 * SQUARE));
        assertThat(IntStream.rangeClosed(1, count).filter(l -> area(colouring, l, Spools.SKY) > 1))
                .containsExactlyElementsOf(
                        IntStream.rangeClosed(count - layers + 1, count).boxed().toList());
    }

    @Test
    void a_dot_is_no_wider_beneath_the_surface_than_on_it() throws IOException {
        PartedModel model = painted(
                new Shapes().sphere(12, 120, 240).mesh(),
                (x, y, z) -> Math.hypot(y, z - 12) < 2 && x > 0 ? Spools.MUSTARD : Spools.CHALK);
        Colouring colouring = coloured(model, Placement.AS_IS);
        assertThat(area(colouring, 60, Spools.MUSTARD)).isBetween(4 * LINE, 4 * 4 * LINE + 4 * SQUARE);
        MultiPolygon dot = colouring.layer(60).field(0).orElseThrow().area();
        assertThat(dot.getEnvelopeInternal().getHeight()).isCloseTo(4, within(2 * SQUARE));
    }

    @Test
    void where_painted_colours_meet_nothing_of_another_comes_between() throws IOException {
        List<Spool> swirl = List.of(Spools.BURGUNDY, Spools.SKY, Spools.MUSTARD);
        PartedModel model = painted(
                new Shapes().sphere(12, 60, 120).mesh(),
                (x, y, z) -> z < 12
                        ? Spools.SOOT
                        : swirl.get(
                                (int) Math.floorMod((long) Math.floor(Math.atan2(y, x) * 3 / Math.PI + z / 3), 3L)));
        Colouring colouring = coloured(model, Placement.AS_IS);
        for (int layer = 70; layer <= 115; layer += 5) {
            MultiPolygon section = colouring.model().section(layer).outline();
            Geometry rim = section.difference(section.buffer(-LINE));
            double soot = colouring
                    .layer(layer)
                    .field(Field.BASE)
                    .map(f -> f.area().intersection(rim).getArea())
                    .orElse(0.0);
            assertThat(soot).as("layer %d", layer).isLessThan(0.005);
        }
    }

    @Test
    void a_ball_painted_below_its_equator_is_a_ring_of_that_colour_on_each_layer_below() throws IOException {
        PartedModel model =
                painted(new Shapes().sphere(12, 60, 120).mesh(), (x, y, z) -> z < 12 ? Spools.MUSTARD : Spools.SOOT);
        Colouring colouring = coloured(model, Placement.AS_IS);
        for (int layer = 1; layer <= 55; layer++) {
            double r = Math.sqrt(colouring.model().section(layer).area() / Math.PI);
            double line = Math.PI * (r * r - Math.max(0, r - LINE) * Math.max(0, r - LINE));
            assertThat(area(colouring, layer, Spools.MUSTARD))
                    .as("layer %d", layer)
                    .isGreaterThanOrEqualTo(line - 2 * Math.PI * r * SQUARE);
        }
        assertThat(IntStream.rangeClosed(62, 120).filter(l -> area(colouring, l, Spools.MUSTARD) > 0))
                .isEmpty();
        assertThat(colouring.plan().regions().list()).hasSize(1).allMatch(Coating::made);
    }

    @Test
    void it_is_painted_as_it_lies_and_in_what_size() throws IOException {
        Placement placement = Placement.AS_IS.scaled(2, 2, 2).flipped().turned(90);
        Colouring colouring = coloured(tray(), placement);
        assertThat(area(colouring, 1, Spools.SKY)).as("the top lies on the bed").isGreaterThan(59 * 39 * 0.97);
        Region wall = colouring.plan().regions().list().stream()
                .filter(r -> r.spool().equals(Spools.BURGUNDY.id()))
                .findFirst()
                .orElseThrow();
        assertThat(colouring.layer(40).spools()).contains(Spools.BURGUNDY.id());
        assertThat(wall.name()).startsWith("Burgundy as painted");
    }

    @Test
    void parts_beside_a_painted_one_keep_their_colour() throws IOException {
        PartedModel tray = tray();
        PartedModel both = painted(new Shapes().box(30, 0, 0, 10, 20, 8).mesh(), (x, y, z) -> Spools.CHALK);
        PartedModel model = tray.with(both);
        assertThat(model.coats()).containsOnlyKeys(0);
        Colouring colouring = coloured(
                model,
                Placement.AS_IS,
                Regions.NONE.plus(new Region("bar", new Shape.Parts(List.of(1)), Spools.CHALK.id(), Range.ALL)));
        assertThat(area(colouring, 20, Spools.CHALK)).isCloseTo(200, within(20 * SQUARE));
    }

    @Test
    void a_wall_of_very_many_faces_is_painted_as_one_of_few() throws IOException {
        double[] painted = new double[2];
        int[] sides = {90, 3000};
        for (int i = 0; i < 2; i++) {
            Shapes cone = new Shapes().cone(15, 30, sides[i]);
            PartedModel model = painted(cone.mesh(), (x, y, z) -> x > 3 ? Spools.SKY : Spools.SOOT);
            painted[i] = area(coloured(model, Placement.AS_IS), 20, Spools.SKY);
        }
        assertThat(painted[1]).isCloseTo(painted[0], within(Math.PI * 14 * SQUARE / 2));
    }

    @Test
    void more_colours_than_a_plan_holds_are_refused_before_any_is_laid() {
        Coating.requireRoom(ColourPlan.MOST_SPOOLS);
        assertThatThrownBy(() -> Coating.requireRoom(ColourPlan.MOST_SPOOLS + 1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("27 colours");
    }
}
