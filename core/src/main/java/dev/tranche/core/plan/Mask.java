package dev.tranche.core.plan;

import org.locationtech.jts.geom.MultiPolygon;

/**
 * An area that zones take or leave, mm. Equal areas of one colouring and the next are one mask, so that masks are told
 * apart by being the same or not, without looking at their corners.
 */
final class Mask {
    private final MultiPolygon area;

    Mask(MultiPolygon area) {
        this.area = area;
    }

    MultiPolygon area() {
        return area;
    }
}
