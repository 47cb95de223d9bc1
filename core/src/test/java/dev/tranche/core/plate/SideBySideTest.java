package dev.tranche.core.plate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;

class SideBySideTest {
    private static Mesh box(double x, double y, double z, double width, double depth) {
        return new Shapes().box(x, y, z, width, depth, 2).mesh();
    }

    private static double apart(Mesh one, Mesh other) {
        return one.footprint().distance(other.footprint());
    }

    @Test
    void covers_of_four_files_that_lie_over_one_another_stand_apart_and_on_the_bed() {
        List<Mesh> covers = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            covers.add(box(-10, -10, 0, 20, 20));
        }
        Body body = new Body(covers, 0);
        Body laid = body.moved(SideBySide.of(body, Set.of(), List.of(0, 1, 2, 3), 5, 200));
        for (int i = 0; i < 4; i++) {
            for (int j = i + 1; j < 4; j++) {
                assertThat(apart(laid.solids().get(i), laid.solids().get(j))).isGreaterThanOrEqualTo(5 - 1e-6);
            }
            assertThat(laid.solids().get(i).bottom()).isZero();
        }
        // Two by two: 45 mm each way.
        assertThat(laid.footprint().getWidth()).isCloseTo(45, within(1e-6));
        assertThat(laid.footprint().getHeight()).isCloseTo(45, within(1e-6));
    }

    @Test
    void what_belongs_together_in_a_file_stays_together_and_what_is_hidden_stays_where_it_is() {
        // A base with an inlay in it, another part beside, all of one file; the last is hidden.
        Body body = new Body(
                List.of(box(0, 0, 0, 20, 20), box(5, 5, 0, 5, 5), box(100, 0, 0, 10, 10), box(0, 0, 0, 8, 8)), 0);
        Map<Integer, Shift> shifts = SideBySide.of(body, Set.of(3), Collections.nCopies(4, 0), 2, 200);
        assertThat(shifts).containsOnlyKeys(0, 1, 2);
        assertThat(shifts.get(0)).isEqualTo(shifts.get(1));
        // In a row of its own, so that it all is about as wide as deep.
        assertThat(shifts.get(2)).isEqualTo(new Shift(-100, 22, 0));
    }

    @Test
    void a_part_that_sits_higher_is_set_on_the_bed_beside_the_other() {
        Body lid = Body.of(box(0, 0, 0, 20, 20)).with(Body.of(box(0, 0, 0, 20, 20)));
        Body stacked = lid.moved(Map.of(1, new Shift(0, 0, 2)));
        assertThat(stacked.height().millimetres()).isEqualTo(4);
        Body laid = stacked.moved(SideBySide.of(stacked, Set.of(), List.of(0, 1), 2, 200));
        assertThat(laid.height().millimetres()).isEqualTo(2);
        assertThatThrownBy(() -> new Shift(1e6, 0, 0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Shift(0, Double.NaN, 0)).isInstanceOf(Refusal.class);
    }

    @Property(tries = 300)
    void nothing_of_any_parts_overlaps_and_rows_are_no_wider_than_the_bed_unless_one_part_is(@ForAll long seed) {
        Random random = new Random(seed);
        List<Mesh> parts = new ArrayList<>();
        List<Integer> files = new ArrayList<>();
        for (int i = 0; i < 1 + random.nextInt(12); i++) {
            parts.add(box(
                    random.nextInt(60),
                    random.nextInt(60),
                    random.nextInt(5),
                    3 + random.nextInt(50),
                    3 + random.nextInt(50)));
            files.add(i);
        }
        Body body = new Body(parts, 0);
        double gap = random.nextInt(10);
        Body laid = body.moved(SideBySide.of(body, Set.of(), files, gap, 120));
        Envelope all = laid.footprint();
        double area = 0;
        for (int i = 0; i < parts.size(); i++) {
            Envelope own = laid.solids().get(i).footprint();
            area += own.getArea();
            assertThat(own.getWidth()).isCloseTo(parts.get(i).footprint().getWidth(), within(1e-4));
            for (int j = i + 1; j < parts.size(); j++) {
                Envelope other = laid.solids().get(j).footprint();
                assertThat(Math.max(
                                Math.max(other.getMinX() - own.getMaxX(), own.getMinX() - other.getMaxX()),
                                Math.max(other.getMinY() - own.getMaxY(), own.getMinY() - other.getMaxY())))
                        .isGreaterThanOrEqualTo(gap - 1e-4);
            }
        }
        assertThat(all.getWidth()).isLessThanOrEqualTo(120 + 1e-4);
        // A lower bound by area.
        assertThat(all.getArea()).isGreaterThanOrEqualTo(area - 1e-3);
    }
}
