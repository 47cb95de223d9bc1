package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;

/**
 * Where and between what a swap happens: all a macro needs to know.
 *
 * @param number of the swap in its print, from 1
 * @param of how many swaps
 * @param layer that is printed next, from 1
 * @param out name of the spool that comes out, as {@code in} of the one that goes in
 * @param temperatureIn °C the spool that goes in wants; 0 to leave it
 * @param purge mm of filament to push through
 * @param entry the controller's state when the macro begins
 */
public record SwapMoment(
        int number, int of, int layer, String out, String in, int temperatureIn, double purge, ControllerState entry) {}
