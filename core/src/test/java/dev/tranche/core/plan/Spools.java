package dev.tranche.core.plan;

import dev.tranche.core.colour.Srgb;
import java.math.BigDecimal;
import java.util.Map;

/** Spools for tests. */
public final class Spools {
    public static final Spool SOOT = spool(1, "Soot", "#1B1B1D");
    public static final Spool CHALK = spool(2, "Chalk", "#F4F1E8");
    public static final Spool BURGUNDY = spool(3, "Burgundy", "#6E1F2B");
    public static final Spool SKY = spool(4, "Sky", "#7FB2D9");
    public static final Spool MUSTARD = spool(5, "Mustard", "#C99A2E");
    public static final Map<SpoolId, Spool> SHELF =
            Map.of(SOOT.id(), SOOT, CHALK.id(), CHALK, BURGUNDY.id(), BURGUNDY, SKY.id(), SKY, MUSTARD.id(), MUSTARD);

    private Spools() {}

    public static Spool spool(long id, String name, String hex) {
        return spool(id, name, hex, Material.PLA, 800);
    }

    public static Spool spool(long id, String name, String hex, Material material, double left) {
        return new Spool(
                new SpoolId(id),
                name,
                material,
                Srgb.parse(hex),
                material.density(),
                BigDecimal.valueOf(20),
                210,
                205,
                left);
    }
}
