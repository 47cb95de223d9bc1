package dev.tranche.core.estimate;

import dev.tranche.core.estimate.Stops.Point;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Walks a print pass by pass into what happens: every stop delays what comes after it. */
final class Timeline {
    private final LayerGrid grid;
    private final Paints paints;
    private final BasePrint base;
    private final TowerPrinting tower;
    private final Stops stops;
    private final List<Halt> halts;
    private final Optional<Blending> blending;
    private final int allHalts;

    private final List<Happening> happenings = new ArrayList<>();
    private double now;
    private Spool loaded;
    /** Of the pass that comes next. */
    private int at;

    private int swaps;
    private int halted;
    /** Halts that are still to come on the way up. */
    private List<Halt> ahead;

    private int last;
    /** The highest layer that has any plastic yet. */
    private int highest;

    /** @param halts that stop the print, rising */
    private Timeline(
            LayerGrid grid,
            Paints paints,
            BasePrint base,
            TowerPrinting tower,
            Stops stops,
            List<Halt> halts,
            int allHalts) {
        this.grid = grid;
        this.paints = paints;
        this.base = base;
        this.tower = tower;
        this.stops = stops;
        this.halts = halts;
        this.ahead = halts;
        this.allHalts = allHalts;
        this.blending = stops.blending();
    }

    static List<Happening> of(
            List<Pass> passes,
            LayerGrid grid,
            Paints paints,
            BasePrint base,
            TowerPrinting tower,
            Stops stops,
            List<Halt> halts) {
        Timeline timeline = new Timeline(grid, paints, base, tower, stops, halts, halting(passes, grid, halts));
        timeline.walk(passes);
        return List.copyOf(timeline.happenings);
    }

    /** How often a print halts on its ways up. */
    private static int halting(List<Pass> passes, LayerGrid grid, List<Halt> halts) {
        List<Integer> layers =
                halts.stream().map(h -> grid.snap(h.wished()).layer()).toList();
        int all = 0;
        int before = 0;
        for (Pass pass : passes) {
            int from = before;
            if (layers.stream().anyMatch(l -> l > from && l <= pass.layer())) {
                all++;
            }
            before = pass.layer();
        }
        return all;
    }

    private void walk(List<Pass> passes) {
        loaded = in(passes.get(0));
        happens(new Happening.Beginning(loaded, base.before(), stops.firstLoad(loaded), stops.cleared()));
        for (at = 0; at < passes.size(); at++) {
            Pass pass = passes.get(at);
            comeDown(pass);
            if (pass.layer() > highest) {
                raiseTower(pass.layer());
            }
            halt(pass);
            boolean swapped = stops.changes().before(at);
            if (swapped) {
                change(pass);
            }
            turn(pass, swapped);
            loaded = in(pass);
            print(pass);
        }
    }

    /** What comes down again may come to the same halts again. */
    private void comeDown(Pass pass) {
        if (pass.layer() < last) {
            ahead = halts.stream().filter(h -> layer(h) > pass.layer()).toList();
        }
        last = pass.layer();
    }

    private void happens(Happening happening) {
        happenings.add(happening);
        now += happening.seconds();
    }

    /** The paint of a pass as it is on its layer. */
    private Spool in(Pass pass) {
        return paints.at(pass.spool(), pass.layer());
    }

    private void turn(Pass pass, boolean swapped) {
        Point at = point(pass);
        blending.flatMap(b -> b.before(pass, swapped ? swaps : 0, at.within(), stops.door(at)))
                .ifPresent(turn -> happens(new Happening.Turning(turn)));
    }

    /** What the tower needs on a layer, and on those below that have not been begun. */
    private void raiseTower(int layer) {
        for (int at = highest + 1; at <= layer && tower.tower().isPresent(); at++) {
            happens(new Happening.Towering(loaded, tower.idle(at), tower.idleSeconds(at)));
        }
    }

    /** Halts that fall on one layer are one stop. */
    private void halt(Pass pass) {
        if (ahead.isEmpty() || layer(ahead.get(0)) > pass.layer()) {
            return;
        }
        Point at = point(pass);
        boolean somebodyComes = stops.changes().before(this.at) && somebodyComes(at, swap(pass, in(pass)));
        happens(new Happening.Halting(stops.pause(at, ahead.get(0), allHalts, loaded, !somebodyComes)));
        halted++;
        ahead = ahead.stream().filter(h -> layer(h) > pass.layer()).toList();
    }

    private boolean somebodyComes(Point at, Swap swap) {
        return swap.needsPerson() || stops.inTheWay(at, swap).isPresent();
    }

    private int layer(Halt halt) {
        return grid.snap(halt.wished()).layer();
    }

    private void change(Pass pass) {
        Swap swap = swap(pass, in(pass));
        Optional<SpoolId> gone = stops.inTheWay(point(pass), swap);
        if (gone.isPresent()) {
            int of = allHalts + stops.refills();
            happens(new Happening.Halting(stops.refill(point(pass), swap, paints.of(gone.get()), of, loaded)));
            halted++;
            swap = swap(pass, swap.in());
        }
        happens(new Happening.Swapping(swap));
        swaps++;
        loaded = swap.in();
        if (tower.tower().isPresent()) {
            double seconds = tower.seconds(Math.max(highest, pass.layer()), swap.ontoTower());
            happens(new Happening.Towering(loaded, Volume.NONE, seconds));
        }
    }

    private Swap swap(Pass pass, Spool in) {
        return stops.swap(point(pass), at, loaded, in);
    }

    private void print(Pass pass) {
        BasePrint.LayerWork work = base.layers().get(pass.layer() - 1);
        happens(new Happening.Printing(
                pass, loaded, work.plastic().times(pass.plastic()), pass.share() * work.seconds()));
        highest = Math.max(highest, pass.layer());
    }

    private Point point(Pass pass) {
        return new Point(pass, highest, swaps, halted, now);
    }
}
