package dev.tranche.core.look;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Wherever one stack of plastic is looked at.
 *
 * @param plies what is stacked there, the nearest to the eye first
 * @param colour seen there; before a lamp what comes through, white light being 1
 * @param own the colour of the nearest spool in a thick piece
 * @param spots where it is, none of which overlaps another's
 * @param squareMillimetres of it
 */
public record Patch(List<Ply> plies, LinearRgb colour, LinearRgb own, List<Spot> spots, double squareMillimetres) {

    /**
     * One place where it is seen.
     *
     * @param layer on which it is seen, from 1; of several the nearest to the eye
     * @param region that colours it there, {@link dev.tranche.core.plan.Field#BASE} for the colour by height
     * @param area mm
     */
    public record Spot(int layer, int region, MultiPolygon area) {}

    /** The spool nearest to the eye. */
    public SpoolId spool() {
        return plies.get(0).spool();
    }

    /** How far what is seen is from the spool's own colour, CIEDE2000. */
    public double strangeness() {
        return colour.lab().differenceTo(own.lab());
    }
}
