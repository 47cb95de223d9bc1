package dev.tranche.app.plate;

import dev.tranche.app.pictures.PlateDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.pictures.WaysBack;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.Mends;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Concern;
import dev.tranche.core.speech.Severity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The bed from above. */
@Controller
class PlateController {
    private static final int WIDTH = 720;
    private static final int HEIGHT = 560;

    private final Plans plans;
    private final PlanPages pages;
    private final PlateEdits edits;
    private final Mends mends;

    PlateController(Plans plans, PlanPages pages, PlateEdits edits, Mends mends) {
        this.plans = plans;
        this.pages = pages;
        this.edits = edits;
        this.mends = mends;
    }

    @GetMapping("/plans/{id}/plate")
    String show(@PathVariable String id, Model model) {
        return show(plans.get(id), model);
    }

    /** So many copies, so far apart, arranged anew. */
    @PostMapping("/plans/{id}/plate")
    String arrange(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam String copies,
            @RequestParam String gap,
            Model model) {
        return show(edits.arrange(id, seen, copies, gap), model);
    }

    /** What is drawn round them on the first layer. */
    @PostMapping("/plans/{id}/plate/rims")
    String rims(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam String brim,
            @RequestParam String skirt,
            Model model) {
        return show(edits.rims(id, seen, brim, skirt), model);
    }

    /** One copy to a place. */
    @PostMapping("/plans/{id}/plate/{copy}")
    String place(
            @PathVariable String id,
            @PathVariable int copy,
            @RequestParam long seen,
            @RequestParam String x,
            @RequestParam String y,
            @RequestParam String turn,
            Model model) {
        return show(edits.place(id, seen, copy, x, y, turn), model);
    }

    /** One copy by so much. */
    @PostMapping("/plans/{id}/plate/{copy}/by")
    String move(
            @PathVariable String id,
            @PathVariable int copy,
            @RequestParam long seen,
            @RequestParam(defaultValue = "0") double dx,
            @RequestParam(defaultValue = "0") double dy,
            @RequestParam(defaultValue = "0") double dturn,
            Model model) {
        return show(edits.move(id, seen, copy, dx, dy, dturn), model);
    }

    /** The tower to a place. */
    @PostMapping("/plans/{id}/plate/tower")
    String placeTower(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam String x,
            @RequestParam String y,
            @RequestParam String turn,
            @RequestParam String width,
            Model model) {
        return show(edits.placeTower(id, seen, x, y, turn, width), model);
    }

    /** The tower by so much. */
    @PostMapping("/plans/{id}/plate/tower/by")
    String moveTower(
            @PathVariable String id,
            @RequestParam long seen,
            @RequestParam(defaultValue = "0") double dx,
            @RequestParam(defaultValue = "0") double dy,
            @RequestParam(defaultValue = "0") double dturn,
            Model model) {
        return show(edits.moveTower(id, seen, dx, dy, dturn), model);
    }

    /** The tower wherever it helps most. */
    @PostMapping("/plans/{id}/plate/tower/anywhere")
    String towerAnywhere(@PathVariable String id, @RequestParam long seen, Model model) {
        return show(edits.towerAnywhere(id, seen), model);
    }

    /** Parts side by side, so far apart. */
    @PostMapping("/plans/{id}/plate/parts")
    String layOut(@PathVariable String id, @RequestParam long seen, @RequestParam String apart, Model model) {
        return show(edits.layOut(id, seen, apart), model);
    }

    /** Parts as their files have them. */
    @PostMapping("/plans/{id}/plate/parts/together")
    String together(@PathVariable String id, @RequestParam long seen, Model model) {
        return show(edits.together(id, seen), model);
    }

    /** One part by so much from where its file has it. */
    @PostMapping("/plans/{id}/plate/parts/{part}")
    String movePart(
            @PathVariable String id,
            @PathVariable int part,
            @RequestParam long seen,
            @RequestParam String x,
            @RequestParam String y,
            @RequestParam String z,
            Model model) {
        return show(edits.movePart(id, seen, part, x, y, z), model);
    }

    /** What makes fewer ways back unclean. */
    @PostMapping("/plans/{id}/plate/cure")
    String cure(@PathVariable String id, @RequestParam long seen, @RequestParam String label, Model model) {
        return show(edits.cure(id, seen, label), model);
    }

    @PostMapping("/plans/{id}/plate/mend")
    String mend(@PathVariable String id, @RequestParam long seen, @RequestParam String key, Model model) {
        return show(mends.mend(id, seen, key), model);
    }

    /** So far apart parts are laid out. */
    private static double layGap(Workpiece work) {
        return Math.max(work.headRoom(), work.plan().content().plate().gap());
    }

    private String show(PlanState plan, Model model) {
        return pages.show(plan, "plate", model, work -> {
            model.addAttribute("drawing", PlateDrawing.of(work, WIDTH, HEIGHT));
            model.addAttribute("layout", work.layout());
            model.addAttribute("marks", SpoolMark.palette(work));
            model.addAttribute("plate", plan.content().plate());
            model.addAttribute("layGap", layGap(work));
            model.addAttribute("parts", PartPlace.of(work));
            model.addAttribute("partsMoved", !plan.content().parts().shifts().isEmpty());
            model.addAttribute("ways", WaysBack.of(work));
            model.addAttribute("tower", work.returns().tower().orElse(null));
            model.addAttribute(
                    "wrong",
                    work.findings().stream()
                            .filter(f -> f.concern() == Concern.PLATE && f.severity() != Severity.NOTE)
                            .toList());
            return "plate/plate";
        });
    }
}
