package dev.tranche.core.units;

/** Worst first. */
public enum Severity {
    /** It will fail. */
    STOP,
    /** It may disappoint. */
    WARN,
    /** Good to know. */
    NOTE
}
