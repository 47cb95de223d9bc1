package dev.tranche.app.desk;

import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.Workbench;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** Regions and parts at the desk. */
@Controller
@RequestMapping("/plans/{id}")
class RegionsController {
    /** s */
    private static final int PATIENCE = 30;

    private final Plans plans;
    private final Workbench workbench;
    private final RegionEdits edits;
    private final RegionViews views;
    private final DeskAnswers answers;
    private final Jobs jobs;

    RegionsController(
            Plans plans, Workbench workbench, RegionEdits edits, RegionViews views, DeskAnswers answers, Jobs jobs) {
        this.plans = plans;
        this.workbench = workbench;
        this.edits = edits;
        this.views = views;
        this.answers = answers;
        this.jobs = jobs;
    }

    private Taken taken(MultipartFile file) {
        return jobs.await("Reading the drawing", PATIENCE, progress -> Taken.from(file, progress));
    }

    @PostMapping("/regions/{kind:disc|box}")
    String add(
            @PathVariable String id,
            @PathVariable String kind,
            Shown shown,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return added(edits.addSimple(id, shown.edition(), kind, spool), shown, model, response);
    }

    @PostMapping("/regions/polygon")
    String polygon(
            @PathVariable String id,
            Shown shown,
            @RequestParam String corners,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return added(edits.addPolygon(id, shown.edition(), corners, spool), shown, model, response);
    }

    @PostMapping("/regions/svg")
    String svg(
            @PathVariable String id,
            Shown shown,
            @RequestParam MultipartFile file,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response)
            throws IOException {
        Taken taken = taken(file);
        model.addAttribute("said", taken.said());
        return added(edits.addDrawing(id, shown.edition(), taken.drawing(), spool), shown, model, response);
    }

    @PostMapping("/regions/inlay")
    String inlay(
            @PathVariable String id,
            Shown shown,
            @RequestParam Optional<Integer> part,
            @RequestParam MultipartFile file,
            @RequestParam Optional<Integer> layers,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response)
            throws IOException {
        Optional<Taken> taken = part.isPresent() ? Optional.empty() : Optional.of(taken(file));
        model.addAttribute("said", taken.map(Taken::said).orElse(null));
        PlanState plan = edits.inlay(id, shown.edition(), part, taken.map(Taken::drawing), layers, spool);
        return added(plan, shown.at(1), model, response);
    }

    /** The one that was added is the last, and the one to work on. */
    private String added(PlanState plan, Shown shown, Model model, HttpServletResponse response) {
        int last = plan.content().colours().regions().size() - 1;
        return answers.desk(plan, shown.on(last), model, response);
    }

    @PostMapping("/regions/{index:\\d+}")
    String change(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            RegionForm form,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.change(id, shown.edition(), index, form), shown, model, response);
    }

    @PostMapping("/regions/{index}/recolour")
    String recolour(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.recolour(id, shown.edition(), index, spool), shown, model, response);
    }

    @PostMapping("/regions/{index}/drag")
    String drag(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam double dx,
            @RequestParam double dy,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.drag(id, shown.edition(), index, dx, dy), shown, model, response);
    }

    @PostMapping("/regions/{index}/nudge")
    String nudge(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam double dx,
            @RequestParam double dy,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.nudge(id, shown.edition(), index, dx, dy), shown, model, response);
    }

    @PostMapping("/regions/{index}/mirror")
    String mirror(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.mirror(id, shown.edition(), index), shown, model, response);
    }

    @PostMapping("/regions/{index}/copy")
    String copy(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return added(edits.copy(id, shown.edition(), index), shown, model, response);
    }

    @PostMapping("/regions/{index}/remove")
    String remove(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.remove(id, shown.edition(), index), shown.on(null), model, response);
    }

    @PostMapping("/regions/{index}/move")
    String move(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam int to,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.reorder(id, shown.edition(), index, to), shown.on(to), model, response);
    }

    /** What lies where the layer plan was clicked, with what it can be coloured. */
    @GetMapping("/piece")
    String piece(@PathVariable String id, Shown shown, @RequestParam double x, @RequestParam double y, Model model) {
        views.piece(workbench.openNow(plans.get(id)), shown, x, y, model);
        return "desk/regions :: piece";
    }

    @PostMapping("/parts/colour")
    String colour(
            @PathVariable String id,
            Shown shown,
            @RequestParam(defaultValue = "") Set<Integer> parts,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return answers.desk(
                edits.colourParts(id, shown.edition(), new TreeSet<>(parts), spool), shown, model, response);
    }

    @PostMapping("/parts/{what:hide|show}")
    String hide(
            @PathVariable String id,
            @PathVariable String what,
            Shown shown,
            @RequestParam(defaultValue = "") Set<Integer> parts,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.hideParts(id, shown.edition(), parts, what.equals("hide")), shown, model, response);
    }

    @PostMapping("/parts/group")
    String group(
            @PathVariable String id,
            Shown shown,
            @RequestParam(defaultValue = "") Set<Integer> parts,
            @RequestParam String group,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.groupParts(id, shown.edition(), parts, group), shown, model, response);
    }

    @PostMapping("/parts/{part}/name")
    String name(
            @PathVariable String id,
            @PathVariable int part,
            Shown shown,
            @RequestParam String name,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.namePart(id, shown.edition(), part, name), shown, model, response);
    }
}
