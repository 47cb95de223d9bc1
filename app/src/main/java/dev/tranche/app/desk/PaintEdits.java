package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;

/** Blends and fades of a plan as people type them, as edits with a name for undo. */
@Service
class PaintEdits {
    private final Plans plans;
    private final Choices choices;
    private final Workshop workshop;
    private final ModelCuts cuts;

    PaintEdits(Plans plans, Choices choices, Workshop workshop, ModelCuts cuts) {
        this.plans = plans;
        this.choices = choices;
        this.workshop = workshop;
        this.cuts = cuts;
    }

    /** @param percents one a spool */
    PlanState blend(Shown at, List<Long> spools, List<String> percents) {
        return keep(at, recipe(at, spools, percents));
    }

    /** One that the printer's rack keeps, of the spools at its inputs. */
    PlanState preset(Shown at, int extruder) {
        Rack rack = workshop.get(plans.get(at.id()).content().printer()).rig().rack();
        return keep(
                at,
                rack.recipe(extruder)
                        .orElseThrow(
                                () -> new Refusal(
                                        "That is no blend of spools at the printer's inputs any more; settle them in its rack.")));
    }

    PlanState remove(Shown at, long paint) {
        SpoolId id = new SpoolId(paint);
        return plans.edit(
                at.id(),
                at.edition(),
                "remove " + choices.get(plans.get(at.id()), paint).name(),
                p -> p.without(id));
    }

    PlanState fade(Shown at, long from, long to, String begins, String ends, boolean byHeight) {
        PlanState plan = plans.get(at.id());
        LayerGrid grid = cuts.grid(plan.content());
        Mixtures mixtures = plan.content().colours().mixtures();
        Mixture.Fade fade = new Mixture.Fade(
                mixtures.next(), recipe(plan, from), recipe(plan, to), grid.startFrom(begins), grid.startFrom(ends));
        String label = "fade from " + choices.get(plan, from).name() + " to "
                + choices.get(plan, to).name();
        return plans.edit(
                at.id(),
                at.edition(),
                label,
                p -> byHeight ? p.fading(fade, new SpoolId(to), grid) : p.with(fade, grid));
    }

    /** @param lower whether it is the end at which it begins */
    PlanState move(Shown at, long paint, boolean lower, String height) {
        LayerGrid grid = cuts.grid(plans.get(at.id()).content());
        Height to = grid.startFrom(height);
        return plans.edit(
                at.id(),
                at.edition(),
                (lower ? "begin a fade at " : "end a fade at ") + to + " mm",
                p -> p.moveFade(new SpoolId(paint), lower, to, grid));
    }

    PlanState reblend(Shown at, long paint, List<Long> spools, List<String> percents) {
        LayerGrid grid = cuts.grid(plans.get(at.id()).content());
        Recipe recipe = recipe(at, spools, percents);
        return plans.edit(at.id(), at.edition(), "blend otherwise", p -> {
            if (!(p.mixtures().get(new SpoolId(paint)) instanceof Mixture.Blend)) {
                throw new Refusal("A fade is no blend; move its ends instead.");
            }
            return p.with(new Mixture.Blend(new SpoolId(paint), recipe), grid);
        });
    }

    private PlanState keep(Shown at, Recipe recipe) {
        LayerGrid grid = cuts.grid(plans.get(at.id()).content());
        return plans.edit(at.id(), at.edition(), "keep a blend", p -> blended(p, recipe, grid));
    }

    private static ColourPlan blended(ColourPlan plan, Recipe recipe, LayerGrid grid) {
        if (plan.mixtures().list().stream()
                .anyMatch(m -> m instanceof Mixture.Blend b && b.recipe().equals(recipe))) {
            throw new Refusal("The plan has that blend already; choose it where colours are chosen.");
        }
        return plan.with(new Mixture.Blend(plan.mixtures().next(), recipe), grid);
    }

    private Recipe recipe(Shown at, List<Long> spools, List<String> percents) {
        if (spools.size() != percents.size()) {
            throw new Refusal("A blend needs a share for each of its spools; reload the page.");
        }
        PlanState plan = plans.get(at.id());
        Map<SpoolId, Double> shares = new LinkedHashMap<>();
        for (int i = 0; i < spools.size(); i++) {
            Spool spool = choices.get(plan, spools.get(i));
            shares.merge(spool.id(), Numbers.decimal("share of " + spool.name(), percents.get(i)) / 100, Double::sum);
        }
        return Recipe.of(shares);
    }

    /** A spool alone, or what a blend of the plan is made of. */
    private Recipe recipe(PlanState plan, long paint) {
        Spool chosen = choices.get(plan, paint);
        return plan.content()
                .colours()
                .mixtures()
                .find(chosen.id())
                .map(m -> {
                    if (m instanceof Mixture.Fade) {
                        throw new Refusal("A fade goes from a spool or a blend to another; choose one of those.");
                    }
                    return m.recipe(0);
                })
                .orElseGet(() -> Recipe.of(chosen.id()));
    }
}
