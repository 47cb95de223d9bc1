package dev.tranche.app.compare;

import dev.tranche.app.printers.Workshop;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.BasePrint.Source;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.speech.Severity;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page that compares. */
@Component
class CompareViews {
    private static final double NO_MORE = 1e-9;

    private final Workshop workshop;
    private final Figures figures;

    CompareViews(Workshop workshop, Figures figures) {
        this.workshop = workshop;
        this.figures = figures;
    }

    /**
     * One value.
     *
     * @param share of the largest in its row, 0…1; negative where it is no figure
     * @param best whether it is the least of its row, where not all are alike
     * @param other whether it differs from the plan's own
     */
    record Cell(String text, double share, boolean best, boolean other) {}

    record Row(String name, List<Cell> cells) {
        /** Where not all figures have one source, none is called the least. */
        private Row comparable(boolean alike) {
            return alike
                    ? this
                    : new Row(
                            name,
                            cells.stream()
                                    .map(c -> new Cell(c.text(), c.share(), false, c.other()))
                                    .toList());
        }
    }

    String show(List<Workpiece> all, Model model) {
        figures(all, model);
        model.addAttribute("machines", workshop.all());
        return "compare/compare";
    }

    /** How plans differ in what they are and what they cost, the first being what the others are held against. */
    void figures(List<Workpiece> all, Model model) {
        List<Row> ways = new ArrayList<>();
        ways.add(words("Layers", all, w -> w.grid().count() + " of " + w.grid().layerHeight() + " mm"));
        ways.add(words("Order", all, w -> w.colours().ordering().rule().title()));
        ways.add(words("Purge goes", all, w -> place(w.ledger().place())));
        ways.add(words("Copies", all, w -> "" + w.plan().content().copies()));
        ways.add(words("Printer", all, w -> w.machine().printer().name()));
        ways.add(words("Time and plastic", all, w -> source(w) == Source.SLICED ? "as sliced" : "estimated"));
        boolean alike = all.stream().map(CompareViews::source).distinct().count() == 1;
        List<Row> costs = new ArrayList<>();
        costs.add(figure("Swaps", all, Ledger::swapCount));
        costs.add(number("of them with you", all, Ledger::visits));
        costs.add(figure("Waste", all, Ledger::wasteGrams));
        costs.add(figure("Added by colours", all, Ledger::addedTime));
        costs.add(figure("Whole print", all, Ledger::totalTime).comparable(alike));
        costs.add(figure("Filament", all, Ledger::filamentGrams).comparable(alike));
        costs.add(figure("Cost", all, Ledger::cost).comparable(alike));
        if (all.stream().anyMatch(w -> w.ledger().terms().copies() > 1)) {
            costs.add(figure("Time, each", all, l -> l.each(l.totalTime())).comparable(alike));
            costs.add(figure("Waste, each", all, l -> l.each(l.wasteGrams())));
            costs.add(figure("Cost, each", all, l -> l.each(l.cost())).comparable(alike));
        }
        costs.add(number("Findings to stop for", all, null));
        model.addAttribute("all", all);
        model.addAttribute("ways", ways);
        model.addAttribute("costs", costs);
        model.addAttribute("alike", alike);
    }

    private static Source source(Workpiece work) {
        return work.ledger().base().source();
    }

    private String place(PurgePlace place) {
        if (place instanceof PurgePlace.OnTower tower) {
            return "onto a tower, " + figures.length(tower.width()) + " wide";
        }
        String small = place.towerWidth().isPresent() ? ", and a small tower" : "";
        String most = place instanceof PurgePlace.Routine routine
                ? "as the machine does, " + figures.length(routine.length())
                : "beside the print";
        return most + small;
    }

    private static Row words(String name, List<Workpiece> all, Function<Workpiece, String> value) {
        String own = value.apply(all.get(0));
        return new Row(
                name,
                all.stream()
                        .map(value)
                        .map(v -> new Cell(v, -1, false, !v.equals(own)))
                        .toList());
    }

    private Row figure(String name, List<Workpiece> all, Function<Ledger, Derivation> figure) {
        List<Derivation> values =
                all.stream().map(w -> figure.apply(w.ledger())).toList();
        return row(
                name,
                values.stream().mapToDouble(Derivation::value).toArray(),
                values.stream().map(figures::value).toList());
    }

    /** @param value null for the findings that forbid to hand off */
    private Row number(String name, List<Workpiece> all, ToDoubleFunction<Ledger> value) {
        double[] values = all.stream()
                .mapToDouble(w -> value == null
                        ? w.findings().stream()
                                .filter(f -> f.severity() == Severity.STOP)
                                .count()
                        : value.applyAsDouble(w.ledger()))
                .toArray();
        return row(
                name,
                values,
                IntStream.range(0, values.length)
                        .mapToObj(i -> figures.whole(values[i]))
                        .toList());
    }

    private static Row row(String name, double[] values, List<String> texts) {
        double least = Double.MAX_VALUE;
        double most = 0;
        for (double v : values) {
            least = Math.min(least, v);
            most = Math.max(most, v);
        }
        double low = least;
        double high = most;
        boolean alike = high - low <= NO_MORE * Math.max(1, high);
        return new Row(
                name,
                IntStream.range(0, values.length)
                        .mapToObj(i -> new Cell(
                                texts.get(i),
                                high == 0 ? 0 : values[i] / high,
                                !alike && values[i] - low <= NO_MORE * Math.max(1, high),
                                Math.abs(values[i] - values[0]) > NO_MORE * Math.max(1, high)))
                        .toList());
    }
}
