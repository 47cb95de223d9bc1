package dev.tranche.core.check;

/** Worst first. */
public enum Severity {
    /** It will fail. */
    STOP,
    /** It may disappoint. */
    WARN,
    /** Good to know. */
    NOTE
}
