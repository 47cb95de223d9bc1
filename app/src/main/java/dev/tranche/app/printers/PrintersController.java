package dev.tranche.app.printers;

import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.units.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class PrintersController {
    private final Workshop workshop;
    private final Plans plans;

    PrintersController(Workshop workshop, Plans plans) {
        this.workshop = workshop;
        this.plans = plans;
    }

    @GetMapping("/printers")
    String all() {
        List<Machine> machines = workshop.all();
        return machines.isEmpty()
                ? "redirect:/printers/new"
                : "redirect:/printers/" + machines.get(0).id();
    }

    @GetMapping("/printers/{id}")
    String one(@PathVariable long id, @RequestParam Optional<String> saved, Model model) {
        Machine machine = workshop.get(id);
        show(machine, model);
        model.addAttribute("saved", saved.isPresent());
        return "printers/printer";
    }

    @GetMapping("/printers/new")
    String fresh(Model model) {
        Machine plain = Beginnings.plainPrinter();
        show(plain, model);
        model.addAttribute("saved", false);
        return "printers/printer";
    }

    @PostMapping("/printers/0")
    String add(PrinterForm form, HttpServletResponse response) {
        return saved(workshop.add(form.printer(), form.macro()).id(), response);
    }

    @PostMapping("/printers/{id}")
    String change(@PathVariable long id, PrinterForm form, HttpServletResponse response) {
        workshop.change(id, form.printer(), form.macro());
        return saved(id, response);
    }

    private static String saved(long id, HttpServletResponse response) {
        response.setHeader("HX-Redirect", "/printers/" + id + "?saved");
        return "web/notice :: nothing";
    }

    /** The macro as it would be, before anything is saved. */
    @PostMapping("/printers/preview")
    String preview(PrinterForm form, Model model) {
        model.addAttribute("preview", MacroPreview.of(form.printer(), form.macro()));
        return "printers/printer :: preview";
    }

    @PostMapping("/printers/{id}/variant")
    String variant(@PathVariable long id) {
        Machine original = workshop.get(id);
        return "redirect:/printers/"
                + workshop.add(Beginnings.variantOf(original.printer()), original.macro())
                        .id();
    }

    @PostMapping("/printers/{id}/remove")
    String remove(@PathVariable long id) {
        List<String> users = plans.on(id);
        if (!users.isEmpty()) {
            throw new Refusal(String.join(", ", users) + " would print on this; choose another printer there first.");
        }
        workshop.remove(id);
        return "redirect:/printers";
    }

    private void show(Machine machine, Model model) {
        Printer printer = machine.printer();
        model.addAttribute("machines", workshop.all());
        model.addAttribute("machine", machine);
        model.addAttribute("printer", printer);
        model.addAttribute("round", printer.bed() instanceof Bed.Round);
        model.addAttribute("bed", printer.bed().bounds());
        model.addAttribute("tube", printer.drive() instanceof Drive.Tube);
        model.addAttribute("commands", Command.values());
        model.addAttribute("methods", SwapMethod.values());
        model.addAttribute(
                "lift",
                first(machine.macro(), Step.Lift.class).map(Step.Lift::height).orElse(5.0));
        model.addAttribute(
                "retract",
                first(machine.macro(), Step.Retract.class)
                        .map(Step.Retract::length)
                        .orElse(2.0));
        model.addAttribute(
                "purgeSpeed",
                first(machine.macro(), Step.Purge.class).map(Step.Purge::speed).orElse(4.0));
        model.addAttribute("preview", MacroPreview.of(printer, machine.macro()));
    }

    private static <S extends Step> Optional<S> first(SwapMacro macro, Class<S> kind) {
        return macro.steps().stream().filter(kind::isInstance).map(kind::cast).findFirst();
    }
}
