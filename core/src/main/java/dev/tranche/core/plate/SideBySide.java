package dev.tranche.core.plate;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shift;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * Lays out side by side what lies over one another or anyhow, each on the bed: in rows, the deepest first. Solids of one file whose
 * rectangles meet belong together and stay so.
 */
public final class SideBySide {
    private SideBySide() {}

    /**
     * @param body as its files have it
     * @param hidden solids that are left where they are
     * @param fileOf the number of the file of each solid
     * @param gap between them, mm
     * @param widest that a row should be, mm; what is wider by itself has a row of its own
     * @return shifts by the numbers of the solids
     */
    public static Map<Integer, Shift> of(
            Body body, Set<Integer> hidden, List<Integer> fileOf, double gap, double widest) {
        List<List<Integer>> groups = groups(body, hidden, fileOf);
        groups.sort(
                Comparator.comparingDouble((List<Integer> g) -> -box(body, g).getHeight())
                        .thenComparing(g -> g.get(0)));
        double area = groups.stream()
                .map(g -> box(body, g))
                .mapToDouble(b -> (b.getWidth() + gap) * (b.getHeight() + gap))
                .sum();
        // Nearly as wide as deep, as far as the bed has room.
        double row = Math.min(widest, Math.max(1.15 * Math.sqrt(area), widest(body, groups)));
        Map<Integer, Shift> shifts = new HashMap<>();
        double x = 0;
        double y = 0;
        double deep = 0;
        for (List<Integer> group : groups) {
            Envelope box = box(body, group);
            if (x > 0 && x + box.getWidth() > row) {
                x = 0;
                y += deep + gap;
                deep = 0;
            }
            int bottom = group.stream()
                    .mapToInt(i -> body.solids().get(i).bottom())
                    .min()
                    .orElse(0);
            for (int solid : group) {
                shifts.put(solid, new Shift(x - box.getMinX(), y - box.getMinY(), -bottom / 1000.0));
            }
            x += box.getWidth() + gap;
            deep = Math.max(deep, box.getHeight());
        }
        return shifts;
    }

    private static double widest(Body body, List<List<Integer>> groups) {
        return groups.stream().mapToDouble(g -> box(body, g).getWidth()).max().orElse(0);
    }

    private static Envelope box(Body body, List<Integer> group) {
        Envelope box = new Envelope();
        group.stream().map(body.solids()::get).map(Mesh::footprint).forEach(box::expandToInclude);
        return box;
    }

    private static List<List<Integer>> groups(Body body, Set<Integer> hidden, List<Integer> fileOf) {
        List<List<Integer>> groups = new ArrayList<>();
        for (int solid : IntStream.range(0, body.solids().size())
                .filter(i -> !hidden.contains(i))
                .toArray()) {
            Envelope own = body.solids().get(solid).footprint();
            List<Integer> joined = new ArrayList<>(List.of(solid));
            groups.removeIf(group -> {
                boolean meets = fileOf.get(group.get(0)).equals(fileOf.get(solid))
                        && group.stream()
                                .anyMatch(i -> body.solids().get(i).footprint().intersects(own));
                if (meets) {
                    joined.addAll(0, group);
                }
                return meets;
            });
            groups.add(joined);
        }
        return groups;
    }
}
