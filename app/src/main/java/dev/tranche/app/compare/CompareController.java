package dev.tranche.app.compare;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class CompareController {
    private final Plans plans;
    private final Workshop workshop;
    private final ModelCuts cuts;
    private final Workbench workbench;
    private final PlanPages pages;
    private final CompareViews views;

    CompareController(
            Plans plans, Workshop workshop, ModelCuts cuts, Workbench workbench, PlanPages pages, CompareViews views) {
        this.plans = plans;
        this.workshop = workshop;
        this.cuts = cuts;
        this.workbench = workbench;
        this.pages = pages;
        this.views = views;
    }

    @GetMapping("/plans/{id}/compare")
    String show(@PathVariable String id, Model model) {
        return show(plans.get(plans.get(id).root()), model);
    }

    /** The copy is made even if nothing is otherwise: it can be changed at its own desk. */
    @PostMapping("/plans/{id}/variants")
    String attempt(@PathVariable String id, VariantForm form, Model model) {
        PlanState plan = plans.get(id);
        cuts.grid(form.on(plan.content()));
        plans.variant(id, form.name(workshop, plan), form::on);
        return show(plan, model);
    }

    @PostMapping("/plans/{id}/variants/{variant}/adopt")
    String adopt(@PathVariable String id, @PathVariable String variant, @RequestParam long seen, Model model) {
        return show(plans.adopt(id, seen, variant), model);
    }

    @PostMapping("/plans/{id}/variants/{variant}/drop")
    String drop(@PathVariable String id, @PathVariable String variant, Model model) {
        plans.drop(id, variant);
        model.addAttribute("dropped", variant);
        return show(plans.get(id), model);
    }

    @PostMapping("/plans/{id}/variants/{variant}/restore")
    String restore(@PathVariable String id, @PathVariable String variant, Model model) {
        plans.bringBack(id, variant);
        return show(plans.get(id), model);
    }

    private String show(PlanState plan, Model model) {
        return pages.show(plan, "compare", model, own -> {
            List<Workpiece> all = new ArrayList<>(List.of(own));
            for (PlanState variant : plans.variants(plan.id())) {
                Optional<Workpiece> work = workbench.open(variant);
                if (work.isEmpty()) {
                    model.addAttribute("job", workbench.prepare(variant));
                    return "desk/waiting";
                }
                all.add(work.get());
            }
            return views.show(all, model);
        });
    }
}
