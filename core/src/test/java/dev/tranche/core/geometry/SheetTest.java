package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** Areas laid on a sheet, against the general geometry library's overlays, which know no sheets. */
class SheetTest {
    private static final GeometryFactory PLANE = new GeometryFactory();

    private static LinearRing ring(double x, double y, double radius, int corners) {
        Coordinate[] ring = new Coordinate[corners + 1];
        for (int i = 0; i < corners; i++) {
            double angle = 2 * Math.PI * i / corners;
            ring[i] = new Coordinate(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
        }
        ring[corners] = ring[0];
        return PLANE.createLinearRing(ring);
    }

    private static MultiPolygon disc(double x, double y, double radius) {
        return Section.polygonsOf(PLANE.createPolygon(ring(x, y, radius, 40)));
    }

    private static MultiPolygon washer(double x, double y, double radius, double hole) {
        return Section.polygonsOf(PLANE.createPolygon(ring(x, y, radius, 60), new LinearRing[] {ring(x, y, hole, 30)}));
    }

    /** Discs and washers wherever they fall, some in the holes of others. */
    private static MultiPolygon scattered(Random random, int count) {
        List<MultiPolygon> all = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            double x = 50 * random.nextDouble();
            double y = 25 * random.nextDouble();
            double radius = 1 + 5 * random.nextDouble();
            all.add(random.nextBoolean() ? disc(x, y, radius) : washer(x, y, radius, radius * 0.7));
        }
        return Areas.union(all);
    }

    @Property(tries = 100)
    void what_is_laid_on_a_sheet_comes_out_as_overlays_say(@ForAll long seed) {
        Random random = new Random(seed);
        MultiPolygon outline = Areas.union(List.of(washer(12, 12, 11, 4), washer(38, 12, 11, 2)));
        Sheet sheet = new Sheet(outline);
        for (int i = 0; i < 4; i++) {
            MultiPolygon area = scattered(random, 1 + random.nextInt(8));
            MultiPolygon within = sheet.within(area);
            MultiPolygon without = sheet.without(area);
            assertThat(within.isValid()).isTrue();
            assertThat(without.isValid()).isTrue();
            assertThat(within.symDifference(outline.intersection(area)).getArea())
                    .isCloseTo(0, within(1e-9));
            assertThat(without.symDifference(outline.difference(area)).getArea())
                    .isCloseTo(0, within(1e-9));
        }
    }

    /** Some boxes are lines or points, as straight lines of plastic are. */
    @Property(tries = 60)
    void a_box_meets_a_sheet_where_the_general_library_says_so(@ForAll long seed) {
        Random random = new Random(seed);
        Sheet sheet = new Sheet(scattered(random, 1 + random.nextInt(8)));
        for (int i = 0; i < 40; i++) {
            double x = 50 * random.nextDouble();
            double y = 25 * random.nextDouble();
            Envelope box = new Envelope(x, x + random.nextInt(4), y, y + random.nextInt(4));
            assertThat(sheet.meets(box)).as("%s", box).isEqualTo(sheet.outline().intersects(PLANE.toGeometry(box)));
        }
    }

    /** Small boxes, as pins are, beside a sheet of few corners: most are told from their boxes alone. */
    @Property(tries = 30)
    void pins_beside_in_and_across_a_zone_are_told_as_overlays_tell_them(@ForAll long seed) {
        Random random = new Random(seed);
        MultiPolygon zones = Areas.union(
                List.of(disc(6, 6, 1 + 4 * random.nextDouble()), washer(14, 6, 4, 1 + 2 * random.nextDouble())));
        List<Polygon> all = new ArrayList<>();
        for (int x = 4; x < 18; x++) {
            for (int y = 3; y < 9; y++) {
                double size = 0.1 + 0.8 * random.nextDouble();
                all.add((Polygon) PLANE.toGeometry(new Envelope(x, x + size, y, y + size)));
            }
        }
        MultiPolygon pins = Areas.of(all);
        Sheet sheet = new Sheet(zones);

        assertThat(Areas.intersection(pins, zones)
                        .symDifference(Areas.of(pins.intersection(zones)))
                        .getArea())
                .isCloseTo(0, within(1e-9));
        assertThat(Areas.difference(pins, zones)
                        .symDifference(Areas.of(pins.difference(zones)))
                        .getArea())
                .isCloseTo(0, within(1e-9));
        assertThat(Areas.polygons(sheet.notWithin(pins)))
                .containsExactlyElementsOf(all.stream()
                        .filter(pin ->
                                !zones.contains(pin) || zones.getBoundary().intersects(pin))
                        .toList());
    }

    @Test
    void what_lies_wholly_on_it_is_the_very_same_and_leaves_a_hole() {
        Sheet sheet = new Sheet(disc(0, 0, 20));
        MultiPolygon inside = disc(5, 5, 3);
        assertThat(sheet.within(inside)).isSameAs(inside);
        assertThat(sheet.without(inside).getArea())
                .isCloseTo(sheet.outline().getArea() - inside.getArea(), within(1e-9));
    }

    @Test
    void what_lies_beside_it_leaves_the_very_sheet() {
        Sheet sheet = new Sheet(disc(0, 0, 20));
        assertThat(sheet.within(disc(40, 0, 3)).isEmpty()).isTrue();
        assertThat(sheet.without(disc(40, 0, 3))).isSameAs(sheet.outline());
    }

    @Test
    void a_disc_that_touches_another_over_the_rim_leaves_no_sliver_between_them() {
        Sheet sheet = new Sheet(disc(0, 0, 20));
        MultiPolygon both = Areas.union(List.of(disc(20, 0, 4), disc(12, 0, 4)));
        assertThat(sheet.without(both).isValid()).isTrue();
        assertThat(sheet.without(both).getArea() + sheet.within(both).getArea())
                .isCloseTo(sheet.outline().getArea(), within(1e-9));
    }

    @Test
    void what_was_cut_off_before_is_cut_off_no_more() {
        Sheet sheet = new Sheet(disc(0, 0, 20));
        double whole = sheet.outline().getArea();
        assertThat(sheet.without(disc(20, 0, 4)).getArea()).isLessThan(whole);
        assertThat(sheet.without(disc(40, 0, 4)).getArea()).isEqualTo(whole);
        assertThat(sheet.without(disc(-20, 0, 4)).getArea()).isLessThan(whole);
    }
}
