package dev.tranche.core.check;

import dev.tranche.core.plan.ColourPlan;
import java.util.function.UnaryOperator;

/**
 * A change of the plan that mends a finding.
 *
 * @param label what the button says will happen
 */
public record Fix(String label, UnaryOperator<ColourPlan> change) {}
