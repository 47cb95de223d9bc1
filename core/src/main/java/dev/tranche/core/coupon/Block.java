package dev.tranche.core.coupon;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;

/**
 * An upright block of a coupon, filled with lines side by side that are one stroke a layer.
 *
 * @param spool it is printed with
 * @param x of its front left corner, mm, as {@code y}
 * @param width mm, along X, as {@code depth} along Y
 * @param from its first layer, from 1, to {@code to}
 */
public record Block(SpoolId spool, double x, double y, double width, double depth, int from, int to) {
    public Block {
        if (!(width > 0 && depth > 0 && from >= 1 && to >= from)) {
            throw new Refusal("A block of a coupon needs a width, a depth and at least one layer.");
        }
    }

    boolean isOn(int layer) {
        return from <= layer && layer <= to;
    }
}
