package dev.tranche.app.piece;

import dev.tranche.core.look.View;

/**
 * How the piece is to be shown.
 *
 * @param view from where; none to turn it
 * @param own whether in the plan's own colours, whatever shines through
 * @param lamp how many times as bright as white paper in the same light, where it is held to light
 */
public record Look(View view, Boolean own, Integer lamp) {
    private static final int BRIGHTEST = 64;
    private static final int USUAL = 4;

    public Look {
        own = own != null && own;
        lamp = lamp == null ? USUAL : Math.max(1, Math.min(BRIGHTEST, lamp));
    }

    public boolean isTurned() {
        return view == null;
    }

    public boolean isLit() {
        return view == View.LIGHT;
    }
}
