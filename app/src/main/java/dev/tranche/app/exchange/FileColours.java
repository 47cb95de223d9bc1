package dev.tranche.app.exchange;

import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.colour.Fewer;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.Part;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;

/** Takes colours that model files give their parts into a plan, as spools of the shelf. */
@Service
public class FileColours {
    /** A spool this near is taken for the colour, CIEDE2000. */
    private static final double NEAR = 6;

    private static final int LONGEST_NAME = 40;

    private final Shelf shelf;

    FileColours(Shelf shelf) {
        this.shelf = shelf;
    }

    /** A new plan's colours: the one with most plastic from the bed up, the others as regions by part. */
    public ColourPlan begin(ColourPlan plain, List<Part> given) {
        boolean allSaid = given.stream().allMatch(p -> p.colour().isPresent());
        List<Part> parts = few(given, ColourPlan.MOST_SPOOLS - (allSaid ? 0 : 1));
        Map<Optional<Srgb>, Double> volumes = new LinkedHashMap<>();
        parts.forEach(p -> volumes.merge(p.colour(), volume(p), Double::sum));
        Optional<Srgb> most =
                volumes.entrySet().stream().max(Map.Entry.comparingByValue()).flatMap(Map.Entry::getKey);
        ColourPlan begun = most.isEmpty()
                ? plain
                : ColourPlan.of(
                        plain.layers(),
                        spool(most.get(), called(parts, most.get())).id());
        return coloured(begun, parts, 0);
    }

    private static double volume(Part part) {
        return Math.abs(part.mesh().volume());
    }

    /** In no more colours than that: those there is least of are taken for the nearest of the others. */
    private static List<Part> few(List<Part> parts, int most) {
        Map<Srgb, Double> volumes = new LinkedHashMap<>();
        parts.forEach(p -> p.colour().ifPresent(c -> volumes.merge(c, volume(p), Double::sum)));
        Map<Srgb, Srgb> fewer = Fewer.of(volumes, Math.max(1, most), 0);
        return parts.stream()
                .map(p -> p.colour()
                        .map(fewer::get)
                        .map(stands -> p.in(stands, called(parts, stands)))
                        .orElse(p))
                .toList();
    }

    /** A colour by the name that the file has for it, else by what people call it. */
    private static String name(Srgb colour, String called) {
        boolean says =
                !called.isBlank() && !called.strip().matches("#?[0-9A-Fa-f]{6,8}") && called.length() <= LONGEST_NAME;
        return says ? called.strip() : colour.name().orElse("Colour " + colour.hex());
    }

    /**
     * Regions for parts whose colour is not the one from the bed up.
     *
     * @param first number of the first of {@code parts}
     */
    ColourPlan add(ColourPlan plan, List<Part> parts, int first) {
        return coloured(plan, few(parts, ColourPlan.MOST_SPOOLS - plan.palette().size()), first);
    }

    private ColourPlan coloured(ColourPlan plan, List<Part> parts, int first) {
        ColourStart base = plan.starts().get(0);
        Map<SpoolId, List<Integer>> bySpool = new LinkedHashMap<>();
        for (int i = 0; i < parts.size(); i++) {
            int number = first + i;
            Part part = parts.get(i);
            part.colour()
                    .map(colour -> spool(colour, part.called()).id())
                    .filter(s ->
                            plan.starts().size() > 1 || !base.wished().equals(Height.ZERO) || !s.equals(base.spool()))
                    .ifPresent(s ->
                            bySpool.computeIfAbsent(s, k -> new ArrayList<>()).add(number));
        }
        Regions regions = plan.regions();
        Map<SpoolId, Spool> spools = shelf.byId();
        for (Map.Entry<SpoolId, List<Integer>> entry : bySpool.entrySet()) {
            String name = entry.getValue().size() == 1
                    ? parts.get(entry.getValue().get(0) - first).name()
                    : spools.get(entry.getKey()).name() + " parts";
            regions = regions.plus(new Region(name, new Shape.Parts(entry.getValue()), entry.getKey(), Range.ALL));
        }
        return plan.with(regions);
    }

    /** The spool of the shelf that is nearest, or a new one where none is near. */
    Spool spool(Srgb colour, String called) {
        return shelf.all().stream()
                .min(Comparator.comparingDouble(s -> difference(s, colour)))
                .filter(s -> difference(s, colour) <= NEAR)
                .orElseGet(() -> shelf.add(Spool.full(name(colour, called), Material.PLA, colour)));
    }

    private static String called(List<Part> parts, Srgb colour) {
        return parts.stream()
                .filter(p -> p.colour().equals(Optional.of(colour)))
                .map(Part::called)
                .findFirst()
                .orElse("");
    }

    private static double difference(Spool spool, Srgb colour) {
        return spool.colour().lab().differenceTo(colour.lab());
    }
}
