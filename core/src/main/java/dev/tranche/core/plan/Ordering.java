package dev.tranche.core.plan;

import java.util.ArrayList;
import java.util.List;

/**
 * In which order a plan wants the colours of each layer printed.
 *
 * @param rule by which the order comes about
 * @param aim what the best order makes least
 * @param numbering spools in the order of the numbers they have in the slicing program; those that are missing follow
 *     in the order of the palette
 */
public record Ordering(Rule rule, Aim aim, List<SpoolId> numbering) {
    /** What nearly every slicing program does. */
    public static final Ordering USUAL = new Ordering(Rule.NUMBERED, Aim.SWAPS, List.of());

    /** How an order comes about. */
    public enum Rule {
        /** A layer begins with the loaded spool if it has it, and goes on by number. */
        NUMBERED("by number"),
        /** The order that costs least of all there are. */
        BEST("best order"),
        /** Each colour several layers high, as far as the nozzle can dip, before the next. */
        BANDS("in bands"),
        /** Each copy, or each part that stands by itself, whole before the next. */
        ONE_AFTER_ANOTHER("one after another");

        private final String title;

        Rule(String title) {
            this.title = title;
        }

        /** In words. */
        public String title() {
            return title;
        }

        /** How it is printed, in words. */
        public String manner() {
            return this == BEST ? "in the best order" : title;
        }
    }

    /** What is made least; what comes second decides where the first is equal. */
    public enum Aim {
        SWAPS("swaps, then purge"),
        PURGE("purge, then swaps"),
        MONEY("the cost of purge");

        private final String title;

        Aim(String title) {
            this.title = title;
        }

        /** In words. */
        public String title() {
            return title;
        }
    }

    public Ordering {
        numbering = List.copyOf(numbering);
        if (numbering.stream().distinct().count() < numbering.size()) {
            throw new IllegalArgumentException("a spool has one number: " + numbering);
        }
    }

    public Ordering by(Rule other) {
        return new Ordering(other, aim, numbering);
    }

    public Ordering to(Aim other) {
        return new Ordering(rule, other, numbering);
    }

    public Ordering numbered(List<SpoolId> other) {
        return new Ordering(rule, aim, other);
    }

    Ordering without(SpoolId spool) {
        return numbered(numbering.stream().filter(s -> !s.equals(spool)).toList());
    }

    /** Every spool of {@code palette}, by number. */
    public List<SpoolId> all(List<SpoolId> palette) {
        List<SpoolId> all = new ArrayList<>(numbering);
        palette.forEach(s -> {
            if (!all.contains(s)) {
                all.add(s);
            }
        });
        return all;
    }
}
