package dev.tranche.app.piece;

import dev.tranche.app.pictures.PieceDrawing;
import dev.tranche.app.pictures.PiecePainter;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;

/** The finished piece to look at. */
@Controller
class PieceController {
    private static final MediaType SVG = MediaType.valueOf("image/svg+xml");

    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final PieceViews views;
    private final ITemplateEngine templates;

    PieceController(Plans plans, Workbench workbench, PlanPages pages, PieceViews views, ITemplateEngine templates) {
        this.plans = plans;
        this.workbench = workbench;
        this.pages = pages;
        this.views = views;
        this.templates = templates;
    }

    @GetMapping("/plans/{id}/look")
    String show(@PathVariable String id, Look look, Model model) {
        return pages.show(id, "look", model, work -> views.show(work, look, model));
    }

    @GetMapping("/plans/{id}/look.svg")
    ResponseEntity<String> svg(@PathVariable String id, Look look) {
        Context context = new Context(Locale.ROOT, Map.of("drawing", drawing(id, look)));
        return ResponseEntity.ok()
                .contentType(SVG)
                .cacheControl(CacheControl.noCache())
                .body(templates.process("piece/picture", Set.of("svg"), context));
    }

    @GetMapping("/plans/{id}/look.png")
    ResponseEntity<byte[]> png(@PathVariable String id, Look look) {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noCache())
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"piece.png\"")
                .body(PiecePainter.png(drawing(id, look), 2));
    }

    private PieceDrawing drawing(String id, Look look) {
        return views.drawing(workbench.openNow(plans.get(id)), look);
    }
}
