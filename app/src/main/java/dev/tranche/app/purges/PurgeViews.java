package dev.tranche.app.purges;

import dev.tranche.app.drawing.WashOutDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.printers.MeasuredPurges;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgePlace.SmallTower;
import dev.tranche.core.purge.WashOut;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of purges. */
@Component
class PurgeViews {
    /** The curve goes on this much beyond clean. */
    private static final double BEYOND = 1.25;

    private static final int POINTS = 90;
    private static final double LARGEST_DROP = 12;

    private final MeasuredPurges measured;
    private final Figures figures;

    PurgeViews(MeasuredPurges measured, Figures figures) {
        this.measured = measured;
        this.figures = figures;
    }

    /**
     * One ordered pair.
     *
     * @param swaps of the plan that are of this pair
     * @param drop radius, px: its area is the purge
     */
    record Cell(SpoolMark out, SpoolMark in, Purge purge, double millimetres, long swaps, double drop, boolean same) {}

    record TableRow(SpoolMark out, List<Cell> cells) {}

    /** A place for purge and what the plan would cost with it. */
    record Choice(String key, String name, String how, Ledger ledger, boolean chosen, boolean least) {}

    String show(Workpiece work, Pair pair, Model model) {
        PurgeModel purges = work.estimator().purges();
        List<SpoolId> spools = work.colours().palette().stream()
                .filter(work.colours().spools()::contains)
                .toList();
        List<TableRow> rows = rows(work, purges, spools);
        Filament filament = work.machine().printer().filament();
        model.addAttribute("rows", rows);
        model.addAttribute(
                "ins", spools.stream().map(s -> SpoolMark.of(work, s)).toList());
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("settings", purges.settings());
        model.addAttribute("choices", choices(work));
        model.addAttribute("width", width(purges.settings().place()));
        model.addAttribute("length", length(purges.settings().place()));
        model.addAttribute("small", small(purges.settings().place()).isPresent());
        model.addAttribute("smallTower", small(purges.settings().place()).orElse(SmallTower.USUAL));
        model.addAttribute("perMillimetre", filament.area());
        model.addAttribute("fitted", measured.fitted(work.machine()).orElse(null));
        Cell open = open(rows, pair).orElse(null);
        model.addAttribute("open", open);
        if (open != null) {
            model.addAttribute("curve", curve(work, purges, open));
        }
        return "purges/purge";
    }

    /** The cell that was chosen, or the one that costs the plan most. */
    private static Optional<Cell> open(List<TableRow> rows, Pair pair) {
        List<Cell> cells = rows.stream()
                .flatMap(r -> r.cells().stream())
                .filter(c -> !c.same())
                .toList();
        return cells.stream()
                .filter(c -> pair.open() && c.out().id() == pair.out() && c.in().id() == pair.in())
                .findFirst()
                .or(() -> cells.stream()
                        .max(Comparator.comparingDouble((Cell c) -> c.swaps() * c.millimetres())
                                .thenComparingDouble(Cell::millimetres)));
    }

    private static List<TableRow> rows(Workpiece work, PurgeModel purges, List<SpoolId> spools) {
        Filament filament = work.machine().printer().filament();
        double most = 1;
        for (SpoolId out : spools) {
            for (SpoolId in : spools) {
                most = Math.max(most, volume(work, purges, out, in).volume().cubicMillimetres());
            }
        }
        List<TableRow> rows = new ArrayList<>();
        for (SpoolId out : spools) {
            List<Cell> cells = new ArrayList<>();
            for (SpoolId in : spools) {
                Purge purge = volume(work, purges, out, in);
                long swaps = work.ledger().swaps().stream()
                        .filter(s -> s.out().id().equals(out) && s.in().id().equals(in))
                        .count();
                cells.add(new Cell(
                        SpoolMark.of(work, out),
                        SpoolMark.of(work, in),
                        purge,
                        filament.length(purge.volume()),
                        swaps,
                        LARGEST_DROP * Math.sqrt(purge.volume().cubicMillimetres() / most),
                        out.equals(in)));
            }
            rows.add(new TableRow(SpoolMark.of(work, out), cells));
        }
        return rows;
    }

    private static Purge volume(Workpiece work, PurgeModel purges, SpoolId out, SpoolId in) {
        return purges.between(work.spool(out), work.spool(in));
    }

    private static WashOutDrawing curve(Workpiece work, PurgeModel purges, Cell cell) {
        Spool out = work.spool(new SpoolId(cell.out().id()));
        Spool in = work.spool(new SpoolId(cell.in().id()));
        Filament filament = work.machine().printer().filament();
        PurgeModel unmeasured = purges.computed();
        Volume clean = unmeasured.between(out, in).unscaled();
        Volume pushed = purges.between(out, in).volume();
        Volume most = new Volume(Math.max(20, BEYOND * Math.max(clean.cubicMillimetres(), pushed.cubicMillimetres())));
        WashOut curve =
                WashOut.of(out, in, purges.deadVolume(), purges.settings().tolerance(), most, POINTS);
        OptionalDouble measured = cell.purge().measured()
                ? OptionalDouble.of(filament.length(cell.purge().unscaled()))
                : OptionalDouble.empty();
        return WashOutDrawing.of(curve, filament.length(clean), measured, filament, 460, 250);
    }

    private List<Choice> choices(Workpiece work) {
        PurgePlace now = work.ledger().place();
        double width = width(now);
        double length = length(now);
        List<Ledger> ledgers = List.of(
                work.ledger(new PurgePlace.Bin(small(now))),
                work.ledger(new PurgePlace.OnTower(width)),
                work.ledger(new PurgePlace.Routine(length, small(now))));
        double least =
                ledgers.stream().mapToDouble(l -> l.wasteGrams().value()).min().orElse(0);
        return List.of(
                choice(
                        "bin",
                        "Beside the print",
                        small(now).isPresent()
                                ? "the swap macro, or you, push what the pair needs, but for the last of it"
                                : "the swap macro, or you, push as much as the pair needs; nothing stands on the bed",
                        ledgers.get(0),
                        now instanceof PurgePlace.Bin,
                        least),
                choice(
                        "tower",
                        "Onto a tower",
                        ledgers.get(1)
                                .tower()
                                .map(t -> Words.format(
                                        "%s × %s mm, up to layer %d; layers without a swap carry it too",
                                        figures.whole(t.width()),
                                        figures.whole(Math.ceil(t.depth())),
                                        t.layers().size()))
                                .orElse("a block on the bed that grows with the print"),
                        ledgers.get(1),
                        now instanceof PurgePlace.OnTower,
                        least),
                choice(
                        "routine",
                        "The machine's own routine",
                        "pushes the same at every swap, whatever the colours",
                        ledgers.get(2),
                        now instanceof PurgePlace.Routine,
                        least));
    }

    private static Choice choice(String key, String name, String how, Ledger ledger, boolean chosen, double least) {
        return new Choice(key, name, how, ledger, chosen, ledger.wasteGrams().value() <= least + 1e-9);
    }

    private static Optional<SmallTower> small(PurgePlace place) {
        return place instanceof PurgePlace.Bin bin
                ? bin.last()
                : place instanceof PurgePlace.Routine routine ? routine.last() : Optional.empty();
    }

    private static double width(PurgePlace place) {
        return place instanceof PurgePlace.OnTower tower ? tower.width() : PurgePlace.OnTower.USUAL;
    }

    private static double length(PurgePlace place) {
        return place instanceof PurgePlace.Routine routine ? routine.length() : PurgePlace.Routine.USUAL;
    }
}
