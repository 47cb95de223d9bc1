package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Arrangement.Rule;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;

/** Areas that were cut from one another again and again, so that their edges nearly coincide. */
class AreasTest {
    private static MultiPolygon area(String rings) throws ParseException {
        return Areas.of(new WKTReader().read("MULTIPOLYGON (((" + rings + ")))"));
    }

    /** Found in a ball with three zones: its hole is a hair, thinner than a double rounds, and what crosses it lies within. */
    @Test
    void what_crosses_a_hole_thinner_than_a_hair_and_lies_within_leaves_nothing() throws ParseException {
        MultiPolygon strip = area("1.3060858970500466 0.6964157412140156, 1.0618862812069878 1.0618862812069878,"
                + " 0.7811027511944056 1.249499844164618, 0.5179191076596865 1.5522579929842746,"
                + " 0.6334476591884226 1.5292779379996702, 1.1704587043771422 1.1704587043771422,"
                + " 1.4206568027903625 0.7960107101136652, 1.3060858970500466 0.6964157412140156");
        MultiPolygon ball = area("1.8112951880716448 -0.750263046804082, 1.3863053777503231 -1.3863053777503231,"
                + " -1.3863053777503231 -1.3863053777503231, -1.8112951880716448 0.750263046804082,"
                + " -1.3863053777503231 1.3863053777503231, 0.385658182125787 1.8838196255350785,"
                + " 1.3863053777503231 1.3863053777503231, 1.6484287939518256 0.99400988127632,"
                + " 1.9014446358714236 0.2970512968689841, 1.8112951880716448 -0.750263046804082),"
                + " (0.9996988929345271 0.9980337487663763, 1.2809133211822545 0.6745335548554712,"
                + " 0.2968247776964938 1.806597925189629, 0.9996988929345271 0.9980337487663763");

        assertThat(Areas.difference(strip, ball).getArea()).isCloseTo(0, within(1e-9));
        assertThat(Areas.intersection(strip, ball).getArea()).isCloseTo(strip.getArea(), within(1e-9));
        assertThat(Areas.union(List.of(strip, ball)).getArea()).isCloseTo(ball.getArea(), within(1e-9));
    }

    @Test
    void loops_with_a_spike_thinner_than_a_hair_are_filled_as_they_wind() throws ParseException {
        MultiPolygon ball = area("1.5292779379996702 0.6334476591884226, 1.6552784966961773 0,"
                + " 1.1704587043771422 -1.1704587043771422, -1.1704587043771422 -1.1704587043771422,"
                + " -1.1704587043771422 1.1704587043771422, 0.0000000000000001 1.6552784966961773,"
                + " 0.5179191076596865 1.5522579929842746, 1.2809133211822545 0.6745335548554712,"
                + " 1.4206568027903625 0.7960107101136652, 1.5292779379996702 0.6334476591884226");
        MultiPolygon bit = area("1.2809133211822545 0.6745335548554712, 1.3060858970500466 0.6964157412140156,"
                + " 1.3874213021734487 0.5746887093004973, 1.4068793282597345 0.4768665577791418,"
                + " 0.9996988929345271 0.9980337487663763, 1.2809133211822545 0.6745335548554712");
        List<Coordinate[]> rings = new ArrayList<>();
        Arrangement.addRings(rings, ball, true);
        Arrangement.addRings(rings, bit, true);

        assertThat(Arrangement.fill(rings, Rule.TWICE, new Effort(1_000, "Too many.", Progress.UNHEARD))
                        .getArea())
                .isCloseTo(bit.getArea(), within(1e-5));
    }

    /**
     * What is cut by zones that cross one another, layer after layer: as the colouring of a model is. A terrain may come with
     * the coordinates of its country.
     */
    @Property(tries = 300)
    void whatever_is_cut_and_cut_again_its_parts_come_to_the_whole(
            @ForAll Random random, @ForAll @DoubleRange(max = 5e6) double away) {
        List<MultiPolygon> cutters = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            cutters.add(moved(away, random.nextBoolean() ? round(random) : bar(random)));
        }
        // Each cut of what the ones before have left of it.
        for (int i = 1; i < cutters.size(); i++) {
            cutters.set(i, Areas.difference(cutters.get(i), cutters.get(i - 1)));
        }
        MultiPolygon whole = moved(away, round(random));
        List<MultiPolygon> parts = List.of(whole);
        for (int round = 0; round < 3; round++) {
            for (MultiPolygon cutter : cutters) {
                List<MultiPolygon> next = new ArrayList<>();
                for (MultiPolygon part : parts) {
                    next.add(Areas.intersection(part, cutter));
                    next.add(Areas.difference(part, cutter));
                }
                parts = next.stream().filter(p -> !p.isEmpty()).toList();
            }
            double sum = parts.stream().mapToDouble(MultiPolygon::getArea).sum();
            assertThat(sum).isCloseTo(whole.getArea(), within(1e-6));
            assertThat(Areas.union(parts).getArea()).isCloseTo(whole.getArea(), within(1e-6));
        }
    }

    /** Beside, inside, round and along one another: corners lie on whole numbers. The reference is JTS, over the whole. */
    @Property(tries = 100)
    void many_islands_and_ponds_are_overlaid_as_a_general_library_does_it(@ForAll Random random) {
        MultiPolygon a = islands(random);
        MultiPolygon b = islands(random);

        assertThat(Areas.difference(a, b)
                        .symDifference(Areas.of(a.difference(b)))
                        .getArea())
                .isCloseTo(0, within(1e-9));
        assertThat(Areas.intersection(a, b)
                        .symDifference(Areas.of(a.intersection(b)))
                        .getArea())
                .isCloseTo(0, within(1e-9));
    }

    /** The reference is JTS, to the last bit. */
    @Property(tries = 100)
    void an_area_is_as_large_as_a_general_library_says(
            @ForAll Random random, @ForAll @DoubleRange(max = 5e6) double away) {
        MultiPolygon area = moved(away, islands(random));

        assertThat(Areas.size(area)).isEqualTo(area.getArea());
    }

    /** Found in a bolt: cut short at the other's box the needle is a line that runs to and fro. */
    @Test
    void a_needle_that_passes_beside_a_splinter_has_nothing_of_it() throws ParseException {
        MultiPolygon splinter = area("-8.581729698181153 -2.396764135360718, -8.8683443069458 0.6201350688934326,"
                + " -8.794844235809899 1.110766416749741, -8.581729698181153 -2.396764135360718");
        MultiPolygon needle = area("8.789298248291015 0.8009012341499329, 8.525551223754883 -2.901269292831421,"
                + " -9.58034484879494 -2.459615466204992, 8.355031967163086 -2.714714288711548,"
                + " 8.789298248291015 0.8009012341499329");

        assertThat(Areas.intersection(splinter, needle).isEmpty()).isTrue();
        assertThat(Areas.difference(splinter, needle).getArea()).isCloseTo(splinter.getArea(), within(1e-12));
    }

    private static MultiPolygon islands(Random random) {
        Geometry all = Section.PLANE.createPolygon();
        for (int i = 0; i < 40; i++) {
            int x = random.nextInt(30);
            int y = random.nextInt(30);
            Geometry some = Section.PLANE.toGeometry(new Envelope(x, x + 1 + random.nextInt(9), y, y + 2));
            all = random.nextInt(3) == 0 ? all.difference(some) : all.union(some);
        }
        return Areas.of(all);
    }

    private static MultiPolygon moved(double away, MultiPolygon area) {
        return Areas.of(
                AffineTransformation.translationInstance(away, -away / 3).transform(area));
    }

    private static MultiPolygon round(Random random) {
        double radius = 1 + random.nextDouble();
        Coordinate[] corners = new Coordinate[17];
        for (int i = 0; i < 16; i++) {
            corners[i] = new Coordinate(radius * Math.cos(Math.PI * i / 8), radius * Math.sin(Math.PI * i / 8));
        }
        corners[16] = corners[0].copy();
        return one(corners);
    }

    private static MultiPolygon bar(Random random) {
        double turn = random.nextInt(90) * Math.PI / 180;
        double x = random.nextDouble() * 2 - 1;
        double y = random.nextDouble() * 2 - 1;
        double[][] box = {{-2, -0.75}, {2, -0.75}, {2, 0.75}, {-2, 0.75}, {-2, -0.75}};
        Coordinate[] corners = new Coordinate[5];
        for (int i = 0; i < 5; i++) {
            corners[i] = new Coordinate(
                    x + box[i][0] * Math.cos(turn) - box[i][1] * Math.sin(turn),
                    y + box[i][0] * Math.sin(turn) + box[i][1] * Math.cos(turn));
        }
        corners[4] = corners[0].copy();
        return one(corners);
    }

    private static MultiPolygon one(Coordinate[] corners) {
        return Section.PLANE.createMultiPolygon(new Polygon[] {Section.PLANE.createPolygon(corners)});
    }
}
