package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.MacroRenderer;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMoment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.units.Refusal;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/**
 * Writes a plan's swaps into a sliced file.
 *
 * @param planId that stamps every block
 * @param plan whose letters name the spools
 * @param printer that will run the file
 * @param macro of a swap
 */
public record SwapWriter(String planId, ColourPlan plan, Printer printer, SwapMacro macro) {

    /** The lines of one swap at {@code door}. */
    public List<RenderedLine> lines(Swap swap, int of, Door door) {
        return MacroRenderer.render(
                macro,
                printer,
                new SwapMoment(
                        swap.number(),
                        of,
                        swap.layer(),
                        Estimator.label(plan, swap.out()),
                        Estimator.label(plan, swap.in()),
                        swap.in().temperature(),
                        swap.purgeLength(),
                        door.state()));
    }

    /**
     * The patch that makes {@code match}'s file swap where the plan does, and nowhere else.
     *
     * @throws Refusal if a layer that begins with a swap begins without a travel
     */
    public Patch patch(GridMatch match, Ledger ledger) {
        List<Patch.Insertion> insertions = new ArrayList<>();
        String state = state(ledger);
        for (Swap swap : ledger.swaps()) {
            Door door = match.layer(swap.layer())
                    .door()
                    .orElseThrow(() -> Refusal.of(
                            "Layer %d of the G-code begins without a travel, so there is no place to swap before it; "
                                    + "slice it again or move that colour by a layer.",
                            swap.layer()));
            List<String> text = lines(swap, ledger.swaps().size(), door).stream()
                    .map(RenderedLine::text)
                    .toList();
            insertions.add(new Patch.Insertion(door, new BlockStamp(planId, state, swap.number()), text));
        }
        return Patch.writing(match.file(), insertions);
    }

    /** A digest of all that decides what is written: which spool before which layer, purges, printer and macro. */
    public String state(Ledger ledger) {
        StringBuilder all = new StringBuilder(printer.toString()).append(macro);
        for (Swap swap : ledger.swaps()) {
            all.append('|').append(swap.layer()).append(' ').append(Estimator.label(plan, swap.out()));
            all.append(' ')
                    .append(Estimator.label(plan, swap.in()))
                    .append(' ')
                    .append(swap.in().temperature());
            all.append(' ').append(Math.round(swap.purgeLength() * 1000));
        }
        try {
            byte[] hash =
                    MessageDigest.getInstance("SHA-256").digest(all.toString().getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 8);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
