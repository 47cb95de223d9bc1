package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class RegionsTest {
    private static final SpoolId SOOT = Spools.SOOT.id();
    private static final SpoolId CHALK = Spools.CHALK.id();

    private static Region parts(String name, SpoolId spool, Integer... numbers) {
        return new Region(name, new Shape.Parts(List.of(numbers)), spool, Range.ALL);
    }

    private static Region disc(String name) {
        return new Region(name, new Shape.Zone(new Outline.Disc(5), 0, 0, 0, false), CHALK, Range.ALL);
    }

    private static List<String> names(Regions regions) {
        return regions.list().stream().map(Region::name).toList();
    }

    @Test
    void recolouring_a_piece_takes_it_out_of_the_region_it_was_in() {
        Regions panes = new Regions(List.of(parts("sky", SOOT, 1, 2, 3)));
        Regions changed = panes.colouring(Set.of(2), "pane 3", CHALK);
        assertThat(changed.get(0).shape()).isEqualTo(new Shape.Parts(List.of(1, 3)));
        assertThat(changed.get(1)).isEqualTo(parts("pane 3", CHALK, 2));
        assertThat(changed.ofPart(2)).isEqualTo(1);
        assertThat(changed.ofPart(3)).isZero();
        assertThat(changed.colouring(Set.of(2), "pane 3", SOOT).get(1).spool()).isEqualTo(SOOT);
    }

    @Test
    void a_piece_recoloured_keeps_its_place_below_the_zones_over_it() {
        Regions regions = new Regions(List.of(parts("pane", SOOT, 1), disc("sun")));
        assertThat(names(regions.colouring(Set.of(1), "pane", CHALK))).containsExactly("pane", "sun");
    }

    @Test
    void parts_left_to_the_colours_by_height_leave_no_empty_region_behind() {
        Regions regions = new Regions(List.of(parts("a", SOOT, 0), parts("b", CHALK, 1, 2)));
        assertThat(names(regions.releasing(Set.of(0, 1)))).containsExactly("b");
    }

    @Test
    void precedence_is_the_order_and_can_be_changed() {
        Regions regions = new Regions(List.of(disc("a"), disc("b"), disc("c")));
        assertThat(names(regions.moved(0, 2))).containsExactly("b", "c", "a");
        assertThat(names(regions.moved(2, 0))).containsExactly("c", "a", "b");
        assertThatThrownBy(() -> regions.moved(0, 3)).isInstanceOf(Refusal.class);
    }

    private static Shape.Trace trace(double... from) {
        return new Shape.Trace(Arrays.stream(from)
                .mapToObj(mm -> new Shape.Trace.Course(
                        Height.ofMillimetres(mm),
                        Optional.of(new Shape.Zone(new Outline.Disc(1 + mm % 10), 6, 0, 0, false))))
                .toList());
    }

    private static double width(Shape.Trace trace, int layer, LayerGrid grid) {
        return ((Shape.Zone) trace.on(layer, grid).orElseThrow()).outline().width();
    }

    @Test
    void a_trace_has_at_half_of_each_layer_the_outline_that_began_beneath() {
        LayerGrid thick =
                new LayerSettings(Height.ofMillimetres(0.3), Height.ofMillimetres(0.3)).on(Height.ofMillimetres(3));
        Shape.Trace trace = trace(0.2, 0.4, 1.2);
        assertThat(width(trace, 1, thick))
                .as("the first reaches down to the bed")
                .isEqualTo(1.2);
        assertThat(width(trace, 2, thick)).as("half of layer 2 is 0.45 mm up").isEqualTo(1.4);
        assertThat(width(trace, 4, thick)).isEqualTo(1.4);
        assertThat(width(trace, 5, thick)).isEqualTo(2.2);
        assertThat(width(trace, 10, thick)).isEqualTo(2.2);
    }

    @Test
    void a_trace_follows_a_model_that_is_scaled_and_turned() {
        Shape.Trace trace = trace(0.2, 0.4, 1.2);
        Shape.Trace along = trace.along(2, 90);
        Shape.Zone first = along.courses().get(0).zone().orElseThrow();
        assertThat(first.y()).isEqualTo(12);
        assertThat(first.outline().width()).isEqualTo(2.4);
        // What gets smaller than a zone may be is left out, and the rest stays.
        assertThat(trace.along(0.06, 0).courses())
                .extracting(c -> c.zone().isPresent())
                .containsExactly(false, false, true);
        assertThat(trace.scaledInHeight(0.5).courses())
                .extracting(c -> c.from().micrometres())
                .containsExactly(100, 200, 600);
        // Within a thousandth of a millimetre the upper one stays.
        assertThat(trace.scaledInHeight(0.001).courses())
                .hasSize(2)
                .last()
                .isEqualTo(new Shape.Trace.Course(
                        Height.ofMicrometres(1), trace.courses().get(2).zone()));
    }

    @Test
    void a_trace_goes_upwards_and_has_an_end() {
        assertThatThrownBy(() -> trace(0.2, 0.2)).isInstanceOf(Refusal.class).hasMessageContaining("0.20 mm");
        assertThatThrownBy(RegionsTest::trace).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> trace(IntStream.rangeClosed(0, Shape.Trace.MOST)
                        .asDoubleStream()
                        .toArray()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("5001");
    }

    @Test
    void a_thousand_regions_are_refused() {
        List<Region> many = new ArrayList<>();
        for (int i = 0; i < 1000; i++) {
            many.add(disc("disc " + i));
        }
        assertThatThrownBy(() -> new Regions(many))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("at most 300 regions");
    }
}
