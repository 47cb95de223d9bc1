package dev.tranche.app.plate;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Where the parts of a model stand to each other. */
@Controller
@RequestMapping("/plans/{id}/plate/parts")
class PartsController {
    private final PlateAnswers answers;
    private final PlateEdits edits;

    PartsController(PlateAnswers answers, PlateEdits edits) {
        this.answers = answers;
        this.edits = edits;
    }

    /** Side by side, so far apart. */
    @PostMapping
    String layOut(@PathVariable String id, @RequestParam long seen, @RequestParam String apart, Model model) {
        return answers.show(edits.layOut(id, seen, apart), model);
    }

    /** As their files have them. */
    @PostMapping("/together")
    String together(@PathVariable String id, @RequestParam long seen, Model model) {
        return answers.show(edits.together(id, seen), model);
    }

    /** One by so much from where its file has it. */
    @PostMapping("/{part:\\d+}")
    String move(
            @PathVariable String id, @PathVariable int part, @RequestParam long seen, ShiftForm shift, Model model) {
        return answers.show(edits.movePart(id, seen, part, shift.shift()), model);
    }

    /** One by so much from where it stands. */
    @PostMapping("/{part:\\d+}/by")
    String moveBy(@PathVariable String id, @PathVariable int part, @RequestParam long seen, MoveForm by, Model model) {
        return answers.show(edits.movePart(id, seen, part, by), model);
    }
}
