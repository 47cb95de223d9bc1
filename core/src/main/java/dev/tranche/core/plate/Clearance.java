package dev.tranche.core.plate;

import dev.tranche.core.machine.Hotend;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.sequence.Thing;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Whether the head clears what stands where things are printed whole, one after another: beside what is higher than the nozzle
 * reaches it needs its radius, and above what is finished its height (common practice).
 *
 * @param hit the first that it would hit, if any
 */
public record Clearance(Optional<Hit> hit) {
    private static final double NEAR = 1e-6;

    /**
     * What is hit.
     *
     * @param standing what is finished and in the way, and {@code high} it is, mm
     * @param printed that is printed after it
     * @param apart how far the two are, mm; only where {@code beam} is not what hits
     * @param beam whether what stands is too high for anything to be printed after it, however far off
     */
    public record Hit(Thing standing, double high, Thing printed, double apart, boolean beam) {}

    /**
     * How far apart things have to stand, mm; 0 where all is printed together, or lower than the nozzle reaches.
     *
     * @param high how high the highest is, mm
     */
    public static double needed(Rule rule, double high, Hotend hotend) {
        return rule == Rule.ONE_AFTER_ANOTHER && high > hotend.reach()
                ? hotend.head().radius()
                : 0;
    }

    /** @param order of the things, whose copies stand as in {@code layout} */
    public static Clearance of(
            List<Thing> order, Colouring colouring, Footprint footprint, Layout layout, Hotend hotend) {
        List<Thing> there =
                order.stream().filter(t -> t.copy() < layout.copies().size()).toList();
        List<MultiPolygon> outlines = there.stream()
                .map(t -> footprint.islandAt(layout.copies().get(t.copy()).spot(), t.island()))
                .toList();
        for (int i = 0; i + 1 < there.size(); i++) {
            Thing standing = there.get(i);
            double high = Things.height(colouring, standing.layers());
            if (standing.lastOnly()) {
                return new Clearance(Optional.of(new Hit(standing, high, there.get(i + 1), 0, true)));
            }
            if (high <= hotend.reach()) {
                continue;
            }
            double radius = hotend.head().radius();
            Envelope around = new Envelope(outlines.get(i).getEnvelopeInternal());
            around.expandBy(radius);
            for (int j = i + 1; j < there.size(); j++) {
                if (around.intersects(outlines.get(j).getEnvelopeInternal())) {
                    double apart = outlines.get(i).distance(outlines.get(j));
                    if (apart < radius - NEAR) {
                        return new Clearance(Optional.of(new Hit(standing, high, there.get(j), apart, false)));
                    }
                }
            }
        }
        return new Clearance(Optional.empty());
    }
}
