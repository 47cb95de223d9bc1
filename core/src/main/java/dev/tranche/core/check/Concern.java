package dev.tranche.core.check;

/** What a finding is about, and so where one looks at it closely. */
public enum Concern {
    /** Colours, layers and the model. */
    COLOURS,
    ORDER,
    PURGE,
    PLATE,
    CLOCK,
    /** The sliced file. */
    FILE,
    /** What the printer's firmware understands. */
    FIRMWARE,
    MACROS,
    REHEARSAL
}
