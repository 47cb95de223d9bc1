package dev.tranche.app.stored;

import dev.tranche.core.geometry.Placement;

/** How a model is scaled, laid and turned. */
public record StoredPlacement(
        double scaleX,
        double scaleY,
        double scaleZ,
        double downX,
        double downY,
        double downZ,
        double turn,
        double lift) {

    public static StoredPlacement of(Placement p) {
        return new StoredPlacement(
                p.scaleX(), p.scaleY(), p.scaleZ(), p.downX(), p.downY(), p.downZ(), p.turn(), p.lift());
    }

    public Placement placement() {
        return new Placement(scaleX, scaleY, scaleZ, downX, downY, downZ, turn, lift);
    }
}
