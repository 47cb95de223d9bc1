package dev.tranche.core.check;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.look.Patch;
import dev.tranche.core.look.View;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Rules on how the finished piece looks. */
final class LookRules {
    /** A difference that everybody sees, CIEDE2000, and over how many mm² it matters. */
    private static final double STRANGE = 3;

    private static final double SMALLEST = 4;
    /** A panel to be held to light is no thicker, mm, and lets more light through than this, of 1, over half of it (common practice). */
    private static final double THICKEST = 1.2;

    private static final double BRIGHT = 0.002;

    private LookRules() {}

    /** Whose colour is not its own: a region, or the colour by height that starts somewhere. */
    private record Owner(int region, int start) {}

    /** Where one owner is thin, and how thin in the largest such place. */
    private static final class Thin {
        private double area;
        private double largest;
        private Patch patch;
        private int layer;

        void add(Patch of, Patch.Spot spot, double size) {
            area += size;
            if (size > largest) {
                largest = size;
                patch = of;
                layer = spot.layer();
            }
        }
    }

    /** Colours so thin that what lies behind them shows, where that is hardly meant. */
    static List<Finding> shinesThrough(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        if (facts.plan().palette().size() > 1 && facts.looks().isQuick()) {
            for (View view : List.of(View.ABOVE, View.BELOW)) {
                thin(facts, view).forEach((owner, thin) -> {
                    if (thin.area >= SMALLEST) {
                        findings.add(finding(facts, view, owner, thin));
                    }
                });
            }
        }
        return findings.isEmpty() || isPanel(facts) ? List.of() : findings;
    }

    private static Map<Owner, Thin> thin(PlanFacts facts, View view) {
        Map<Owner, Thin> thin = new LinkedHashMap<>();
        for (Patch patch : facts.looks().from(view, Progress.UNHEARD)) {
            if (patch.plies().size() > 1
                    && !facts.shelf().get(patch.spool()).isClear()
                    && patch.strangeness() > STRANGE) {
                patch.spots().forEach(spot -> thin.computeIfAbsent(owner(facts, spot), o -> new Thin())
                        .add(patch, spot, spot.area().getArea()));
            }
        }
        return thin;
    }

    private static Owner owner(PlanFacts facts, Patch.Spot spot) {
        return new Owner(
                spot.region(),
                spot.region() == Field.BASE ? tranche(facts, spot.layer()).index() : 0);
    }

    private static Tranche tranche(PlanFacts facts, int layer) {
        return facts.tranches().stream()
                .filter(t -> t.covers(layer))
                .findFirst()
                .orElseThrow();
    }

    private static boolean isPanel(PlanFacts facts) {
        if (facts.grid().printedHeight().millimetres() > THICKEST) {
            return false;
        }
        double bright = 0;
        double all = 0;
        for (Patch patch : facts.looks().from(View.LIGHT, Progress.UNHEARD)) {
            all += patch.squareMillimetres();
            bright += patch.colour().luminance() > BRIGHT ? patch.squareMillimetres() : 0;
        }
        return bright >= all / 2;
    }

    private static Finding finding(PlanFacts facts, View view, Owner owner, Thin thin) {
        boolean above = view == View.ABOVE;
        Patch patch = thin.patch;
        double layer = facts.grid().layerHeight().millimetres();
        int deep = Math.max(1, (int) Math.round(patch.plies().get(0).millimetres() / layer));
        LinearRgb behind = facts.looks().behind(patch);
        int needed = Inlay.layersToHide(facts.colouring().model(), facts.shelf().get(patch.spool()), behind);
        String whose = owner.region() == Field.BASE
                ? Words.format(
                        "%s from %s on",
                        facts.label(patch.spool()),
                        owner.start() == 0
                                ? "the bed"
                                : tranche(facts, thin.layer).start().actual() + " mm")
                : Words.format(
                        "“%s”", facts.plan().regions().get(owner.region()).name());
        Finding finding = Finding.of(
                        Severity.WARN,
                        Words.format(
                                "shines-through-%s-%s",
                                above ? "above" : "beneath",
                                owner.region() == Field.BASE ? "c" + owner.start() : owner.region()),
                        Words.format(
                                "%s is %s deep where it is seen from %s, over %.1f cm², and %s shines through %s; %d layers hide it.",
                                whose,
                                Words.count(deep, "layer"),
                                above ? "above" : "beneath",
                                thin.area / 100,
                                facts.label(patch.plies().get(1).spool()),
                                facts.label(patch.spool()),
                                needed))
                .at(thin.layer);
        return fix(facts, owner, above, thin.layer, needed)
                .map(finding::mendedBy)
                .orElse(finding);
    }

    /** Starts a colour lower that is seen from above, or ends it higher that is seen from beneath. */
    private static Optional<Fix> fix(PlanFacts facts, Owner owner, boolean above, int layer, int needed) {
        int first = above ? layer - needed + 1 : layer;
        int last = above ? layer : layer + needed - 1;
        if (first < 1 || last >= facts.grid().count() && !above) {
            return Optional.empty();
        }
        Height edge = above ? facts.grid().bottom(first) : facts.grid().top(last);
        String label = "Make it " + needed + " layers deep";
        if (owner.region() != Field.BASE) {
            Region region = facts.plan().regions().get(owner.region());
            // It may be thin for what a later region takes of it; then its own bounds would only shrink it.
            boolean deeper = above
                    ? first < region.range().first(facts.grid())
                    : last > region.range().last(facts.grid());
            Range range = above
                    ? new Range(edge, region.range().to())
                    : Range.between(region.range().from(), edge);
            return !region.shape().isByPart() && deeper
                    ? Optional.of(new Fix(label, p -> p.with(p.regions().replace(owner.region(), region.over(range)))))
                    : Optional.empty();
        }
        Tranche tranche = tranche(facts, layer);
        // From above it is its own start that moves, from beneath that of the colour after it.
        Optional<Tranche> moved = facts.tranches().stream()
                .filter(t -> above ? t == tranche : t.firstLayer() == tranche.lastLayer() + 1)
                .findFirst()
                .filter(t -> t.index() > 0 && goesDeeper(facts, t, above, above ? first : last + 1));
        return moved.map(t -> new Fix(label, p -> p.move(t.index(), edge, facts.grid())));
    }

    /** Whether a colour that begins with {@code layer} instead does more for what is thin, and leaves something to its neighbours. */
    private static boolean goesDeeper(PlanFacts facts, Tranche tranche, boolean above, int layer) {
        int below = tranche(facts, tranche.firstLayer() - 1).firstLayer();
        boolean deeper = above ? layer < tranche.firstLayer() : layer > tranche.firstLayer();
        return deeper && layer > below && layer <= tranche.lastLayer();
    }
}
