package dev.tranche.core.plan;

/** Which spool of the shelf. */
public record SpoolId(long value) {}
