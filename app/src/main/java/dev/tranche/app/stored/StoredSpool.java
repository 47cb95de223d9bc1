package dev.tranche.app.stored;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import java.math.BigDecimal;

/** A spool of the shelf, in a plan file. */
public record StoredSpool(
        SpoolNumber id,
        String name,
        String material,
        String colour,
        double density,
        BigDecimal pricePerKilogram,
        int firstLayerTemperature,
        int temperature,
        double gramsLeft,
        double coverDepth) {

    public static StoredSpool of(Spool s) {
        return new StoredSpool(
                SpoolNumber.of(s.id()),
                s.name(),
                s.material().name(),
                s.colour().hex(),
                s.density(),
                s.pricePerKilogram(),
                s.firstLayerTemperature(),
                s.temperature(),
                s.gramsLeft(),
                s.coverDepth());
    }

    public Spool spool() {
        return new Spool(
                id.id(),
                name,
                Material.valueOf(material),
                Srgb.parse(colour),
                density,
                pricePerKilogram,
                firstLayerTemperature,
                temperature,
                gramsLeft,
                coverDepth);
    }
}
