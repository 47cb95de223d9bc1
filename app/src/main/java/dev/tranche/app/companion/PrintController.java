package dev.tranche.app.companion;

import dev.tranche.app.companion.Prints.Word;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.core.companion.Entry;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The page beside the machine. */
@Controller
@RequestMapping("/plans/{id}/print")
class PrintController {
    private final Plans plans;
    private final PlanPages pages;
    private final Workbench workbench;
    private final Prints prints;
    private final PrintEvents events;
    private final PrintViews views;

    PrintController(
            Plans plans, PlanPages pages, Workbench workbench, Prints prints, PrintEvents events, PrintViews views) {
        this.plans = plans;
        this.pages = pages;
        this.workbench = workbench;
        this.prints = prints;
        this.events = events;
        this.views = views;
    }

    @GetMapping
    String show(@PathVariable String id, Model model) {
        PlanState plan = plans.get(id);
        model.addAttribute("plan", plan);
        Optional<Print> under = prints.under(id);
        return under.isPresent()
                ? views.page(plan, under.get(), model)
                : pages.show(
                        plan,
                        "print",
                        model,
                        work -> views.start(
                                work, prints.of(id), prints.on(work.machine().id()), model));
    }

    @GetMapping("/stage")
    String stage(@PathVariable String id, Model model) {
        Optional<Print> print = prints.under(id).or(() -> prints.of(id).stream().findFirst());
        return views.stage(plans.get(id), print, model);
    }

    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@PathVariable String id) {
        return events.watch(plans.get(id).id());
    }

    @GetMapping("/calendar.ics")
    void calendar(@PathVariable String id, HttpServletResponse response) throws IOException {
        Print print = print(id);
        Attachment.begin(response, "swaps.ics", "text/calendar");
        response.getOutputStream().write(views.calendar(print).getBytes(StandardCharsets.UTF_8));
    }

    @PostMapping
    String start(@PathVariable String id, @RequestParam(defaultValue = "") String at) {
        views.begin(workbench.openNow(plans.get(id)), at);
        return "redirect:/plans/" + id + "/print";
    }

    @PostMapping("/now")
    String now(@PathVariable String id) {
        prints.startNow(print(id).id());
        return "redirect:/plans/" + id + "/print";
    }

    @PostMapping("/off")
    String off(@PathVariable String id) {
        prints.forget(print(id).id());
        return "redirect:/plans/" + id + "/print";
    }

    /** One press: what happened, at which stop, and how long ago, where the connection was lost meanwhile. */
    @PostMapping("/told")
    String told(
            @PathVariable String id,
            @RequestParam String print,
            @RequestParam Entry.Kind kind,
            @RequestParam(defaultValue = "-1") int visit,
            @RequestParam(defaultValue = "0") String amount,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String token,
            @RequestParam(defaultValue = "0") long ago,
            Model model) {
        Word word = new Word(
                kind,
                visit,
                Numbers.decimal("amount", amount),
                text,
                token.isEmpty() ? UUID.randomUUID().toString() : token,
                Duration.ofMillis(ago));
        Print after = prints.tell(plans.get(id).id(), print, word);
        return views.stage(plans.get(id), Optional.of(after), model);
    }

    private Print print(String id) {
        return prints.under(id).orElseThrow(() -> new Refusal("No print of this plan is under way; start one."));
    }
}
