package dev.tranche.app.handoff;

import dev.tranche.app.exchange.PlanFileWriter;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.Mends;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.handoff.Hooks;
import dev.tranche.core.macro.Duty;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Everything that leaves Tranche for one plan. */
@Controller
class HandOffController {
    /** Not the type of archives: a browser would unpack it, or write .zip behind its name. */
    private static final String PLAN_FILE = "application/vnd.tranche.plan+zip";

    private final Plans plans;
    private final Workbench workbench;
    private final SwapLists lists;
    private final ColourFiles colours;
    private final PlanFileWriter planFiles;
    private final HandOffPage page;
    private final Mends mends;

    HandOffController(
            Plans plans,
            Workbench workbench,
            SwapLists lists,
            ColourFiles colours,
            PlanFileWriter planFiles,
            HandOffPage page,
            Mends mends) {
        this.mends = mends;
        this.page = page;
        this.plans = plans;
        this.workbench = workbench;
        this.lists = lists;
        this.colours = colours;
        this.planFiles = planFiles;
    }

    @GetMapping("/plans/{id}/hand-off")
    String handOff(@PathVariable String id, Model model) {
        return page.show(id, model);
    }

    @PostMapping("/plans/{id}/hand-off/mend/{key}")
    String mend(@PathVariable String id, @PathVariable String key, @RequestParam long seen, Model model) {
        mends.mend(id, seen, key);
        return handOff(id, model);
    }

    @GetMapping("/plans/{id}/swap-list")
    String swapList(@PathVariable String id, Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("list", lists.of(work));
        model.addAttribute("never", Duty.NEVER);
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
    String threeMf(@PathVariable String id, HttpServletRequest request, Model model, HttpServletResponse response) {
        Job job = colours.threeMf(workbench.openNow(plans.get(id)));
        return JobPages.fetch(job, request, model, response);
    }

    /** The plan's stops as texts for the boxes of a slicing program. */
    @GetMapping("/plans/{id}/texts")
    String texts(@PathVariable String id, Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        model.addAttribute("hooks", Hooks.of(work.colours(), work.machine().rig(), work.ledger()));
        return "handoff/texts";
    }

    /** The plan itself, for another Tranche. */
    @GetMapping("/plans/{id}/plan.tranche")
    void planFile(@PathVariable String id, HttpServletResponse response) throws IOException {
        PlanState plan = plans.get(id);
        Attachment.begin(response, FileNames.safe(plan.name()) + ".tranche", PLAN_FILE);
        planFiles.write(plan, response.getOutputStream());
    }

    @GetMapping("/plans/{id}/colours.zip")
    String stls(@PathVariable String id, HttpServletRequest request, Model model, HttpServletResponse response) {
        Job job = colours.stls(workbench.openNow(plans.get(id)));
        return JobPages.fetch(job, request, model, response);
    }
}
