package dev.tranche.core.handoff;

import dev.tranche.core.check.Bench;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;

/** A bar of 40 × 10 × 2.4 mm, twelve layers, of which one half is Soot and the other Chalk. */
final class BesideEachOther {
    private BesideEachOther() {}

    static Bench bench() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 10, 2.4).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        return bench.region(new Region(
                "right half", new Shape.Zone(new Outline.Box(20, 10), 30, 5, 0, false), Spools.CHALK.id(), Range.ALL));
    }
}
