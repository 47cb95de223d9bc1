package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.web.Numbers;
import dev.tranche.core.plan.SpoolId;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Purges that were measured on a printer, and what they say about its dead volume. */
@Controller
class PurgesController {
    private final Workshop workshop;
    private final Shelf shelf;
    private final MeasuredPurges purges;

    PurgesController(Workshop workshop, Shelf shelf, MeasuredPurges purges) {
        this.workshop = workshop;
        this.shelf = shelf;
        this.purges = purges;
    }

    @GetMapping("/printers/{id}/purges")
    String all(@PathVariable long id, Model model) {
        return show(id, model);
    }

    @PostMapping("/printers/{id}/purges")
    String add(
            @PathVariable long id,
            @RequestParam long out,
            @RequestParam long in,
            @RequestParam String length,
            Model model) {
        purges.add(id, new SpoolId(out), new SpoolId(in), Numbers.decimal("length of filament", length));
        return show(id, model);
    }

    @PostMapping("/printers/{id}/purges/{out}/{in}/forget")
    String forget(@PathVariable long id, @PathVariable long out, @PathVariable long in, Model model) {
        workshop.forget(id, new SpoolId(out), new SpoolId(in));
        return show(id, model);
    }

    private String show(long id, Model model) {
        Machine machine = workshop.get(id);
        model.addAttribute("machine", machine);
        model.addAttribute("spools", shelf.all());
        model.addAttribute("rows", purges.rows(machine));
        model.addAttribute("fitted", purges.fitted(machine).orElse(null));
        return "printers/purges :: purges";
    }
}
