package dev.tranche.core.estimate;

import dev.tranche.core.plan.Paints;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.List;

/**
 * Before which passes the print stops for another paint. A nozzle that blends goes on where one blend looks as another did,
 * such as where a fade begins in the colour beneath it.
 */
record Changes(Paints paints, Pushes pushes, boolean blends) {

    List<Pass> of(List<Pass> passes) {
        List<Pass> changes = new ArrayList<>();
        for (int i = 1; i < passes.size(); i++) {
            if (between(passes.get(i - 1), passes.get(i))) {
                changes.add(passes.get(i));
            }
        }
        return changes;
    }

    boolean between(Pass out, Pass in) {
        return !out.spool().equals(in.spool()) && !goesOn(out, in);
    }

    private boolean goesOn(Pass out, Pass in) {
        if (!blends || !out.spool().isMixture() && !in.spool().isMixture()) {
            return false;
        }
        // From one layer to the next they are looked at where they meet.
        Purge purge = in.layer() == out.layer() + 1
                ? pushes.between(paints.beneath(out.spool(), in.layer()), paints.beneath(in.spool(), in.layer()))
                : pushes.between(paints.at(out.spool(), out.layer()), paints.at(in.spool(), in.layer()));
        return purge.volume().equals(Volume.NONE);
    }

    /** What a pass that {@link #between something comes before} needs. */
    Purge purge(Pass out, Pass in) {
        return pushes.between(paints.at(out.spool(), out.layer()), paints.at(in.spool(), in.layer()));
    }
}
