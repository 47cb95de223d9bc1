package dev.tranche.core.plate;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.machine.Bed;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Where on a bed there is room beside copies, asked many times. Rectangles that lie or stand are first held against squares of the
 * bed, counted beforehand; only what seems to have room there is measured.
 */
public final class Room {
    /** Side of the squares, mm. */
    private static final double SQUARE = 2;

    private final Layout layout;
    private final double gap;
    private final Bed bed;
    private final Envelope box;
    /** How many squares are taken of all to the left of and below a corner. */
    private final int[][] taken;

    public Room(Layout layout, double gap, Bed bed) {
        this.layout = layout;
        this.gap = gap;
        this.bed = bed;
        this.box = bed.bounds();
        this.taken = new int[squares(box.getWidth()) + 1][squares(box.getHeight()) + 1];
        layout.copies().forEach(c -> take(c.outline()));
        for (int i = 1; i < taken.length; i++) {
            for (int j = 1; j < taken[i].length; j++) {
                taken[i][j] = Math.min(1, taken[i][j]) + taken[i - 1][j] + taken[i][j - 1] - taken[i - 1][j - 1];
            }
        }
    }

    private static int squares(double length) {
        return (int) Math.ceil(length / SQUARE);
    }

    /** Squares between two lines are taken where either of the two runs through the copy and the gap round it. */
    private void take(MultiPolygon copy) {
        MultiPolygon around = gap > 0 ? Areas.of(copy.buffer(gap, 2)) : copy;
        Envelope reach = around.getEnvelopeInternal();
        int last = Math.min(taken[0].length - 1, squares(reach.getMaxY() - box.getMinY()));
        for (int line = Math.max(0, (int) Math.floor((reach.getMinY() - box.getMinY()) / SQUARE));
                line <= last;
                line++) {
            for (Span span : Section.spans(around, box.getMinY() + line * SQUARE)) {
                int from = Math.max(1, 1 + (int) Math.floor((span.from() - box.getMinX()) / SQUARE));
                int to = Math.min(taken.length - 1, 1 + (int) Math.floor((span.to() - box.getMinX()) / SQUARE));
                for (int i = from; i <= to; i++) {
                    for (int j = Math.max(1, line); j <= Math.min(line + 1, taken[i].length - 1); j++) {
                        taken[i][j] = 1;
                    }
                }
            }
        }
    }

    /** Whether a rectangle has room there. */
    public boolean has(Footprint rectangle, Spot spot) {
        return seems(rectangle, spot)
                && TowerStand.at(spot, rectangle, false, layout, gap, bed).stands();
    }

    /** Whether no square is taken that it covers; where it lies across them nobody has looked. */
    public boolean seems(Footprint rectangle, Spot spot) {
        if (spot.turn() % 90 != 0) {
            return true;
        }
        Envelope size = rectangle.turned(spot.turn());
        int left = within(spot.x() - size.getWidth() / 2 - box.getMinX(), taken.length);
        int right = within(spot.x() + size.getWidth() / 2 - box.getMinX() + SQUARE - Layout.NEAR, taken.length);
        int low = within(spot.y() - size.getHeight() / 2 - box.getMinY(), taken[0].length);
        int high = within(spot.y() + size.getHeight() / 2 - box.getMinY() + SQUARE - Layout.NEAR, taken[0].length);
        return taken[right][high] - taken[left][high] - taken[right][low] + taken[left][low] == 0;
    }

    private static int within(double away, int length) {
        return Math.max(0, Math.min(length - 1, (int) Math.floor(away / SQUARE)));
    }

    /** Whether it has room anywhere, as it lies or a quarter turned, at places so far apart, mm. */
    public boolean hasAnywhere(Footprint rectangle, double each) {
        return everywhere(rectangle, each).anyMatch(spot -> has(rectangle, spot));
    }

    /** Places all over the bed at which a rectangle lies or stands, so far apart, mm. */
    public Stream<Spot> everywhere(Footprint rectangle, double each) {
        return Stream.of(0.0, 90.0).flatMap(turn -> {
            Envelope size = rectangle.turned(turn);
            return steps(box.getMinX() + size.getWidth() / 2, box.getMaxX() - size.getWidth() / 2, each)
                    .flatMap(
                            x -> steps(box.getMinY() + size.getHeight() / 2, box.getMaxY() - size.getHeight() / 2, each)
                                    .map(y -> new Spot(x, y, turn)));
        });
    }

    private static Stream<Double> steps(double from, double to, double each) {
        List<Double> steps = new ArrayList<>();
        for (double at = from; at <= to + Layout.NEAR; at += each) {
            steps.add(at);
        }
        return steps.stream();
    }
}
