package dev.tranche.core.geometry;

/** A stretch of a line, mm; {@code from} is not beyond {@code to}. */
public record Span(double from, double to) {
    public double length() {
        return to - from;
    }
}
