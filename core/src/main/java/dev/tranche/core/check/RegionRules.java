package dev.tranche.core.check;

import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Relief;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Severity;
import dev.tranche.core.units.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;

/** Rules on regions: whether each can be seen where it was meant to be. */
final class RegionRules {
    private RegionRules() {}

    /** Regions of which nothing prints. */
    static List<Finding> lost(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        Regions regions = facts.plan().regions();
        for (int i = 0; i < regions.size(); i++) {
            int index = i;
            Region region = regions.get(i);
            Relief relief = facts.colouring().reliefs().get(i);
            if (relief.wholly()) {
                findings.add(Finding.of(
                                Severity.WARN,
                                "buried-" + i,
                                "“%s” is buried: regions after it take all of its %.2f mm, so nothing of it prints."
                                        .formatted(region.name(), relief.buried()))
                        .at(layer(facts, region))
                        .mendedBy(new Fix(
                                "Let it win over them",
                                p -> p.with(p.regions().moved(index, p.regions().size() - 1)))));
            } else if (relief.missing()) {
                findings.add(Finding.of(
                                Severity.WARN,
                                "nowhere-" + i,
                                "“%s” meets nothing of the model between its heights, so it colours nothing; move it, or give other heights."
                                        .formatted(region.name()))
                        .at(layer(facts, region))
                        .mendedBy(new Fix("Remove it", p -> p.with(p.regions().without(index)))));
            }
        }
        return findings;
    }

    /** Regions that have plastic of their own, all of it inside other plastic. */
    static List<Finding> unseen(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        Regions regions = facts.plan().regions();
        for (int i = 0; i < regions.size(); i++) {
            int index = i;
            Region region = regions.get(i);
            Relief relief = facts.colouring().reliefs().get(i);
            if (relief.above() > 0 && relief.below() > 0 && !reachesTheSide(facts.colouring(), i)) {
                Finding finding = Finding.of(
                                Severity.WARN,
                                "unseen-" + i,
                                String.format(
                                        Locale.ROOT,
                                        "“%s” lies inside the model, %.2f mm below its top and %.2f mm above its underside, and is never seen.",
                                        region.name(),
                                        relief.above(),
                                        relief.below()))
                        .at(layer(facts, region));
                findings.add(
                        region.shape() instanceof Shape.Zone
                                ? finding.mendedBy(
                                        new Fix("Let it reach the top", p -> p.with(raised(p.regions(), index))))
                                : finding);
            }
        }
        return findings;
    }

    private static Regions raised(Regions regions, int index) {
        Region region = regions.get(index);
        return regions.replace(index, region.over(new Range(region.range().from(), Optional.empty())));
    }

    private static boolean reachesTheSide(Colouring colouring, int region) {
        for (int layer = 1; layer <= colouring.layers().size(); layer++) {
            LayerColours colours = colouring.layer(layer);
            if (layer > 1 && colours == colouring.layer(layer - 1)) {
                continue;
            }
            Geometry side = colouring.model().section(layer).outline().getBoundary();
            if (colours.field(region)
                    .filter(f -> !f.isEmpty())
                    .filter(f -> f.area().getBoundary().distance(side) < 0.01)
                    .isPresent()) {
                return true;
            }
        }
        return false;
    }

    /** Zones whose heights go on where the model has ended. */
    static List<Finding> beyondTheModel(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        Regions regions = facts.plan().regions();
        for (int i = 0; i < regions.size(); i++) {
            int index = i;
            Region region = regions.get(i);
            double proud = facts.colouring().reliefs().get(i).proud();
            if (region.shape() instanceof Shape.Zone && proud > 0.01) {
                findings.add(Finding.of(
                                Severity.NOTE,
                                "proud-" + i,
                                String.format(
                                        Locale.ROOT,
                                        "“%s” reaches %.2f mm above the model, where there is nothing to colour.",
                                        region.name(),
                                        proud))
                        .mendedBy(new Fix("End it at the top", p -> p.with(raised(p.regions(), index)))));
            }
        }
        return findings;
    }

    /** Zones on the bed, seen from beneath, through which the colour behind them shows. */
    static List<Finding> shinesThrough(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        Regions regions = facts.plan().regions();
        for (int i = 0; i < regions.size(); i++) {
            int index = i;
            Region region = regions.get(i);
            int last = region.range().last(facts.grid());
            if (!(region.shape() instanceof Shape.Zone)
                    || region.range().first(facts.grid()) != 1
                    || last >= facts.grid().count()
                    || last < 1) {
                continue;
            }
            Optional<Tint> behind = facts.colouring().layer(last + 1).tints().stream()
                    .filter(t -> !t.spool().equals(region.spool()))
                    .findFirst();
            if (behind.isEmpty()) {
                continue;
            }
            Spool own = facts.shelf().get(region.spool());
            Spool other = facts.shelf().get(behind.get().spool());
            int needed = Inlay.layersToHide(facts.colouring().model(), own, other);
            if (last < needed && needed <= facts.grid().count()) {
                Height top = facts.grid().top(needed);
                findings.add(Finding.of(
                                Severity.WARN,
                                "shines-through-" + i,
                                "“%s” is %s deep, and %s shines through %s until it is %d layers deep."
                                        .formatted(
                                                region.name(),
                                                Words.count(last, "layer"),
                                                facts.label(other.id()),
                                                facts.label(own.id()),
                                                needed))
                        .at(1)
                        .mendedBy(new Fix(
                                "Make it " + needed + " layers deep",
                                p -> p.with(p.regions()
                                        .replace(
                                                index,
                                                region.over(Range.between(
                                                        region.range().from(), top)))))));
            }
        }
        return findings;
    }

    private static int layer(PlanFacts facts, Region region) {
        return Math.max(1, Math.min(facts.grid().count(), region.range().first(facts.grid())));
    }
}
