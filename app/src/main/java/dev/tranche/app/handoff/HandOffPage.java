package dev.tranche.app.handoff;

import dev.tranche.app.pictures.FileDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.work.PlanPages;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** The page of all that leaves Tranche for one plan. */
@Component
class HandOffPage {
    /** Of the file and the plan side by side, px. */
    private static final int WIDTH = 244;

    private static final int HEIGHT = 430;

    private final PlanPages pages;
    private final GcodeFiles gcode;
    private final ToolRows tools;
    private final StopRows stops;
    private final Rehearsed rehearsed;

    HandOffPage(PlanPages pages, GcodeFiles gcode, ToolRows tools, StopRows stops, Rehearsed rehearsed) {
        this.rehearsed = rehearsed;
        this.pages = pages;
        this.gcode = gcode;
        this.tools = tools;
        this.stops = stops;
    }

    String show(String id, Model model) {
        return pages.show(id, "hand-off", model, work -> {
            model.addAttribute("stops", work.obstacles());
            model.addAttribute("warnings", work.warningsOfTheFile());
            model.addAttribute("accepted", gcode.accepted(work));
            model.addAttribute("preview", gcode.preview(work));
            model.addAttribute("stopsThere", gcode.stopsThere(work));
            model.addAttribute("tools", tools.of(work));
            model.addAttribute("stopTable", stops.of(work));
            work.file().ifPresent(f -> model.addAttribute("sides", FileDrawing.of(work, WIDTH, HEIGHT)));
            model.addAttribute("marks", SpoolMark.palette(work));
            model.addAttribute("rehearsed", rehearsed.of(work.plan()).orElse(null));
            return "handoff/hand-off";
        });
    }
}
