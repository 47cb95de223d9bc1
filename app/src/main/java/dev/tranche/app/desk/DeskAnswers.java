package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What is sent back after an edit. */
@Component
class DeskAnswers {
    private final Workbench workbench;
    private final DeskViews views;

    DeskAnswers(Workbench workbench, DeskViews views) {
        this.workbench = workbench;
        this.views = views;
    }

    /** The whole desk; where that takes long, the page is opened anew and shows its progress. */
    String desk(PlanState plan, Shown shown, Model model, HttpServletResponse response) {
        Optional<Workpiece> work = workbench.openInPlace(plan);
        if (work.isEmpty()) {
            response.setHeader("HX-Redirect", "/plans/" + plan.id() + "?side=" + shown.sideOr());
            return "web/notice :: nothing";
        }
        views.show(work.get(), shown, 1, model);
        return "desk/work :: work";
    }
}
