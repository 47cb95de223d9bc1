package dev.tranche.app.desk;

/**
 * What the page shows, or showed when an edit was made on it; what it does not say is null.
 *
 * @param id of the plan
 * @param seen edition of the plan
 * @param layer under the cursor
 * @param beside layer that is kept beside it
 * @param side what stands beside the section: heights, regions or parts
 * @param region that is being worked on
 * @param drawn whether the first layer is shown drawn in
 * @param even whether the section is true to scale
 */
record Shown(
        String id, Long seen, Integer layer, Integer beside, String side, Integer region, Boolean drawn, Boolean even) {
    Shown at(int other) {
        return new Shown(id, seen, other, beside, side, region, drawn, even);
    }

    /** With a region being worked on. */
    Shown on(Integer other) {
        return new Shown(id, seen, layer, beside, "regions", other, drawn, even);
    }

    boolean isToScale() {
        return Boolean.TRUE.equals(even);
    }

    long edition() {
        return seen == null ? -1 : seen;
    }

    String sideOr() {
        return "regions".equals(side) || "parts".equals(side) ? side : "heights";
    }

    int regionOr() {
        return region == null ? -1 : region;
    }
}
