/** What leaves Tranche: swaps written into a sliced file, each stamped with its plan and the plan's state. */
package dev.tranche.core.handoff;
