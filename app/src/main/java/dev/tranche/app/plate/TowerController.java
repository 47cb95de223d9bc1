package dev.tranche.app.plate;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The tower on the bed. */
@Controller
@RequestMapping("/plans/{id}/plate/tower")
class TowerController {
    private final PlateAnswers answers;
    private final PlateEdits edits;

    TowerController(PlateAnswers answers, PlateEdits edits) {
        this.answers = answers;
        this.edits = edits;
    }

    /** To a place. */
    @PostMapping
    String place(
            @PathVariable String id,
            @RequestParam long seen,
            PlaceForm place,
            @RequestParam String width,
            Model model) {
        return answers.show(edits.placeTower(id, seen, place, width), model);
    }

    /** By so much. */
    @PostMapping("/by")
    String move(@PathVariable String id, @RequestParam long seen, MoveForm by, Model model) {
        return answers.show(edits.moveTower(id, seen, by), model);
    }

    /** Wherever it helps most. */
    @PostMapping("/anywhere")
    String anywhere(@PathVariable String id, @RequestParam long seen, Model model) {
        return answers.show(edits.towerAnywhere(id, seen), model);
    }
}
