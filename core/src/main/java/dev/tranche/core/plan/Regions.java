package dev.tranche.core.plan;

import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/**
 * The regions of a plan in precedence order: where they overlap, the last wins.
 *
 * @param list at most {@value #MOST}
 */
public record Regions(List<Region> list) {
    public static final int MOST = 300;
    public static final Regions NONE = new Regions(List.of());

    public Regions {
        list = List.copyOf(list);
        if (list.size() > MOST) {
            throw Refusal.of("A plan holds at most %d regions; remove some first.", MOST);
        }
    }

    public int size() {
        return list.size();
    }

    public Region get(int index) {
        if (index < 0 || index >= list.size()) {
            throw Refusal.of("There is no region number %d in this plan any more; reload the page.", index + 1);
        }
        return list.get(index);
    }

    /** With another, which wins over all there are. */
    public Regions plus(Region region) {
        List<Region> changed = new ArrayList<>(list);
        changed.add(region);
        return new Regions(changed);
    }

    public Regions replace(int index, Region region) {
        get(index);
        List<Region> changed = new ArrayList<>(list);
        changed.set(index, region);
        return new Regions(changed);
    }

    public Regions without(int index) {
        get(index);
        List<Region> changed = new ArrayList<>(list);
        changed.remove(index);
        return new Regions(changed);
    }

    /** Region {@code from} at place {@code to} of the order. */
    public Regions moved(int from, int to) {
        Region region = get(from);
        get(to);
        List<Region> changed = new ArrayList<>(list);
        changed.remove(from);
        changed.add(to, region);
        return new Regions(changed);
    }

    /** The last region that colours all heights of part {@code number}, −1 if none does. */
    public int ofPart(int number) {
        for (int i = list.size() - 1; i >= 0; i--) {
            if (wholly(list.get(i))
                    && ((Shape.Parts) list.get(i).shape()).numbers().contains(number)) {
                return i;
            }
        }
        return -1;
    }

    /**
     * Parts given one spool over all their heights: they leave the regions that did so before, and come to the place
     * of the last of those, or, if none did, to the end.
     *
     * @param name for a region that has to be made
     */
    public Regions colouring(Set<Integer> parts, String name, SpoolId spool) {
        int place = parts.stream().mapToInt(this::ofPart).max().orElse(-1);
        String called = place >= 0 && list.get(place).shape().equals(new Shape.Parts(List.copyOf(parts)))
                ? list.get(place).name()
                : name;
        List<Region> changed = new ArrayList<>();
        for (int i = 0; i < list.size(); i++) {
            changed.addAll(left(list.get(i), parts));
            if (i == place) {
                changed.add(new Region(called, new Shape.Parts(List.copyOf(parts)), spool, Range.ALL));
            }
        }
        if (place < 0) {
            changed.add(new Region(called, new Shape.Parts(List.copyOf(parts)), spool, Range.ALL));
        }
        return new Regions(changed);
    }

    /** Parts left to the colours by height again. */
    public Regions releasing(Set<Integer> parts) {
        return new Regions(list.stream().flatMap(r -> left(r, parts).stream()).toList());
    }

    private static List<Region> left(Region region, Set<Integer> parts) {
        if (!wholly(region)) {
            return List.of(region);
        }
        Set<Integer> stay = new TreeSet<>(((Shape.Parts) region.shape()).numbers());
        stay.removeAll(parts);
        return stay.isEmpty() ? List.of() : List.of(region.of(new Shape.Parts(List.copyOf(stay))));
    }

    /** Whether each of them colours all heights of parts. */
    public boolean areWholeParts() {
        return list.stream().allMatch(Regions::wholly);
    }

    private static boolean wholly(Region region) {
        return region.shape() instanceof Shape.Parts && region.range().equals(Range.ALL);
    }

    /** Zones moved along, in the plane, with a model that was scaled by a factor and turned about its origin. */
    Regions along(double factor, double degrees) {
        return new Regions(
                list.stream().map(r -> r.of(r.shape().along(factor, degrees))).toList());
    }

    Regions renumbered(UnaryOperator<SpoolId> other) {
        return new Regions(
                list.stream().map(r -> r.in(r.spool().renumbered(other))).toList());
    }

    Regions scaledInHeight(double factor) {
        return new Regions(list.stream()
                .map(r -> r.of(r.shape().scaledInHeight(factor)).over(r.range().scaledBy(factor)))
                .toList());
    }
}
