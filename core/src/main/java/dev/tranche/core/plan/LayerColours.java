package dev.tranche.core.plan;

import java.util.List;
import java.util.Optional;

/**
 * The colours of one layer.
 *
 * @param fields of the base first, then of the regions that reach the layer, in precedence order
 * @param tints one a colour, in the order of the palette; together they cover the layer, and none overlaps another
 */
public record LayerColours(List<Field> fields, List<Tint> tints) {

    /** The spools the layer is printed with, in the order of the palette. */
    public List<SpoolId> spools() {
        return tints.stream().filter(Tint::prints).map(Tint::spool).toList();
    }

    public Optional<Tint> tint(SpoolId spool) {
        // Asked for every pass of a print.
        for (Tint tint : tints) {
            if (tint.spool().equals(spool)) {
                return Optional.of(tint);
            }
        }
        return Optional.empty();
    }

    /** What region {@code region} has of it. */
    public Optional<Field> field(int region) {
        return fields.stream().filter(f -> f.region() == region).findFirst();
    }
}
