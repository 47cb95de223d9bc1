package dev.tranche.core.estimate;

import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.rig.Mixing.Exchange;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Before which passes the print stops for another paint. A nozzle that blends goes on where one blend looks as another did,
 * such as where a fade begins in the colour beneath it; spools are swapped there only where an input holds another one.
 */
final class Changes {
    private final List<Pass> passes;
    private final Paints paints;
    private final Pushes pushes;
    private final boolean[] stops;
    /** How many spools have been swapped before each pass, as {@code turned} how many blends have turned. */
    private final int[] swapped;

    private final int[] turned;
    private final List<List<Exchange>> exchanges;
    private final List<Optional<SpoolId>> feeding;
    private final boolean blends;

    private Changes(List<Pass> passes, Paints paints, Pushes pushes, Optional<Mixing> mixing) {
        this.passes = passes;
        this.paints = paints;
        this.pushes = pushes;
        this.blends = mixing.isPresent();
        this.stops = new boolean[passes.size()];
        this.swapped = new int[passes.size()];
        this.turned = new int[passes.size()];
        this.exchanges = new ArrayList<>(Collections.nCopies(passes.size(), List.of()));
        this.feeding =
                new ArrayList<>(Collections.nCopies(mixing.map(Mixing::inputs).orElse(0), Optional.empty()));
        mixing.ifPresent(this::exchange);
        for (int i = 1; i < stops.length; i++) {
            stops[i] = !passes.get(i).spool().equals(passes.get(i - 1).spool())
                            && !goesOn(passes.get(i - 1), passes.get(i))
                    || !exchanges.get(i).isEmpty();
            swapped[i] = swapped[i - 1] + (stops[i] && !turns(i) ? 1 : 0);
            turned[i] = turned[i - 1] + (stops[i] && turns(i) ? 1 : 0);
        }
    }

    static Changes of(List<Pass> passes, Paints paints, Pushes pushes, Optional<Mixing> mixing) {
        return new Changes(passes, paints, pushes, mixing);
    }

    /** An input holds at first what is printed first of what it is for. */
    private void exchange(Mixing mixing) {
        List<SpoolId> holds = new ArrayList<>(Collections.nCopies(mixing.inputs(), null));
        for (int i = 0; i < passes.size(); i++) {
            List<Exchange> here = new ArrayList<>();
            Set<SpoolId> needed = paints.mixtures().spools(passes.get(i).spool());
            for (SpoolId spool : needed) {
                int input = mixing.feeds().get(spool);
                SpoolId there = holds.get(input);
                if (there == null) {
                    feeding.set(input, Optional.of(spool));
                } else if (!there.equals(spool)) {
                    here.add(new Exchange(input, there, spool));
                }
                holds.set(input, spool);
            }
            exchanges.set(i, List.copyOf(here));
        }
    }

    /** Whether no spool is swapped by a stop there. */
    private boolean turns(int i) {
        return blends && exchanges.get(i).isEmpty();
    }

    private boolean goesOn(Pass out, Pass in) {
        if (!blends || !out.spool().isMixture() && !in.spool().isMixture()) {
            return false;
        }
        // From one layer to the next they are looked at where they meet.
        Purge purge = in.layer() == out.layer() + 1
                ? pushes.between(paints.beneath(out.spool(), in.layer()), paints.beneath(in.spool(), in.layer()))
                : between(out, in);
        return purge.volume().equals(Volume.NONE);
    }

    private Purge between(Pass out, Pass in) {
        return pushes.between(paints.at(out.spool(), out.layer()), paints.at(in.spool(), in.layer()));
    }

    /** Whether the print stops before pass {@code i}, from 0. */
    boolean before(int i) {
        return stops[i];
    }

    /**
     * Which stop of its kind a stop is.
     *
     * @param number from 1
     * @param of how many
     */
    record Count(int number, int of) {}

    /** The stop before pass {@code i} among the swaps of spools, or among the turns from one blend to another. */
    Count count(int i) {
        int[] alike = turns(i) ? turned : swapped;
        return new Count(alike[i], alike[alike.length - 1]);
    }

    /** What is swapped there, where a nozzle blends; nothing of any other. */
    Optional<List<Exchange>> exchanges(int i) {
        return blends ? Optional.of(exchanges.get(i)) : Optional.empty();
    }

    /** What a stop there needs. */
    Purge purge(int i) {
        return between(passes.get(i - 1), passes.get(i));
    }

    /** A spool of the shelf. */
    Spool spool(SpoolId id) {
        return paints.of(id);
    }

    /** The passes that it stops before. */
    List<Pass> all() {
        return IntStream.range(0, stops.length)
                .filter(i -> stops[i])
                .mapToObj(passes::get)
                .toList();
    }

    /** What each input of a nozzle that blends holds at first. */
    List<Optional<SpoolId>> feeding() {
        return List.copyOf(feeding);
    }
}
