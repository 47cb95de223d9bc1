package dev.tranche.core.estimate;

import dev.tranche.core.estimate.Stops.Point;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Walks a print pass by pass into what happens: every stop delays what comes after it. */
final class Timeline {
    private final LayerGrid grid;
    private final Map<SpoolId, Spool> shelf;
    private final BasePrint base;
    private final TowerPrinting tower;
    private final Stops stops;
    private final Deque<Halt> halts;
    private final int allHalts;

    private final List<Happening> happenings = new ArrayList<>();
    private double now;
    private Spool loaded;
    private int swaps;
    private int halted;
    /** The highest layer that has any plastic yet. */
    private int highest;

    /** @param halts that stop the print, rising */
    private Timeline(
            LayerGrid grid,
            Map<SpoolId, Spool> shelf,
            BasePrint base,
            TowerPrinting tower,
            Stops stops,
            List<Halt> halts) {
        this.grid = grid;
        this.shelf = shelf;
        this.base = base;
        this.tower = tower;
        this.stops = stops;
        this.halts = new ArrayDeque<>(halts);
        this.allHalts = halts.size();
    }

    static List<Happening> of(
            List<Pass> passes,
            LayerGrid grid,
            Map<SpoolId, Spool> shelf,
            BasePrint base,
            TowerPrinting tower,
            Stops stops,
            List<Halt> halts) {
        Timeline timeline = new Timeline(grid, shelf, base, tower, stops, halts);
        timeline.walk(passes);
        return List.copyOf(timeline.happenings);
    }

    private void walk(List<Pass> passes) {
        loaded = shelf.get(passes.get(0).spool());
        happens(new Happening.Beginning(loaded, base.before(), stops.firstLoad(loaded)));
        int nth = 0;
        int last = 1;
        for (Pass pass : passes) {
            nth = pass.layer() == last ? nth : 0;
            if (pass.layer() > highest) {
                raiseTower(pass.layer());
                halt(pass, nth);
            }
            if (changes(pass)) {
                change(pass, nth);
            }
            print(pass);
            last = pass.layer();
            nth++;
        }
    }

    private void happens(Happening happening) {
        happenings.add(happening);
        now += happening.seconds();
    }

    private boolean changes(Pass pass) {
        return !pass.spool().equals(loaded.id());
    }

    /** What the tower needs on a layer, and on those below that have not been begun. */
    private void raiseTower(int layer) {
        for (int at = highest + 1; at <= layer && tower.tower().isPresent(); at++) {
            happens(new Happening.Towering(loaded, tower.idle(at), tower.idleSeconds(at)));
        }
    }

    /** Halts that fall on one layer are one stop. */
    private void halt(Pass pass, int nth) {
        if (halts.isEmpty() || layer(halts.peek()) > pass.layer()) {
            return;
        }
        Point at = point(pass, nth);
        boolean somebodyComes = changes(pass) && somebodyComes(at, stops.swap(at, loaded, shelf.get(pass.spool())));
        happens(new Happening.Halting(stops.pause(at, halts.peek(), allHalts, loaded, !somebodyComes)));
        halted++;
        while (!halts.isEmpty() && layer(halts.peek()) <= pass.layer()) {
            halts.remove();
        }
    }

    private boolean somebodyComes(Point at, Swap swap) {
        return swap.needsPerson() || stops.inTheWay(at, swap).isPresent();
    }

    private int layer(Halt halt) {
        return grid.snap(halt.wished()).layer();
    }

    private void change(Pass pass, int nth) {
        Swap swap = stops.swap(point(pass, nth), loaded, shelf.get(pass.spool()));
        Optional<SpoolId> gone = stops.inTheWay(point(pass, nth), swap);
        if (gone.isPresent()) {
            int of = allHalts + stops.refills();
            happens(new Happening.Halting(stops.refill(point(pass, nth), swap, shelf.get(gone.get()), of, loaded)));
            halted++;
            swap = stops.swap(point(pass, nth), loaded, swap.in());
        }
        happens(new Happening.Swapping(swap));
        swaps++;
        loaded = swap.in();
        if (tower.tower().isPresent()) {
            double seconds =
                    tower.seconds(Math.max(highest, pass.layer()), swap.purge().volume());
            happens(new Happening.Towering(loaded, Volume.NONE, seconds));
        }
    }

    private void print(Pass pass) {
        BasePrint.LayerWork work = base.layers().get(pass.layer() - 1);
        happens(new Happening.Printing(
                pass, loaded, work.plastic().times(pass.plastic()), pass.share() * work.seconds()));
        highest = Math.max(highest, pass.layer());
    }

    private Point point(Pass pass, int nth) {
        return new Point(pass.layer(), nth, highest, swaps, halted, now);
    }
}
