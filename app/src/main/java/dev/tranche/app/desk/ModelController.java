package dev.tranche.app.desk;

import dev.tranche.app.exchange.Coats;
import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.Workbench;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.ModelAndView;

/** How the model of a plan is placed and cut into layers. */
@Controller
class ModelController {
    private final Plans plans;
    private final Workbench workbench;
    private final DeskEdits edits;
    private final DeskAnswers answers;
    private final FoldViews folds;
    private final ModelImport models;
    private final Coats coats;

    ModelController(
            Plans plans,
            Workbench workbench,
            DeskEdits edits,
            DeskAnswers answers,
            FoldViews folds,
            ModelImport models,
            Coats coats) {
        this.plans = plans;
        this.workbench = workbench;
        this.edits = edits;
        this.answers = answers;
        this.folds = folds;
        this.models = models;
        this.coats = coats;
    }

    /** What is known of the model, and how it can be placed; asked for when its fold is opened. */
    @GetMapping("/plans/{id}/model")
    String model(@PathVariable String id, Model model) {
        folds.model(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: model";
    }

    @PostMapping("/plans/{id}/model/place")
    ModelAndView place(Shown at, PlacementForm form) {
        return placed(() -> edits.place(at, form), at);
    }

    @PostMapping("/plans/{id}/model/lay")
    ModelAndView lay(Shown at, @RequestParam double x, @RequestParam double y, @RequestParam double z) {
        return placed(() -> edits.lay(at, x, y, z), at);
    }

    @PostMapping("/plans/{id}/model/flip")
    ModelAndView flip(Shown at) {
        return placed(() -> edits.flip(at), at);
    }

    /** Layers that fit the colours. */
    @GetMapping("/plans/{id}/fit")
    String fit(@PathVariable String id, Model model) {
        folds.fit(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: fit";
    }

    @PostMapping("/plans/{id}/layers")
    ModelAndView layers(
            Shown at,
            @RequestParam String first,
            @RequestParam String height,
            @RequestParam(defaultValue = "0") String raft,
            @RequestParam(defaultValue = "0") String shrink) {
        return answers.desk(edits.layers(at, first, height, raft, shrink), at);
    }

    /** What cannot follow a model that was laid or stretched otherwise stays, and that is said. */
    private ModelAndView placed(Supplier<PlanState> edit, Shown at) {
        PlanContent before = plans.get(at.id()).content();
        PlanState plan = edit.get();
        return answers.desk(plan, at)
                .addObject("said", plan.content().leftBehindSince(before).orElse(null));
    }

    /** In the colours that its files paint its parts with. */
    @PostMapping("/plans/{id}/model/paint")
    String paint(Shown at, Model model, HttpServletResponse response) {
        return JobPages.show(coats.paint(plans.get(at.id()), at.edition()), model, response);
    }

    /** Another file into the same plan, aligned by its own origin. */
    @PostMapping("/plans/{id}/model/add")
    String add(Shown at, @RequestParam MultipartFile file, Model model, HttpServletResponse response)
            throws IOException {
        return JobPages.show(models.add(plans.get(at.id()), at.edition(), file), model, response);
    }
}
