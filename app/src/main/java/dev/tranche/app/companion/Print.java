package dev.tranche.app.companion;

import dev.tranche.core.companion.Course;

/**
 * A print on a real machine.
 *
 * @param plan it was begun from, which may be gone, and its {@code edition} then
 * @param course what was planned and what was told
 * @param spoolsTaken whether what it took has been taken off the spools
 */
public record Print(
        String id,
        String plan,
        String planName,
        long edition,
        long printer,
        String printerName,
        Course course,
        boolean spoolsTaken) {}
