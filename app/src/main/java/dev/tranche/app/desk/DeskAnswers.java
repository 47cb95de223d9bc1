package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.web.Elsewhere;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.ExtendedModelMap;
import org.springframework.web.servlet.ModelAndView;

/** What is sent back after an edit. */
@Component
class DeskAnswers {
    private final Workbench workbench;
    private final DeskViews views;

    DeskAnswers(Workbench workbench, DeskViews views) {
        this.workbench = workbench;
        this.views = views;
    }

    /** The desk as it is now; where that takes long, the page is opened anew and shows its progress. */
    ModelAndView desk(PlanState plan, Shown at) {
        Optional<Workpiece> work = workbench.openInPlace(plan);
        if (work.isEmpty()) {
            return new ModelAndView(new Elsewhere("/plans/" + plan.id() + "?side=" + at.sideOr()));
        }
        ExtendedModelMap model = new ExtendedModelMap();
        views.show(work.get(), at, 1, model);
        return new ModelAndView("desk/work :: work", model);
    }
}
