package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.noding.NodedSegmentString;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;

/** Against all pairs, looked at one by one with the geometry library's boxes. */
class NearPairsTest {
    private static final double CLOSE = 0.5;

    /** Coarse, so that many boxes just touch; some lines are long, some stand upright, some are far away. */
    @Property(tries = 60)
    void each_pair_of_segments_that_come_near_is_found_once(
            @ForAll Random random, @ForAll @IntRange(max = 60) int count) {
        List<NodedSegmentString> lines = new ArrayList<>();
        for (int l = 0; l < count; l++) {
            Coordinate[] corners = new Coordinate[2 + random.nextInt(12)];
            double far = random.nextInt(10) == 0 ? 1000 : 0;
            int step = 1 + random.nextInt(random.nextInt(4) == 0 ? 200 : 8);
            corners[0] = new Coordinate(far + random.nextInt(200) - 100, random.nextInt(200) - 100);
            for (int i = 1; i < corners.length; i++) {
                double along = random.nextBoolean() ? 0 : random.nextInt(2 * step + 1) - step;
                corners[i] = new Coordinate(
                        corners[i - 1].x + along, corners[i - 1].y + random.nextInt(2 * step + 1) - step);
            }
            lines.add(new NodedSegmentString(corners, l));
        }
        Predicate<Coordinate> wanted = random.nextBoolean() ? corner -> true : corner -> corner.x > 0;

        List<String> found = new ArrayList<>();
        new NearPairs(lines, CLOSE).forEach(wanted, new Heard(found), effort());

        assertThat(found).containsExactlyInAnyOrderElementsOf(onebyone(lines, wanted));
    }

    private record Heard(List<String> found) implements SegmentIntersector {
        @Override
        public void processIntersections(SegmentString a, int atA, SegmentString b, int atB) {
            found.add(a.getData() + "." + atA + " " + b.getData() + "." + atB);
        }

        @Override
        public boolean isDone() {
            return false;
        }
    }

    private static List<String> onebyone(List<NodedSegmentString> lines, Predicate<Coordinate> wanted) {
        record Segment(String name, Coordinate from, Coordinate to) {}
        List<Segment> all = new ArrayList<>();
        for (NodedSegmentString line : lines) {
            for (int i = 0; i + 1 < line.size(); i++) {
                all.add(new Segment(line.getData() + "." + i, line.getCoordinate(i), line.getCoordinate(i + 1)));
            }
        }
        List<String> near = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            for (Segment other : all.subList(i + 1, all.size())) {
                Segment one = all.get(i);
                Envelope box = new Envelope(one.from, one.to);
                box.expandBy(CLOSE);
                if (box.intersects(new Envelope(other.from, other.to))
                        && (wanted.test(one.from)
                                || wanted.test(one.to)
                                || wanted.test(other.from)
                                || wanted.test(other.to))) {
                    near.add(one.name + " " + other.name);
                }
            }
        }
        return near;
    }

    /** Twelve thousand upright lines beside as many level ones: a sweep along either axis alone would hold one half at once. */
    @Test
    void long_lines_side_by_side_cost_far_less_than_looking_at_all_pairs() {
        List<NodedSegmentString> lines = new ArrayList<>();
        for (int i = 0; i < 12_000; i++) {
            double at = i * 0.01;
            lines.add(new NodedSegmentString(new Coordinate[] {new Coordinate(at, 0), new Coordinate(at, 120)}, i));
            lines.add(new NodedSegmentString(new Coordinate[] {new Coordinate(200, at), new Coordinate(320, at)}, i));
        }
        AtomicInteger beats = new AtomicInteger();
        Progress heard = new Progress() {
            @Override
            public void at(long done, long of) {}

            @Override
            public void beat() {
                beats.incrementAndGet();
            }
        };

        new NearPairs(lines, 0).forEach(corner -> true, new Heard(new ArrayList<>()), new Effort(1, "", heard));

        assertThat(beats.get()).isLessThan(24_000 * 24_000 / 2 / (32 << 12) / 6);
    }

    private static Effort effort() {
        return new Effort(1, "", Progress.UNHEARD);
    }
}
