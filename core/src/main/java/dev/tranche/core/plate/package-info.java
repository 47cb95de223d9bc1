/**
 * What stands where on the bed. A {@link dev.tranche.core.plate.Plate} says how many copies its owner wants and where; a {@link
 * dev.tranche.core.plate.Layout} is that on one bed: every copy's outline, what reaches beyond the bed, and what stands too near
 * to another. Lengths in mm on the bed, with the firmware's origin.
 */
package dev.tranche.core.plate;
