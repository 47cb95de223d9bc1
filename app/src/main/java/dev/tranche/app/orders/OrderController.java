package dev.tranche.app.orders;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.Ordering.Rule;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class OrderController {
    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final OrderViews views;

    OrderController(Plans plans, Workbench workbench, PlanPages pages, OrderViews views) {
        this.plans = plans;
        this.workbench = workbench;
        this.pages = pages;
        this.views = views;
    }

    @GetMapping("/plans/{id}/order")
    String show(@PathVariable String id, Model model) {
        return show(plans.get(id), model);
    }

    @PostMapping("/plans/{id}/order")
    String choose(@PathVariable String id, @RequestParam long seen, @RequestParam Rule rule, Model model) {
        String label = "print: " + rule.title();
        return show(plans.edit(id, seen, label, p -> p.with(p.ordering().by(rule))), model);
    }

    @PostMapping("/plans/{id}/order/aim")
    String aim(@PathVariable String id, @RequestParam long seen, @RequestParam Aim aim, Model model) {
        String label = "make " + aim.title() + " least";
        return show(plans.edit(id, seen, label, p -> p.with(p.ordering().to(aim))), model);
    }

    @PostMapping("/plans/{id}/order/numbering")
    String adopt(@PathVariable String id, @RequestParam long seen, Model model) {
        var best = workbench.openNow(plans.get(id)).orders().bestNumbering().spools();
        return show(
                plans.edit(
                        id,
                        seen,
                        "take the best numbering",
                        p -> p.with(p.ordering().numbered(best).by(Rule.NUMBERED))),
                model);
    }

    private String show(PlanState plan, Model model) {
        return pages.show(
                plan,
                "order",
                model,
                new PlanPages.More(
                        "Comparing orders of " + plan.name(),
                        work -> work.orders().knowsBands(),
                        (work, progress) -> work.orders().bands(progress)),
                work -> views.show(work, model));
    }
}
