package dev.tranche.app.handoff;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** A print in several jobs, each a file of its own; the page's address holds where it is cut. */
@Controller
class CutJobsController {
    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final CutJobs jobs;
    private final ColourFiles colours;
    private final GcodeFiles gcode;

    CutJobsController(
            Plans plans, Workbench workbench, PlanPages pages, CutJobs jobs, ColourFiles colours, GcodeFiles gcode) {
        this.plans = plans;
        this.workbench = workbench;
        this.pages = pages;
        this.jobs = jobs;
        this.colours = colours;
        this.gcode = gcode;
    }

    @GetMapping("/plans/{id}/jobs")
    String show(@PathVariable String id, @RequestParam(defaultValue = "") String before, Model model) {
        return pages.show(id, "jobs", model, work -> {
            model.addAttribute("typed", before);
            model.addAttribute("suggestions", jobs.suggestions(work));
            model.addAttribute("marks", SpoolMark.palette(work));
            model.addAttribute("rows", List.of());
            model.addAttribute("refusal", "");
            fill(work, before, model);
            return "handoff/jobs";
        });
    }

    private void fill(Workpiece work, String before, Model model) {
        try {
            Set<Integer> layers = CutJobs.layers(before);
            if (!layers.isEmpty()) {
                model.addAttribute("rows", jobs.rows(work, layers));
                model.addAttribute("typed", CutJobs.typed(layers));
                model.addAttribute("stops", work.obstacles());
            }
        } catch (Refusal said) {
            model.addAttribute("refusal", said.getMessage());
        }
    }

    @GetMapping("/plans/{id}/jobs/{number}.gcode")
    void job(
            @PathVariable String id,
            @PathVariable int number,
            @RequestParam String before,
            HttpServletResponse response)
            throws IOException {
        jobs.job(workbench.openNow(plans.get(id)), CutJobs.layers(before), number)
                .send(response, Attachment.GCODE);
    }

    @GetMapping("/plans/{id}/jobs.zip")
    void all(@PathVariable String id, @RequestParam String before, HttpServletResponse response) throws IOException {
        jobs.all(workbench.openNow(plans.get(id)), CutJobs.layers(before)).send(response, "application/zip");
    }

    /** The coloured model of a run of layers, for a slicing program that slices jobs by themselves. */
    @GetMapping("/plans/{id}/layers/{first}-{last}.3mf")
    String model(
            @PathVariable String id,
            @PathVariable int first,
            @PathVariable int last,
            HttpServletRequest request,
            Model model,
            HttpServletResponse response) {
        Job job = colours.threeMf(workbench.openNow(plans.get(id)), first, last);
        return JobPages.fetch(job, request, model, response);
    }

    @PostMapping("/plans/{id}/jobs/join")
    String join(
            @PathVariable String id, @RequestParam List<MultipartFile> files, Model model, HttpServletResponse response)
            throws IOException {
        return JobPages.show(gcode.join(plans.get(id), files), model, response);
    }
}
