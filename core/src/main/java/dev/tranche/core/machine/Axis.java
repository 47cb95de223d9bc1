package dev.tranche.core.machine;

/** An axis of the carriage over the bed. */
public enum Axis {
    X,
    Y;

    public Axis other() {
        return this == X ? Y : X;
    }
}
