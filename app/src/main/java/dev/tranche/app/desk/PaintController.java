package dev.tranche.app.desk;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;

/** Blends and fades of a plan. */
@Controller
class PaintController {
    private final PaintEdits edits;
    private final DeskAnswers answers;

    PaintController(PaintEdits edits, DeskAnswers answers) {
        this.edits = edits;
        this.answers = answers;
    }

    @PostMapping("/plans/{id}/paints/blend")
    ModelAndView blend(Shown at, @RequestParam List<Long> of, @RequestParam List<String> share) {
        return answers.desk(edits.blend(at, of, share), at);
    }

    @PostMapping("/plans/{id}/paints/preset/{extruder}")
    ModelAndView preset(@PathVariable int extruder, Shown at) {
        return answers.desk(edits.preset(at, extruder), at);
    }

    @PostMapping("/plans/{id}/paints/fade")
    ModelAndView fade(
            Shown at,
            @RequestParam long from,
            @RequestParam long to,
            @RequestParam String begins,
            @RequestParam String ends,
            @RequestParam(defaultValue = "true") boolean byHeight) {
        return answers.desk(edits.fade(at, from, to, begins, ends, byHeight), at);
    }

    @PostMapping("/plans/{id}/paints/{paint}/remove")
    ModelAndView remove(@PathVariable long paint, Shown at) {
        return answers.desk(edits.remove(at, paint), at);
    }

    @PostMapping("/plans/{id}/paints/{paint}/begins")
    ModelAndView begins(@PathVariable long paint, Shown at, @RequestParam String height) {
        return answers.desk(edits.move(at, paint, true, height), at);
    }

    @PostMapping("/plans/{id}/paints/{paint}/ends")
    ModelAndView ends(@PathVariable long paint, Shown at, @RequestParam String height) {
        return answers.desk(edits.move(at, paint, false, height), at);
    }

    @PostMapping("/plans/{id}/paints/{paint}/blend")
    ModelAndView reblend(
            @PathVariable long paint, Shown at, @RequestParam List<Long> of, @RequestParam List<String> share) {
        return answers.desk(edits.reblend(at, paint, of, share), at);
    }
}
