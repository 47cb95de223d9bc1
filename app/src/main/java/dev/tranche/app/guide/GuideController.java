package dev.tranche.app.guide;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.shelf.SpoolUse;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** The pages of the guided start; from the first colour on it stands on the pages of the plan. */
@Controller
@RequestMapping("/begin")
class GuideController {
    private final Guide guide;
    private final Board board;
    private final Plans plans;
    private final Shelf shelf;
    private final SpoolUse uses;
    private final Workshop workshop;
    private final OwnModels models;
    private final ModelImport imports;

    GuideController(
            Guide guide,
            Board board,
            Plans plans,
            Shelf shelf,
            SpoolUse uses,
            Workshop workshop,
            OwnModels models,
            ModelImport imports) {
        this.imports = imports;
        this.guide = guide;
        this.board = board;
        this.plans = plans;
        this.shelf = shelf;
        this.uses = uses;
        this.workshop = workshop;
        this.models = models;
    }

    /** Where it was left. */
    @GetMapping
    String goOn() {
        Stage stage = guide.stage().orElse(Stage.PRINTER);
        if (stage.hasPage()) {
            return "redirect:/begin/" + stage.path();
        }
        return plans.latest().map(id -> "redirect:/plans/" + id).orElse("redirect:/begin/" + Stage.MODEL.path());
    }

    @GetMapping("/{stage}")
    String show(@PathVariable String stage, Model model) {
        return show(Stage.at(stage), model);
    }

    private String show(Stage stage, Model model) {
        if (!stage.hasPage()) {
            return "redirect:/begin";
        }
        model.addAttribute("stage", stage);
        model.addAttribute("next", Stage.values()[stage.ordinal() + 1]);
        model.addAttribute("stages", Stage.values());
        switch (stage) {
            case PRINTER -> {
                model.addAttribute("beginnings", Beginning.values());
                model.addAttribute(
                        "machines",
                        workshop.all().stream()
                                .filter(m -> !m.rig().equals(Guide.FIRST_PRINTER))
                                .toList());
            }
            case SPOOLS -> {
                model.addAttribute("spools", shelf.all());
                model.addAttribute("choices", Board.COMMON);
                model.addAttribute("materials", Material.values());
            }
            default -> model.addAttribute("models", models.models());
        }
        return "guide/" + stage.path();
    }

    /** Goes to a step, whether the one before is done or passed over. */
    @PostMapping("/{stage:printer|spools|model|colour|file}")
    String go(@PathVariable String stage) {
        guide.go(Stage.at(stage));
        return "redirect:/begin";
    }

    @PostMapping("/set-up")
    String setUp(@RequestParam Beginning kind, @RequestParam String name) {
        guide.printer(kind, name);
        guide.go(Stage.SPOOLS);
        return "redirect:/begin";
    }

    /** A spool by its colour; without a name it is called as the colour is. */
    @PostMapping("/shelve")
    String shelve(
            @RequestParam String colour,
            @RequestParam(defaultValue = "") String name,
            @RequestParam Material material,
            Model model) {
        board.shelve(colour, name, material);
        return show(Stage.SPOOLS, model);
    }

    @PostMapping("/unshelve/{id}")
    String unshelve(@PathVariable long id, Model model) {
        uses.requireUnused(new SpoolId(id));
        shelf.remove(new SpoolId(id));
        return show(Stage.SPOOLS, model);
    }

    /** A model of one's own; a plan file is none. */
    @PostMapping("/own")
    String own(@RequestParam("file") List<MultipartFile> files, Model model, HttpServletResponse response)
            throws IOException {
        Job job = imports.begin(files);
        guide.go(Stage.COLOUR);
        return JobPages.show(job, model, response);
    }

    /** A model that comes with Tranche. */
    @PostMapping("/ours/{key}")
    String ours(@PathVariable String key, Model model, HttpServletResponse response) {
        Job job = models.begin(key);
        guide.go(Stage.COLOUR);
        return JobPages.show(job, model, response);
    }

    /** Whoever knows the way is left alone; the settings begin it again. */
    @PostMapping("/leave")
    String leave() {
        guide.leave();
        return "web/notice :: nothing";
    }
}
