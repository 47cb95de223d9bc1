package dev.tranche.core.sequence;

import dev.tranche.core.plan.LayerColours;
import java.util.List;

/**
 * Something that can be printed whole before the next: a copy, or a part of one that stands by itself.
 *
 * @param copy from 0
 * @param island of the model, from 0
 * @param layers what it has of each layer of the plan, from the bed up; the same list for all that are alike
 * @param lastOnly whether it is so high that nothing can be printed after it
 */
public record Thing(int copy, int island, List<LayerColours> layers, boolean lastOnly) {}
