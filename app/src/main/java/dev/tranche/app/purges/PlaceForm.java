package dev.tranche.app.purges;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgePlace.SmallTower;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.units.Volume;
import java.util.Optional;

/**
 * How a plan is purged, as it is typed.
 *
 * @param place {@code bin}, {@code tower} or {@code routine}
 * @param width of a tower, mm
 * @param length that the routine pushes, mm
 * @param small whether a small tower takes the last of what goes elsewhere, {@code smallVolume} of it, mm³, and
 *     {@code smallWidth} wide, mm
 */
record PlaceForm(
        String tolerance,
        String factor,
        String place,
        String width,
        String length,
        Boolean small,
        String smallVolume,
        String smallWidth) {
    PurgeSettings settings() {
        return new PurgeSettings(
                Numbers.decimal("colour tolerance", tolerance), Numbers.decimal("purge factor", factor), chosen());
    }

    private PurgePlace chosen() {
        return switch (place == null ? "" : place) {
            case "tower" -> new PurgePlace.OnTower(Numbers.decimal("width of the tower", width));
            case "routine" -> new PurgePlace.Routine(Numbers.decimal("length the routine pushes", length), last());
            default -> new PurgePlace.Bin(last());
        };
    }

    private Optional<SmallTower> last() {
        return Boolean.TRUE.equals(small)
                ? Optional.of(new SmallTower(
                        Numbers.decimal("width of the small tower", smallWidth),
                        new Volume(Numbers.decimal("volume for the small tower", smallVolume))))
                : Optional.empty();
    }
}
