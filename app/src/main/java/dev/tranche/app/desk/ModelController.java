package dev.tranche.app.desk;

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

/** How the model of a plan is placed and cut into layers. */
@Controller
class ModelController {
    private final Plans plans;
    private final Workbench workbench;
    private final DeskEdits edits;
    private final DeskAnswers answers;
    private final FoldViews folds;
    private final ModelImport models;

    ModelController(
            Plans plans,
            Workbench workbench,
            DeskEdits edits,
            DeskAnswers answers,
            FoldViews folds,
            ModelImport models) {
        this.plans = plans;
        this.workbench = workbench;
        this.edits = edits;
        this.answers = answers;
        this.folds = folds;
        this.models = models;
    }

    /** What is known of the model, and how it can be placed; asked for when its fold is opened. */
    @GetMapping("/plans/{id}/model")
    String model(@PathVariable String id, Model model) {
        folds.model(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: model";
    }

    @PostMapping("/plans/{id}/model/place")
    String place(@PathVariable String id, Shown shown, PlacementForm form, Model model, HttpServletResponse response) {
        return placed(id, () -> edits.place(id, shown.edition(), form), shown, model, response);
    }

    @PostMapping("/plans/{id}/model/lay")
    String lay(
            @PathVariable String id,
            Shown shown,
            @RequestParam double x,
            @RequestParam double y,
            @RequestParam double z,
            Model model,
            HttpServletResponse response) {
        return placed(id, () -> edits.lay(id, shown.edition(), x, y, z), shown, model, response);
    }

    @PostMapping("/plans/{id}/model/flip")
    String flip(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return placed(id, () -> edits.flip(id, shown.edition()), shown, model, response);
    }

    /** Layers that fit the colours. */
    @GetMapping("/plans/{id}/fit")
    String fit(@PathVariable String id, Model model) {
        folds.fit(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: fit";
    }

    @PostMapping("/plans/{id}/layers")
    String layers(
            @PathVariable String id,
            Shown shown,
            @RequestParam String first,
            @RequestParam String height,
            @RequestParam(defaultValue = "0") String raft,
            @RequestParam(defaultValue = "0") String shrink,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.layers(id, shown.edition(), first, height, raft, shrink), shown, model, response);
    }

    /** What cannot follow a model that was laid or stretched otherwise stays, and that is said. */
    private String placed(String id, Supplier<PlanState> edit, Shown shown, Model model, HttpServletResponse response) {
        PlanContent before = plans.get(id).content();
        PlanState plan = edit.get();
        model.addAttribute("said", plan.content().leftBehindSince(before).orElse(null));
        return answers.desk(plan, shown, model, response);
    }

    /** Another file into the same plan, aligned by its own origin. */
    @PostMapping("/plans/{id}/model/add")
    String add(
            @PathVariable String id,
            Shown shown,
            @RequestParam MultipartFile file,
            Model model,
            HttpServletResponse response)
            throws IOException {
        return JobPages.show(models.add(plans.get(id), shown.edition(), file), model, response);
    }
}
