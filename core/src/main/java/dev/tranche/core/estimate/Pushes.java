package dev.tranche.core.estimate;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import java.util.HashMap;
import java.util.Map;

/** Purges of one print, each pair of spools and shades worked out once. */
final class Pushes {
    private final PurgeModel model;
    private final Map<Pair, Purge> known = new HashMap<>();

    private record Pair(SpoolId out, Srgb from, SpoolId in, Srgb to) {}

    Pushes(PurgeModel model) {
        this.model = model;
    }

    Purge between(Spool out, Spool in) {
        return known.computeIfAbsent(
                new Pair(out.id(), out.colour(), in.id(), in.colour()), pair -> model.between(out, in));
    }

    PurgePlace place() {
        return model.settings().place();
    }
}
