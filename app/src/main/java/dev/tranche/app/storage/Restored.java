package dev.tranche.app.storage;

/** The database holds something else than before: what was read of it counts no more. */
public record Restored() {}
