package dev.tranche.app.purges;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.PlanPages;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The table of purges of one plan. */
@Controller
class PurgeController {
    private final Plans plans;
    private final PlanPages pages;
    private final PurgeEdits edits;
    private final PurgeViews views;

    PurgeController(Plans plans, PlanPages pages, PurgeEdits edits, PurgeViews views) {
        this.plans = plans;
        this.pages = pages;
        this.edits = edits;
        this.views = views;
    }

    @GetMapping("/plans/{id}/purge")
    String show(@PathVariable String id, Pair pair, Model model) {
        return show(plans.get(id), pair, model);
    }

    @PostMapping("/plans/{id}/purge/place")
    String place(@PathVariable String id, Pair pair, PlaceForm form, @RequestParam long seen, Model model) {
        return show(edits.place(id, seen, form), pair, model);
    }

    @PostMapping("/plans/{id}/purge/measured")
    String measured(@PathVariable String id, Pair pair, @RequestParam String length, Model model) {
        PlanState plan = plans.get(id);
        edits.measured(plan, pair, length);
        return show(plan, pair, model);
    }

    @PostMapping("/plans/{id}/purge/forget")
    String forget(@PathVariable String id, Pair pair, Model model) {
        PlanState plan = plans.get(id);
        edits.forget(plan, pair);
        return show(plan, pair, model);
    }

    @PostMapping("/plans/{id}/purge/refit")
    String refit(@PathVariable String id, Pair pair, Model model) {
        PlanState plan = plans.get(id);
        edits.refit(plan);
        return show(plan, pair, model);
    }

    private String show(PlanState plan, Pair pair, Model model) {
        return pages.show(plan, "purge", model, work -> views.show(work, pair, model));
    }
}
