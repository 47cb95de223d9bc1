package dev.tranche.core.machine;

/** An axis of the carriage over the bed. */
public enum Axis {
    X,
    Y
}
