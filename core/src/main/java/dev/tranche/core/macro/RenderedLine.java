package dev.tranche.core.macro;

/**
 * A line of G-code and where it comes from.
 *
 * @param text without its ending
 * @param step index of the step it belongs to; −1 for the frame that the renderer puts round every macro
 * @param reason which setting each number comes from, in a few words
 */
public record RenderedLine(String text, int step, String reason) {
    /** The step index of lines that belong to no step. */
    public static final int FRAME = -1;
}
