package dev.tranche.app.printers;

import dev.tranche.app.drawing.LeverDrawing;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.web.Numbers;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** The list of printers, and the measures of one. */
@Controller
class PrintersController {
    private static final long LARGEST_FILE = 2L << 20;

    private final Workshop workshop;
    private final PrintedPlans plans;
    private final RigEdits edits;
    private final RigViews views;
    private final PrinterFiles files;

    PrintersController(Workshop workshop, PrintedPlans plans, RigEdits edits, RigViews views, PrinterFiles files) {
        this.files = files;
        this.workshop = workshop;
        this.plans = plans;
        this.edits = edits;
        this.views = views;
    }

    @GetMapping("/printers")
    String all() {
        List<Machine> machines = workshop.all();
        List<Long> broken = machines.isEmpty() ? workshop.broken() : List.of();
        if (!broken.isEmpty()) {
            return "redirect:/printers/" + broken.get(0);
        }
        return machines.isEmpty()
                ? "redirect:/printers/new"
                : "redirect:/printers/" + machines.get(0).id();
    }

    @GetMapping("/printers/new")
    String fresh(@RequestParam Optional<Long> removed, Model model) {
        model.addAttribute("machines", workshop.all());
        model.addAttribute("away", workshop.removed());
        model.addAttribute("removed", removed.orElse(null));
        model.addAttribute("beginnings", Beginning.values());
        return "printers/new";
    }

    @PostMapping("/printers")
    String add(@RequestParam Beginning kind, @RequestParam String name) {
        return "redirect:/printers/" + workshop.add(kind.rig(name)).id();
    }

    /** From a file of another Tranche. */
    @PostMapping("/printers/file")
    String take(@RequestParam MultipartFile file) throws IOException {
        if (file.getSize() > LARGEST_FILE) {
            throw new Refusal("The file is too large to be a printer's.");
        }
        return "redirect:/printers/" + workshop.add(files.read(file.getBytes())).id();
    }

    @GetMapping("/printers/{id}/printer.json")
    void file(@PathVariable long id, HttpServletResponse response) throws IOException {
        Machine machine = workshop.get(id);
        Attachment.begin(response, FileNames.safe(machine.printer().name()) + ".printer.json", "application/json");
        response.getOutputStream().write(files.write(machine.rig()).getBytes(StandardCharsets.UTF_8));
    }

    @GetMapping("/printers/{id}")
    String one(@PathVariable long id, Model model) {
        show(workshop.get(id), model);
        return "printers/printer";
    }

    @PostMapping("/printers/{id}")
    String change(Seen at, PrinterForm form, Model model) {
        show(edits.printer(at, form), model);
        model.addAttribute("saved", true);
        return "printers/printer :: rig";
    }

    /** How the carriage would press the switch that is being described. */
    @PostMapping("/printers/{id}/lever")
    String lever(@PathVariable long id, PrinterForm form, Model model) {
        Printer typed = form.on(workshop.get(id).rig()).printer();
        model.addAttribute("lever", LeverDrawing.of(typed, form.selector().lever(), 380));
        return "printers/printer :: lever";
    }

    /** The length that two marks on a filament measure. */
    @GetMapping("/printers/measure")
    String measure(@RequestParam String whole, @RequestParam String above, Model model) {
        double length =
                Numbers.decimal("length from mark to tip", whole) - Numbers.decimal("length above the gears", above);
        if (length <= 0) {
            throw new Refusal("What is above the gears cannot be longer than the whole; measure again.");
        }
        model.addAttribute("length", length);
        return "printers/printer :: measured";
    }

    @PostMapping("/printers/{id}/variant")
    String variant(@PathVariable long id, @RequestParam String name) {
        return "redirect:/printers/" + workshop.variant(id, name).id();
    }

    @PostMapping("/printers/{id}/remove")
    String remove(@PathVariable long id) {
        List<PrintedPlans.Named> users = plans.on(id);
        if (!users.isEmpty()) {
            throw new Refusal(
                    Words.some(users.stream().map(PrintedPlans.Named::name).toList())
                            + " would print on this; choose another printer there first.");
        }
        workshop.remove(id);
        return "redirect:/printers/new?removed=" + id;
    }

    @PostMapping("/printers/{id}/restore")
    String restore(@PathVariable long id) {
        workshop.restore(id);
        return "redirect:/printers/" + id;
    }

    /** The plans that keep a printer from being taken away. */
    @GetMapping("/printers/{id}/users")
    String users(@PathVariable long id, Model model) {
        model.addAttribute("users", plans.on(id));
        model.addAttribute("machine", workshop.get(id));
        return "printers/frame :: users";
    }

    /** For a printer whose page cannot be shown: takes its last change back. */
    @PostMapping("/printers/{id}/step-back")
    String stepBack(Seen at) {
        workshop.undo(at.id(), at.seen());
        return "redirect:/printers/" + at.id();
    }

    @PostMapping("/printers/{id}/undo")
    String undo(Seen at, HttpServletResponse response) {
        workshop.undo(at.id(), at.seen());
        return again(response);
    }

    @PostMapping("/printers/{id}/redo")
    String redo(Seen at, HttpServletResponse response) {
        workshop.redo(at.id(), at.seen());
        return again(response);
    }

    private static String again(HttpServletResponse response) {
        response.setHeader("HX-Refresh", "true");
        return "web/notice :: nothing";
    }

    private void show(Machine machine, Model model) {
        views.frame(machine, "machine", model);
        Printer printer = machine.printer();
        model.addAttribute("saved", false);
        model.addAttribute("round", printer.bed() instanceof Bed.Round);
        model.addAttribute("bed", printer.bed().bounds());
        model.addAttribute("tube", printer.drive() instanceof Drive.Tube);
        model.addAttribute("corners", Corner.values());
        model.addAttribute("axes", Axis.values());
        Selector selector = printer.selector()
                .orElse(new Selector(new Lever(Axis.X, printer.travel().maxX(), 3, false), 0.5, List.of(1, 2, 3, 4)));
        model.addAttribute("selector", selector);
        model.addAttribute(
                "presses", selector.presses().stream().map(String::valueOf).collect(Collectors.joining(", ")));
        model.addAttribute("lever", LeverDrawing.of(printer, selector.lever(), 380));
    }
}
