package dev.tranche.core.job;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * A sliced file that is to be printed in another order than its own.
 *
 * @param match of the file, in which Tranche has put nothing, with the plan's layers
 * @param tools of it, each of which stands for a spool
 * @param orders of the plan
 * @param order it wants
 */
public record Wish(GridMatch match, ToolTable tools, Orders orders, PrintOrder order) {

    /**
     * What {@code brief} wishes of its file; nothing where the file's own order is the plan's, or there is none that could be put
     * into it.
     *
     * @param plain the file as its program wrote it
     * @param progress hears how far finding that order is
     */
    public static Optional<Wish> of(Brief brief, Supplier<SlicedFile> plain, Progress progress) {
        Rule rule = brief.plan().ordering().rule();
        if (rule == Rule.NUMBERED || !brief.file().map(SlicedFile::changesTools).orElse(false)) {
            return Optional.empty();
        }
        return Reckoning.match(plain.get(), brief.colouring().model().grid()).flatMap(m -> {
            ToolTable tools = ToolTable.of(m, brief.colouring(), brief.said().tools(), brief.atHand());
            Orders orders = Reckoning.orders(brief);
            if (rule == Rule.ONE_AFTER_ANOTHER && orders.things().size() < 2) {
                return Optional.empty();
            }
            return tools.complete() && tools.agrees()
                    ? Optional.of(new Wish(m, tools, orders, orders.chosen(progress)))
                    : Optional.empty();
        });
    }

    /** Puts the file into that order. */
    public Rearranging fulfil(Source bytes, Printer printer, Progress progress) throws IOException {
        if (order.passes().get(0).thing().isPresent() && orders.sharesSpools()) {
            return Rearranging.refused(
                    "It prints several copies or parts with one tool on the same layer; let your slicing program print them one after another.");
        }
        try {
            return Rearranging.of(Rearranged.of(
                    bytes,
                    match,
                    tools,
                    apart -> apart.isEmpty() ? order : orders.apart(apart).chosen(progress),
                    printer,
                    progress));
        } catch (Refusal said) {
            return Rearranging.refused(said.getMessage());
        }
    }
}
