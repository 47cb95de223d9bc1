/**
 * What leaves Tranche for one plan: the swap list, and sliced files on their way in and out.
 */
package dev.tranche.app.handoff;
