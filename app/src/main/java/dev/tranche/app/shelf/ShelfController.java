package dev.tranche.app.shelf;

import dev.tranche.app.plans.Plans;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Refusal;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;

@Controller
class ShelfController {
    private final Shelf shelf;
    private final Plans plans;

    ShelfController(Shelf shelf, Plans plans) {
        this.shelf = shelf;
        this.plans = plans;
    }

    @GetMapping("/shelf")
    String shelf(Model model) {
        fill(model);
        return "shelf/shelf";
    }

    @PostMapping("/shelf")
    String add(SpoolForm form, Model model) {
        shelf.add(form.spool(new SpoolId(0)));
        fill(model);
        return "shelf/shelf :: spools";
    }

    @PostMapping("/shelf/{id}")
    String change(@PathVariable long id, SpoolForm form, Model model) {
        Spool spool = form.spool(new SpoolId(id));
        shelf.change(spool);
        model.addAttribute("saved", spool);
        return "shelf/shelf :: saved";
    }

    @PostMapping("/shelf/{id}/remove")
    String remove(@PathVariable long id, Model model) {
        List<String> users = plans.using(new SpoolId(id));
        if (!users.isEmpty()) {
            throw new Refusal(
                    "This spool is part of " + String.join(", ", users) + "; give those colours another spool first.");
        }
        shelf.remove(new SpoolId(id));
        fill(model);
        return "shelf/shelf :: spools";
    }

    private void fill(Model model) {
        model.addAttribute("spools", shelf.all());
        model.addAttribute("materials", Material.values());
    }
}
