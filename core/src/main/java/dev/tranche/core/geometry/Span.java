package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** A stretch of a line, mm; {@code from} is not beyond {@code to}. */
public record Span(double from, double to) {
    /** Stretches as near as this are one. */
    private static final double TOUCHING = 1e-6;

    public double length() {
        return to - from;
    }

    /** Stretches in any order as ascending ones that do not touch. */
    public static List<Span> joined(List<Span> spans) {
        if (spans.size() < 2) {
            return spans;
        }
        List<Span> joined = new ArrayList<>(spans.size());
        for (Span span :
                spans.stream().sorted(Comparator.comparingDouble(Span::from)).toList()) {
            Span last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            if (last != null && span.from <= last.to + TOUCHING) {
                joined.set(joined.size() - 1, new Span(last.from, Math.max(last.to, span.to)));
            } else {
                joined.add(span);
            }
        }
        return joined;
    }
}
