package dev.tranche.app.clock;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.settings.Moments;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class ClockController {
    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final ClockViews views;
    private final Calendars calendars;
    private final Moments moments;
    private final Underway underway;

    ClockController(
            Plans plans,
            Workbench workbench,
            PlanPages pages,
            ClockViews views,
            Calendars calendars,
            Moments moments,
            Underway underway) {
        this.plans = plans;
        this.workbench = workbench;
        this.pages = pages;
        this.views = views;
        this.calendars = calendars;
        this.moments = moments;
        this.underway = underway;
    }

    @GetMapping("/plans/{id}/clock")
    String show(@PathVariable String id, Model model) {
        return show(plans.get(id), model);
    }

    @PostMapping("/plans/{id}/clock")
    String start(@PathVariable String id, @RequestParam long seen, @RequestParam String start, Model model) {
        Optional<LocalDateTime> at = moments.read(start);
        String label = at.isPresent() ? "start on " + at.get().toLocalDate() : "start at no set time";
        return show(plans.editAll(id, seen, label, c -> c.startingAt(at)), model);
    }

    @GetMapping("/plans/{id}/swaps.ics")
    void calendar(@PathVariable String id, HttpServletResponse response) throws IOException {
        Workpiece work = workbench.openNow(plans.get(id));
        String calendar = underway.calendar(id).orElseGet(() -> calendars.of(work, views.schedule(work)));
        Attachment.begin(response, FileNames.safe(work.plan().name()) + "-swaps.ics", "text/calendar");
        response.getOutputStream().write(calendar.getBytes(StandardCharsets.UTF_8));
    }

    private String show(PlanState plan, Model model) {
        return pages.show(plan, "clock", model, work -> views.show(work, model));
    }
}
