package dev.tranche.core.rehearse;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.SpoolId;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * What came out of a rehearsal, beside what was planned.
 *
 * @param stops in their order
 * @param layers one a layer of the plan, from 1
 * @param troubles in their order, the first of each kind and how often it came
 * @param own commands in words that only the printer knows, which were passed over, and how often
 * @param seconds it took, people included
 * @param lines that were sent
 * @param whole whether the file ended, and not the power or somebody's patience
 */
public record Report(
        List<Stopped> stops,
        List<LayerSeen> layers,
        List<Trouble> troubles,
        Map<String, Integer> own,
        double seconds,
        long lines,
        boolean whole) {
    public Report {
        stops = List.copyOf(stops);
        layers = List.copyOf(layers);
        troubles = List.copyOf(troubles);
        own = Collections.unmodifiableMap(new LinkedHashMap<>(own));
    }

    /**
     * A stop, and what was done there.
     *
     * @param put the spool that was put in, if one was
     * @param seconds it lasted
     */
    public record Stopped(Encounter at, Optional<SpoolId> put, double seconds) {
        /** Whether another spool than the planned one was put in. */
        public boolean isWrong() {
            return at.wanted().isPresent() && !put.equals(at.wanted());
        }
    }

    /** What went wrong and how often. */
    public record Trouble(String sentence, int times) {}

    /** Kinds of plastic that is not as planned. */
    public enum Kind {
        /** Of another spool. */
        WRONG,
        /** Of the right one, with too much of another in it. */
        MIXED,
        /** Nothing came out. */
        MISSING
    }

    /** One line of plastic that is not as planned, mm on the model. */
    public record Mark(double x0, double y0, double x1, double y1, Kind kind, Srgb colour) {}

    /**
     * One layer.
     *
     * @param right mm of filament as planned, {@code mixed}, {@code wrong} and {@code missing} likewise
     * @param difference the greatest CIEDE2000 of a mix to what it should be
     * @param marks some of what is not as planned
     */
    public record LayerSeen(
            int layer, double right, double mixed, double wrong, double missing, double difference, List<Mark> marks) {
        public LayerSeen {
            marks = List.copyOf(marks);
        }

        /** Whether any plastic came. */
        boolean isPrinted() {
            return right + mixed + wrong > 0;
        }

        /** Whether all of it is as planned. */
        public boolean isClean() {
            return mixed + wrong + missing == 0;
        }
    }

    /** Whether everything is as planned, and nothing else was wrong. */
    public boolean isClean() {
        return whole
                && troubles.isEmpty()
                && layers.stream().allMatch(LayerSeen::isClean)
                && stops.stream().noneMatch(Stopped::isWrong);
    }

    /** The highest layer that was printed, from 1; 0 for none. */
    public int highest() {
        return layers.stream()
                .filter(LayerSeen::isPrinted)
                .mapToInt(LayerSeen::layer)
                .max()
                .orElse(0);
    }

    /** What was passed over in one sentence; empty if nothing was. */
    public String passedOver() {
        return own.isEmpty()
                ? ""
                : "What only the printer knows was passed over: "
                        + own.entrySet().stream()
                                .map(e -> e.getKey() + (e.getValue() == 1 ? "" : " " + e.getValue() + " times"))
                                .collect(Collectors.joining(", "))
                        + ".";
    }

    /** Layers that are not as planned. */
    public List<LayerSeen> unclean() {
        return layers.stream().filter(l -> !l.isClean()).toList();
    }

    /** Stops of more than a minute before a layer: the seams at which it may split. */
    public List<Stopped> seams() {
        return stops.stream()
                .filter(s -> s.seconds() > 60 && s.at().layer() > 1)
                .toList();
    }
}
