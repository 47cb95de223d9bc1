package dev.tranche.core.estimate;

/** What a figure counts; how it is written out is the screen's affair. */
public enum Unit {
    COUNT,
    MILLIMETRES,
    CUBIC_MILLIMETRES,
    GRAMS,
    SECONDS,
    MONEY,
    RATIO
}
