package dev.tranche.core.plate;

import dev.tranche.core.machine.Bed;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Copies in rows round the middle of a bed, all turned alike: as they lie or by a quarter, whichever has more room. Rows of a round
 * bed are as long as the bed is there.
 */
final class Arranging {
    private final Bed bed;
    private final double wide;
    private final double deep;
    private final double gap;
    /** Left free along the edge of the bed, mm. */
    private final double margin;

    private final double turn;
    /** What stands there already. */
    private final MultiPolygon taken;

    private Arranging(Bed bed, Envelope copy, Plate plate, double turn, MultiPolygon taken) {
        this.bed = bed;
        this.wide = copy.getWidth();
        this.deep = copy.getHeight();
        this.gap = plate.room();
        this.margin = plate.rims().margin();
        this.turn = turn;
        this.taken = taken;
    }

    /** As many as have room beside what stands there already, from the middle outwards. */
    static List<Spot> on(Bed bed, Footprint footprint, Plate plate, MultiPolygon taken) {
        Arranging lying = new Arranging(bed, footprint.turned(0), plate, 0, taken);
        Arranging turned = new Arranging(bed, footprint.turned(90), plate, 90, taken);
        Arranging better = lying.room() >= plate.copies() || lying.room() >= turned.room() ? lying : turned;
        return better.spots(plate.copies());
    }

    private int room() {
        return everyWay().stream().mapToInt(List::size).max().orElse(0);
    }

    private List<List<Spot>> everyWay() {
        List<List<Spot>> ways = new ArrayList<>();
        for (Rows rows : new Rows[] {Rows.ODD, Rows.EVEN}) {
            for (Rows columns : Rows.values()) {
                ways.add(all(rows, columns));
            }
        }
        return ways;
    }

    private List<Spot> spots(int copies) {
        Coordinate middle = bed.bounds().centre();
        List<Spot> best = List.of();
        double least = Double.MAX_VALUE;
        for (List<Spot> spots : everyWay()) {
            List<Spot> nearest = spots.stream()
                    .sorted(Comparator.comparingDouble((Spot s) -> reach(s, middle))
                            .thenComparing(Spot::y)
                            .thenComparing(Spot::x))
                    .limit(copies)
                    .toList();
            double reach =
                    nearest.stream().mapToDouble(s -> reach(s, middle)).max().orElse(Double.MAX_VALUE);
            if (nearest.size() > best.size() || nearest.size() == best.size() && reach < least - 1e-9) {
                best = nearest;
                least = reach;
            }
        }
        return best.stream()
                .sorted(Comparator.comparingDouble(Spot::y).thenComparingDouble(Spot::x))
                .toList();
    }

    private static double reach(Spot spot, Coordinate middle) {
        return Math.rint(1e6 * Math.max(Math.abs(spot.x() - middle.x), Math.abs(spot.y() - middle.y))) / 1e6;
    }

    /** How many there are of rows, or in a row: with one in the middle, with none there, or as many as have room. */
    private enum Rows {
        ODD,
        EVEN,
        ANY;

        int of(double room, double each) {
            int most = (int) Math.floor(room / each + 1e-9);
            return switch (this) {
                case ODD -> most - (most + 1) % 2;
                case EVEN -> most - most % 2;
                case ANY -> most;
            };
        }
    }

    private List<Spot> all(Rows rows, Rows columns) {
        Envelope box = bed.bounds();
        Coordinate middle = box.centre();
        List<Spot> spots = new ArrayList<>();
        int deepest = rows.of(box.getHeight() - 2 * margin + gap, deep + gap);
        for (int row = 0; row < deepest; row++) {
            double y = middle.y + (row - (deepest - 1) / 2.0) * (deep + gap);
            double half = halfWidth(Math.abs(y - middle.y) + deep / 2);
            int most = columns.of(2 * half + gap, wide + gap);
            for (int column = 0; column < most; column++) {
                double x = middle.x + (column - (most - 1) / 2.0) * (wide + gap);
                if (isFree(x, y)) {
                    spots.add(new Spot(x, y, turn));
                }
            }
        }
        return spots;
    }

    private boolean isFree(double x, double y) {
        Envelope copy = new Envelope(x - wide / 2, x + wide / 2, y - deep / 2, y + deep / 2);
        Envelope around = new Envelope(copy);
        around.expandBy(gap);
        return !around.intersects(taken.getEnvelopeInternal())
                || taken.distance(taken.getFactory().toGeometry(copy)) >= gap - Layout.NEAR;
    }

    /** Of what is left of the bed, so far from its middle line. */
    private double halfWidth(double away) {
        if (bed instanceof Bed.Round round) {
            double r = round.diameter() / 2 - margin;
            return away >= r ? 0 : Math.sqrt(r * r - away * away);
        }
        return bed.bounds().getWidth() / 2 - margin;
    }
}
