/**
 * A printer set up for swapping: the printer, its rack of virtual extruders and its macros, each of which may be
 * right alone and wrong together. Blends and gradients of a nozzle with several inputs are here too, because an
 * extruder of the rack may be one.
 */
package dev.tranche.core.rig;
