package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.gcode.SlicedLayer.Line;
import dev.tranche.core.machine.Motion;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;

/** What is kept of a layer with very many lines: enough to tell what stands where. */
class LayerDraftTest {
    /** As many lines of each tool, each larger than the one before, in any order. */
    private static List<Line> lines(int tools, int each) {
        List<Line> lines = new ArrayList<>();
        for (int i = 1; i <= each; i++) {
            for (int tool = 0; tool < tools; tool++) {
                lines.add(new Line(tool, new Envelope(0, 10, 0, i + 0.1 * tool), 1, 20));
            }
        }
        Collections.shuffle(lines, new Random(7));
        return lines;
    }

    private static List<Line> kept(int nth, boolean choosing, List<Line> lines) {
        LayerDraft draft = new LayerDraft(-1, 200, Optional.empty(), nth, choosing);
        lines.forEach(draft::add);
        SlicedLayer layer = draft.layer(new MotionClock(Motion.COMMON));
        assertThat(layer.extent()).isEqualTo(lines.stream().map(Line::extent).reduce(new Envelope(), (a, b) -> {
            a.expandToInclude(b);
            return a;
        }));
        assertThat(layer.lines())
                .isSortedAccordingTo(
                        Comparator.comparingDouble((Line l) -> l.extent().getArea())
                                .reversed());
        return layer.lines();
    }

    private static List<Line> largest(List<Line> lines, int number) {
        return lines.stream()
                .sorted(Comparator.comparingDouble((Line l) -> -l.extent().getArea()))
                .limit(number)
                .toList();
    }

    @Test
    void of_a_file_without_tools_the_eight_largest_lines_are_kept_and_of_its_first_layers_many() {
        List<Line> lines = lines(1, 600);
        assertThat(kept(12, false, lines)).isEqualTo(largest(lines, 8));
        assertThat(kept(11, false, lines)).isEqualTo(largest(lines, 512));
        assertThat(kept(12, false, lines(1, 5))).hasSize(5);
    }

    @Test
    void of_each_tool_its_largest_lines_are_kept() {
        List<Line> two = lines(2, 100);
        assertThat(kept(40, true, two))
                .containsExactlyInAnyOrderElementsOf(
                        two.stream().collect(Collectors.groupingBy(Line::tool)).values().stream()
                                .flatMap(of -> largest(of, 64).stream())
                                .toList());
    }

    @Test
    void of_many_tools_none_with_a_few_small_lines_is_forgotten() {
        List<Line> lines = lines(4, 50);
        for (int i = 0; i < 3; i++) {
            lines.add(20 * i, new Line(4, new Envelope(0, 1, 0, 0.1 * i), 1, 20));
        }
        Map<Integer, List<Line>> kept = kept(40, true, lines).stream().collect(Collectors.groupingBy(Line::tool));
        assertThat(kept.get(4)).hasSize(3);
        for (int tool = 0; tool < 4; tool++) {
            int its = tool;
            List<Line> of = lines.stream().filter(l -> l.tool() == its).toList();
            assertThat(kept.get(tool))
                    .hasSizeBetween(31, 32)
                    .isEqualTo(largest(of, kept.get(tool).size()));
        }
    }

    @Test
    void a_push_on_the_spot_is_no_line() {
        assertThat(kept(0, true, List.of())).isEmpty();
        LayerDraft draft = new LayerDraft(-1, 200, Optional.empty(), 0, false);
        draft.add(new Line(0, new Envelope(5, 5, 5, 5), 1, 0));
        assertThat(draft.layer(new MotionClock(Motion.COMMON)).lines()).isEmpty();
    }
}
