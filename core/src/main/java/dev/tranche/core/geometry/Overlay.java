package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.util.AssertionFailedException;

/** What two areas laid over one another make, mm. */
enum Overlay {
    UNION(OverlayNG.UNION),
    INTERSECTION(OverlayNG.INTERSECTION),
    DIFFERENCE(OverlayNG.DIFFERENCE),
    EITHER(OverlayNG.SYMDIFFERENCE);

    private static final long MOST_CROSSINGS = 10_000_000;
    private static final String TANGLED =
            "Two of the areas cross in over ten million places; simplify the drawing or the model.";

    private final int code;

    Overlay(int code) {
        this.code = code;
    }

    MultiPolygon of(MultiPolygon a, MultiPolygon b) {
        return RimWalk.of(this, new Rims(a), new Rims(b)).orElseGet(() -> byJts(a, b));
    }

    /** By JTS, on lines that are broken so that no face turns inside out. Lines and points among the polygons are left out. */
    MultiPolygon byJts(MultiPolygon a, MultiPolygon b) {
        Effort effort = new Effort(MOST_CROSSINGS, TANGLED, Progress.UNHEARD);
        try {
            return Section.polygonsOf(OverlayNG.overlay(a, b, code, new Breaking(effort)));
        } catch (TopologyException | AssertionFailedException tooClose) {
            return Section.polygonsOf(OverlayNG.overlay(a, b, code, grid(a, b)));
        }
    }

    /** Coarser than corners are close, so that no digit is missing. */
    private static PrecisionModel grid(MultiPolygon a, MultiPolygon b) {
        Envelope reach = new Envelope(a.getEnvelopeInternal());
        reach.expandToInclude(b.getEnvelopeInternal());
        return new PrecisionModel(1 / (10 * Breaking.close(reach)));
    }
}
