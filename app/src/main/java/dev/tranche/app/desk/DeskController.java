package dev.tranche.app.desk;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import java.util.OptionalInt;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The desk: section, layer plan, score, ledger and findings of one plan, and every edit made there. */
@Controller
class DeskController {
    private final Plans plans;
    private final Workbench workbench;
    private final DeskEdits edits;
    private final DeskViews views;
    private final FoldViews folds;

    DeskController(Plans plans, Workbench workbench, DeskEdits edits, DeskViews views, FoldViews folds) {
        this.plans = plans;
        this.workbench = workbench;
        this.edits = edits;
        this.views = views;
        this.folds = folds;
    }

    @GetMapping("/plans/{id}")
    String desk(
            @PathVariable String id,
            @RequestParam Optional<Integer> layer,
            @RequestParam Optional<Integer> beside,
            Model model) {
        PlanState plan = plans.get(id);
        Optional<Workpiece> work = workbench.open(plan);
        if (work.isEmpty()) {
            Job job = workbench.prepare(
                    plan, "/plans/" + id + layer.map(l -> "?layer=" + l).orElse(""));
            model.addAttribute("plan", plan);
            model.addAttribute("job", job);
            return "desk/waiting";
        }
        views.show(work.get(), at(layer), at(beside), 1, model);
        return "desk/desk";
    }

    /** Everything again, for a page that fell behind. */
    @GetMapping("/plans/{id}/work")
    String work(
            @PathVariable String id,
            @RequestParam Optional<Integer> layer,
            @RequestParam Optional<Integer> beside,
            Model model,
            HttpServletResponse response) {
        return answer(plans.get(id), layer, beside, model, response);
    }

    /** The cursor moved: the layer plan, and the cursors of the other drawings. */
    @GetMapping("/plans/{id}/cursor")
    String cursor(
            @PathVariable String id,
            @RequestParam int at,
            @RequestParam Optional<Integer> beside,
            @RequestParam(defaultValue = "1") int zoom,
            Model model) {
        views.show(workbench.openNow(plans.get(id)), OptionalInt.of(at), at(beside), zoom, model);
        return "desk/cursor :: moved";
    }

    @GetMapping("/plans/{id}/score")
    String score(
            @PathVariable String id,
            @RequestParam Optional<Integer> layer,
            @RequestParam(defaultValue = "1") int zoom,
            Model model) {
        views.show(workbench.openNow(plans.get(id)), at(layer), OptionalInt.empty(), zoom, model);
        return "desk/score :: score(moved=false)";
    }

    @PostMapping("/plans/{id}/starts")
    String start(
            @PathVariable String id,
            Shown shown,
            @RequestParam String height,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.start(id, shown.seen(), height, spool);
        return answer(plan, edits.layerOf(plan, height), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/move")
    String move(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam String height,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.move(id, shown.seen(), index, height);
        return answer(plan, edits.layerOf(plan, height), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/recolour")
    String recolour(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return answer(edits.recolour(id, shown.seen(), index, spool), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/merge")
    String merge(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answer(edits.merge(id, shown.seen(), index), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/halts")
    String halt(
            @PathVariable String id,
            Shown shown,
            @RequestParam String height,
            @RequestParam String note,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.halt(id, shown.seen(), height, note);
        return answer(plan, edits.layerOf(plan, height), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/halts/{index}/remove")
    String removeHalt(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answer(edits.removeHalt(id, shown.seen(), index), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/layers")
    String layers(
            @PathVariable String id,
            Shown shown,
            @RequestParam String first,
            @RequestParam String height,
            Model model,
            HttpServletResponse response) {
        return answer(edits.layers(id, shown.seen(), first, height), shown.cursor(), shown.kept(), model, response);
    }

    /** What is known of the model, and how it can be placed; asked for when its fold is opened. */
    @GetMapping("/plans/{id}/model")
    String model(@PathVariable String id, Model model) {
        folds.model(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: model";
    }

    @PostMapping("/plans/{id}/model/place")
    String place(@PathVariable String id, Shown shown, PlacementForm form, Model model, HttpServletResponse response) {
        return answer(edits.place(id, shown.seen(), form), shown.cursor(), shown.kept(), model, response);
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
        return answer(edits.lay(id, shown.seen(), x, y, z), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/model/flip")
    String flip(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answer(edits.flip(id, shown.seen()), shown.cursor(), shown.kept(), model, response);
    }

    /** Layers that fit the colours. */
    @GetMapping("/plans/{id}/fit")
    String fit(@PathVariable String id, Model model) {
        folds.fit(workbench.openNow(plans.get(id)), model);
        return "desk/folds :: fit";
    }

    @PostMapping("/plans/{id}/starts/onto-grid")
    String ontoGrid(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answer(edits.ontoGrid(id, shown.seen()), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/printer")
    String printer(
            @PathVariable String id,
            Shown shown,
            @RequestParam long printer,
            Model model,
            HttpServletResponse response) {
        return answer(edits.printOn(id, shown.seen(), printer), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/purge")
    String purge(
            @PathVariable String id,
            Shown shown,
            @RequestParam String tolerance,
            @RequestParam String factor,
            Model model,
            HttpServletResponse response) {
        return answer(edits.purge(id, shown.seen(), tolerance, factor), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/findings/{key}/mend")
    String mend(
            @PathVariable String id, @PathVariable String key, Shown shown, Model model, HttpServletResponse response) {
        return answer(edits.mend(id, shown.seen(), key), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/undo")
    String undo(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answer(plans.undo(id, shown.seen()), shown.cursor(), shown.kept(), model, response);
    }

    @PostMapping("/plans/{id}/redo")
    String redo(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answer(plans.redo(id, shown.seen()), shown.cursor(), shown.kept(), model, response);
    }

    /** The whole desk after an edit; where that takes long, the page is opened anew and shows its progress. */
    private String answer(
            PlanState plan,
            Optional<Integer> layer,
            Optional<Integer> beside,
            Model model,
            HttpServletResponse response) {
        Optional<Workpiece> work = workbench.open(plan);
        if (work.isEmpty()) {
            response.setHeader("HX-Redirect", "/plans/" + plan.id());
            return "web/notice :: nothing";
        }
        views.show(work.get(), at(layer), at(beside), 1, model);
        return "desk/work :: work";
    }

    private static OptionalInt at(Optional<Integer> layer) {
        return layer.map(OptionalInt::of).orElse(OptionalInt.empty());
    }
}
