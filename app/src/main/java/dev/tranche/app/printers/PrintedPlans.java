package dev.tranche.app.printers;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Loading;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The plans that are printed on a printer, as far as its pages show them. */
public interface PrintedPlans {
    List<Named> on(long printer);

    /** What is in the extruders while {@code plan} prints; empty while it is being opened, or if it cannot be. */
    Optional<Loaded> loaded(String plan);

    record Named(String id, String name) {}

    /**
     * @param swapLayers the layer of each swap
     * @param spools all that may be named
     */
    record Loaded(Loading loading, List<Integer> swapLayers, Map<SpoolId, Spool> spools) {}
}
