package dev.tranche.app.piece;

import dev.tranche.app.pictures.PieceDrawing;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.PlanPages;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.look.View;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.DigestUtils;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.context.request.WebRequest;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;

/** The finished piece to look at. */
@Controller
class PieceController {
    private final Plans plans;
    private final Workbench workbench;
    private final PlanPages pages;
    private final PieceViews views;
    private final Bodies bodies;
    private final ITemplateEngine templates;

    PieceController(
            Plans plans,
            Workbench workbench,
            PlanPages pages,
            PieceViews views,
            Bodies bodies,
            ITemplateEngine templates) {
        this.bodies = bodies;
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

    /** To be turned; see {@link Bodies}. Asked for again it is sent only if it has changed. */
    @GetMapping(value = "/plans/{id}/look/body", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseBody
    byte[] body(@PathVariable String id, Look look, WebRequest request, HttpServletResponse response) {
        byte[] body = bodies.of(workbench.openNow(plans.get(id)), look.own());
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-cache");
        return request.checkNotModified(DigestUtils.md5DigestAsHex(body)) ? null : body;
    }

    @GetMapping(value = "/plans/{id}/look/cut/{layer}", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseBody
    byte[] cut(@PathVariable String id, @PathVariable int layer) {
        Workpiece work = workbench.openNow(plans.get(id));
        return bodies.cut(work, Math.max(1, Math.min(work.grid().count(), layer)));
    }

    /** What somebody pointed at: at a place of the body, or without Z of what is seen from one side. */
    @GetMapping("/plans/{id}/look/at")
    String pointed(
            @PathVariable String id,
            Look look,
            @RequestParam double x,
            @RequestParam double y,
            @RequestParam Optional<Double> z,
            Model model) {
        Workpiece work = workbench.openNow(plans.get(id));
        model.addAttribute("plan", work.plan());
        model.addAttribute(
                "pointed",
                z.map(height -> Pointed.at(work, x, y, height))
                        .orElseGet(() -> Pointed.seen(work, x, y, look.view() != View.BELOW))
                        .orElse(null));
        return "piece/piece :: pointed";
    }

    @GetMapping(value = "/plans/{id}/look.svg", produces = "image/svg+xml")
    @ResponseBody
    String svg(@PathVariable String id, Look look) {
        Context context = new Context(Locale.ROOT, Map.of("drawing", drawing(id, look)));
        return templates.process("piece/picture", Set.of("svg"), context);
    }

    @GetMapping(value = "/plans/{id}/look.png", produces = MediaType.IMAGE_PNG_VALUE)
    @ResponseBody
    byte[] png(@PathVariable String id, Look look) {
        return views.painted(workbench.openNow(plans.get(id)), look);
    }

    private PieceDrawing drawing(String id, Look look) {
        return views.drawing(workbench.openNow(plans.get(id)), look);
    }
}
