package dev.tranche.app.desk;

import dev.tranche.app.web.Figures;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.format.Coat;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Face;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.geometry.Repair;
import dev.tranche.core.layer.Fit;
import dev.tranche.core.layer.Snap;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills what folds out at the top of the desk: the model with its placement, and layers that fit the colours. */
@Component
class FoldViews {
    private static final int MOST_FITS = 8;
    private static final int MOST_SIDES = 8;
    /** Inches taken for millimetres leave a model this small, mm; common practice. */
    private static final double TINY = 4;

    private static final double FAR = 1000;

    private final ModelCuts cuts;
    private final Figures figures;

    FoldViews(ModelCuts cuts, Figures figures) {
        this.cuts = cuts;
        this.figures = figures;
    }

    /** A side the model can be laid on. */
    record Side(double x, double y, double z, String name) {}

    /** A pair of layer heights with what it costs. */
    record FitRow(String first, String layer, int layers, String worst, String snaps, String time, boolean taken) {}

    void model(Workpiece work, Model model) {
        Placement placement = work.plan().content().placement();
        PartedModel file = cuts.modelAtHand(work.plan().content().files());
        Repair.Report report = file.report();
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        model.addAttribute("placement", placement);
        model.addAttribute("topology", report.found());
        model.addAttribute("repairs", repairs(report));
        model.addAttribute("worries", worries(work, file));
        model.addAttribute("coats", coats(file.coats().values()));
        model.addAttribute(
                "sides",
                Face.find(work.cut().model().body(), MOST_SIDES).stream()
                        .filter(f -> f.z() > -0.999)
                        .map(f -> new Side(f.x(), f.y(), f.z(), name(f)))
                        .toList());
    }

    /** The side in words, as the model lies now. */
    private static String name(Face f) {
        String where = f.z() > 0.999
                ? "top"
                : f.y() < -0.999
                        ? "front"
                        : f.y() > 0.999 ? "rear" : f.x() < -0.999 ? "left" : f.x() > 0.999 ? "right" : slanted(f);
        return Words.format("%s, %.0f mm²", where, f.area());
    }

    private static String slanted(Face f) {
        double tilt = Math.toDegrees(Math.acos(Math.max(-1, Math.min(1, f.z()))));
        double towards = Math.toDegrees(Math.atan2(f.y(), f.x()));
        return Words.format("slanted %.0f° from up, towards %.0f°", tilt, towards);
    }

    private List<String> worries(Workpiece work, PartedModel file) {
        Repair.Report report = file.report();
        List<String> worries = new ArrayList<>();
        Body mesh = work.cut().model().body();
        double largest = mesh.longest();
        if (largest < TINY) {
            worries.add(
                    Words.format("It is only %.2f mm long; if it was drawn in inches, scale it to 2540 %%.", largest));
        }
        Body asIs = file.body();
        if (asIs.longest() > Placement.BEYOND_ANY_BED) {
            worries.add(Words.format(
                    "Its file makes it %.2f m long, which no bed holds; it is planned at %s %% of that, and its scale changes it.",
                    asIs.longest() / 1000,
                    figures.percent(work.plan().content().placement().scaleX())));
        }
        double far = Math.hypot(asIs.footprint().centre().x, asIs.footprint().centre().y);
        if (far > FAR) {
            worries.add(Words.format(
                    "Its file puts it %.0f mm from the origin; it is planned in the middle of the bed.", far));
        }
        if (asIs.lifted() > 0.0005) {
            worries.add(Words.format("Its file puts it %.2f mm below the bed; it was set on the bed.", asIs.lifted()));
        }
        if (report.left() > 0) {
            worries.add(
                    Words.count(report.left(), "edge")
                            + " still have a triangle on one side only: holes too wide to close; sections close them by straight lines.");
        }
        if (!file.unseen().isEmpty()) {
            worries.add("Colours of it are missing: "
                    + file.unseen().stream().map(f -> "“" + f + "”").collect(Collectors.joining(", "))
                    + " did not come with it or cannot be read; give them together with the model.");
        }
        long colours = file.parts().stream()
                .flatMap(p -> p.colour().stream())
                .distinct()
                .count();
        if (colours > ColourPlan.MOST_SPOOLS) {
            worries.add(Words.format(
                    "Its parts have %d colours and a plan holds %d spools; those there is least of were taken for the nearest.",
                    colours, ColourPlan.MOST_SPOOLS));
        }
        if (report.found().crowdedEdges() > 0) {
            worries.add(Words.count(report.found().crowdedEdges(), "edge") + " have more than two triangles.");
        }
        return worries;
    }

    /** What files paint on their parts; nothing where they do not. */
    private static String coats(Collection<Coat> coats) {
        if (coats.isEmpty()) {
            return "";
        }
        int told = coats.stream().mapToInt(Coat::told).max().orElse(0);
        String parts = coats.size() == 1
                ? Words.format("A part is painted on the outside, in %,d colours", told)
                : Words.format("%d parts are painted on the outside, in up to %,d colours", coats.size(), told);
        return told <= Coat.MOST ? parts + "." : Words.format("%s; they are taken together to %d.", parts, Coat.MOST);
    }

    private static List<String> repairs(Repair.Report report) {
        List<String> done = new ArrayList<>();
        if (report.dropped() > 0) {
            done.add(Words.count(report.dropped(), "triangle") + " without area left out");
        }
        if (report.turned() > 0) {
            done.add(Words.count(report.turned(), "triangle") + " turned to face as their neighbours do");
        }
        if (report.insideOut()) {
            done.add("what was inside out turned");
        }
        if (report.closed() > 0) {
            done.add(Words.count(report.closed(), "hole") + " closed");
        }
        return done;
    }

    void fit(Workpiece work, Model model) {
        List<Height> borders = work.colours().starts().list().stream()
                .skip(1)
                .map(ColourStart::wished)
                .toList();
        Height high = work.grid().modelHeight();
        List<Fit> fits = Fit.candidates(borders, high, work.machine().printer().nozzle(), Fit.FULL_STEP, MOST_FITS);
        Fit now = Fit.of(work.grid(), borders);
        List<FitRow> rows = Stream.concat(fits.stream(), fits.contains(now) ? Stream.empty() : Stream.of(now))
                .map(f -> row(work, f))
                .toList();
        model.addAttribute("plan", work.plan());
        model.addAttribute("fits", rows);
        model.addAttribute("borders", borders.size());
        model.addAttribute(
                "dimensions",
                Fit.dimensions(work.grid(), borders).stream()
                        .map(FoldViews::dimension)
                        .toList());
        model.addAttribute("scale", scale(work, borders));
        model.addAttribute(
                "off",
                work.tranches().stream()
                        .filter(t -> t.index() > 0 && t.start().error() != 0)
                        .map(t -> snap(t.start()))
                        .toList());
    }

    private static String dimension(Fit.Dimension d) {
        return Words.format(
                "%s to %s: %.2f mm, needs %s (%+.2f)",
                d.from(),
                d.to(),
                (d.to().micrometres() - d.from().micrometres()) / 1000.0,
                d.needed(),
                d.change() / 1000.0);
    }

    /** Z in percent of the file's that would bring the borders nearest to layers; empty where it is so already. */
    private static Optional<Double> scale(Workpiece work, List<Height> borders) {
        double factor = Fit.scale(work.grid(), borders);
        Placement placement = work.plan().content().placement();
        boolean upright = placement.downX() == 0 && placement.downY() == 0;
        return factor == 1 || !upright ? Optional.empty() : Optional.of(placement.scaleZ() * factor * 100);
    }

    private FitRow row(Workpiece work, Fit fit) {
        int copies = work.ledger().terms().copies();
        double seconds = work.ledger().base().roughSecondsIn(work.grid(), fit.layerHeight(), fit.layers(), copies)
                + work.ledger().totalSeconds()
                - work.ledger().base().seconds();
        boolean taken = fit.layerHeight().equals(work.grid().layerHeight())
                && fit.firstLayer().equals(work.grid().firstLayer());
        return new FitRow(
                fit.firstLayer().toString(),
                fit.layerHeight().toString(),
                fit.layers(),
                Words.format("%.2f mm", fit.worst() / 1000.0),
                String.join(", ", fit.snaps().stream().map(FoldViews::snap).toList()),
                figures.time(seconds),
                taken);
    }

    private static String snap(Snap snap) {
        return snap.error() == 0
                ? snap.wished() + " exactly"
                : Words.format("%s prints at %s (%+.2f)", snap.wished(), snap.actual(), snap.errorMillimetres());
    }
}
