package dev.tranche.app.plate;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.speech.Refusal;

/** Where something is to stand, as it was typed: mm, and degrees. */
record PlaceForm(String x, String y, String turn) {
    /** @throws Refusal if any is no number */
    Spot spot() {
        return new Spot(Numbers.decimal("X", x), Numbers.decimal("Y", y), Numbers.decimal("turn", turn));
    }
}
