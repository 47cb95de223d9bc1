package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;

class InlayTest {
    /** From memory: black hides early, clean yellow late, and PETG later than PLA. */
    @Test
    void until_it_is_measured_a_spool_hides_as_its_colour_and_material_usually_do() {
        Srgb soot = Srgb.parse("#1B1B1D");
        Srgb chalk = Srgb.parse("#F4F1E8");
        Srgb sun = Srgb.parse("#F2C419");
        double black = Spool.usualCover(Material.PLA, soot);
        double white = Spool.usualCover(Material.PLA, chalk);
        double yellow = Spool.usualCover(Material.PLA, sun);
        assertThat(black).isLessThan(white);
        assertThat(white).isLessThan(yellow);
        assertThat(List.of(soot, chalk, sun))
                .extracting(colour -> Spool.usualCover(Material.PETG, colour))
                .as("half as much again, as one writes it")
                .containsExactly(0.6, 1.2, 1.8);
        assertThat(Spools.CHALK.covering(6).isClear()).isTrue();
        assertThat(Spools.CHALK.covering(5).isClear()).isFalse();
    }

    private static final SpoolId CHALK = Spools.CHALK.id();

    /** An arrow head that points to the right. */
    private static final Silhouette ARROW =
            Silhouette.polygon(List.of(new Coordinate(0, 0), new Coordinate(10, 5), new Coordinate(0, 10)));

    private static CutModel tag() {
        var body = new Shapes()
                .box(0, 0, 0, 60, 30, 3)
                .body()
                .with(new Shapes().box(5, 10, 3, 10, 10, 1).body());
        return CutModel.of(body, LayerSettings.COMMON.on(body.height()), Progress.UNHEARD);
    }

    @Test
    void a_drawing_lies_mirrored_in_the_first_layers_since_it_is_seen_from_beneath() {
        Inlay inlay = Inlay.of(tag(), new Outline.Drawing("arrow", ARROW, 10), 2, CHALK);
        Shape.Zone zone = (Shape.Zone) inlay.region().shape();
        assertThat(zone.mirrored()).isTrue();
        assertThat(zone.area().getCentroid().getX())
                .as("heavier to the right of its middle now")
                .isGreaterThan(30);
        assertThat(inlay.region().range()).isEqualTo(Range.ofLayers(tag().grid(), 1, 2));
        assertThat(inlay.replaces()).isFalse();
    }

    @Test
    void a_drawing_that_is_too_large_is_made_to_fit() {
        Inlay inlay = Inlay.of(tag(), new Outline.Drawing("arrow", ARROW, 300), 2, CHALK);
        assertThat(((Shape.Zone) inlay.region().shape()).outline().width()).isCloseTo(21, within(1e-6));
    }

    @Test
    void lettering_on_top_comes_to_lie_where_turning_the_model_over_would_put_it() {
        Inlay inlay = Inlay.of(tag(), 1, "letters", 3, CHALK);
        Shape.Zone zone = (Shape.Zone) inlay.region().shape();
        assertThat(zone.x()).isCloseTo(60 - 10, within(1e-6));
        assertThat(zone.y()).isCloseTo(15, within(1e-6));
        assertThat(zone.area().getArea()).isCloseTo(100, within(1e-6));
        assertThat(inlay.replaces()).isTrue();
        assertThat(Inlay.of(tag(), 0, "base", 3, CHALK).replaces()).isFalse();
    }

    @Test
    void an_inlay_as_deep_as_the_print_is_refused() {
        assertThatThrownBy(() -> Inlay.of(tag(), new Outline.Drawing("arrow", ARROW, 10), 20, CHALK))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not fit a print of 20");
    }
}
