/**
 * What goes wrong with prints like these, made into rules. A rule looks at {@link
 * dev.tranche.core.check.PlanFacts} and yields findings: a sentence, a place, and where there is one a change of
 * the plan that mends it. To add one, write a {@link dev.tranche.core.check.Rule} and name it in {@link
 * dev.tranche.core.check.Checks}.
 */
package dev.tranche.core.check;
