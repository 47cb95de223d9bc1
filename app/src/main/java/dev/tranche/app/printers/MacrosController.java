package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.web.Attachment;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.rig.RigChecks;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** All macros of a printer: which event fires which, and what is wrong between them. */
@Controller
class MacrosController {
    private final Workshop workshop;
    private final RigEdits edits;
    private final RigViews views;

    MacrosController(Workshop workshop, RigEdits edits, RigViews views) {
        this.workshop = workshop;
        this.edits = edits;
        this.views = views;
    }

    @GetMapping("/printers/{id}/macros")
    String all(@PathVariable long id, Model model) {
        views.macros(workshop.get(id), model);
        return "printers/macros";
    }

    @PostMapping("/printers/{id}/macros")
    String add(Seen at, @RequestParam Event event, @RequestParam(defaultValue = "false") boolean ready, Model model) {
        return answer(edits.addMacro(at, event, ready), model);
    }

    @PostMapping("/printers/{id}/macros/ready")
    String ready(Seen at, @RequestParam SwapMethod method, Model model) {
        return answer(edits.takeReady(at, method), model);
    }

    @PostMapping("/printers/{id}/macros/{macro}/turn")
    String turn(Seen at, @PathVariable int macro, @RequestParam boolean to, Model model) {
        return answer(edits.turn(at, macro, to), model);
    }

    @PostMapping("/printers/{id}/macros/{macro}/remove")
    String remove(Seen at, @PathVariable int macro, Model model) {
        return answer(edits.removeMacro(at, macro), model);
    }

    @PostMapping("/printers/{id}/macros/host")
    String host(
            Seen at,
            @RequestParam String x,
            @RequestParam String y,
            @RequestParam String e,
            @RequestParam String f,
            @RequestParam String mode,
            Model model) {
        return answer(edits.nameHost(at, new HostNames(x, y, e, f, mode)), model);
    }

    @PostMapping("/printers/{id}/macros/hooks")
    String hooks(Seen at, HooksForm form, Model model) {
        return answer(edits.nameHooks(at, form.names()), model);
    }

    @PostMapping("/printers/{id}/macros/mend/{key}")
    String mend(Seen at, @PathVariable String key, Model model) {
        return answer(edits.mend(at, RigChecks.findings(workshop.get(at.id()).rig()), key), model);
    }

    @GetMapping("/printers/{id}/host-pause.gcode")
    void pauseScript(@PathVariable long id, HttpServletResponse response) throws IOException {
        Attachment.gcode(
                response,
                "host-pause.gcode",
                HostTexts.of(workshop.get(id).rig()).pause());
    }

    @GetMapping("/printers/{id}/host-resume.gcode")
    void resumeScript(@PathVariable long id, HttpServletResponse response) throws IOException {
        Attachment.gcode(
                response,
                "host-resume.gcode",
                HostTexts.of(workshop.get(id).rig()).resume());
    }

    private String answer(Machine machine, Model model) {
        views.macros(machine, model);
        return "printers/macros :: rig";
    }
}
