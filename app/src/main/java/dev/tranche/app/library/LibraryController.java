package dev.tranche.app.library;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.plans.Tags;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;

/** All plans: looked for, begun, copied, renamed, tagged, put away and brought back. */
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
    String all(
            Search search,
            @RequestParam(defaultValue = "") List<String> deleted,
            @RequestHeader(name = "HX-Target", required = false) String target,
            Model model) {
        show(search, model);
        model.addAttribute("deleted", deleted);
        model.addAttribute("away", plans.deleted());
        return target == null ? "library/library" : "library/library :: " + (search.page() > 1 ? "page" : "shelf");
    }

    @GetMapping("/plans")
    String home() {
        return "redirect:/";
    }

    private void show(Search search, Model model) {
        model.addAttribute("found", cards.find(search));
        model.addAttribute("sorts", Search.Sort.values());
    }

    /** A card whose figures were not at hand. */
    @GetMapping("/plans/{id}/card")
    String card(@PathVariable String id, Model model) {
        model.addAttribute("card", cards.make(id));
        return "library/card :: card";
    }

    @GetMapping(value = "/plans/{id}/card.png", produces = MediaType.IMAGE_PNG_VALUE)
    @ResponseBody
    byte[] picture(@PathVariable String id, HttpServletResponse response) {
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, max-age=31536000, immutable");
        return cards.picture(id);
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
    String rename(@PathVariable String id, @RequestParam String name, Model model) {
        plans.rename(id, name);
        return card(id, model);
    }

    @PostMapping("/plans/{id}/tags")
    String tag(@PathVariable String id, @RequestParam String tags, Model model) {
        plans.tag(id, before -> Tags.parse(tags));
        return card(id, model);
    }

    /** What can be done with many plans at once. */
    enum Deed {
        TAG,
        UNTAG,
        COPY,
        DELETE
    }

    @PostMapping("/plans/many")
    String many(
            @RequestParam(defaultValue = "") List<String> plan,
            @RequestParam Deed deed,
            @RequestParam(defaultValue = "") String tags,
            Search search,
            Model model) {
        Tags given = Tags.parse(tags);
        plans.together(() -> plan.forEach(id -> {
            switch (deed) {
                case TAG -> plans.tag(id, before -> before.with(given));
                case UNTAG -> plans.tag(id, before -> before.without(given));
                case COPY -> plans.duplicate(id);
                case DELETE -> plans.delete(id);
            }
        }));
        show(search, model);
        model.addAttribute("deleted", deed == Deed.DELETE ? plan : List.of());
        return "library/library :: shelf";
    }

    @PostMapping("/plans/{id}/delete")
    String delete(@PathVariable String id) {
        plans.delete(id);
        return "redirect:/?deleted=" + id;
    }

    @PostMapping("/plans/{id}/restore")
    String restore(@PathVariable String id) {
        return restore(List.of(id));
    }

    @PostMapping("/plans/restore")
    String restore(@RequestParam List<String> plan) {
        plans.together(() -> plan.forEach(plans::restore));
        return "redirect:/";
    }
}
