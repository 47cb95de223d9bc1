package dev.tranche.app.library;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.plans.Plans;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

@Controller
class LibraryController {
    private final Plans plans;
    private final Cards cards;
    private final ModelImport models;

    LibraryController(Plans plans, Cards cards, ModelImport models) {
        this.plans = plans;
        this.cards = cards;
        this.models = models;
    }

    @GetMapping("/")
    String all(@RequestParam Optional<String> deleted, Model model) {
        model.addAttribute("cards", cards.all());
        model.addAttribute("deleted", deleted.orElse(null));
        model.addAttribute("away", plans.deleted());
        return "library/library";
    }

    /** A card whose figures were not at hand. */
    @GetMapping("/plans/{id}/card")
    String card(@PathVariable String id, Model model) {
        model.addAttribute("card", cards.make(id));
        return "library/card :: card";
    }

    /** For a plan whose page cannot be shown: takes its last change back. */
    @PostMapping("/plans/{id}/step-back")
    String stepBack(@PathVariable String id, @RequestParam long seen) {
        plans.undo(id, seen);
        return "redirect:/plans/" + id;
    }

    @PostMapping("/plans")
    String begin(@RequestParam("file") List<MultipartFile> files, Model model, HttpServletResponse response)
            throws IOException {
        boolean plan = files.size() == 1 && models.isPlanFile(files.get(0));
        return JobPages.show(plan ? models.open(files.get(0)) : models.begin(files), model, response);
    }

    @PostMapping("/plans/{id}/duplicate")
    String duplicate(@PathVariable String id) {
        return "redirect:/plans/" + plans.duplicate(id).id();
    }

    @PostMapping("/plans/{id}/rename")
    String rename(@PathVariable String id, @RequestParam String name) {
        plans.rename(id, name);
        return "redirect:/plans/" + id;
    }

    @PostMapping("/plans/{id}/delete")
    String delete(@PathVariable String id) {
        plans.delete(id);
        return "redirect:/?deleted=" + id;
    }

    @PostMapping("/plans/{id}/restore")
    String restore(@PathVariable String id) {
        plans.restore(id);
        return "redirect:/";
    }
}
