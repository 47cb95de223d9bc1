package dev.tranche.app.compare;

import dev.tranche.app.history.Past;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What was done to a plan: looked through, compared with now, and gone back to. */
@Controller
class HistoryController {
    private final Plans plans;
    private final PlanPages pages;
    private final Workbench workbench;
    private final CompareViews views;

    HistoryController(Plans plans, PlanPages pages, Workbench workbench, CompareViews views) {
        this.plans = plans;
        this.pages = pages;
        this.workbench = workbench;
        this.views = views;
    }

    @GetMapping("/plans/{id}/history")
    String show(@PathVariable String id, @RequestParam Optional<Integer> then, Model model) {
        PlanState plan = plans.get(id);
        List<Past> past = plans.past(id);
        model.addAttribute("past", past);
        model.addAttribute("head", plans.head(id));
        model.addAttribute(
                "then",
                then.flatMap(number ->
                                past.stream().filter(p -> p.number() == number).findFirst())
                        .orElse(null));
        return pages.show(plan, "history", model, now -> then.map(number -> compared(id, number, now, model))
                .orElse("compare/history"));
    }

    private String compared(String id, int number, Workpiece now, Model model) {
        PlanState before = plans.at(id, number);
        Optional<Workpiece> then = workbench.open(before);
        if (then.isEmpty()) {
            model.addAttribute("job", workbench.prepare(before));
            return "desk/waiting";
        }
        views.figures(List.of(now, then.get()), model);
        return "compare/history";
    }

    @PostMapping("/plans/{id}/history/{number}")
    String goTo(@PathVariable String id, @PathVariable int number, @RequestParam long seen) {
        plans.goTo(id, seen, number);
        return "redirect:/plans/" + id;
    }
}
