package dev.tranche.core.companion;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;

/**
 * One stop of a print, as it was planned when the print began.
 *
 * @param number among its kind, from 1
 * @param place where it comes, in words: “before layer 16”
 * @param note what a halt is for
 * @param out spool that comes out, and {@code in} that goes in
 * @param purge mm of filament pushed through
 * @param byHand whether a person pushes it
 * @param macro that runs there, by its name
 * @param usual s a person is taken to need at one stop of it, pushing apart
 * @param spans seconds of it
 * @param acts what the person does, in order; empty where nobody is needed
 */
public record Visit(
        Kind kind,
        int number,
        String place,
        String note,
        Optional<SpoolId> out,
        Optional<SpoolId> in,
        double purge,
        boolean byHand,
        String macro,
        double usual,
        Spans spans,
        List<Act> acts) {
    public Visit {
        acts = List.copyOf(acts);
    }

    /** What it is for. */
    public enum Kind {
        LOAD,
        SWAP,
        HALT
    }

    /** One thing to do, at the stop of that number within the visit, from 1. */
    public record Act(int stop, String text) {}

    /**
     * When, in seconds.
     *
     * @param at from the start of the print, stops before it included, to where the nozzle leaves the part
     * @param before the machine waits for the person
     * @param person with what the machine does between two stops of one visit
     * @param after the person has let it go on, until it prints
     */
    public record Spans(double at, double before, double person, double after) {
        public Spans {
            if (!(at >= 0 && before >= 0 && person >= 0 && after >= 0)) {
                throw new Refusal("A stop of a print cannot begin before it or last less than nothing.");
            }
        }

        /** When the machine waits, s from the start. */
        public double waits() {
            return at + before;
        }

        /** When it prints again. */
        public double prints() {
            return at + before + person + after;
        }

        /** What of a run is before, between and after the stops of {@code duties}. */
        static Spans of(double at, DryRun run, List<Duty> duties) {
            if (duties.isEmpty()) {
                return new Spans(at, 0, 0, run.seconds());
            }
            int first = duties.get(0).step();
            int last = duties.get(duties.size() - 1).step();
            double before = 0;
            double after = 0;
            for (DryRun.StepTime step : run.strip()) {
                before += step.step() >= 0 && step.step() < first ? step.machine() : 0;
                after += step.step() < 0 || step.step() > last ? step.machine() + step.person() : 0;
            }
            return new Spans(at, before, Math.max(0, run.seconds() - before - after), after);
        }
    }

    /** Whether somebody has to be there. */
    public boolean isAttended() {
        return !acts.isEmpty();
    }

    /** How often it waits. */
    public int stops() {
        return acts.stream().mapToInt(Act::stop).max().orElse(0);
    }

    /**
     * What a person needs at one stop, going by a visit that took so long, s: what is pushed and what the machine does between
     * two stops is not theirs.
     */
    public double personal(double took) {
        double others = spans.person() - stops() * usual;
        return Math.max(0, (took - others) / Math.max(1, stops()));
    }

    /** In words: “Swap 2”. */
    public String title() {
        return switch (kind) {
            case LOAD -> "First load";
            case HALT -> "Halt " + number;
            case SWAP -> "Swap " + number;
        };
    }
}
