package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Topology;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Stopped;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

/**
 * What these tests write was also read by lib3mf 2.4.1, the 3MF Consortium's own library, in strict mode: the demo's tag
 * (two objects, 14 992 triangles) and leaf panel (eleven objects) came through without a warning, every object manifold
 * and oriented, with the names and materials that went in.
 */
class ColourSolidTest {
    private static final SpoolId SOOT = Spools.SOOT.id();
    private static final SpoolId CHALK = Spools.CHALK.id();

    private static Colouring colour(Body body, ColourPlan plan) {
        CutModel model = CutModel.of(body, plan.layers().on(body.height()), Progress.UNHEARD);
        return Colouring.of(plan, model, 0.45, Progress.UNHEARD);
    }

    private static double printed(Colouring c, SpoolId spool) {
        LayerGrid grid = c.model().grid();
        double sum = 0;
        for (int layer = 1; layer <= grid.count(); layer++) {
            sum += c.layer(layer).tint(spool).map(Tint::squareMillimetres).orElse(0.0)
                    * grid.thickness(layer).millimetres();
        }
        return sum;
    }

    private static List<Mesh> meshes(ColourSolid solid) {
        List<Mesh> meshes = new ArrayList<>();
        solid.meshes().forEach(meshes::add);
        return meshes;
    }

    private static double volume(List<ColourSolid> solids, SpoolId spool) {
        return solids.stream()
                .filter(s -> s.spool().equals(spool))
                .flatMap(s -> meshes(s).stream())
                .mapToDouble(Mesh::volume)
                .sum();
    }

    private static Colouring inlaidTag() {
        Body tag = new Shapes().box(0, 0, 0, 30, 20, 3).body();
        LayerGrid grid = LayerSettings.COMMON.on(tag.height());
        Region ring = new Region(
                "ring", new Shape.Zone(new Outline.Disc(10), 15, 10, 0, false), CHALK, Range.ofLayers(grid, 1, 3));
        Region dot = new Region("dot", new Shape.Zone(new Outline.Disc(4), 15, 10, 0, false), SOOT, Range.ALL);
        return colour(tag, ColourPlan.of(LayerSettings.COMMON, SOOT).with(new Regions(List.of(ring, dot))));
    }

    @Test
    void each_colour_goes_out_as_much_as_it_prints_and_closed() {
        Colouring c = inlaidTag();
        List<ColourSolid> solids = ColourSolid.of(c, List.of("tag"), Progress.UNHEARD);
        assertThat(volume(solids, CHALK)).isCloseTo(printed(c, CHALK), within(1e-2));
        assertThat(volume(solids, SOOT)).isCloseTo(printed(c, SOOT), within(1e-2));
        assertThat(solids).allSatisfy(s -> assertThat(meshes(s))
                .allSatisfy(m -> assertThat(Topology.of(m).closed()).isTrue()));
        assertThat(solids.stream().mapToInt(s -> meshes(s).size()).sum())
                .as("layers of one shape are one step: a dot and a plate with a hole, a ring, and the plate above")
                .isEqualTo(4);
    }

    /** A painted model has thousands of steps, which take most of the time. */
    @Test
    void whoever_waits_hears_of_every_layer_and_of_every_step_and_can_stop_it() {
        List<String> heard = new ArrayList<>();
        ColourSolid.of(inlaidTag(), List.of("tag"), (done, total) -> heard.add(done + " of " + total))
                .forEach(ColourSolidTest::meshes);
        assertThat(heard).contains("1 of 30", "30 of 30").endsWith("30 of 30", "0 of 2", "1 of 2", "0 of 1");
        assertThatThrownBy(() -> ColourSolid.of(inlaidTag(), List.of("tag"), new Stopped()))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void a_part_of_one_colour_goes_out_as_it_came_in() {
        Body body = new Shapes()
                .sphere(10, 20, 40)
                .body()
                .with(new Shapes().box(12, 0, 0, 5, 5, 4).body());
        Region box = new Region("box", new Shape.Parts(List.of(1)), CHALK, Range.ALL);
        List<ColourSolid> solids = ColourSolid.of(
                colour(body, ColourPlan.of(LayerSettings.COMMON, SOOT).with(new Regions(List.of(box)))),
                List.of("ball", "box"),
                Progress.UNHEARD);
        assertThat(solids).extracting(ColourSolid::name).containsExactly("ball", "box");
        assertThat(meshes(solids.get(0)).get(0)).isEqualTo(body.solids().get(0));
    }

    @Test
    void colours_by_height_cut_a_model_into_stacked_steps() {
        Body cone = new Shapes().cone(10, 8, 60).body();
        LayerGrid grid = LayerSettings.COMMON.on(cone.height());
        Colouring c =
                colour(cone, ColourPlan.of(LayerSettings.COMMON, SOOT).startAt(Height.ofMillimetres(3), CHALK, grid));
        List<ColourSolid> solids = ColourSolid.of(c, List.of("cone"), Progress.UNHEARD);
        assertThat(volume(solids, SOOT) + volume(solids, CHALK)).isCloseTo(Math.PI * 100 * 8 / 3, within(5.0));
        assertThat(solids.get(1).meshes()).allMatch(m -> m.bottom() >= 3000);
    }

    @Test
    void a_3mf_comes_back_with_names_colours_and_places() throws IOException {
        Colouring c = inlaidTag();
        List<ThreeMfWriter.Thing> things = ColourSolid.of(c, List.of("tag"), Progress.UNHEARD).stream()
                .map(s -> new ThreeMfWriter.Thing(
                        s.name(), "A & <B>", Spools.SHELF.get(s.spool()).colour(), s.meshes()))
                .toList();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ThreeMfWriter.write("Tag \"one\"", things, bytes);
        PartedModel back =
                ModelReader.read(new ByteArrayInputStream(bytes.toByteArray()), bytes.size(), Progress.UNHEARD);
        assertThat(back.parts()).extracting(p -> p.colour().orElseThrow().hex()).contains("#1B1B1D", "#F4F1E8");
        assertThat(back.body().volume()).isCloseTo(30 * 20 * 3, within(0.1));
        assertThat(back.body().footprint()).isEqualTo(c.model().body().footprint());
        assertThat(back.report().done()).isFalse();
    }

    @Test
    void the_stls_of_all_colours_share_one_origin() throws IOException {
        List<ColourSolid> solids = ColourSolid.of(inlaidTag(), List.of("tag"), Progress.UNHEARD);
        ColourSolid chalk =
                solids.stream().filter(s -> s.spool().equals(CHALK)).findFirst().orElseThrow();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        StlWriter.write(meshes(chalk), out);
        byte[] stl = out.toByteArray();
        Body back = ModelReader.read(new ByteArrayInputStream(stl), stl.length, Progress.UNHEARD)
                .body();
        assertThat(back.footprint().centre().x).isCloseTo(15, within(1e-6));
        assertThat(back.footprint().centre().y).isCloseTo(10, within(1e-6));
    }
}
