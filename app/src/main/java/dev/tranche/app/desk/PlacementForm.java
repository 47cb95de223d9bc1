package dev.tranche.app.desk;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.speech.Refusal;

/**
 * Scale, turn in degrees and lift in mm, as typed. A scale is in percent, or, with mm behind it, the size that the model
 * is to have: {@code 150}, {@code 150 %} or {@code 80 mm}. What was typed last counts: an axis that differs from what
 * holds, else the scale of all three.
 *
 * @param scale of all axes, and {@code sizeX} and the others of one
 */
record PlacementForm(String scale, String sizeX, String sizeY, String sizeZ, String turn, String lift) {

    /** How large the model is as it stands now, mm. */
    record Size(double x, double y, double z) {}

    Placement on(Placement before, Size now) {
        Placement turned = before.turned(Numbers.decimal("turn", turn))
                .lifted(Numbers.decimal("lift", lift == null || lift.isBlank() ? "0" : lift));
        double x = share("X", sizeX, before.scaleX(), now.x());
        double y = share("Y", sizeY, before.scaleY(), now.y());
        double z = share("Z", sizeZ, before.scaleZ(), now.z());
        boolean oneAxis = differ(x, before.scaleX()) || differ(y, before.scaleY()) || differ(z, before.scaleZ());
        if (scale == null || scale.isBlank()) {
            return turned.scaled(x, y, z);
        }
        double all = all(before, now);
        boolean evenly = !before.scalesEvenly() || differ(all, before.scaleX());
        if (oneAxis && evenly) {
            throw new Refusal(
                    "Scale all axes alike, or give axes sizes of their own; both were changed, so nothing was. Empty the one that is not meant.");
        }
        return evenly && !oneAxis ? turned.scaled(all, all, all) : turned.scaled(x, y, z);
    }

    /** A size in mm of the whole is that of its longest side. */
    private double all(Placement before, Size now) {
        double longest = Math.max(now.x(), Math.max(now.y(), now.z()));
        double of = longest == now.x() ? before.scaleX() : longest == now.y() ? before.scaleY() : before.scaleZ();
        return share("all axes", scale, of, longest);
    }

    private static double share(String name, String typed, double before, double now) {
        if (typed == null || typed.isBlank()) {
            return before;
        }
        String text = typed.strip();
        if (text.endsWith("mm")) {
            return before * Numbers.decimal("size of " + name, text.substring(0, text.length() - 2)) / now;
        }
        String number = text.endsWith("%") ? text.substring(0, text.length() - 1) : text;
        return Numbers.decimal("scale of " + name, number) / 100;
    }

    private static boolean differ(double one, double other) {
        return Math.abs(one - other) > 1e-6;
    }
}
