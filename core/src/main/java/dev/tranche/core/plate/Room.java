package dev.tranche.core.plate;

import dev.tranche.core.machine.Bed;
import java.util.List;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;

/** Where on a bed there is room beside copies, asked many times. */
public final class Room {
    private final Layout layout;
    private final double gap;
    private final Bed bed;
    private final STRtree copies = new STRtree();

    public Room(Layout layout, double gap, Bed bed) {
        this.layout = layout;
        this.gap = gap;
        this.bed = bed;
        layout.copies()
                .forEach(c ->
                        copies.insert(c.outline().getEnvelopeInternal(), PreparedGeometryFactory.prepare(c.outline())));
    }

    /** Whether a rectangle has room there; of what comes near a copy with a corner alone it is asked exactly. */
    public boolean has(Footprint rectangle, Spot spot) {
        MultiPolygon outline = rectangle.at(spot);
        return !Layout.isBeyond(outline, bed)
                && (isClear(rectangle, spot)
                        || !isOn(outline)
                                && TowerStand.at(spot, rectangle, false, layout, gap, bed)
                                        .stands());
    }

    /** Whether it has room anywhere, as it lies or a quarter turned, at places so far apart, mm. */
    public boolean hasAnywhere(Footprint rectangle, double each) {
        return everywhere(rectangle, each).anyMatch(spot -> has(rectangle, spot));
    }

    /** Places all over the bed at which a rectangle lies or stands, so far apart, mm. */
    public Stream<Spot> everywhere(Footprint rectangle, double each) {
        return Stream.of(0.0, 90.0).flatMap(turn -> {
            Envelope size = rectangle.turned(turn);
            Envelope box = bed.bounds();
            return steps(box.getMinX() + size.getWidth() / 2, box.getMaxX() - size.getWidth() / 2, each)
                    .flatMap(
                            x -> steps(box.getMinY() + size.getHeight() / 2, box.getMaxY() - size.getHeight() / 2, each)
                                    .map(y -> new Spot(x, y, turn)));
        });
    }

    private static Stream<Double> steps(double from, double to, double each) {
        return Stream.iterate(from, at -> at <= to + Layout.NEAR, at -> at + each);
    }

    private boolean isClear(Footprint rectangle, Spot spot) {
        Envelope size = rectangle.outline().getEnvelopeInternal();
        return !isOn(Footprint.rectangle(size.getWidth() + 2 * gap, size.getHeight() + 2 * gap)
                .at(spot));
    }

    @SuppressWarnings("unchecked")
    private boolean isOn(MultiPolygon outline) {
        List<PreparedGeometry> near = copies.query(outline.getEnvelopeInternal());
        return near.stream().anyMatch(copy -> copy.intersects(outline));
    }
}
