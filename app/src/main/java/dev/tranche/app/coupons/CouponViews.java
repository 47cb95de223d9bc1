package dev.tranche.app.coupons;

import dev.tranche.app.coupons.Coupons.Made;
import dev.tranche.app.pictures.PlateDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.printers.RigViews;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.coupon.Coupon.Kind;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Volume;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the pages of coupons. */
@Component
class CouponViews {
    private final Coupons coupons;
    private final Workshop workshop;
    private final Shelf shelf;
    private final RigViews rigs;
    private final Figures figures;

    CouponViews(Coupons coupons, Workshop workshop, Shelf shelf, RigViews rigs, Figures figures) {
        this.coupons = coupons;
        this.workshop = workshop;
        this.shelf = shelf;
        this.rigs = rigs;
        this.figures = figures;
    }

    /** A coupon as a row. */
    record Row(String plan, String name, String kind, String seen) {}

    String all(long printer, Model model) {
        Workshop.Machine machine = workshop.get(printer);
        rigs.frame(machine, "coupons", model);
        model.addAttribute("kinds", Kind.values());
        model.addAttribute("spools", shelf.all());
        model.addAttribute(
                "rows",
                coupons.of(printer).stream()
                        .map(m -> new Row(m.plan(), m.name(), m.kind().title(), seen(m, machine)))
                        .toList());
        return "coupons/coupons";
    }

    private String seen(Made made, Workshop.Machine machine) {
        return made.measured().map(v -> inWords(made, v, machine)).orElse("");
    }

    private String inWords(Made made, double value, Workshop.Machine machine) {
        return switch (made.kind()) {
            case STACK -> Words.format("hides after %.2f mm", value);
            case GEARS -> Words.format("is %.1f mm", value);
            default -> "needs " + figures.length(machine.printer().filament().length(new Volume(value)));
        };
    }

    String one(Workpiece work, Model model) {
        Made made = coupons.of(work.plan())
                .orElseThrow(() -> new Refusal("This plan is no coupon; make one on the page of its printer."));
        model.addAttribute("made", made);
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("plate", PlateDrawing.of(work, 620, 560));
        model.addAttribute("look", look(made));
        model.addAttribute("machine", work.machine());
        model.addAttribute("seen", seen(made, work.machine()));
        model.addAttribute("takes", figures.time(work.ledger().totalSeconds()));
        if (made.scale().marks() > 0) {
            model.addAttribute("least", inWords(made, made.scale().at(1), work.machine()));
            model.addAttribute(
                    "most", inWords(made, made.scale().at(made.scale().marks()), work.machine()));
        }
        return "coupons/coupon";
    }

    /** What to look for. */
    private static List<String> look(Made made) {
        return switch (made.kind()) {
            case EARLY_SWAP -> List.of(
                    "It swaps after three layers, " + made.out().name() + " to "
                            + made.in().name() + ", and is done in minutes: stand by and see every step of the macro.",
                    "Look at the first line after the swap: no hole, no blob, no thread over the tile.",
                    "Bend it: the layer after the swap must hold.");
            case PURGE_LADDER -> List.of(
                    "Bar 1 lies next to the short bar of " + made.out().name() + " at the front; bar "
                            + made.scale().marks()
                            + " at the back has twice the purge behind it that Tranche reckons with.",
                    "At the swap push no more through than the printer or the list says, or the bars count wrong.",
                    "Hold it against the light you will see the print in, and find the first bar that is clean.");
            case GEARS -> List.of(
                    "Before it starts, pull the filament out, cut its end straight and push it in up to the gears, no further.",
                    "It pushes filament in and lays bars meanwhile, the first at the front; threads between bars do not count.",
                    "Find the bar on which plastic begins, and how many tenths of it are bare: 4.3 is the fourth bar, bare for three tenths.");
            case STACK -> List.of(
                    "Strip 1 lies at the front with one layer of " + made.in().name()
                            + "; each strip behind it has one more.",
                    "Half of each strip lies over the dark spool, half over the light one.",
                    "Find the first strip whose halves look alike.");
        };
    }
}
