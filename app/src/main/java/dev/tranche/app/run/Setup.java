package dev.tranche.app.run;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Deed;
import dev.tranche.core.rehearse.Encounter;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * How a rehearsal is to go.
 *
 * @param pace seconds of the print a second; 0 for as fast as it can
 * @param asks whether it waits at each stop to be told what is done there
 * @param puts spools that are put in at a swap instead of the planned ones, by its number
 * @param late by how much the person is late at each stop
 * @param faults that the machine is dealt, as hands say them
 */
public record Setup(double pace, boolean asks, Map<Integer, SpoolId> puts, Duration late, List<String> faults) {
    /** As fast as it can, as planned. */
    public static final Setup PLAIN = new Setup(0, false, Map.of(), Duration.ZERO, List.of());

    public Setup {
        puts = Map.copyOf(puts);
        faults = List.copyOf(faults);
        if (!(pace >= 0 && pace <= 1_000)) {
            throw Refusal.of("A pace of %s is out of range; give 1 to 1000, or 0 for as fast as it can.", pace);
        }
    }

    /**
     * The same, for a plan of so many swaps.
     *
     * @throws Refusal if it is to go wrong at a swap that the plan does not have
     */
    Setup requireSwaps(int count) {
        puts.keySet().stream()
                .filter(n -> n < 1 || n > count)
                .sorted()
                .findFirst()
                .ifPresent(n -> {
                    throw Refusal.of(
                            "There is no swap %d in this plan, which has %s; give another number, or let it go as planned.",
                            n, Words.count(count, "swap"));
                });
        return this;
    }

    /** Whether it goes as it should, as far as that is the person's and the machine's to do. */
    boolean isHonest() {
        return puts.isEmpty() && late.isZero() && faults.isEmpty();
    }

    /** What is done at a stop where nobody is asked. */
    Deed deed(Encounter stop) {
        Deed planned = Deed.asPlanned(stop).late(late);
        boolean swaps = stop.what().equals(Optional.of(BlockStamp.What.SWAP))
                && stop.wanted().isPresent();
        SpoolId other = swaps ? puts.get(stop.number()) : null;
        return other == null ? planned : planned.putting(other);
    }
}
