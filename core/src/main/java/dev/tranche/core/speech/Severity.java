package dev.tranche.core.speech;

/** Worst first. */
public enum Severity {
    /** It will fail. */
    STOP,
    /** It may disappoint. */
    WARN,
    /** Good to know. */
    NOTE
}
