package dev.tranche.app.shelf;

import dev.tranche.core.plan.SpoolId;
import java.util.List;

/** Who would miss a spool that was taken off the shelf. */
public interface SpoolUse {
    /** Names of the plans that print with {@code spool}. */
    List<String> using(SpoolId spool);
}
