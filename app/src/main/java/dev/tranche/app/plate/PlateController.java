package dev.tranche.app.plate;

import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.Mends;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The bed from above, and the copies on it. */
@Controller
@RequestMapping("/plans/{id}/plate")
class PlateController {
    private final Plans plans;
    private final PlateAnswers answers;
    private final PlateEdits edits;
    private final Mends mends;

    PlateController(Plans plans, PlateAnswers answers, PlateEdits edits, Mends mends) {
        this.plans = plans;
        this.answers = answers;
        this.edits = edits;
        this.mends = mends;
    }

    @GetMapping
    String show(@PathVariable String id, Model model) {
        return answers.show(plans.get(id), model);
    }

    /** So many copies, so far apart, arranged anew. */
    @PostMapping
    String arrange(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam String copies,
            @RequestParam String gap,
            Model model) {
        return answers.show(edits.arrange(id, seen, copies, gap), model);
    }

    /** What is drawn round them on the first layer. */
    @PostMapping("/rims")
    String rims(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam String brim,
            @RequestParam String skirt,
            Model model) {
        return answers.show(edits.rims(id, seen, brim, skirt), model);
    }

    /** One copy to a place. */
    @PostMapping("/{copy:\\d+}")
    String place(
            @PathVariable String id, @PathVariable int copy, @RequestParam long seen, PlaceForm place, Model model) {
        return answers.show(edits.place(id, seen, copy, place), model);
    }

    /** One copy by so much. */
    @PostMapping("/{copy:\\d+}/by")
    String move(@PathVariable String id, @PathVariable int copy, @RequestParam long seen, MoveForm by, Model model) {
        return answers.show(edits.move(id, seen, copy, by), model);
    }

    /** What makes fewer ways back unclean. */
    @PostMapping("/cure")
    String cure(@PathVariable String id, @RequestParam long seen, @RequestParam String label, Model model) {
        return answers.show(edits.cure(id, seen, label), model);
    }

    @PostMapping("/mend")
    String mend(@PathVariable String id, @RequestParam long seen, @RequestParam String key, Model model) {
        return answers.show(mends.mend(id, seen, key), model);
    }
}
