package dev.tranche.core.estimate;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Tells a nozzle that blends what to blend, pass by pass, and nothing that it knows already. Not for two threads. */
final class Blending {
    private final Mixing mixing;
    private final Mixtures mixtures;
    private final LayerGrid grid;
    private final Height raft;
    private final MacroBook macros;

    private final Map<SpoolId, List<String>> told = new HashMap<>();
    private Pass last;

    /** @param raft that the file prints beneath the model */
    Blending(Mixing mixing, Mixtures mixtures, MacroBook macros, LayerGrid grid, Height raft) {
        this.mixing = mixing;
        this.mixtures = mixtures;
        this.grid = grid;
        this.raft = raft;
        this.macros = macros;
    }

    /**
     * @param swap number of the swap that comes before {@code pass}, 0 for none
     * @param door where the sliced file has a place before it
     */
    Optional<Turn> before(Pass pass, int swap, boolean within, Optional<Door> door) {
        List<String> before = new ArrayList<>();
        List<String> after = new ArrayList<>();
        boolean another = last == null || !last.spool().equals(pass.spool());
        if (last == null) {
            before.addAll(mixing.startLines());
        } else if (another) {
            mixtures.find(last.spool()).map(mixing::ends).ifPresent(before::addAll);
        }
        mixtures.find(pass.spool()).ifPresent(m -> {
            List<String> step = mixing.step(m, grid, pass.layer());
            if (!step.equals(told.put(m.id(), step))) {
                before.addAll(step);
            }
        });
        if (another) {
            int extruder = mixing.extruder(pass.spool());
            if (swap == 0 || !isChosenBySwap(extruder)) {
                // The macro pushes what comes next through the nozzle.
                before.add("T" + extruder);
            }
            mixtures.find(pass.spool()).map(m -> mixing.begins(m, raft)).ifPresent(after::addAll);
        }
        last = pass;
        return before.isEmpty() && after.isEmpty()
                ? Optional.empty()
                : Optional.of(new Turn(pass.layer(), within, door, swap, before, after));
    }

    private boolean isChosenBySwap(int extruder) {
        return macros.answer(Event.SWAP).stream()
                .flatMap(m -> m.steps().stream())
                .anyMatch(s -> s.happensFor(extruder) && s.step() instanceof Step.SelectExtruder);
    }
}
