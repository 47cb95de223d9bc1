package dev.tranche.app.orders;

import dev.tranche.app.pictures.BandDrawing;
import dev.tranche.app.pictures.OrderDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Band;
import dev.tranche.core.sequence.Bands;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of orders. */
@Component
class OrderViews {
    private static final int STRIP = 1180;

    /**
     * An order with what it costs.
     *
     * @param key of the row, {@code numbering} where it is a numbering to adopt
     * @param rule by which it is printed
     * @param numbers spools by number, where they decide
     * @param chosen whether the plan is printed like this
     * @param least whether no other row needs fewer swaps
     */
    record Row(
            String key,
            Rule rule,
            String name,
            String how,
            List<SpoolMark> numbers,
            SpoolMark first,
            Ledger ledger,
            OrderDrawing drawing,
            boolean chosen,
            boolean least,
            boolean proven) {}

    /** A band that is cut for another reason than its height. */
    record Cut(int layer, String reason) {}

    String show(Workpiece work, Model model) {
        Orders orders = work.orders();
        Ordering ordering = work.colours().ordering();
        Optional<PrintOrder> sliced = work.reckoning().asSliced();
        boolean inFile = sliced.isPresent();
        Orders.Numbering best = orders.bestNumbering();
        Bands bands = orders.bands();
        int from = firstMixed(work);
        List<Draft> drafts = new ArrayList<>();
        drafts.addAll(
                inFile
                        ? List.of(new Draft("sliced", "As it is sliced", sliced.get(), List.of()))
                        : byNumber(work, best));
        // With what the file prints beside the model.
        UnaryOperator<PrintOrder> whole = order -> sliced.map(order::besides).orElse(order);
        PrintOrder free = whole.apply(orders.best());
        drafts.add(new Draft("best", free.proven() ? "Best order" : "A good order", free, List.of()));
        PrintOrder banded = orders.banded();
        drafts.add(new Draft("bands", "In bands", whole.apply(banded), List.of()));
        boolean beside = whole.apply(banded).passes().size() > banded.passes().size();
        orders.oneAfterAnother().ifPresent(o -> drafts.add(new Draft("apart", "One after another", o, List.of())));
        Optional<String> refused = work.reckoning().brief().rearranging().refusal();
        String chosen = key(ordering.rule(), inFile);
        List<Ledger> ledgers = drafts.stream()
                .map(d -> d.key().equals(chosen) && refused.isEmpty() ? work.ledger() : work.ledger(d.order()))
                .toList();
        int fewest = ledgers.stream().mapToInt(Ledger::spoolSwaps).min().orElse(0);
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < drafts.size(); i++) {
            Draft d = drafts.get(i);
            Ledger ledger = ledgers.get(i);
            rows.add(new Row(
                    d.key(),
                    rule(d.key()),
                    d.name(),
                    how(d.key(), inFile, beside, d.key().equals(chosen), work),
                    d.numbers(),
                    SpoolMark.of(work, ledger.stretches().get(0).spool()),
                    ledger,
                    d.key().equals("bands")
                            ? OrderDrawing.of(work, banded, bands.list(), from, STRIP)
                            : OrderDrawing.of(work, d.order(), List.of(), from, STRIP),
                    d.key().equals(chosen),
                    ledger.spoolSwaps() == fewest,
                    d.order().proven()));
        }
        model.addAttribute("rows", rows);
        model.addAttribute("inFile", inFile);
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("aim", ordering.aim());
        model.addAttribute("aims", Aim.values());
        model.addAttribute("mixed", rows.get(0).drawing().mixed());
        model.addAttribute("bands", BandDrawing.of(work, bands.list(), 300, 330));
        model.addAttribute("cuts", cuts(work, bands.list()));
        model.addAttribute("bandCount", bands.list().size());
        return "orders/order";
    }

    private static List<Draft> byNumber(Workpiece work, Orders.Numbering best) {
        Orders orders = work.orders();
        List<Draft> drafts = new ArrayList<>();
        drafts.add(new Draft(
                "numbered",
                "By number, as numbered now",
                orders.numbered(),
                numbers(work, work.colours().numbering())));
        if (!best.spools().equals(work.colours().numbering())) {
            drafts.add(new Draft(
                    "numbering",
                    best.proven() ? "By number, best numbering" : "By number, a better numbering",
                    orders.numbered(work.colours().ordering().numbered(best.spools())),
                    numbers(work, best.spools())));
        }
        return drafts;
    }

    private record Draft(String key, String name, PrintOrder order, List<SpoolMark> numbers) {}

    private static List<SpoolMark> numbers(Workpiece work, List<SpoolId> numbering) {
        return numbering.stream()
                .filter(work.colours().spools()::contains)
                .map(s -> SpoolMark.of(work, s))
                .toList();
    }

    private static int firstMixed(Workpiece work) {
        return work.colouring().layers().stream()
                        .takeWhile(l -> l.spools().size() < 2)
                        .toList()
                        .size()
                + 1;
    }

    private static List<Cut> cuts(Workpiece work, List<Band> bands) {
        return bands.stream()
                .filter(b -> !(b.end() instanceof Band.End.Top) && !(b.end() instanceof Band.End.Reach))
                .map(b -> new Cut(b.last(), reason(work, b)))
                .toList();
    }

    private static String reason(Workpiece work, Band band) {
        if (band.end() instanceof Band.End.Circle c) {
            return Words.format(
                    "%s rests on %s at layer %d, and further down in the band it is the other way round",
                    work.label(work.spool(c.upper())), work.label(work.spool(c.lower())), band.last() + 1);
        }
        return Words.format(
                band.end() instanceof Band.End.File
                        ? "in the sliced file, layer %d lies over another colour of the layers beneath; if that is a tower, slice it without"
                        : "the print halts before layer %d",
                band.last() + 1);
    }

    private static String how(String key, boolean inFile, boolean beside, boolean chosen, Workpiece work) {
        boolean foretold = inFile && !chosen;
        return switch (key) {
            case "sliced" -> "The order in which the sliced file changes its tools.";
            case "numbered" -> "What a slicing program prints: the loaded spool first if the layer has it, then by number.";
            case "numbering" -> "The same, with the spools numbered so that it costs least.";
            case "best" -> "The cheapest order inside each layer." + made(inFile)
                    + (foretold ? " The nozzle's ways are timed once you print it like this." : "");
            case "apart" -> "Each copy, or part that stands by itself, whole before the next, where the head clears them; each column is one."
                    + (work.orders().sharesSpools() ? " Your slicing program has to slice it so." : made(inFile));
            default -> "Each colour several layers high before the next." + made(inFile)
                    + (foretold
                            ? " Bands end earlier where its own lines lie over another colour; that is counted once you print it like this, and the nozzle's ways are timed."
                            : "")
                    + (beside ? " What it prints beside the model comes in between, layer by layer, as it did." : "");
        };
    }

    private static String made(boolean inFile) {
        return inFile
                ? " The sliced file is put into this order when swaps are written into it."
                : " It is made from a file that is sliced with a tool for each spool; give it at the hand-off.";
    }

    private static String key(Rule rule, boolean inFile) {
        return switch (rule) {
            case NUMBERED -> inFile ? "sliced" : "numbered";
            case BEST -> "best";
            case BANDS -> "bands";
            case ONE_AFTER_ANOTHER -> "apart";
        };
    }

    private static Rule rule(String key) {
        return switch (key) {
            case "best" -> Rule.BEST;
            case "bands" -> Rule.BANDS;
            case "apart" -> Rule.ONE_AFTER_ANOTHER;
            default -> Rule.NUMBERED;
        };
    }
}
