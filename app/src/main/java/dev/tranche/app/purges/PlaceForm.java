package dev.tranche.app.purges;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;

/**
 * How a plan is purged, as it is typed.
 *
 * @param place {@code bin}, {@code tower} or {@code routine}
 * @param width of a tower, mm
 * @param length that the routine pushes, mm
 */
record PlaceForm(String tolerance, String factor, String place, String width, String length) {
    PurgeSettings settings() {
        return new PurgeSettings(
                Numbers.decimal("colour tolerance", tolerance), Numbers.decimal("purge factor", factor), chosen());
    }

    private PurgePlace chosen() {
        return switch (place == null ? "" : place) {
            case "tower" -> new PurgePlace.OnTower(Numbers.decimal("width of the tower", width));
            case "routine" -> new PurgePlace.Routine(Numbers.decimal("length the routine pushes", length));
            default -> new PurgePlace.Bin();
        };
    }
}
