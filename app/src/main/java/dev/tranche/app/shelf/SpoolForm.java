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
                usual(density) ? kind.density() : Numbers.decimal("density", density),
                java.math.BigDecimal.valueOf(Numbers.decimal("price", price)),
                usual(firstTemperature)
                        ? kind.usualFirstLayer()
                        : Numbers.whole("first-layer temperature", firstTemperature),
                usual(temperature) ? kind.usualTemperature() : Numbers.whole("temperature", temperature),
                Numbers.decimal("grams left", gramsLeft),
                usual(coverDepth)
                        ? Spool.usualCover(kind, Srgb.parse(colour))
                        : Numbers.decimal("cover depth", coverDepth));
    }

    /** Left empty, a number is what is usual of the material. */
    private static boolean usual(String typed) {
        return typed == null || typed.isBlank();
    }
}
