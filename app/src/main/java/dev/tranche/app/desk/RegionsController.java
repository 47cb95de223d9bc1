package dev.tranche.app.desk;

import dev.tranche.app.exchange.Lettering;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.Workbench;
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
import org.springframework.web.servlet.ModelAndView;

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
    private final Lettering lettering;

    RegionsController(
            Plans plans,
            Workbench workbench,
            RegionEdits edits,
            RegionViews views,
            DeskAnswers answers,
            Jobs jobs,
            Lettering lettering) {
        this.lettering = lettering;
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
    ModelAndView add(@PathVariable String kind, Shown at, @RequestParam long spool) {
        return added(edits.addSimple(at, kind, spool), at);
    }

    @PostMapping("/regions/polygon")
    ModelAndView polygon(Shown at, @RequestParam String corners, @RequestParam long spool) {
        return added(edits.addPolygon(at, corners, spool), at);
    }

    @PostMapping("/regions/text")
    ModelAndView text(
            Shown at,
            @RequestParam String text,
            @RequestParam String tall,
            @RequestParam(defaultValue = "false") boolean faceDown,
            @RequestParam long spool) {
        var drawing = lettering.of(text, Numbers.decimal("height of letters", tall));
        return added(edits.addText(at, drawing, faceDown, spool), at);
    }

    @PostMapping("/regions/svg")
    ModelAndView svg(Shown at, @RequestParam MultipartFile file, @RequestParam long spool) throws IOException {
        Taken taken = taken(file);
        return added(edits.addDrawing(at, taken.drawing(), spool), at).addObject("said", taken.said());
    }

    @PostMapping("/regions/inlay")
    ModelAndView inlay(
            Shown at,
            @RequestParam Optional<Integer> part,
            @RequestParam MultipartFile file,
            @RequestParam Optional<Integer> layers,
            @RequestParam long spool)
            throws IOException {
        Optional<Taken> taken = part.isPresent() ? Optional.empty() : Optional.of(taken(file));
        PlanState plan = edits.inlay(at, part, taken.map(Taken::drawing), layers, spool);
        return added(plan, at.at(1)).addObject("said", taken.map(Taken::said).orElse(null));
    }

    /** The one that was added is the last, and the one to work on. */
    private ModelAndView added(PlanState plan, Shown at) {
        int last = plan.content().colours().regions().size() - 1;
        return answers.desk(plan, at.on(last));
    }

    @PostMapping("/regions/{index:\\d+}")
    ModelAndView change(@PathVariable int index, Shown at, RegionForm form) {
        return answers.desk(edits.change(at, index, form), at);
    }

    @PostMapping("/regions/{index}/recolour")
    ModelAndView recolour(@PathVariable int index, Shown at, @RequestParam long spool) {
        return answers.desk(edits.recolour(at, index, spool), at);
    }

    @PostMapping("/regions/{index}/drag")
    ModelAndView drag(@PathVariable int index, Shown at, @RequestParam double dx, @RequestParam double dy) {
        return answers.desk(edits.drag(at, index, dx, dy), at);
    }

    @PostMapping("/regions/{index}/nudge")
    ModelAndView nudge(@PathVariable int index, Shown at, @RequestParam double dx, @RequestParam double dy) {
        return answers.desk(edits.nudge(at, index, dx, dy), at);
    }

    @PostMapping("/regions/{index}/mirror")
    ModelAndView mirror(@PathVariable int index, Shown at) {
        return answers.desk(edits.mirror(at, index), at);
    }

    @PostMapping("/regions/{index}/copy")
    ModelAndView copy(@PathVariable int index, Shown at) {
        return added(edits.copy(at, index), at);
    }

    @PostMapping("/regions/{index}/remove")
    ModelAndView remove(@PathVariable int index, Shown at) {
        return answers.desk(edits.remove(at, index), at.on(null));
    }

    @PostMapping("/regions/{index}/move")
    ModelAndView move(@PathVariable int index, Shown at, @RequestParam int to) {
        return answers.desk(edits.reorder(at, index, to), at.on(to));
    }

    /** What lies where the layer plan was clicked, with what it can be coloured. */
    @GetMapping("/piece")
    String piece(Shown at, @RequestParam double x, @RequestParam double y, Model model) {
        views.piece(workbench.openNow(plans.get(at.id())), at, x, y, model);
        return "desk/regions :: piece";
    }

    /** A spool that was put there. */
    @PostMapping("/piece")
    ModelAndView colourPiece(Shown at, @RequestParam double x, @RequestParam double y, @RequestParam long spool) {
        return answers.desk(edits.colourPiece(at, x, y, spool), at);
    }

    @PostMapping("/parts/colour")
    ModelAndView colour(Shown at, @RequestParam(defaultValue = "") Set<Integer> parts, @RequestParam long spool) {
        return answers.desk(edits.colourParts(at, new TreeSet<>(parts), spool), at);
    }

    @PostMapping("/parts/{what:hide|show}")
    ModelAndView hide(@PathVariable String what, Shown at, @RequestParam(defaultValue = "") Set<Integer> parts) {
        return answers.desk(edits.hideParts(at, parts, what.equals("hide")), at);
    }

    @PostMapping("/parts/group")
    ModelAndView group(Shown at, @RequestParam(defaultValue = "") Set<Integer> parts, @RequestParam String group) {
        return answers.desk(edits.groupParts(at, parts, group), at);
    }

    @PostMapping("/parts/{part}/name")
    ModelAndView name(@PathVariable int part, Shown at, @RequestParam String name) {
        return answers.desk(edits.namePart(at, part, name), at);
    }
}
