package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.Looking;
import dev.tranche.app.work.Mends;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;

/** The desk: section, layer plan, score, ledger and findings of one plan, and every edit made there. */
@Controller
class DeskController {
    private final Plans plans;
    private final Workbench workbench;
    private final Looking looking;
    private final DeskEdits edits;
    private final DeskViews views;
    private final DeskAnswers answers;
    private final LedgerCsv csv;
    private final Mends mends;

    DeskController(
            Plans plans,
            Workbench workbench,
            Looking looking,
            DeskEdits edits,
            DeskViews views,
            DeskAnswers answers,
            LedgerCsv csv,
            Mends mends) {
        this.mends = mends;
        this.plans = plans;
        this.workbench = workbench;
        this.looking = looking;
        this.edits = edits;
        this.views = views;
        this.answers = answers;
        this.csv = csv;
    }

    @GetMapping("/plans/{id}")
    String desk(Shown at, Model model) {
        PlanState plan = plans.get(at.id());
        Optional<Workpiece> work = workbench.open(plan);
        if (work.isEmpty()) {
            model.addAttribute("plan", plan);
            model.addAttribute("job", workbench.prepare(plan));
            return "desk/waiting";
        }
        looking.ahead(work.get());
        views.show(work.get(), at, 1, model);
        return "desk/desk";
    }

    /** Everything again, for a page that fell behind. */
    @GetMapping("/plans/{id}/work")
    ModelAndView work(Shown at) {
        return answers.desk(plans.get(at.id()), at);
    }

    /** The cursor moved: the layer plan, and the cursors of the other drawings. */
    @GetMapping("/plans/{id}/cursor")
    String cursor(Shown at, @RequestParam("at") int layer, @RequestParam(defaultValue = "1") int zoom, Model model) {
        views.moved(workbench.openNow(plans.get(at.id())), at.at(layer), zoom, model);
        return "desk/cursor :: moved";
    }

    /** Where a layer that stands still is too thin for a line. */
    @GetMapping("/plans/{id}/thin")
    String thin(Shown at, @RequestParam("at") int layer, Model model) {
        views.thin(workbench.openNow(plans.get(at.id())), layer, at.beside() != null, model);
        return "desk/cursor :: found";
    }

    @GetMapping("/plans/{id}/score")
    String score(Shown at, @RequestParam(defaultValue = "1") int zoom, Model model) {
        views.moved(workbench.openNow(plans.get(at.id())), at, zoom, model);
        return "desk/score :: score(moved=false)";
    }

    /** All of the findings, where the desk shows the worst. */
    @GetMapping("/plans/{id}/findings")
    String findings(@PathVariable String id, Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        return "desk/ledger :: findings(all=true)";
    }

    /** How a figure of the ledger came about. */
    @GetMapping("/plans/{id}/figures/{key}")
    String figure(@PathVariable String id, @PathVariable String key, Model model) {
        views.opened(workbench.openNow(plans.get(id)), key, model);
        return "desk/ledger :: opened";
    }

    @GetMapping("/plans/{id}/ledger.csv")
    void ledger(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + "-ledger.csv", "text/csv");
        response.getOutputStream().write(csv.of(work.ledger()).getBytes(StandardCharsets.UTF_8));
    }

    @PostMapping("/plans/{id}/starts")
    ModelAndView start(Shown at, @RequestParam String height, @RequestParam long spool) {
        PlanState plan = edits.start(at, height, spool);
        return answers.desk(plan, at.at(edits.layerOf(plan, height)));
    }

    /** A floor or a raised top in one action, by the layer whose top it is. */
    @PostMapping("/plans/{id}/flats/{layer}")
    ModelAndView colourFlat(@PathVariable("layer") int flat, Shown at, @RequestParam long spool) {
        return answers.desk(edits.colourFlat(at, workbench.openNow(plans.get(at.id())), flat, spool), at.at(flat));
    }

    @PostMapping("/plans/{id}/starts/{index}/move")
    ModelAndView move(@PathVariable int index, Shown at, @RequestParam String height) {
        PlanState plan = edits.move(at, index, height);
        return answers.desk(plan, at.at(edits.layerOf(plan, height)));
    }

    @PostMapping("/plans/{id}/starts/{index}/recolour")
    ModelAndView recolour(@PathVariable int index, Shown at, @RequestParam long spool) {
        return answers.desk(edits.recolour(at, index, spool), at);
    }

    /** A spool that was dropped on the section: the band of this layer is printed in it. */
    @PostMapping("/plans/{id}/bands/{layer}")
    ModelAndView recolourBand(@PathVariable("layer") int dropped, Shown at, @RequestParam long spool) {
        return answers.desk(edits.recolourAt(at, workbench.openNow(plans.get(at.id())), dropped, spool), at);
    }

    @PostMapping("/plans/{id}/starts/{index}/merge")
    ModelAndView merge(@PathVariable int index, Shown at) {
        return answers.desk(edits.merge(at, index), at);
    }

    @PostMapping("/plans/{id}/halts")
    ModelAndView halt(Shown at, @RequestParam String height, @RequestParam String note) {
        PlanState plan = edits.halt(at, height, note);
        return answers.desk(plan, at.at(edits.layerOf(plan, height)));
    }

    @PostMapping("/plans/{id}/halts/{index}/remove")
    ModelAndView removeHalt(@PathVariable int index, Shown at) {
        return answers.desk(edits.removeHalt(at, index), at);
    }

    @PostMapping("/plans/{id}/starts/onto-grid")
    ModelAndView ontoGrid(Shown at) {
        return answers.desk(edits.ontoGrid(at), at);
    }

    @PostMapping("/plans/{id}/printer")
    ModelAndView printer(Shown at, @RequestParam long printer) {
        return answers.desk(edits.printOn(at, printer), at);
    }

    @PostMapping("/plans/{id}/purge")
    ModelAndView purge(Shown at, @RequestParam String tolerance, @RequestParam String factor) {
        return answers.desk(edits.purge(at, tolerance, factor), at);
    }

    @PostMapping("/plans/{id}/name")
    ModelAndView name(Shown at, @RequestParam String name) {
        return answers.desk(plans.rename(at.id(), name), at);
    }

    @PostMapping("/plans/{id}/filling")
    ModelAndView filling(
            Shown at, @RequestParam String walls, @RequestParam String solid, @RequestParam String infill) {
        return answers.desk(edits.filling(at, walls, solid, infill), at);
    }

    @PostMapping("/plans/{id}/copies")
    ModelAndView copies(Shown at, @RequestParam String copies) {
        return answers.desk(edits.copies(at, copies), at);
    }

    @PostMapping("/plans/{id}/findings/{key}/mend")
    ModelAndView mend(@PathVariable String key, Shown at) {
        return answers.desk(mends.mend(at.id(), at.edition(), key), at);
    }

    /** Asks why. */
    @GetMapping("/plans/{id}/findings/{key}/aside")
    String why(@PathVariable String id, @PathVariable String key, Model model) {
        model.addAttribute("plan", plans.get(id));
        model.addAttribute("key", key);
        return "desk/ledger :: why";
    }

    @PostMapping("/plans/{id}/findings/{key}/aside")
    ModelAndView putAside(@PathVariable String key, Shown at, @RequestParam String reason) {
        return answers.desk(mends.putAside(at.id(), at.edition(), key, reason), at);
    }

    @PostMapping("/plans/{id}/findings/{key}/again")
    ModelAndView tellAgain(@PathVariable String key, Shown at) {
        return answers.desk(mends.tellAgain(at.id(), at.edition(), key), at);
    }

    @PostMapping("/plans/{id}/undo")
    ModelAndView undo(Shown at) {
        return answers.desk(plans.undo(at.id(), at.edition()), at);
    }

    @PostMapping("/plans/{id}/redo")
    ModelAndView redo(Shown at) {
        return answers.desk(plans.redo(at.id(), at.edition()), at);
    }
}
