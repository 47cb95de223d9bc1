/**
 * How the nozzle comes back from a swap: from where it waited to the first plastic of the new colour. A {@link
 * dev.tranche.core.returns.ReturnPath} that leads over plastic of another colour before it has met the tower drags what hangs from
 * the nozzle over it; {@link dev.tranche.core.returns.ReturnPaths} are all of a plan, with the tower where it stands, and a {@link
 * dev.tranche.core.returns.Cure} is a change of the plate that leaves fewer of them unclean. Lengths in mm on the bed.
 */
package dev.tranche.core.returns;
