package dev.tranche.core.format;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Repair;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/**
 * What a model file holds.
 *
 * @param parts its solids, put right as far as that can be done; their order is theirs for good
 * @param perFile how many of them each file gave, in the order of the files
 * @param lifted by how many mm the file's Z was raised to set it on the bed
 * @param report what was found in all of them, and done
 * @param unseen files that it is to have colours from, and that did not come with it or cannot be read, by their names
 */
public record PartedModel(
        List<Part> parts, List<Integer> perFile, double lifted, Repair.Report report, List<String> unseen) {
    /** mm */
    private static final double APART = 0.5;

    private static final int MOST_ITEMS = 1000;

    public PartedModel {
        parts = List.copyOf(parts);
        perFile = List.copyOf(perFile);
        unseen = List.copyOf(unseen);
    }

    /** Of one file. */
    PartedModel(List<Part> parts, double lifted, Repair.Report report, List<String> unseen) {
        this(parts, List.of(parts.size()), lifted, report, unseen);
    }

    /** Which file gave a part, from 0. */
    public int fileOf(int part) {
        int file = 0;
        for (int first = perFile.get(0); part >= first; first += perFile.get(file)) {
            file++;
        }
        return file;
    }

    /** The coats of parts that have one, by the numbers of the parts. */
    public Map<Integer, Coat> coats() {
        Map<Integer, Coat> coats = new TreeMap<>();
        for (int i = 0; i < parts.size(); i++) {
            int number = i;
            parts.get(i).coat().ifPresent(coat -> coats.put(number, coat));
        }
        return coats;
    }

    public Body body() {
        return new Body(parts.stream().map(Part::mesh).toList(), lifted);
    }

    /** With {@code name} for parts that have none of their own. */
    public PartedModel under(String name) {
        return new PartedModel(
                numbered(parts.stream()
                        .map(p -> p.name().isEmpty() ? p.named(name) : p)
                        .toList()),
                perFile,
                lifted,
                report,
                unseen);
    }

    /** This file and another, aligned by their own origins; the other's parts come after. */
    public PartedModel with(PartedModel other) {
        Body together = body().with(other.body());
        List<Part> all = new ArrayList<>(parts);
        all.addAll(other.parts);
        int items = parts.stream().mapToInt(Part::item).max().orElse(-1) + 1;
        for (int i = 0; i < all.size(); i++) {
            int item = all.get(i).item() + (i < parts.size() ? 0 : items);
            all.set(i, all.get(i).made(together.solids().get(i), item));
        }
        List<Integer> files = new ArrayList<>(perFile);
        files.addAll(other.perFile);
        List<String> neither =
                Stream.concat(unseen.stream(), other.unseen.stream()).distinct().toList();
        return new PartedModel(numbered(all), files, together.lifted(), report.plus(other.report), neither);
    }

    /**
     * The things that stand apart from each other on their plate, each as the numbers of its parts: items whose bounds, seen
     * from above, are {@value #APART} mm and more from those of any other. A model of one item is one thing, whatever its parts.
     */
    public List<List<Integer>> apart() {
        Map<Integer, Envelope> bounds = new TreeMap<>();
        for (Part part : parts) {
            bounds.computeIfAbsent(part.item(), i -> new Envelope())
                    .expandToInclude(part.mesh().footprint());
        }
        if (bounds.size() > MOST_ITEMS) {
            return List.of(IntStream.range(0, parts.size()).boxed().toList());
        }
        Map<Integer, Integer> leaders = new HashMap<>();
        bounds.keySet().forEach(item -> leaders.put(item, item));
        bounds.forEach((one, ground) -> bounds.forEach((other, near) -> {
            if (other > one && ground.distance(near) < APART) {
                leaders.put(leader(leaders, other), leader(leaders, one));
            }
        }));
        Map<Integer, List<Integer>> things = new TreeMap<>();
        for (int i = 0; i < parts.size(); i++) {
            things.computeIfAbsent(leader(leaders, parts.get(i).item()), l -> new ArrayList<>())
                    .add(i);
        }
        return List.copyOf(things.values());
    }

    private static int leader(Map<Integer, Integer> leaders, int item) {
        int at = item;
        while (leaders.get(at) != at) {
            at = leaders.get(at);
        }
        return at;
    }

    /** Names that several parts share get a number: “leaf 1”, “leaf 2”. */
    private static List<Part> numbered(List<Part> parts) {
        Map<String, Integer> shared = new HashMap<>();
        parts.forEach(p -> shared.merge(p.name(), 1, Integer::sum));
        Map<String, Integer> given = new HashMap<>();
        return parts.stream()
                .map(p -> p.name().isEmpty() || shared.get(p.name()) == 1
                        ? p
                        : p.named(p.name() + " " + given.merge(p.name(), 1, Integer::sum)))
                .toList();
    }
}
