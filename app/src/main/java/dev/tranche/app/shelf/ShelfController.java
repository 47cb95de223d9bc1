package dev.tranche.app.shelf;

import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

@Controller
class ShelfController {
    private static final long LARGEST_TABLE = 4L << 20;

    private final Shelf shelf;
    private final SpoolUse uses;

    ShelfController(Shelf shelf, SpoolUse uses) {
        this.shelf = shelf;
        this.uses = uses;
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

    /** Spools from a table; one whose name is on the shelf already is left as it is. */
    @PostMapping("/shelf/table")
    String take(@RequestParam MultipartFile file, Model model) throws IOException {
        if (file.getSize() > LARGEST_TABLE) {
            throw Refusal.of("The table is larger than %d MB; give it in parts.", LARGEST_TABLE >> 20);
        }
        Shelf.Taken taken = shelf.take(ShelfCsv.read(file.getBytes()));
        model.addAttribute("taken", taken);
        fill(model);
        return "shelf/shelf :: spools";
    }

    /** A spool that is wanted elsewhere than here: an entry for the menus there. */
    @PostMapping("/shelf/quick")
    String quick(SpoolForm form, Model model) {
        model.addAttribute("added", shelf.add(form.spool(new SpoolId(0))));
        return "shelf/shelf :: entry";
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
        uses.requireUnused(new SpoolId(id));
        model.addAttribute("removed", shelf.remove(new SpoolId(id)));
        fill(model);
        return "shelf/shelf :: spools";
    }

    @PostMapping("/shelf/{id}/restore")
    String restore(@PathVariable long id, Model model) {
        shelf.restore(new SpoolId(id));
        fill(model);
        return "shelf/shelf :: spools";
    }

    private void fill(Model model) {
        model.addAttribute("spools", shelf.all());
        model.addAttribute("away", shelf.removed());
        model.addAttribute("materials", Material.values());
    }
}
