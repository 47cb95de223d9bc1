package dev.tranche.app.companion;

import dev.tranche.core.companion.Course;

/**
 * A print on a real machine.
 *
 * @param plan it was begun from, which may be gone, and when that or its file was last {@code changed} by then, ms since 1970
 * @param course what was planned and what was told
 * @param spoolsTaken whether what it took has been taken off the spools
 */
public record Print(
        String id,
        String plan,
        String planName,
        long changed,
        long printer,
        String printerName,
        Course course,
        boolean spoolsTaken) {}
