package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.rig.Probe;
import dev.tranche.core.rig.RigChecks;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;

/** What a printer's firmware understands, and the file that tries it. */
@Controller
class AbilitiesController {
    private final Workshop workshop;
    private final RigEdits edits;
    private final RigViews views;

    AbilitiesController(Workshop workshop, RigEdits edits, RigViews views) {
        this.workshop = workshop;
        this.edits = edits;
        this.views = views;
    }

    /** A command as a row of the table. */
    record Row(Command command, List<String> parameters, String users, List<Probe.Trial> trials) {}

    @GetMapping("/printers/{id}/abilities")
    String all(@PathVariable long id, Model model) {
        show(workshop.get(id), model);
        return "printers/abilities";
    }

    @PostMapping("/printers/{id}/abilities")
    String change(Seen at, AbilitiesForm form, Model model) {
        show(edits.abilities(at, form), model);
        return "printers/abilities :: rig";
    }

    @PostMapping("/printers/{id}/abilities/mend/{key}")
    String mend(Seen at, @PathVariable String key, Model model) {
        show(edits.mend(at, RigChecks.findings(workshop.get(at.id()).rig()), key), model);
        return "printers/abilities :: rig";
    }

    @GetMapping("/printers/{id}/probe.gcode")
    void probe(@PathVariable long id, HttpServletResponse response) throws IOException {
        Machine machine = workshop.get(id);
        String name = FileNames.safe(machine.printer().name()) + "-probe.gcode";
        Attachment.gcode(response, name, String.join("\n", Probe.file(machine.printer())) + "\n");
    }

    private void show(Machine machine, Model model) {
        views.frame(machine, "abilities", model);
        views.mends(machine.rig(), model);
        Map<Command, List<String>> users = RigViews.users(machine.rig());
        Dialect dialect = machine.printer().abilities().dialect();
        model.addAttribute("countings", Dialect.Counting.values());
        model.addAttribute("stopLines", OwnLine.shown(dialect.stops()));
        model.addAttribute("toolLines", OwnLine.shown(dialect.tools()));
        List<Probe.Trial> trials = Probe.trials(machine.printer());
        model.addAttribute(
                "rows",
                Arrays.stream(Command.values())
                        .map(c -> new Row(
                                c,
                                c.parameters()
                                        .chars()
                                        .mapToObj(p -> String.valueOf((char) p))
                                        .toList(),
                                String.join(", ", users.getOrDefault(c, List.of())),
                                trials.stream().filter(t -> t.command() == c).toList()))
                        .toList());
    }
}
