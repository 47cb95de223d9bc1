package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Snap;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * The colours of a print, by height and by region.
 *
 * @param layers heights of the layers
 * @param starts where colours start: the first at 0, then strictly rising
 * @param palette spools in the order in which the plan first used them; a spool's letter is its place here, and
 *     it keeps its place while the plan lives
 * @param halts stops without a change of spool, rising
 * @param regions parts and zones with colours of their own, over the colours by height
 * @param ordering in which order the colours of a layer are printed
 */
public record ColourPlan(
        LayerSettings layers,
        List<ColourStart> starts,
        List<SpoolId> palette,
        List<Halt> halts,
        Regions regions,
        Ordering ordering) {
    /** As many as there are letters. */
    public static final int MOST_SPOOLS = 26;

    private static final int MOST_STARTS = 500;

    public ColourPlan {
        starts = List.copyOf(starts);
        palette = List.copyOf(palette);
        halts = List.copyOf(halts);
        if (starts.isEmpty() || !starts.get(0).wished().equals(Height.ZERO)) {
            throw new IllegalArgumentException("the first colour starts at the bed");
        }
        for (int i = 1; i < starts.size(); i++) {
            if (!starts.get(i).wished().isAbove(starts.get(i - 1).wished())) {
                throw new IllegalArgumentException("colour starts must rise: " + starts);
            }
        }
        for (ColourStart start : starts) {
            if (!palette.contains(start.spool())) {
                throw new IllegalArgumentException("no letter for " + start.spool());
            }
        }
        for (Region region : regions.list()) {
            if (!palette.contains(region.spool())) {
                throw new IllegalArgumentException("no letter for " + region.spool());
            }
        }
        for (SpoolId spool : ordering.numbering()) {
            if (!palette.contains(spool)) {
                throw new IllegalArgumentException("no letter for " + spool);
            }
        }
        for (int i = 1; i < halts.size(); i++) {
            if (!halts.get(i).wished().isAbove(halts.get(i - 1).wished())) {
                throw new IllegalArgumentException("halts must rise: " + halts);
            }
        }
    }

    /** One colour from the bed up. */
    public static ColourPlan of(LayerSettings layers, SpoolId spool) {
        return new ColourPlan(
                layers,
                List.of(new ColourStart(Height.ZERO, spool)),
                List.of(spool),
                List.of(),
                Regions.NONE,
                Ordering.USUAL);
    }

    /** The letter of a spool of this plan: A, B, C… */
    public char letter(SpoolId spool) {
        int place = palette.indexOf(spool);
        if (place < 0) {
            throw new IllegalArgumentException("not in this plan: " + spool);
        }
        return (char) ('A' + place);
    }

    /** Starts {@code spool} at {@code height}; a start already at exactly that height is recoloured. */
    public ColourPlan startAt(Height height, SpoolId spool, LayerGrid grid) {
        grid.snap(height);
        List<ColourStart> changed = new ArrayList<>(starts);
        changed.removeIf(s -> s.wished().equals(height));
        int at = 0;
        while (at < changed.size() && height.isAbove(changed.get(at).wished())) {
            at++;
        }
        changed.add(at, new ColourStart(height, spool));
        if (changed.size() > MOST_STARTS) {
            throw Refusal.of("A plan holds at most %d colour starts; merge some first.", MOST_STARTS);
        }
        return with(changed, spool);
    }

    /** Moves start {@code index}, not the first, between its neighbours. */
    public ColourPlan move(int index, Height height, LayerGrid grid) {
        if (index == 0) {
            throw new Refusal("The first colour starts at the bed and cannot be moved; recolour it instead.");
        }
        require(index);
        grid.snap(height);
        if (!height.isAbove(starts.get(index - 1).wished())) {
            throw Refusal.of(
                    "%s mm is not above the border below it at %s mm; merge that colour first.",
                    height, starts.get(index - 1).wished());
        }
        if (index + 1 < starts.size() && !starts.get(index + 1).wished().isAbove(height)) {
            throw Refusal.of(
                    "%s mm is not below the border above it at %s mm; merge that colour first.",
                    height, starts.get(index + 1).wished());
        }
        List<ColourStart> changed = new ArrayList<>(starts);
        changed.set(index, new ColourStart(height, starts.get(index).spool()));
        return new ColourPlan(layers, changed, palette, halts, regions, ordering);
    }

    /** Gives start {@code index} another spool. */
    public ColourPlan recolour(int index, SpoolId spool) {
        require(index);
        List<ColourStart> changed = new ArrayList<>(starts);
        changed.set(index, new ColourStart(starts.get(index).wished(), spool));
        return with(changed, spool);
    }

    /** Lets the colour below start {@code index} go on over it; merging the lowest lets the one above begin at the bed. */
    public ColourPlan merge(int index) {
        require(index);
        if (starts.size() == 1) {
            throw new Refusal("This is the only colour of the plan; recolour it instead.");
        }
        List<ColourStart> changed = new ArrayList<>(starts);
        changed.remove(index);
        if (index == 0) {
            changed.set(0, new ColourStart(Height.ZERO, changed.get(0).spool()));
        }
        return new ColourPlan(layers, changed, palette, halts, regions, ordering);
    }

    /**
     * With every height moved along with a model that became {@code factor} times as high. Heights that fall
     * together become one, the upper.
     */
    public ColourPlan scaledBy(double factor) {
        List<ColourStart> changed = new ArrayList<>();
        for (ColourStart start : starts) {
            ColourStart moved = new ColourStart(scaled(start.wished(), factor), start.spool());
            changed.removeIf(
                    s -> s.wished().equals(moved.wished()) && !s.wished().equals(Height.ZERO));
            if (changed.isEmpty()
                    || moved.wished().isAbove(changed.get(changed.size() - 1).wished())) {
                changed.add(moved);
            }
        }
        List<Halt> stops = new ArrayList<>();
        for (Halt halt : halts) {
            Height moved = scaled(halt.wished(), factor);
            stops.removeIf(h -> h.wished().equals(moved));
            if (moved.isAbove(Height.ZERO)) {
                stops.add(new Halt(moved, halt.note()));
            }
        }
        return new ColourPlan(layers, changed, palette, stops, regions.scaledInHeight(factor), ordering);
    }

    private static Height scaled(Height height, double factor) {
        return Height.ofMillimetres(height.millimetres() * factor);
    }

    /** With every start and halt where it prints on {@code grid}, so that nothing snaps any more. */
    public ColourPlan ontoGrid(LayerGrid grid) {
        ColourPlan moved = this;
        for (Tranche tranche : tranches(grid)) {
            if (tranche.index() > 0) {
                moved = moved.moved(tranche.index(), tranche.start().actual());
            }
        }
        List<Halt> stops = new ArrayList<>();
        for (Halt halt : halts) {
            Halt there = stops(halt, grid) ? new Halt(grid.snap(halt.wished()).actual(), halt.note()) : halt;
            stops.removeIf(h -> h.wished().equals(there.wished()));
            stops.add(there);
        }
        return new ColourPlan(moved.layers, moved.starts, palette, stops, regions, ordering);
    }

    private ColourPlan moved(int index, Height height) {
        List<ColourStart> changed = new ArrayList<>(starts);
        changed.set(index, new ColourStart(height, starts.get(index).spool()));
        for (int i = 1; i < changed.size(); i++) {
            if (!changed.get(i).wished().isAbove(changed.get(i - 1).wished())) {
                return this;
            }
        }
        return new ColourPlan(layers, changed, palette, halts, regions, ordering);
    }

    public ColourPlan withLayers(LayerSettings settings) {
        return new ColourPlan(settings, starts, palette, halts, regions, ordering);
    }

    /** Stops at {@code halt}'s height; one already at exactly that height gets the new note. */
    public ColourPlan haltAt(Halt halt, LayerGrid grid) {
        grid.snap(halt.wished());
        List<Halt> changed = new ArrayList<>(halts);
        changed.removeIf(h -> h.wished().equals(halt.wished()));
        changed.add(halt);
        changed.sort(Comparator.comparing(Halt::wished));
        if (changed.size() > MOST_STARTS) {
            throw Refusal.of("A plan holds at most %d halts; remove some first.", MOST_STARTS);
        }
        return new ColourPlan(layers, starts, palette, changed, regions, ordering);
    }

    /** Without halt {@code index}, from 0, the lowest first. */
    public ColourPlan withoutHalt(int index) {
        if (index < 0 || index >= halts.size()) {
            throw Refusal.of("There is no halt number %d in this plan any more; reload the page.", index + 1);
        }
        List<Halt> changed = new ArrayList<>(halts);
        changed.remove(index);
        return new ColourPlan(layers, starts, palette, changed, regions, ordering);
    }

    /**
     * Whether {@code halt} falls between two layers of {@code grid}; one above the last layer, or below the second,
     * stops nothing.
     */
    public boolean stops(Halt halt, LayerGrid grid) {
        return fits(new ColourStart(halt.wished(), palette.get(0)), grid)
                && grid.snap(halt.wished()).layer() > 1;
    }

    /**
     * The tranches these starts make on {@code grid}, from the bed up: they cover all layers without gap or
     * overlap. A start that falls on the same layer as the next, or above the print, makes none.
     */
    public List<Tranche> tranches(LayerGrid grid) {
        List<Tranche> tranches = new ArrayList<>();
        int above = grid.count() + 1;
        for (int i = starts.size() - 1; i >= 0; i--) {
            ColourStart start = starts.get(i);
            if (i > 0 && !fits(start, grid)) {
                continue;
            }
            Snap snap = i == 0 ? new Snap(1, Height.ZERO, Height.ZERO) : grid.snap(start.wished());
            if (snap.layer() < above) {
                tranches.add(0, new Tranche(i, start.spool(), snap.layer(), above - 1, snap));
                above = snap.layer();
            }
        }
        return List.copyOf(tranches);
    }

    private static boolean fits(ColourStart start, LayerGrid grid) {
        int last = grid.count();
        int middle = grid.bottom(last).micrometres() + grid.top(last).micrometres();
        return 2 * start.wished().micrometres() < middle;
    }

    /** With other regions, for whose spools there are letters or will be. */
    public ColourPlan with(Regions changed) {
        ColourPlan plan = this;
        for (Region region : changed.list()) {
            plan = plan.lettering(region.spool());
        }
        return new ColourPlan(layers, starts, plan.palette, halts, changed, ordering);
    }

    /** Regions moved along with a model that was scaled evenly and turned about its origin; heights stay. */
    public ColourPlan along(double factor, double degrees) {
        return new ColourPlan(layers, starts, palette, halts, regions.along(factor, degrees), ordering);
    }

    /** Every spool that a colour by height or a region prints with. */
    public Set<SpoolId> spools() {
        Set<SpoolId> all = new LinkedHashSet<>();
        starts.forEach(s -> all.add(s.spool()));
        regions.list().forEach(r -> all.add(r.spool()));
        return all;
    }

    private ColourPlan with(List<ColourStart> changed, SpoolId spool) {
        return new ColourPlan(layers, changed, lettering(spool).palette, halts, regions, ordering);
    }

    private ColourPlan lettering(SpoolId spool) {
        if (palette.contains(spool)) {
            return this;
        }
        if (palette.size() == MOST_SPOOLS) {
            throw Refusal.of("A plan holds at most %d spools; use one that it has.", MOST_SPOOLS);
        }
        List<SpoolId> more = new ArrayList<>(palette);
        more.add(spool);
        return new ColourPlan(layers, starts, more, halts, regions, ordering);
    }

    public ColourPlan with(Ordering other) {
        return new ColourPlan(layers, starts, palette, halts, regions, other);
    }

    /** The same with each spool known by another number, no two by one. */
    public ColourPlan renumbered(UnaryOperator<SpoolId> other) {
        return new ColourPlan(
                layers,
                starts.stream()
                        .map(s -> new ColourStart(s.wished(), other.apply(s.spool())))
                        .toList(),
                palette.stream().map(other).toList(),
                halts,
                new Regions(regions.list().stream()
                        .map(r -> r.in(other.apply(r.spool())))
                        .toList()),
                ordering.numbered(ordering.numbering().stream().map(other).toList()));
    }

    /** Every spool by its number in the slicing program. */
    public List<SpoolId> numbering() {
        return ordering.all(palette);
    }

    private void require(int index) {
        if (index < 0 || index >= starts.size()) {
            throw Refusal.of("There is no colour number %d in this plan any more; reload the page.", index + 1);
        }
    }
}
