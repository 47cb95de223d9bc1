package dev.tranche.app.printers;

import dev.tranche.app.stored.Format;
import dev.tranche.app.stored.StoredMeasure;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.rig.Rig;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/** How printers, and what was measured on them, are stored. */
final class PrinterFormat {
    static final Format<Rig, StoredRig> RIG =
            new Format<>(StoredRig.class, 1, StoredRig::of, StoredRig::rig, rig -> Set.of());

    static final Format<List<MeasuredPurge>, StoredMeasure[]> PURGES = new Format<>(
            StoredMeasure[].class,
            1,
            list -> list.stream().map(StoredMeasure::of).toArray(StoredMeasure[]::new),
            stored -> Arrays.stream(stored).map(StoredMeasure::purge).toList(),
            list -> Set.of());

    private PrinterFormat() {}
}
