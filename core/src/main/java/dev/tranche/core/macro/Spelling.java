package dev.tranche.core.macro;

import java.util.Map;

/**
 * How a program that runs a macro's lines writes what it alone knows then; what it has no word for is empty.
 *
 * @param x where the print was left, mm, as {@code y}
 * @param e the extruder's count, mm
 * @param f feed, mm/min
 * @param mode the command that counts filament as the file does
 * @param purge mm of filament to push through
 * @param words for names in messages and own lines
 */
record Spelling(String x, String y, String e, String f, String mode, String purge, Map<MacroName, String> words) {
    Spelling {
        words = Map.copyOf(words);
    }
}
