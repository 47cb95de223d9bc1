package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
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

/** The desk: section, layer plan, score, ledger and findings of one plan, and every edit made there. */
@Controller
class DeskController {
    private final Plans plans;
    private final Workbench workbench;
    private final DeskEdits edits;
    private final DeskViews views;
    private final DeskAnswers answers;
    private final LedgerCsv csv;

    DeskController(
            Plans plans, Workbench workbench, DeskEdits edits, DeskViews views, DeskAnswers answers, LedgerCsv csv) {
        this.plans = plans;
        this.workbench = workbench;
        this.edits = edits;
        this.views = views;
        this.answers = answers;
        this.csv = csv;
    }

    @GetMapping("/plans/{id}")
    String desk(@PathVariable String id, Shown shown, Model model) {
        PlanState plan = plans.get(id);
        Optional<Workpiece> work = workbench.open(plan);
        if (work.isEmpty()) {
            model.addAttribute("plan", plan);
            model.addAttribute("job", workbench.prepare(plan));
            return "desk/waiting";
        }
        views.show(work.get(), shown, 1, model);
        return "desk/desk";
    }

    /** Everything again, for a page that fell behind. */
    @GetMapping("/plans/{id}/work")
    String work(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(plans.get(id), shown, model, response);
    }

    /** The cursor moved: the layer plan, and the cursors of the other drawings. */
    @GetMapping("/plans/{id}/cursor")
    String cursor(
            @PathVariable String id,
            Shown shown,
            @RequestParam int at,
            @RequestParam(defaultValue = "1") int zoom,
            Model model) {
        views.moved(workbench.openNow(plans.get(id)), shown.at(at), zoom, model);
        return "desk/cursor :: moved";
    }

    @GetMapping("/plans/{id}/score")
    String score(@PathVariable String id, Shown shown, @RequestParam(defaultValue = "1") int zoom, Model model) {
        views.moved(workbench.openNow(plans.get(id)), shown, zoom, model);
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
        model.addAttribute("derivation", views.figure(workbench.openNow(plans.get(id)), key));
        return "desk/ledger :: opened";
    }

    @GetMapping("/plans/{id}/ledger.csv")
    void ledger(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + "-ledger.csv", "text/csv");
        response.getOutputStream().write(csv.of(work.ledger()).getBytes(StandardCharsets.UTF_8));
    }

    @PostMapping("/plans/{id}/starts")
    String start(
            @PathVariable String id,
            Shown shown,
            @RequestParam String height,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.start(id, shown.edition(), height, spool);
        return answers.desk(plan, shown.at(edits.layerOf(plan, height)), model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/move")
    String move(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam String height,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.move(id, shown.edition(), index, height);
        return answers.desk(plan, shown.at(edits.layerOf(plan, height)), model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/recolour")
    String recolour(
            @PathVariable String id,
            @PathVariable int index,
            Shown shown,
            @RequestParam long spool,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.recolour(id, shown.edition(), index, spool), shown, model, response);
    }

    @PostMapping("/plans/{id}/starts/{index}/merge")
    String merge(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.merge(id, shown.edition(), index), shown, model, response);
    }

    @PostMapping("/plans/{id}/halts")
    String halt(
            @PathVariable String id,
            Shown shown,
            @RequestParam String height,
            @RequestParam String note,
            Model model,
            HttpServletResponse response) {
        PlanState plan = edits.halt(id, shown.edition(), height, note);
        return answers.desk(plan, shown.at(edits.layerOf(plan, height)), model, response);
    }

    @PostMapping("/plans/{id}/halts/{index}/remove")
    String removeHalt(
            @PathVariable String id, @PathVariable int index, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.removeHalt(id, shown.edition(), index), shown, model, response);
    }

    @PostMapping("/plans/{id}/starts/onto-grid")
    String ontoGrid(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.ontoGrid(id, shown.edition()), shown, model, response);
    }

    @PostMapping("/plans/{id}/printer")
    String printer(
            @PathVariable String id,
            Shown shown,
            @RequestParam long printer,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.printOn(id, shown.edition(), printer), shown, model, response);
    }

    @PostMapping("/plans/{id}/purge")
    String purge(
            @PathVariable String id,
            Shown shown,
            @RequestParam String tolerance,
            @RequestParam String factor,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.purge(id, shown.edition(), tolerance, factor), shown, model, response);
    }

    @PostMapping("/plans/{id}/copies")
    String copies(
            @PathVariable String id,
            Shown shown,
            @RequestParam String copies,
            Model model,
            HttpServletResponse response) {
        return answers.desk(edits.copies(id, shown.edition(), copies), shown, model, response);
    }

    @PostMapping("/plans/{id}/findings/{key}/mend")
    String mend(
            @PathVariable String id, @PathVariable String key, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(edits.mend(id, shown.edition(), key), shown, model, response);
    }

    @PostMapping("/plans/{id}/undo")
    String undo(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(plans.undo(id, shown.edition()), shown, model, response);
    }

    @PostMapping("/plans/{id}/redo")
    String redo(@PathVariable String id, Shown shown, Model model, HttpServletResponse response) {
        return answers.desk(plans.redo(id, shown.edition()), shown, model, response);
    }
}
