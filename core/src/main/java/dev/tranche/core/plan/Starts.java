package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Snap;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * Where colours start.
 *
 * @param list the first at 0, then strictly rising; at most {@value #MOST}
 */
public record Starts(List<ColourStart> list) {
    public static final int MOST = 500;

    public Starts {
        list = List.copyOf(list);
        if (list.isEmpty() || !list.get(0).wished().equals(Height.ZERO)) {
            throw new IllegalArgumentException("the first colour starts at the bed");
        }
        for (int i = 1; i < list.size(); i++) {
            if (!list.get(i).wished().isAbove(list.get(i - 1).wished())) {
                throw new IllegalArgumentException("colour starts must rise: " + list);
            }
        }
        if (list.size() > MOST) {
            throw Refusal.of("A plan holds at most %d colour starts; merge some first.", MOST);
        }
    }

    /** One colour from the bed up. */
    static Starts of(SpoolId spool) {
        return new Starts(List.of(new ColourStart(Height.ZERO, spool)));
    }

    /** Such that each layer has the spool at its place. */
    static Starts layered(List<SpoolId> spools, LayerGrid grid) {
        List<ColourStart> list = new ArrayList<>();
        for (int layer = 1; layer <= spools.size(); layer++) {
            SpoolId spool = spools.get(layer - 1);
            if (list.isEmpty() || !list.get(list.size() - 1).spool().equals(spool)) {
                list.add(new ColourStart(grid.bottom(layer), spool));
            }
        }
        return new Starts(list);
    }

    public int size() {
        return list.size();
    }

    /** @throws Refusal if there is none by that number, from 0 */
    public ColourStart get(int index) {
        if (index < 0 || index >= list.size()) {
            throw Refusal.of("There is no colour number %d in this plan any more; reload the page.", index + 1);
        }
        return list.get(index);
    }

    /** Starts {@code spool} at {@code height}; a start already at exactly that height is recoloured. */
    Starts plus(Height height, SpoolId spool) {
        List<ColourStart> changed = new ArrayList<>(list);
        changed.removeIf(s -> s.wished().equals(height));
        int at = 0;
        while (at < changed.size() && height.isAbove(changed.get(at).wished())) {
            at++;
        }
        changed.add(at, new ColourStart(height, spool));
        return new Starts(changed);
    }

    /** With {@code spool} from one height to another, and from there on whatever was there before. */
    Starts within(Height from, Height to, SpoolId spool) {
        SpoolId before = list.stream()
                .filter(s -> !s.wished().isAbove(to))
                .reduce((a, b) -> b)
                .orElseThrow()
                .spool();
        List<ColourStart> changed = new ArrayList<>(list);
        changed.removeIf(s -> !from.isAbove(s.wished()) && !s.wished().isAbove(to));
        int at = (int) changed.stream().filter(s -> from.isAbove(s.wished())).count();
        changed.addAll(at, List.of(new ColourStart(from, spool), new ColourStart(to, before)));
        return new Starts(changed);
    }

    /** With {@code spool} from one height to another, and from there on {@code end}, unless something starts there. */
    Starts turning(Height from, Height to, SpoolId spool, SpoolId end, LayerGrid grid) {
        boolean goesOn =
                !grid.goesAbove(to) || list.stream().anyMatch(s -> s.wished().equals(to));
        List<ColourStart> changed = new ArrayList<>(list);
        changed.removeIf(s -> !from.isAbove(s.wished()) && to.isAbove(s.wished()));
        int at = (int) changed.stream().filter(s -> from.isAbove(s.wished())).count();
        changed.add(at, new ColourStart(from, spool));
        if (!goesOn) {
            changed.add(at + 1, new ColourStart(to, end));
        }
        return new Starts(changed);
    }

    /** Moves start {@code index}, not the first, between its neighbours. */
    Starts move(int index, Height height) {
        if (index == 0) {
            throw new Refusal("The first colour starts at the bed and cannot be moved; recolour it instead.");
        }
        SpoolId spool = get(index).spool();
        if (!height.isAbove(list.get(index - 1).wished())) {
            throw Refusal.of(
                    "%s mm is not above the border below it at %s mm; merge that colour first.",
                    height, list.get(index - 1).wished());
        }
        if (index + 1 < list.size() && !list.get(index + 1).wished().isAbove(height)) {
            throw Refusal.of(
                    "%s mm is not below the border above it at %s mm; merge that colour first.",
                    height, list.get(index + 1).wished());
        }
        return replace(index, new ColourStart(height, spool));
    }

    Starts recolour(int index, SpoolId spool) {
        return replace(index, new ColourStart(get(index).wished(), spool));
    }

    /** Lets the colour below start {@code index} go on over it; merging the lowest lets the one above begin at the bed. */
    Starts merge(int index) {
        get(index);
        if (list.size() == 1) {
            throw new Refusal("This is the only colour of the plan; recolour it instead.");
        }
        List<ColourStart> changed = new ArrayList<>(list);
        changed.remove(index);
        if (index == 0) {
            changed.set(0, new ColourStart(Height.ZERO, changed.get(0).spool()));
        }
        return new Starts(changed);
    }

    /** With every height {@code factor} times as high; of those that fall together the upper stays. */
    Starts scaledBy(double factor) {
        List<ColourStart> changed = new ArrayList<>();
        for (ColourStart start : list) {
            ColourStart moved = new ColourStart(start.wished().times(factor), start.spool());
            changed.removeIf(
                    s -> s.wished().equals(moved.wished()) && !s.wished().equals(Height.ZERO));
            if (changed.isEmpty()
                    || moved.wished().isAbove(changed.get(changed.size() - 1).wished())) {
                changed.add(moved);
            }
        }
        return new Starts(changed);
    }

    /** With every start where it prints on {@code grid}, as far as it keeps its place among the others. */
    Starts onto(LayerGrid grid) {
        List<ColourStart> changed = new ArrayList<>(list);
        for (Tranche tranche : tranches(grid)) {
            int at = tranche.index();
            Height there = tranche.start().actual();
            boolean fits = at > 0
                    && there.isAbove(changed.get(at - 1).wished())
                    && (at + 1 == changed.size() || changed.get(at + 1).wished().isAbove(there));
            if (fits) {
                changed.set(at, new ColourStart(there, tranche.spool()));
            }
        }
        return new Starts(changed);
    }

    Starts renumbered(UnaryOperator<SpoolId> other) {
        return new Starts(list.stream()
                .map(s -> new ColourStart(s.wished(), s.spool().renumbered(other)))
                .toList());
    }

    /**
     * The tranches these starts make on {@code grid}, from the bed up: they cover all layers without gap or
     * overlap. A start that falls on the same layer as the next, or above the print, makes none.
     */
    List<Tranche> tranches(LayerGrid grid) {
        List<Tranche> tranches = new ArrayList<>();
        int above = grid.count() + 1;
        for (int i = list.size() - 1; i >= 0; i--) {
            ColourStart start = list.get(i);
            if (i > 0 && !grid.goesAbove(start.wished())) {
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

    private Starts replace(int index, ColourStart start) {
        List<ColourStart> changed = new ArrayList<>(list);
        changed.set(index, start);
        return new Starts(changed);
    }
}
