package dev.tranche.core.hostile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.format.Svg;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Stopped;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Each of these hung a reader for minutes or longer; each is now read, or refused with a sentence, in bounded work. */
class HostileModelsTest {
    private static PartedModel read(byte[] file, Progress progress) {
        try {
            return ModelReader.read(new ByteArrayInputStream(file), file.length, progress);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static void use(byte[] file, Progress progress) {
        PartedModel model = read(file, progress);
        LayerGrid grid = new LayerGrid(
                Height.parse("0.2"), Height.parse("0.2"), model.body().height());
        CutModel.of(model.body(), grid, progress);
    }

    static Stream<Arguments> models() {
        return Stream.of(
                arguments("200,000 equal triangles", Hostile.equalTriangles(200_000), 400),
                arguments("5,000 equal solids", Hostile.equalSolids(5_000), 3_000),
                arguments("6,000 triangles on one edge", Hostile.fan(6_000), 12_000),
                arguments("2,000 random triangles", Hostile.randomTriangles(2_000, 100), 1_500),
                arguments("a face of 300,000 corners", Hostile.endlessFace(300_000), 1_500),
                arguments("50,000 groups of one face", Hostile.groupsOfOneFace(50_000), 2_000),
                arguments("30,000 objects", Hostile.objects(30_000), 40_000),
                arguments("20,000 triangles placed 1,000 times", Hostile.placed(20_000, 1_000), 3_000));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("models")
    void is_read_or_refused_in_bounded_work(String what, byte[] file, long beats) {
        try {
            use(file, Bounded.by(beats));
        } catch (Refusal said) {
            assertThat(said).hasMessageEndingWith(".");
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("models")
    void stops_when_it_is_cancelled(String what, byte[] file, long beats) {
        assertThatThrownBy(() -> use(file, Bounded.cancelledAfter(3))).isInstanceOf(CancellationException.class);
    }

    /** In the midst of one layer, and between the parts of one: there is no next layer to wait for. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2})
    void cutting_stops_wherever_it_is(int parts) {
        Body one = read(Hostile.randomTriangles(3_000, 10), Progress.UNHEARD).body();
        Body body = parts == 1 ? one : one.with(one);
        LayerGrid grid = new LayerGrid(Height.parse("5"), Height.parse("5"), body.height());
        assertThatThrownBy(() -> CutModel.of(body, grid, new Stopped())).isInstanceOf(CancellationException.class);
    }

    static Stream<Arguments> drawings() {
        return Stream.of(
                arguments("240 random corners", Hostile.randomPath(240)),
                arguments("2,000 random corners", Hostile.randomPath(2_000)),
                arguments("a comb of 1,500 corners", Hostile.comb(1_500)),
                arguments("800 crossing bars", Hostile.crossingBars(800)),
                arguments("900 separate squares", Hostile.separateSquares(900)));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("drawings")
    void drawings_that_cross_themselves_are_filled_or_refused(String what, byte[] file) {
        try {
            assertThat(Svg.read(new ByteArrayInputStream(file), Bounded.by(4_000))
                            .area()
                            .isValid())
                    .isTrue();
        } catch (Refusal said) {
            assertThat(said).hasMessageEndingWith(".");
        }
    }

    @Test
    void separate_squares_keep_their_area() {
        // 900 squares of one user unit, which a view box without a size makes 25.4/96 mm.
        assertThat(Svg.read(new ByteArrayInputStream(Hostile.separateSquares(900)), Progress.UNHEARD)
                        .area()
                        .getArea())
                .isCloseTo(900 * (25.4 / 96) * (25.4 / 96), org.assertj.core.api.Assertions.within(1e-9));
    }

    @Test
    void a_width_of_a_million_digits_is_refused() {
        byte[] file = new String(Hostile.svg("<path d='M0,0h5v5z'/>"), StandardCharsets.UTF_8)
                .replace("viewBox", "width='" + "1".repeat(1_000_000) + "x' viewBox")
                .getBytes(StandardCharsets.UTF_8);

        assertThatThrownBy(() -> Svg.read(new ByteArrayInputStream(file), Progress.UNHEARD))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("width");
    }

    @Test
    void entry_names_in_another_encoding_are_passed_over() {
        byte[] file = Hostile.zip(
                "_rels/.rels",
                Hostile.RELATION,
                "nXte.txt",
                "hello",
                "3D/model.model",
                """
                <model><resources><object id='1'><mesh><vertices><vertex x='0' y='0' z='0'/><vertex x='9' y='0' z='0'/>\
                <vertex x='0' y='9' z='0'/><vertex x='0' y='0' z='9'/></vertices><triangles>\
                <triangle v1='0' v2='2' v3='1'/><triangle v1='0' v2='1' v3='3'/><triangle v1='0' v2='3' v3='2'/>\
                <triangle v1='1' v2='2' v3='3'/></triangles></mesh></object></resources>\
                <build><item objectid='1'/></build></model>""");
        for (int i = 0; i + 1 < file.length; i++) {
            if (file[i] == 'n' && file[i + 1] == 'X') {
                // The letter ö as old programs write it, which is no UTF-8.
                file[i + 1] = (byte) 0x94;
            }
        }

        assertThat(read(file, Progress.UNHEARD).parts()).hasSize(1);
    }

    /** Were they built one after another, the second would be refused for lying a thousand kilometres off. */
    @Test
    void what_is_placed_too_often_is_refused_before_any_of_it_is_built() {
        assertThatThrownBy(() -> read(Hostile.placed(20_000, 1_000, 1_000_000_000), Progress.UNHEARD))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("over 6,000,000 triangles");
    }

    @Test
    void a_relation_without_a_target_is_no_relation() {
        byte[] file = Hostile.zip(
                "_rels/.rels", Hostile.RELATION.replace("Target='/3D/model.model'", ""), "3D/model.model", "<model/>");

        assertThatThrownBy(() -> read(file, Progress.UNHEARD))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("nothing to build");
    }
}
