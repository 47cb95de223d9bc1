package dev.tranche.core.plate;

import dev.tranche.core.machine.Bed;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * A tower where it stands on a plate.
 *
 * @param width mm, as {@code depth}
 * @param spot of its middle
 * @param outline as it stands, mm
 * @param byHand whether somebody has said where it stands
 * @param beyond whether it, with what is drawn round it, reaches beyond the bed
 * @param tooNear copies, from 0, that stand nearer to it than the plate's gap
 */
public record TowerStand(
        double width,
        double depth,
        Spot spot,
        MultiPolygon outline,
        boolean byHand,
        boolean beyond,
        List<Integer> tooNear) {

    public TowerStand {
        tooNear = List.copyOf(tooNear);
    }

    /** As it stands among copies. */
    public static TowerStand at(Spot spot, Footprint rectangle, boolean byHand, Layout layout, double gap, Bed bed) {
        MultiPolygon outline = rectangle.at(spot);
        Envelope size = rectangle.outline().getEnvelopeInternal();
        Envelope around = new Envelope(outline.getEnvelopeInternal());
        around.expandBy(gap);
        List<Integer> near = IntStream.range(0, layout.copies().size())
                .filter(i -> isNear(layout.copies().get(i).outline(), outline, around, gap))
                .boxed()
                .toList();
        return new TowerStand(
                size.getWidth(),
                size.getHeight(),
                spot,
                outline,
                byHand,
                Layout.isBeyond(outline, bed, layout.margin()),
                near);
    }

    private static boolean isNear(MultiPolygon copy, MultiPolygon outline, Envelope around, double gap) {
        return around.intersects(copy.getEnvelopeInternal()) && copy.distance(outline) < gap - Layout.NEAR;
    }

    /** Whether it has room there. */
    public boolean stands() {
        return !beyond && tooNear.isEmpty();
    }
}
