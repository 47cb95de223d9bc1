package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * The colours of a print, by height and by region.
 *
 * @param layers heights of the layers
 * @param starts where colours start
 * @param palette spools and mixtures in the order in which the plan first used them, those that colour nothing any more at
 *     the end; a spool's letter is its place here
 * @param halts stops without a change of spool
 * @param regions parts and zones with colours of their own, over the colours by height
 * @param ordering in which order the colours of a layer are printed
 * @param mixtures paints of its own, that spools of the palette run together into
 */
public record ColourPlan(
        LayerSettings layers,
        Starts starts,
        List<SpoolId> palette,
        Halts halts,
        Regions regions,
        Ordering ordering,
        Mixtures mixtures) {
    /** As many as there are letters. */
    public static final int MOST_SPOOLS = 26;

    public ColourPlan {
        palette = List.copyOf(palette);
        if (palette.stream().distinct().count() < palette.size()) {
            throw new IllegalArgumentException("a spool has one letter: " + palette);
        }
        Set<SpoolId> lettered = Set.copyOf(palette);
        Stream.of(
                        starts.list().stream().map(ColourStart::spool),
                        regions.list().stream().map(Region::spool),
                        ordering.numbering().stream(),
                        mixtures.list().stream().map(Mixture::id),
                        mixtures.list().stream().flatMap(m -> m.spools().stream()))
                .flatMap(s -> s)
                .filter(s -> !lettered.contains(s))
                .findFirst()
                .ifPresent(s -> {
                    throw new IllegalArgumentException("no letter for " + s);
                });
        palette = usedFirst(palette, used(starts, regions, mixtures));
        palette.stream()
                .filter(s -> s.isMixture() && mixtures.find(s).isEmpty())
                .findFirst()
                .ifPresent(s -> {
                    throw new IllegalArgumentException("no mixture " + s);
                });
    }

    /** So that there is no B where there is no A. */
    private static List<SpoolId> usedFirst(List<SpoolId> palette, Set<SpoolId> used) {
        return Stream.concat(
                        palette.stream().filter(used::contains),
                        palette.stream().filter(s -> !used.contains(s)))
                .toList();
    }

    /** Spools and mixtures that colour something, and the spools of those mixtures, by their letters. */
    public List<SpoolId> paletteInUse() {
        return palette.stream()
                .filter(used(starts, regions, mixtures)::contains)
                .toList();
    }

    private static Set<SpoolId> used(Starts starts, Regions regions, Mixtures mixtures) {
        Set<SpoolId> used = spools(starts, regions);
        mixtures.among(Set.copyOf(used)).forEach(m -> used.addAll(m.spools()));
        return used;
    }

    /** One colour from the bed up. */
    public static ColourPlan of(LayerSettings layers, SpoolId spool) {
        return new ColourPlan(
                layers, Starts.of(spool), List.of(spool), Halts.NONE, Regions.NONE, Ordering.USUAL, Mixtures.NONE);
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
        return lettering(spool).with(starts.plus(height, spool));
    }

    /**
     * With colours by height, one for each layer.
     *
     * @param spools by layer
     * @throws Refusal if colours start at more than {@value Starts#MOST} heights
     */
    public ColourPlan layered(List<SpoolId> spools, LayerGrid grid) {
        return holding(new LinkedHashSet<>(spools)).with(Starts.layered(spools, grid));
    }

    /** With letters for spools, whether they colour anything or not. */
    public ColourPlan holding(Collection<SpoolId> spools) {
        ColourPlan lettered = this;
        for (SpoolId spool : spools) {
            lettered = lettered.lettering(spool);
        }
        return lettered;
    }

    /** With {@code spool} between two heights, and above them whatever was there. */
    public ColourPlan within(Height from, Height to, SpoolId spool) {
        return lettering(spool).with(starts.within(from, to, spool));
    }

    /** Moves start {@code index}, not the first, between its neighbours; fades that begin or end there go with it. */
    public ColourPlan move(int index, Height height, LayerGrid grid) {
        Height before = starts.get(index).wished();
        Starts moved = starts.move(index, height);
        grid.snap(height);
        return with(moved).with(mixtures.moved(before, height), palette);
    }

    /** Gives start {@code index} another spool. */
    public ColourPlan recolour(int index, SpoolId spool) {
        SpoolId before = starts.get(index).spool();
        ColourPlan plan = lettering(spool).with(starts.recolour(index, spool));
        boolean instead = !spools().contains(spool) && !plan.spools().contains(before);
        if (!instead || !palette.contains(before)) {
            return plan;
        }
        // What comes in the place of another takes its letter.
        List<SpoolId> letters = new ArrayList<>(plan.palette);
        letters.remove(spool);
        letters.add(palette.indexOf(before), spool);
        return plan.with(mixtures, letters);
    }

    /** Lets the colour below start {@code index} go on over it; merging the lowest lets the one above begin at the bed. */
    public ColourPlan merge(int index) {
        return with(starts.merge(index));
    }

    /**
     * With every height moved along with a model that became {@code factor} times as high. Heights that fall
     * together become one, the upper.
     */
    public ColourPlan scaledBy(double factor) {
        return new ColourPlan(
                layers,
                starts.scaledBy(factor),
                palette,
                halts.scaledBy(factor),
                regions.scaledInHeight(factor),
                ordering,
                mixtures.scaledBy(factor));
    }

    /** With every start and halt where it prints on {@code grid}, so that nothing snaps any more. */
    public ColourPlan ontoGrid(LayerGrid grid) {
        return with(starts.onto(grid)).with(halts.onto(grid));
    }

    public ColourPlan withLayers(LayerSettings settings) {
        return new ColourPlan(settings, starts, palette, halts, regions, ordering, mixtures);
    }

    /** Stops at {@code halt}'s height; one already at exactly that height gets the new note. */
    public ColourPlan haltAt(Halt halt, LayerGrid grid) {
        grid.snap(halt.wished());
        return with(halts.plus(halt));
    }

    /** Without halt {@code index}, from 0, the lowest first. */
    public ColourPlan withoutHalt(int index) {
        return with(halts.without(index));
    }

    /**
     * The tranches these starts make on {@code grid}, from the bed up: they cover all layers without gap or
     * overlap. A start that falls on the same layer as the next, or above the print, makes none.
     */
    public List<Tranche> tranches(LayerGrid grid) {
        return starts.tranches(grid);
    }

    /** With other regions, for whose spools there are letters or will be. */
    public ColourPlan with(Regions changed) {
        ColourPlan plan = this;
        for (Region region : changed.list()) {
            plan = plan.lettering(region.spool());
        }
        return new ColourPlan(layers, starts, plan.palette, halts, changed, ordering, mixtures);
    }

    /** Regions moved along with a model that was scaled evenly and turned about its origin; heights stay. */
    public ColourPlan along(double factor, double degrees) {
        return new ColourPlan(layers, starts, palette, halts, regions.along(factor, degrees), ordering, mixtures);
    }

    /** Every spool and mixture that a colour by height or a region prints with. */
    public Set<SpoolId> spools() {
        return spools(starts, regions);
    }

    private static Set<SpoolId> spools(Starts starts, Regions regions) {
        Set<SpoolId> all = new LinkedHashSet<>();
        starts.list().forEach(s -> all.add(s.spool()));
        regions.list().forEach(r -> all.add(r.spool()));
        return all;
    }

    /**
     * With a paint of its own, or with what became of one.
     *
     * @throws Refusal if a fade ends above the print
     */
    public ColourPlan with(Mixture mixture, LayerGrid grid) {
        if (mixture instanceof Mixture.Fade fade && fade.ends().isAbove(grid.printedHeight())) {
            throw Refusal.of(
                    "The fade ends at %s mm and the print at %s mm; end it lower.", fade.ends(), grid.printedHeight());
        }
        ColourPlan plan = this;
        for (SpoolId spool : mixture.spools()) {
            plan = plan.lettering(spool);
        }
        return plan.with(mixtures.with(mixture), plan.lettered(mixture.id()));
    }

    /**
     * Without a paint of its own that colours nothing.
     *
     * @throws Refusal if something is printed with it
     */
    public ColourPlan without(SpoolId mixture) {
        mixtures.get(mixture);
        if (spools().contains(mixture)) {
            throw new Refusal("Something is printed with that paint; give it another spool first.");
        }
        return new ColourPlan(
                layers,
                starts,
                palette.stream().filter(s -> !s.equals(mixture)).toList(),
                halts,
                regions,
                ordering.without(mixture),
                mixtures.without(mixture));
    }

    /**
     * With a fade over its heights: what starts between goes, and from its end on what it has become goes on as far as the next
     * start.
     *
     * @param end the paint that it ends with
     */
    public ColourPlan fading(Mixture.Fade fade, SpoolId end, LayerGrid grid) {
        ColourPlan plan = with(fade, grid).lettering(end);
        return plan.with(plan.starts.turning(fade.begins(), fade.ends(), fade.id(), end, grid));
    }

    /**
     * Moves an end of a fade, and the border that lies there.
     *
     * @param lower whether it is the one at which it begins
     */
    public ColourPlan moveFade(SpoolId id, boolean lower, Height height, LayerGrid grid) {
        if (!(mixtures.get(id) instanceof Mixture.Fade fade)) {
            throw new Refusal("A blend has no ends to move; give it other weights.");
        }
        Height before = lower ? fade.begins() : fade.ends();
        for (int i = 1; i < starts.size(); i++) {
            if (starts.get(i).wished().equals(before)) {
                return move(i, height, grid);
            }
        }
        return with(lower ? fade.over(height, fade.ends()) : fade.over(fade.begins(), height), grid);
    }

    /** The mixtures that any of it is printed with. */
    public List<Mixture> mixed() {
        return mixtures.among(spools());
    }

    private ColourPlan with(Mixtures changed, List<SpoolId> letters) {
        return new ColourPlan(layers, starts, letters, halts, regions, ordering, changed);
    }

    private ColourPlan with(Starts changed) {
        return new ColourPlan(layers, changed, palette, halts, regions, ordering, mixtures);
    }

    private ColourPlan with(Halts changed) {
        return new ColourPlan(layers, starts, palette, changed, regions, ordering, mixtures);
    }

    private ColourPlan lettering(SpoolId spool) {
        return with(mixtures, lettered(spool));
    }

    private List<SpoolId> lettered(SpoolId spool) {
        if (palette.contains(spool)) {
            return palette;
        }
        if (palette.size() == MOST_SPOOLS) {
            throw Refusal.of("A plan holds at most %d spools; use one that it has.", MOST_SPOOLS);
        }
        List<SpoolId> more = new ArrayList<>(palette);
        more.add(spool);
        return more;
    }

    public ColourPlan with(Ordering other) {
        return new ColourPlan(layers, starts, palette, halts, regions, other, mixtures);
    }

    /** The same with each spool known by another number, no two by one. */
    public ColourPlan renumbered(UnaryOperator<SpoolId> other) {
        return new ColourPlan(
                layers,
                starts.renumbered(other),
                palette.stream().map(s -> s.renumbered(other)).toList(),
                halts,
                regions.renumbered(other),
                ordering.numbered(ordering.numbering().stream()
                        .map(s -> s.renumbered(other))
                        .toList()),
                mixtures.renumbered(other));
    }

    /** The spools by their numbers in the slicing program; one that colours nothing any more has none. */
    public List<SpoolId> numbering() {
        Set<SpoolId> used = spools();
        return ordering.all(palette).stream().filter(used::contains).toList();
    }
}
