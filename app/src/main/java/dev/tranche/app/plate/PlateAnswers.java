package dev.tranche.app.plate;

import dev.tranche.app.pictures.PlateDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.pictures.WaysBack;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Concern;
import dev.tranche.core.speech.Severity;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Shows the bed from above, as it is after an edit. */
@Component
class PlateAnswers {
    private static final int WIDTH = 720;
    private static final int HEIGHT = 560;

    private final PlanPages pages;

    PlateAnswers(PlanPages pages) {
        this.pages = pages;
    }

    /** So far apart parts are laid out. */
    private static double layGap(Workpiece work) {
        return Math.max(work.headRoom(), work.plan().content().plate().room());
    }

    String show(PlanState plan, Model model) {
        return pages.show(plan, "plate", model, work -> {
            model.addAttribute("drawing", PlateDrawing.of(work, WIDTH, HEIGHT));
            model.addAttribute("layout", work.layout());
            model.addAttribute("marks", SpoolMark.palette(work));
            model.addAttribute("plate", plan.content().plate());
            model.addAttribute("layGap", layGap(work));
            model.addAttribute("parts", PartPlace.of(work));
            model.addAttribute("partsMoved", !plan.content().parts().shifts().isEmpty());
            List<WaysBack> ways = WaysBack.of(work);
            model.addAttribute("ways", WaysBack.shown(ways));
            model.addAttribute("otherWays", ways.size() - WaysBack.shown(ways).size());
            model.addAttribute("tower", work.returns().tower().orElse(null));
            model.addAttribute(
                    "wrong",
                    work.findings().stream()
                            .filter(f -> f.concern() == Concern.PLATE && f.severity() != Severity.NOTE)
                            .toList());
            return "plate/plate";
        });
    }
}
