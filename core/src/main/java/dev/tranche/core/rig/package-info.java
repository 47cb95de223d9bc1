/**
 * A printer set up for swapping: the printer, its rack of virtual extruders and its macros, each of which may be
 * right alone and wrong together. Blends of a nozzle with several inputs are here too, because an
 * extruder of the rack may be one, and how such a nozzle prints what a plan mixes.
 */
package dev.tranche.core.rig;
