package dev.tranche.core.format;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Repair;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What a model file holds.
 *
 * @param parts its solids, put right as far as that can be done; their order is theirs for good
 * @param perFile how many of them each file gave, in the order of the files
 * @param lifted by how many mm the file's Z was raised to set it on the bed
 * @param report what was found in all of them, and done
 * @param painted solids with more than one colour on their surface, of which the one with most area counts
 */
public record PartedModel(List<Part> parts, List<Integer> perFile, double lifted, Repair.Report report, int painted) {
    public PartedModel {
        parts = List.copyOf(parts);
        perFile = List.copyOf(perFile);
    }

    /** Of one file. */
    PartedModel(List<Part> parts, double lifted, Repair.Report report, int painted) {
        this(parts, List.of(parts.size()), lifted, report, painted);
    }

    /** Which file gave a part, from 0. */
    public int fileOf(int part) {
        int file = 0;
        for (int first = perFile.get(0); part >= first; first += perFile.get(file)) {
            file++;
        }
        return file;
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
                painted);
    }

    /** This file and another, aligned by their own origins; the other's parts come after. */
    public PartedModel with(PartedModel other) {
        Body together = body().with(other.body());
        List<Part> all = new ArrayList<>(parts);
        all.addAll(other.parts);
        for (int i = 0; i < all.size(); i++) {
            Part part = all.get(i);
            all.set(
                    i,
                    new Part(
                            part.name(),
                            part.colour(),
                            part.called(),
                            together.solids().get(i)));
        }
        List<Integer> files = new ArrayList<>(perFile);
        files.addAll(other.perFile);
        return new PartedModel(
                numbered(all), files, together.lifted(), report.plus(other.report), painted + other.painted);
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
