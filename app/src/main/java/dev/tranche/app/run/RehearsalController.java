package dev.tranche.app.run;

import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Deed;
import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** A plan's print, rehearsed on the simulated printer. */
@Controller
@RequestMapping("/plans/{id}/rehearse")
class RehearsalController {
    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final Rehearsals rehearsals;
    private final RehearsalViews views;
    private final RehearsalEvents events;

    RehearsalController(
            Plans plans,
            Workbench workbench,
            PlanPages pages,
            Rehearsals rehearsals,
            RehearsalViews views,
            RehearsalEvents events) {
        this.plans = plans;
        this.workbench = workbench;
        this.pages = pages;
        this.rehearsals = rehearsals;
        this.views = views;
        this.events = events;
    }

    @GetMapping
    String show(@PathVariable String id, Model model) {
        return pages.show(id, "rehearse", model, work -> views.page(work, rehearsals.of(id), model));
    }

    /**
     * What can be done now.
     *
     * @param was the state that the page that asks still shows
     */
    @GetMapping("/stage")
    String stage(@PathVariable String id, @RequestParam(defaultValue = RehearsalViews.NONE) String was, Model model) {
        Optional<Run> run = rehearsals.of(id);
        model.addAttribute("gone", run.isEmpty() && !RehearsalViews.NONE.equals(was));
        return views.stage(workbench.openNow(plans.get(id)), run, model);
    }

    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@PathVariable String id) {
        return events.watch(plans.get(id).id());
    }

    @GetMapping("/layers/{layer}")
    String layer(@PathVariable String id, @PathVariable int layer, Model model) {
        views.layer(workbench.openNow(plans.get(id)), run(id), layer, model);
        return "run/rehearse :: layer";
    }

    @PostMapping
    String start(@PathVariable String id, RehearsalForm form, Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        rehearsals.start(work, form.setup(Run.filaments(work)));
        return answer(id, model);
    }

    @PostMapping("/deed")
    String deed(
            @PathVariable String id,
            @RequestParam(required = false) Long spool,
            @RequestParam(defaultValue = "0") String late,
            @RequestParam(required = false) Boolean pushes,
            Model model) {
        run(id).does(new Deed(
                Optional.ofNullable(spool).map(SpoolId::new),
                Duration.ofMinutes(Numbers.whole("minutes late", late)),
                Boolean.TRUE.equals(pushes)));
        return answer(id, model);
    }

    @PostMapping("/pace")
    String pace(@PathVariable String id, @RequestParam String pace, Model model) {
        run(id).pace(Numbers.decimal("pace", pace));
        return answer(id, model);
    }

    @PostMapping("/{what:hold|go-on|step|stop}")
    String tell(@PathVariable String id, @PathVariable String what, Model model) {
        run(id).control(what);
        return answer(id, model);
    }

    private Run run(String id) {
        return rehearsals.of(id).orElseThrow(() -> new Refusal("There is no rehearsal of this plan; start one."));
    }

    private String answer(String id, Model model) {
        return views.stage(workbench.openNow(plans.get(id)), rehearsals.of(id), model);
    }
}
