package dev.tranche.app.handoff;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.plan.SpoolId;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** The sliced file of a plan: given, read, spoken of, and handed back with swaps. */
@Controller
class SlicedFileController {
    private final Plans plans;
    private final Workbench workbench;
    private final ModelImport models;
    private final GcodeFiles gcode;
    private final FileEdits edits;
    private final Changes changes;
    private final HandOffPage page;

    SlicedFileController(
            Plans plans,
            Workbench workbench,
            ModelImport models,
            GcodeFiles gcode,
            FileEdits edits,
            Changes changes,
            HandOffPage page) {
        this.plans = plans;
        this.workbench = workbench;
        this.models = models;
        this.gcode = gcode;
        this.edits = edits;
        this.changes = changes;
        this.page = page;
    }

    /** Which spool a tool of the file stands for; 0 as Tranche reads it. */
    @PostMapping("/plans/{id}/gcode/tools/{tool}")
    String tool(
            @PathVariable String id,
            @PathVariable int tool,
            @RequestParam long seen,
            @RequestParam long spool,
            Model model) {
        edits.tool(id, seen, tool, spool == 0 ? Optional.empty() : Optional.of(new SpoolId(spool)));
        return page.show(id, model);
    }

    /** What becomes of one stop of the file; without a choice it is still to be said. */
    @PostMapping("/plans/{id}/gcode/stops/{stop}")
    String stop(
            @PathVariable String id,
            @PathVariable int stop,
            @RequestParam long seen,
            @RequestParam Optional<StopTable.Choice> choice,
            Model model) {
        edits.stops(id, seen, OptionalInt.of(stop), choice);
        return page.show(id, model);
    }

    /** What becomes of all stops of the file that can be it. */
    @PostMapping("/plans/{id}/gcode/stops")
    String stops(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam Optional<StopTable.Choice> choice,
            Model model) {
        edits.stops(id, seen, OptionalInt.empty(), choice);
        return page.show(id, model);
    }

    @PostMapping("/plans/{id}/gcode/accept/{key}")
    String accept(
            @PathVariable String id,
            @PathVariable String key,
            @RequestParam long seen,
            @RequestParam boolean known,
            Model model) {
        edits.accept(id, seen, key, known);
        return page.show(id, model);
    }

    @PostMapping("/plans/{id}/gcode")
    String give(@PathVariable String id, @RequestParam MultipartFile file, Model model, HttpServletResponse response)
            throws IOException {
        return JobPages.show(gcode.take(plans.get(id), file), model, response);
    }

    /** A file dropped on the desk: a model begins a plan of its own, anything else is this plan's G-code. */
    @PostMapping("/plans/{id}/files")
    String drop(@PathVariable String id, @RequestParam MultipartFile file, Model model, HttpServletResponse response)
            throws IOException {
        if (models.isPlanFile(file)) {
            return JobPages.show(models.open(file), model, response);
        }
        return JobPages.show(
                models.isModel(file) ? models.begin(List.of(file)) : gcode.take(plans.get(id), file), model, response);
    }

    /** Colours the model as the file prints it, where that is nowhere said but in its lines. */
    @PostMapping("/plans/{id}/gcode/colours")
    String colours(@PathVariable String id, @RequestParam long seen, Model model, HttpServletResponse response) {
        return JobPages.show(edits.paint(id, seen), model, response);
    }

    /** What writing would change in it. */
    @GetMapping("/plans/{id}/gcode/changes")
    String changes(@PathVariable String id, Model model) throws IOException {
        model.addAttribute("changes", changes.of(workbench.openNow(plans.get(id))));
        return "handoff/file :: changes";
    }

    @PostMapping("/plans/{id}/gcode/remove")
    String takeAway(@PathVariable String id) {
        plans.takeGcodeAway(id);
        return "redirect:/plans/" + id + "/hand-off";
    }

    @PostMapping("/plans/{id}/gcode/with-swaps")
    void withSwaps(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        gcode.withSwaps(work).send(response, Attachment.GCODE);
        plans.wrote(id, work.stateNow());
    }

    @PostMapping("/plans/{id}/gcode/without-swaps")
    void withoutSwaps(@PathVariable String id, HttpServletResponse response) throws IOException {
        gcode.withoutSwaps(workbench.openNow(plans.get(id))).send(response, Attachment.GCODE);
    }
}
