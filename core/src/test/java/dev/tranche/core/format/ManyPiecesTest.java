package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.SectionSweep;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** What is coloured goes out in steps, one upon the other; it has to come in again as it went out. */
class ManyPiecesTest {
    private static final GeometryFactory PLANE = new GeometryFactory();
    private static final int STEPS = 300;
    private static final Srgb CLAY = new Srgb(180, 90, 60);
    private static final Srgb POND = new Srgb(40, 110, 140);

    private static Geometry square(double half) {
        return PLANE.toGeometry(new Envelope(20 - half, 20 + half, 20 - half, 20 + half));
    }

    private static List<Mesh> step(Geometry area, int step) {
        MultiPolygon areas = PLANE.createMultiPolygon(new Polygon[] {(Polygon) area});
        return Prism.of(areas, Height.ofMicrometres(100 * step), Height.ofMicrometres(100 * (step + 1)));
    }

    /** mm: how far a core reaches from its middle on a step. */
    private static double core(int step) {
        return step % 2 == 0 ? 4 : 5;
    }

    private static PartedModel read(List<ThreeMfWriter.Thing> things) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ThreeMfWriter.write("steps", things, out);
        return ModelReader.read(new ByteArrayInputStream(out.toByteArray()), out.size(), Progress.UNHEARD);
    }

    @Test
    void a_core_in_a_jacket_of_hundreds_of_steps_is_two_parts_with_the_area_of_each_on_every_step() throws IOException {
        List<Mesh> core = new ArrayList<>();
        List<Mesh> jacket = new ArrayList<>();
        for (int step = 0; step < STEPS; step++) {
            core.addAll(step(square(core(step)), step));
            jacket.addAll(step(square(10).difference(square(core(step))), step));
        }
        List<Part> parts = read(List.of(
                        new ThreeMfWriter.Thing("jacket", "Clay", CLAY, jacket),
                        new ThreeMfWriter.Thing("core", "Pond", POND, core)))
                .parts();
        assertThat(parts).extracting(Part::name).containsExactly("jacket", "core");
        for (int step = 0; step < STEPS; step++) {
            double area = 4 * core(step) * core(step);
            assertThat(cut(parts.get(1), step)).as("core on step " + step).isCloseTo(area, within(1e-3));
            assertThat(cut(parts.get(0), step)).as("jacket on step " + step).isCloseTo(400 - area, within(1e-3));
        }
    }

    /** A slicing program sets each item on the bed by itself, and asks nothing (common practice). */
    @Test
    void things_of_one_print_are_one_item_and_keep_their_names_and_colours() throws IOException {
        List<ThreeMfWriter.Thing> things = List.of(
                new ThreeMfWriter.Thing("left", "Clay", CLAY, step(square(4), 0)),
                new ThreeMfWriter.Thing(
                        "high above", "Pond", POND, step(square(4).buffer(9), 200)),
                new ThreeMfWriter.Thing(
                        "far off",
                        "Pond",
                        POND,
                        step(AffineTransformation.translationInstance(60, 0).transform(square(3)), 0)));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ThreeMfWriter.writeAssembled("three of one", things, out);
        PartedModel together =
                ModelReader.read(new ByteArrayInputStream(out.toByteArray()), out.size(), Progress.UNHEARD);
        PartedModel apart = read(things);
        assertThat(apart.apart()).hasSize(2);
        assertThat(together.apart()).hasSize(1);
        assertThat(together.parts())
                .usingRecursiveFieldByFieldElementComparatorIgnoringFields("item", "mesh")
                .isEqualTo(apart.parts());
        assertThat(together.parts())
                .extracting(p ->
                        Math.round(p.mesh().volume() * 100) + " " + p.mesh().bottom())
                .isEqualTo(apart.parts().stream()
                        .map(p -> Math.round(p.mesh().volume() * 100) + " "
                                + p.mesh().bottom())
                        .toList());
    }

    private static double cut(Part part, int step) {
        List<Section> cut = SectionSweep.cut(part.mesh(), new int[] {2 * 100 * (step + 1)}, Progress.UNHEARD);
        return cut.get(0).area();
    }
}
