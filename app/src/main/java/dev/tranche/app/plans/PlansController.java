package dev.tranche.app.plans;

import dev.tranche.app.drawing.SectionDrawing;
import dev.tranche.app.drawing.SpoolMark;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
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
class PlansController {
    private final Plans plans;
    private final Workbench workbench;
    private final ModelImport models;

    PlansController(Plans plans, Workbench workbench, ModelImport models) {
        this.plans = plans;
        this.workbench = workbench;
        this.models = models;
    }

    /** A plan on its card; without a drawing while its model has not been cut. */
    record Card(
            PlanState plan,
            Optional<Workpiece> work,
            Optional<SectionDrawing> section,
            List<SpoolMark> marks,
            int variants) {}

    @GetMapping("/")
    String all(@RequestParam Optional<String> deleted, Model model) {
        model.addAttribute(
                "cards",
                plans.all().stream()
                        .filter(p -> p.variantOf().isEmpty())
                        .map(this::card)
                        .toList());
        model.addAttribute("deleted", deleted.orElse(null));
        model.addAttribute("away", plans.deleted());
        return "plans/plans";
    }

    private Card card(PlanState plan) {
        Optional<Workpiece> work = workbench.open(plan);
        return new Card(
                plan,
                work,
                work.map(w -> SectionDrawing.small(w, 260, 130)),
                work.map(SpoolMark::palette).orElse(List.of()),
                plans.variants(plan.id()).size());
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
