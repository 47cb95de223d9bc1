package dev.tranche.app.piece;

import dev.tranche.core.look.View;

/**
 * How the piece is to be shown.
 *
 * @param view from where; none to turn it
 * @param own whether in the plan's own colours, whatever shines through
 * @param cut the layer above which it is cut; none where it is whole
 * @param small as it stands on the desk
 * @param lamp how many times as bright as white paper in the same light, where it is held to light
 */
public record Look(View view, Boolean own, Integer lamp, Integer cut, Boolean small) {
    private static final int BRIGHTEST = 64;
    private static final int USUAL = 2;

    public Look {
        own = own != null && own;
        small = small != null && small;
        lamp = lamp == null ? USUAL : Math.max(1, Math.min(BRIGHTEST, lamp));
    }

    public boolean isTurned() {
        return view == null;
    }

    /** The layer above which it is cut, of so many. */
    public int cutOr(int count) {
        return cut == null ? count : Math.max(1, Math.min(count, cut));
    }

    public boolean isLit() {
        return view == View.LIGHT;
    }
}
