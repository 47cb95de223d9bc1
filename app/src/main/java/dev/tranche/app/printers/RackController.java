package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.core.rig.RigChecks;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The rack of virtual extruders. */
@Controller
@RequestMapping("/printers/{id}/rack")
class RackController {
    private final Workshop workshop;
    private final RigEdits edits;
    private final RackViews views;

    RackController(Workshop workshop, RigEdits edits, RackViews views) {
        this.workshop = workshop;
        this.edits = edits;
        this.views = views;
    }

    @GetMapping
    String rack(@PathVariable long id, @RequestParam Optional<String> plan, Model model) {
        views.rack(workshop.get(id), plan, model);
        return "printers/rack";
    }

    @PostMapping
    String resize(Seen at, @RequestParam int count, Model model) {
        return answer(edits.rack(at, count + " virtual extruders", rack -> rack.resize(count)), model);
    }

    @PostMapping("/{number}")
    String change(Seen at, @PathVariable int number, ExtruderForm form, Model model) {
        return answer(edits.extruder(at, number, form), model);
    }

    /** Says which spool is in the nozzle now; none where it is empty, or nobody knows. */
    @PostMapping("/nozzle")
    String nozzle(@PathVariable long id, @RequestParam(required = false) Long spool, Model model) {
        views.nozzle(id, spool);
        return answer(workshop.get(id), model);
    }

    @PostMapping("/inputs/{input}")
    String feed(Seen at, @PathVariable int input, @RequestParam(required = false) Long spool, Model model) {
        return answer(edits.feed(at, input, spool), model);
    }

    @PostMapping("/mend/{key}")
    String mend(Seen at, @PathVariable String key, Model model) {
        return answer(edits.mend(at, RigChecks.between(workshop.get(at.id()).rig()), key), model);
    }

    private String answer(Machine machine, Model model) {
        views.rack(machine, Optional.empty(), model);
        return "printers/rack :: rig";
    }
}
