/**
 * G-code, whoever wrote it: read byte by byte and never held whole, interpreted as a controller would, timed
 * with look-ahead motion, found to be made of layers, and given swaps at the right places.
 *
 * <p>{@link dev.tranche.core.gcode.GcodeScanner} takes a stream apart into lines and words; {@link
 * dev.tranche.core.gcode.Controller} holds the state those words change; {@link
 * dev.tranche.core.gcode.MotionClock} says how long moves take; {@link dev.tranche.core.gcode.Survey} puts the
 * three together and yields a {@link dev.tranche.core.gcode.SlicedFile}, with those who keep what is found on the way: {@link
 * dev.tranche.core.gcode.LayerDraft}, {@link dev.tranche.core.gcode.Doors}, {@link dev.tranche.core.gcode.StopLog}, {@link
 * dev.tranche.core.gcode.ToolLog} and {@link dev.tranche.core.gcode.BlockLog}; {@link
 * dev.tranche.core.gcode.GridMatch} lays it beside a plan's grid; {@link dev.tranche.core.gcode.Patch} writes
 * blocks in and takes them out. Meaning of G0–G4 and G90–G92: Kramer, Proctor and Messina, "The NIST RS274NGC
 * Interpreter – Version 3", NISTIR 6556 (2000); M codes are firmware convention.
 */
package dev.tranche.core.gcode;
