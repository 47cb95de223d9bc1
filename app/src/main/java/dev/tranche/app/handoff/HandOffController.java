package dev.tranche.app.handoff;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.exchange.PlanFileWriter;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.Mends;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.SpoolId;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** Everything that leaves Tranche for one plan. */
@Controller
class HandOffController {
    private final Plans plans;
    private final Workbench workbench;
    private final ModelImport models;
    private final GcodeFiles gcode;
    private final SwapLists lists;
    private final ColourFiles colours;
    private final PlanFileWriter planFiles;
    private final PlanPages pages;
    private final ToolRows tools;
    private final Mends mends;

    HandOffController(
            Plans plans,
            Workbench workbench,
            ModelImport models,
            GcodeFiles gcode,
            SwapLists lists,
            ColourFiles colours,
            PlanFileWriter planFiles,
            PlanPages pages,
            ToolRows tools,
            Mends mends) {
        this.mends = mends;
        this.pages = pages;
        this.tools = tools;
        this.plans = plans;
        this.workbench = workbench;
        this.models = models;
        this.gcode = gcode;
        this.lists = lists;
        this.colours = colours;
        this.planFiles = planFiles;
    }

    @GetMapping("/plans/{id}/hand-off")
    String handOff(@PathVariable String id, Model model) {
        return pages.show(id, "hand-off", model, work -> {
            model.addAttribute("stops", gcode.stopsForHandOff(work));
            model.addAttribute("preview", gcode.preview(work));
            model.addAttribute("tools", tools.of(work));
            model.addAttribute("marks", SpoolMark.palette(work));
            return "handoff/hand-off";
        });
    }

    @PostMapping("/plans/{id}/hand-off/mend/{key}")
    String mend(@PathVariable String id, @PathVariable String key, @RequestParam long seen, Model model) {
        mends.mend(id, seen, key);
        return handOff(id, model);
    }

    /** Which spool a tool of the file stands for; 0 as Tranche reads it. */
    @PostMapping("/plans/{id}/gcode/tools/{tool}")
    String tool(
            @PathVariable String id,
            @PathVariable int tool,
            @RequestParam long seen,
            @RequestParam long spool,
            Model model) {
        plans.nameTool(id, seen, tool, spool == 0 ? Optional.empty() : Optional.of(new SpoolId(spool)));
        return handOff(id, model);
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
        Job job = models.isPlanFile(file)
                ? models.open(file)
                : models.isModel(file) ? models.begin(List.of(file)) : gcode.take(plans.get(id), file);
        return JobPages.show(job, model, response);
    }

    @PostMapping("/plans/{id}/gcode/remove")
    String takeAway(@PathVariable String id) {
        plans.takeGcodeAway(id);
        return "redirect:/plans/" + id + "/hand-off";
    }

    @PostMapping("/plans/{id}/gcode/with-swaps")
    void withSwaps(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        gcode.withSwaps(work).send(response, "text/plain");
        plans.wrote(id, work.stateNow());
    }

    @PostMapping("/plans/{id}/gcode/without-swaps")
    void withoutSwaps(@PathVariable String id, HttpServletResponse response) throws IOException {
        gcode.withoutSwaps(workbench.openNow(plans.get(id))).send(response, "text/plain");
    }

    @GetMapping("/plans/{id}/swap-list")
    String swapList(@PathVariable String id, Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("list", lists.of(work));
        return "handoff/swap-list";
    }

    @GetMapping("/plans/{id}/swap-list.csv")
    void swapListCsv(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        String csv = lists.csv(lists.of(work));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + "-swaps.csv", "text/csv");
        response.getOutputStream().write(csv.getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }

    @GetMapping("/plans/{id}/coloured.3mf")
    void threeMf(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + ".3mf", "model/3mf");
        colours.threeMf(work, response.getOutputStream());
    }

    /** The plan itself, for another Tranche. */
    @GetMapping("/plans/{id}/plan.tranche")
    void planFile(@PathVariable String id, HttpServletResponse response) throws IOException {
        PlanState plan = plans.get(id);
        Attachment.begin(response, FileNames.safe(plan.name()) + ".tranche", "application/zip");
        planFiles.write(plan, response.getOutputStream());
    }

    @GetMapping("/plans/{id}/colours.zip")
    void stls(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + "-colours.zip", "application/zip");
        colours.stls(work, response.getOutputStream());
    }
}
