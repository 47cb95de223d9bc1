package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

class WhereaboutsTest {
    private static MultiPolygon plate(double x, double y, double width, double depth) {
        return Areas.of(Areas.NOTHING.getFactory().toGeometry(new Envelope(x, x + width, y, y + depth)));
    }

    private static MultiPolygon pieces(Random random) {
        List<MultiPolygon> all = IntStream.range(0, random.nextInt(30))
                .mapToObj(i ->
                        plate(random.nextInt(20), random.nextInt(20), 1 + random.nextInt(6), 1 + random.nextInt(6)))
                .toList();
        int holes = all.size() / 3;
        return Areas.difference(Areas.union(all.subList(holes, all.size())), Areas.union(all.subList(0, holes)));
    }

    /** Against the general test of the geometry library, which looks at every edge for each box. */
    @Property(tries = 100)
    void a_box_meets_an_area_with_holes_where_a_general_library_says_so(@ForAll long seed) {
        Random random = new Random(seed);
        MultiPolygon area = pieces(random);
        Whereabouts whereabouts = new Whereabouts(area);
        for (int i = 0; i < 40; i++) {
            double x = random.nextInt(60) / 2.0;
            double y = random.nextInt(60) / 2.0;
            Envelope box = new Envelope(x, x + random.nextInt(8) / 2.0, y, y + random.nextInt(8) / 2.0);
            assertThat(whereabouts.meets(box))
                    .as("%s in %s", box, area)
                    .isEqualTo(area.intersects(area.getFactory().toGeometry(box)));
        }
    }

    @Test
    void what_lies_in_a_hole_or_beside_meets_nothing_and_what_holds_the_whole_piece_does() {
        Whereabouts frame = new Whereabouts(Areas.difference(plate(0, 0, 10, 10), plate(2, 2, 6, 6)));
        assertThat(frame.meets(new Envelope(3, 7, 3, 7))).isFalse();
        assertThat(frame.meets(new Envelope(11, 12, 0, 10))).isFalse();
        assertThat(frame.meets(new Envelope(-1, 11, -1, 11))).isTrue();
        assertThat(frame.meets(new Envelope(0.5, 1, 0.5, 1))).isTrue();
        assertThat(frame.meets(new Envelope(3, 7.5, 3, 8.5))).isTrue();
    }
}
