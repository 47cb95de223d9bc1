package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Purges of one print, each pair of spools worked out once. */
final class Pushes {
    private final PurgeModel model;
    private final Map<List<SpoolId>, Purge> known = new HashMap<>();

    Pushes(PurgeModel model) {
        this.model = model;
    }

    Purge between(Spool out, Spool in) {
        return known.computeIfAbsent(List.of(out.id(), in.id()), pair -> model.between(out, in));
    }

    PurgePlace place() {
        return model.settings().place();
    }
}
