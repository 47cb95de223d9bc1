package dev.tranche.app.shelf;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.math.BigDecimal;

@Entity
@Table(name = "spool")
class SpoolEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @Enumerated(EnumType.STRING)
    private Material material;

    private String colour;
    private double density;
    private BigDecimal pricePerKilogram;
    private int firstLayerTemperature;
    private int temperature;
    private double gramsLeft;
    private double coverDepth;

    /** Off the shelf, but still named by plans' histories. */
    boolean retired;

    void take(Spool spool) {
        name = spool.name();
        material = spool.material();
        colour = spool.colour().hex();
        density = spool.density();
        pricePerKilogram = spool.pricePerKilogram();
        firstLayerTemperature = spool.firstLayerTemperature();
        temperature = spool.temperature();
        gramsLeft = spool.gramsLeft();
        coverDepth = spool.coverDepth();
    }

    Spool spool() {
        return new Spool(
                new SpoolId(id),
                name,
                material,
                Srgb.parse(colour),
                density,
                pricePerKilogram,
                firstLayerTemperature,
                temperature,
                gramsLeft,
                coverDepth);
    }
}
