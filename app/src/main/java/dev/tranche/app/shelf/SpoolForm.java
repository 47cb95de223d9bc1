package dev.tranche.app.shelf;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;

/** A spool as it is typed. */
record SpoolForm(
        String name,
        Material material,
        String colour,
        String density,
        String price,
        String firstTemperature,
        String temperature,
        String gramsLeft,
        String coverDepth) {

    Spool spool(SpoolId id) {
        Material kind = material == null ? Material.PLA : material;
        return new Spool(
                id,
                name,
                kind,
                Srgb.parse(colour),
                density == null || density.isBlank() ? kind.density() : Numbers.decimal("density", density),
                java.math.BigDecimal.valueOf(Numbers.decimal("price", price)),
                Numbers.whole("first-layer temperature", firstTemperature),
                Numbers.whole("temperature", temperature),
                Numbers.decimal("grams left", gramsLeft),
                coverDepth == null || coverDepth.isBlank()
                        ? Spool.USUAL_COVER
                        : Numbers.decimal("cover depth", coverDepth));
    }
}
