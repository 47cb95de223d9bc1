package dev.tranche.app.piece;

import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.pictures.PieceDrawing;
import dev.tranche.app.pictures.PiecePainter;
import dev.tranche.app.work.Looking;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.look.Patch;
import dev.tranche.core.look.View;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of the piece. */
@Component
class PieceViews {
    private static final int WIDTH = 820;
    private static final int HEIGHT = 590;
    /** Less reads as nothing, mm², unless it is more than {@link #SHARE} of all that is seen. */
    private static final double SMALLEST = 0.5;

    private static final double SHARE = 0.001;

    private static final int MOST_NAMED = 14;

    private static final int SECONDS = 60;
    /** How much smaller it stands on the desk; twice that for fine screens. */
    private static final double SMALL = 0.25;

    private final Looking looking;
    private final Jobs jobs;

    PieceViews(Looking looking, Jobs jobs) {
        this.jobs = jobs;
        this.looking = looking;
    }

    String show(Workpiece work, Look look, Model model) {
        model.addAttribute("look", look);
        if (look.isTurned() && !work.looks().isQuick()) {
            // The body can be turned while nobody has looked through it.
            model.addAttribute("named", List.of());
            return "piece/piece";
        }
        View view = look.isTurned() ? View.ABOVE : look.view();
        Optional<List<Patch>> patches = looking.at(work, view);
        if (patches.isEmpty()) {
            model.addAttribute("job", looking.prepare(work, view));
            return "desk/waiting";
        }
        PieceDrawing drawing = drawing(work, look, patches.get());
        model.addAttribute("drawing", drawing);
        model.addAttribute("named", named(drawing, look));
        return "piece/piece";
    }

    byte[] painted(Workpiece work, Look look) {
        double size = look.small() ? SMALL : 1;
        return jobs.await(
                "A picture of " + work.plan().name(),
                SECONDS,
                p -> look.isTurned()
                        ? PiecePainter.standing(work, size, PiecePainter.BOOTH)
                        : PiecePainter.png(drawing(work, look, work.looks().from(look.view(), p)), 2));
    }

    PieceDrawing drawing(Workpiece work, Look look) {
        return drawing(work, look, looking.now(work, look.isTurned() ? View.ABOVE : look.view()));
    }

    private static PieceDrawing drawing(Workpiece work, Look look, List<Patch> patches) {
        View view = look.isTurned() ? View.ABOVE : look.view();
        return PieceDrawing.of(work, view, patches, look.own(), look.lamp(), WIDTH, HEIGHT);
    }

    /**
     * Where thin layers give another colour; held to light, and in the plan's own colours, whatever is seen. What nobody could
     * point at is left out.
     */
    private static List<PieceDrawing.Stain> named(PieceDrawing drawing, Look look) {
        double all = drawing.stains().stream()
                .mapToDouble(PieceDrawing.Stain::squareMillimetres)
                .sum();
        double least = Math.min(SMALLEST, SHARE * all);
        return drawing.stains().stream()
                .filter(s -> (look.own() || s.strange()) && s.squareMillimetres() >= least)
                .limit(MOST_NAMED)
                .toList();
    }
}
