package dev.tranche.app.work;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Pages of one plan: each needs it opened, and waits with a progress bar where that takes longer than a click. */
@Component
public class PlanPages {
    private final Plans plans;
    private final Workbench workbench;

    PlanPages(Plans plans, Workbench workbench) {
        this.plans = plans;
        this.workbench = workbench;
    }

    /**
     * @param place of the page under the plan's own, such as {@code order}
     * @param view fills the model and names the template
     */
    public String show(String id, String place, Model model, Function<Workpiece, String> view) {
        return show(plans.get(id), place, model, view);
    }

    public String show(PlanState plan, String place, Model model, Function<Workpiece, String> view) {
        model.addAttribute("plan", plan);
        model.addAttribute("at", place);
        Optional<Workpiece> work = workbench.open(plan);
        if (work.isEmpty()) {
            model.addAttribute("job", workbench.prepare(plan));
            return "desk/waiting";
        }
        model.addAttribute("work", work.get());
        return view.apply(work.get());
    }

    /**
     * What a page needs beside the open plan.
     *
     * @param title as people read it
     * @param isDone whether it is at hand
     * @param work that makes it so; {@code Progress} hears how far it is
     */
    public record More(String title, Predicate<Workpiece> isDone, BiConsumer<Workpiece, Progress> work) {}

    /** As {@link #show(PlanState, String, Model, Function)}, for a page that needs more than the open plan. */
    public String show(PlanState plan, String place, Model model, More more, Function<Workpiece, String> view) {
        return show(plan, place, model, work -> {
            if (more.isDone().test(work)) {
                return view.apply(work);
            }
            Job job = workbench.more(
                    work, place, more.title(), progress -> more.work().accept(work, progress));
            if (!job.isOver()) {
                model.addAttribute("job", job);
                return "desk/waiting";
            }
            job.failure().ifPresent(sentence -> {
                throw new Refusal(sentence);
            });
            return view.apply(work);
        });
    }
}
