package dev.tranche.app.printers;

import dev.tranche.app.printers.RigViews.Place;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.rig.RigChecks;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The editor of one macro. Every edit is kept at once and answered with the editor, its G-code and its dry run. */
@Controller
@RequestMapping("/printers/{id}/macros/{macro}")
class MacroController {
    private final Workshop workshop;
    private final RigEdits edits;
    private final RigViews views;

    MacroController(Workshop workshop, RigEdits edits, RigViews views) {
        this.workshop = workshop;
        this.edits = edits;
        this.views = views;
    }

    @GetMapping
    String editor(@PathVariable long id, @PathVariable int macro, Place place, Model model) {
        views.macro(workshop.get(id), macro, place, model);
        return "printers/macro";
    }

    @PostMapping
    String describe(Seen at, @PathVariable int macro, MacroForm form, Place place, Model model) {
        return answer(edits.describe(at, macro, form), macro, place, model);
    }

    @PostMapping("/steps")
    String add(
            Seen at,
            @PathVariable int macro,
            @RequestParam String kind,
            @RequestParam("at") int index,
            Place place,
            Model model) {
        return answer(edits.addStep(at, macro, StepMenu.named(kind), index), macro, place, model);
    }

    @PostMapping("/steps/{index}")
    String change(
            Seen at,
            @PathVariable int macro,
            @PathVariable int index,
            @RequestParam Map<String, String> values,
            Place place,
            Model model) {
        return answer(edits.changeStep(at, macro, index, new StepForm(values)), macro, place, model);
    }

    @PostMapping("/steps/{index}/move")
    String move(
            Seen at, @PathVariable int macro, @PathVariable int index, @RequestParam int to, Place place, Model model) {
        return answer(edits.moveStep(at, macro, index, to), macro, place, model);
    }

    @PostMapping("/steps/{index}/remove")
    String remove(Seen at, @PathVariable int macro, @PathVariable int index, Place place, Model model) {
        return answer(edits.removeStep(at, macro, index), macro, place, model);
    }

    @PostMapping("/mend/{key}")
    String mend(Seen at, @PathVariable int macro, @PathVariable String key, Place place, Model model) {
        Rig rig = workshop.get(at.id()).rig();
        DryRun run = views.run(rig, macro, place);
        return answer(edits.mend(at, RigChecks.findings(rig, macro, run), key), macro, place, model);
    }

    private String answer(Machine machine, int macro, Place place, Model model) {
        views.macro(machine, macro, place, model);
        return "printers/macro :: rig";
    }
}
