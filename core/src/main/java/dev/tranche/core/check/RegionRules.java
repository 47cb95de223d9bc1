package dev.tranche.core.check;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Relief;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Rules on regions: whether each can be seen where it was meant to be. */
final class RegionRules {
    /** So near to the side of the model a region is seen there, mm. */
    private static final double ON_THE_SIDE = 0.01;

    private RegionRules() {}

    /** What a rule says of one region. */
    private interface Look {
        Optional<Finding> at(int index, Region region, Relief relief);
    }

    private static List<Finding> each(PlanFacts facts, Look look) {
        List<Finding> findings = new ArrayList<>();
        for (int i = 0; i < facts.plan().regions().size(); i++) {
            look.at(
                            i,
                            facts.plan().regions().get(i),
                            facts.colouring().reliefs().get(i))
                    .ifPresent(findings::add);
        }
        return findings;
    }

    /** Regions that later ones cover altogether. */
    static List<Finding> buried(PlanFacts facts) {
        return each(facts, (i, region, relief) -> Optional.of(Finding.of(
                                Severity.WARN,
                                "buried-" + i,
                                Words.format(
                                        "“%s” is buried: regions after it take all of its %.2f mm, so nothing of it prints.",
                                        region.name(), relief.buried()))
                        .at(layer(facts, region))
                        .mendedBy(new Fix(
                                "Let it win over them",
                                p -> p.with(p.regions().moved(i, p.regions().size() - 1)))))
                .filter(f -> relief.wholly()));
    }

    /** Regions that meet no plastic. */
    static List<Finding> nowhere(PlanFacts facts) {
        return each(facts, (i, region, relief) -> Optional.of(Finding.of(
                                Severity.WARN,
                                "nowhere-" + i,
                                Words.format(
                                        "“%s” meets nothing of the model between its heights, so it colours nothing; move it, or give other heights.",
                                        region.name()))
                        .at(layer(facts, region))
                        .mendedBy(new Fix("Remove it", p -> p.with(p.regions().without(i)))))
                .filter(f -> relief.missing()));
    }

    /** Regions that have plastic of their own, all of it inside other plastic. */
    static List<Finding> unseen(PlanFacts facts) {
        return each(facts, (i, region, relief) -> {
            if (isSeen(facts, i) || backsWhatIsSeen(facts, i)) {
                return Optional.empty();
            }
            Finding finding = Finding.of(
                            Severity.WARN,
                            "unseen-" + i,
                            Words.format(
                                    "“%s” lies inside the model, %.2f mm below its top and %.2f mm above its underside, and is never seen.",
                                    region.name(), relief.above(), relief.below()))
                    .at(layer(facts, region));
            return Optional.of(
                    region.shape().isByPart()
                            ? finding
                            : finding.mendedBy(new Fix("Let it reach the top", p -> p.with(raised(p.regions(), i)))));
        });
    }

    private static Regions raised(Regions regions, int index) {
        Region region = regions.get(index);
        return regions.replace(index, region.over(new Range(region.range().from(), Optional.empty())));
    }

    private static boolean reachesTheSide(PlanFacts facts, Region region, int index) {
        Colouring colouring = facts.colouring();
        int highest = Math.min(facts.grid().count(), region.range().last(facts.grid()));
        LayerColours last = null;
        for (int layer = layer(facts, region); layer <= highest; layer++) {
            LayerColours colours = colouring.layer(layer);
            Optional<Field> field =
                    colours == last ? Optional.empty() : colours.field(index).filter(f -> !f.isEmpty());
            last = colours;
            if (field.isPresent()
                    && Areas.nearTheRim(
                            field.get().area(), colouring.model().section(layer).outline(), ON_THE_SIDE)) {
                return true;
            }
        }
        return false;
    }

    /** Zones whose heights go on where the model has ended. */
    static List<Finding> beyondTheModel(PlanFacts facts) {
        return each(facts, (i, region, relief) -> Optional.of(Finding.of(
                                Severity.NOTE,
                                "proud-" + i,
                                Words.format(
                                        "“%s” reaches %.2f mm above the model, where there is nothing to colour.",
                                        region.name(), relief.proud()))
                        .mendedBy(new Fix("End it at the top", p -> p.with(raised(p.regions(), i)))))
                .filter(f -> !region.shape().isByPart() && relief.proud() > 0.01));
    }

    /** Whether what covers a region above or below it is so clear that one sees it all the same. */
    private static boolean isSeenThrough(PlanFacts facts, Region region, Relief relief) {
        int first = layer(facts, region);
        int last = Math.min(facts.grid().count(), region.range().last(facts.grid()));
        return isClear(facts, last + 1, relief.above()) || isClear(facts, first - 1, relief.below());
    }

    /** Whether its spool goes on, region upon region, above or below it to where it is seen: then it is the depth of that. */
    private static boolean backsWhatIsSeen(PlanFacts facts, int index) {
        return leadsToTheSeen(facts, index, 1) || leadsToTheSeen(facts, index, -1);
    }

    /** @param way 1 upwards, -1 downwards */
    private static boolean leadsToTheSeen(PlanFacts facts, int index, int way) {
        Set<Integer> met = new HashSet<>(Set.of(index));
        Deque<Integer> open = new ArrayDeque<>(met);
        while (!open.isEmpty()) {
            for (int next : goingOn(facts, open.pop(), way)) {
                if (next == Field.BASE || isSeen(facts, next)) {
                    return true;
                }
                if (met.add(next)) {
                    open.push(next);
                }
            }
        }
        return false;
    }

    /** What meets a region's end with the same spool. */
    private static List<Integer> goingOn(PlanFacts facts, int index, int way) {
        Region region = facts.plan().regions().get(index);
        int end = way < 0
                ? layer(facts, region)
                : Math.max(1, Math.min(facts.grid().count(), region.range().last(facts.grid())));
        Optional<Field> own = facts.colouring().layer(end).field(index);
        if (own.isEmpty() || end + way < 1 || end + way > facts.grid().count()) {
            return List.of();
        }
        return facts.colouring().layer(end + way).fields().stream()
                .filter(f -> f.region() != index && f.spool().equals(own.get().spool()))
                .filter(f -> !Areas.intersection(own.get().area(), f.area()).isEmpty())
                .map(Field::region)
                .toList();
    }

    private static boolean isSeen(PlanFacts facts, int index) {
        Region region = facts.plan().regions().get(index);
        Relief relief = facts.colouring().reliefs().get(index);
        return relief.above() == 0
                || relief.below() == 0
                || isSeenThrough(facts, region, relief)
                || reachesTheSide(facts, region, index);
    }

    private static boolean isClear(PlanFacts facts, int layer, double thickness) {
        return layer >= 1
                && layer <= facts.grid().count()
                && facts.colouring().layer(layer).spools().stream()
                        .map(facts.shelf()::get)
                        .anyMatch(s -> s.isClear() && thickness < s.coverDepth());
    }

    private static int layer(PlanFacts facts, Region region) {
        return Math.max(1, Math.min(facts.grid().count(), region.range().first(facts.grid())));
    }
}
