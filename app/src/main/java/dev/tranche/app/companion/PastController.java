package dev.tranche.app.companion;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.macro.Event;
import dev.tranche.core.plan.SpoolId;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Prints that have been, beside what was planned, and what they teach. */
@Controller
@RequestMapping("/prints")
class PastController {
    private final Prints prints;
    private final Lessons lessons;
    private final PastViews views;

    PastController(Prints prints, Lessons lessons, PastViews views) {
        this.prints = prints;
        this.lessons = lessons;
        this.views = views;
    }

    @GetMapping
    String all(Model model) {
        return views.all(prints.all(), model);
    }

    @GetMapping("/{id}")
    String one(@PathVariable String id, Model model) {
        return views.one(prints.get(id), model);
    }

    /** Of a plan that is gone, nobody can say so beside it. */
    @PostMapping("/{id}/over")
    String over(@PathVariable String id, Model model) {
        prints.breakOff(id);
        return one(id, model);
    }

    @PostMapping("/{id}/person")
    String person(@PathVariable String id, @RequestParam Event event, Model model) {
        lessons.takePerson(prints.get(id), event);
        return one(id, model);
    }

    @PostMapping("/{id}/running")
    String running(@PathVariable String id, Model model) {
        lessons.takeRunning(prints.get(id));
        return one(id, model);
    }

    @PostMapping("/{id}/pair")
    String pair(@PathVariable String id, @RequestParam long out, @RequestParam long in, Model model) {
        lessons.takePair(prints.get(id), new SpoolId(out), new SpoolId(in));
        return one(id, model);
    }

    /** @param sent fields named by the spool's number */
    @PostMapping("/{id}/spools")
    String spools(@PathVariable String id, @RequestParam Map<String, String> sent, Model model) {
        Map<SpoolId, Double> grams = new LinkedHashMap<>();
        sent.forEach((name, value) -> {
            if (name.matches("\\d{1,18}")) {
                grams.put(new SpoolId(Long.parseLong(name)), Numbers.decimal("grams", value));
            }
        });
        lessons.takeOff(prints.get(id), grams);
        return one(id, model);
    }
}
