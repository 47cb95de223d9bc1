package dev.tranche.core.check;

import java.util.List;

/** One thing that goes wrong, and how to see it coming. */
@FunctionalInterface
interface Rule {
    List<Finding> examine(PlanFacts facts);
}
