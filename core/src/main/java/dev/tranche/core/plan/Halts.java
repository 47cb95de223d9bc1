package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Function;

/**
 * Stops without a change of spool.
 *
 * @param list rising; at most {@value #MOST}
 */
public record Halts(List<Halt> list) {
    public static final Halts NONE = new Halts(List.of());

    static final int MOST = 500;

    public Halts {
        list = List.copyOf(list);
        for (int i = 1; i < list.size(); i++) {
            if (!list.get(i).wished().isAbove(list.get(i - 1).wished())) {
                throw new IllegalArgumentException("halts must rise: " + list);
            }
        }
        if (list.size() > MOST) {
            throw Refusal.of("A plan holds at most %d halts; remove some first.", MOST);
        }
    }

    public int size() {
        return list.size();
    }

    /** With another; one already at exactly that height gives way. */
    Halts plus(Halt halt) {
        List<Halt> changed = new ArrayList<>(list);
        changed.removeIf(h -> h.wished().equals(halt.wished()));
        changed.add(halt);
        changed.sort(Comparator.comparing(Halt::wished));
        return new Halts(changed);
    }

    /** Without halt {@code index}, from 0, the lowest first. */
    Halts without(int index) {
        if (index < 0 || index >= list.size()) {
            throw Refusal.of("There is no halt number %d in this plan any more; reload the page.", index + 1);
        }
        List<Halt> changed = new ArrayList<>(list);
        changed.remove(index);
        return new Halts(changed);
    }

    /** With every height {@code factor} times as high; of those that fall together the upper stays. */
    Halts scaledBy(double factor) {
        return moved(h -> h.wished().times(factor));
    }

    /** With every halt where it stops on {@code grid}; those that stop nothing stay. */
    Halts onto(LayerGrid grid) {
        return moved(h -> stops(h, grid) ? grid.snap(h.wished()).actual() : h.wished());
    }

    private Halts moved(Function<Halt, Height> where) {
        Halts moved = NONE;
        for (Halt halt : list) {
            Height there = where.apply(halt);
            moved = there.isAbove(Height.ZERO) ? moved.plus(new Halt(there, halt.note())) : moved;
        }
        return moved;
    }

    /** Those that stop a print on {@code grid}. */
    public List<Halt> on(LayerGrid grid) {
        return list.stream().filter(h -> stops(h, grid)).toList();
    }

    /** Whether {@code halt} falls between two layers; one above the last layer, or below the second, stops nothing. */
    public static boolean stops(Halt halt, LayerGrid grid) {
        return grid.goesAbove(halt.wished()) && grid.snap(halt.wished()).layer() > 1;
    }
}
