package dev.tranche.core.rig;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;

/**
 * One blend turning into another over height. Outside the range the end blends hold.
 *
 * @param from height at which it begins, {@code to} at which it has ended
 * @param first extruder whose blend holds at and below {@code from}, {@code last} at and above {@code to}
 */
public record Gradient(Height from, Height to, int first, int last) {
    /** Finer steps than this no eye tells apart (common practice). */
    private static final double SMALLEST_CHANGE = 0.01;

    public Gradient {
        if (!to.isAbove(from)) {
            throw Refusal.of(
                    "A gradient from %s to %s mm does not rise; its end must be above its beginning.", from, to);
        }
        if (first == last) {
            throw Refusal.of("A gradient from T%d to itself changes nothing; choose two extruders.", first);
        }
    }

    /** Blend at {@code height}: linear between the ends. */
    public Blend at(Height height, Rack rack) {
        double share = (height.micrometres() - from.micrometres()) / (double) (to.micrometres() - from.micrometres());
        return blend(rack, first).towards(blend(rack, last), Math.max(0, Math.min(1, share)));
    }

    /** A line, or the lines before one layer. */
    public record LayerLines(int layer, List<String> lines) {}

    /**
     * The commands: one M166 where the firmware honours A, Z, I, J and S of it, else M163 and M164 before each layer
     * on which the blend differs. M166's meaning is common practice in open firmware: from A to Z mm, from extruder I to J.
     *
     * @param extruder whose blend the steps redefine
     * @throws Refusal if it ends above the print, or the firmware can do neither
     */
    public List<LayerLines> commands(Rack rack, LayerGrid grid, Abilities abilities, int extruder) {
        if (to.isAbove(grid.printedHeight())) {
            throw Refusal.of(
                    "The gradient ends at %s mm and the print at %s mm; end it lower.", to, grid.printedHeight());
        }
        blend(rack, first).towards(blend(rack, last), 0);
        boolean smooth = "AZIJS".chars().allMatch(c -> abilities.honours(Command.M166, (char) c));
        if (smooth) {
            return List.of(
                    new LayerLines(1, List.of("M166 A" + from + " Z" + to + " I" + first + " J" + last + " S1")));
        }
        if (!abilities.understands(Command.M163) || !abilities.understands(Command.M164)) {
            throw new Refusal(
                    "This firmware honours neither M166 nor M163 with M164, so it cannot fade; tick what it understands under Abilities.");
        }
        List<LayerLines> steps = new ArrayList<>();
        List<String> before = List.of();
        for (int layer = 1; layer <= grid.count(); layer++) {
            int middle = (grid.bottom(layer).micrometres() + grid.top(layer).micrometres()) / 2;
            Blend exact = at(Height.ofMicrometres(middle), rack);
            List<String> lines = stepped(exact).definition(extruder);
            if (!lines.equals(before)) {
                steps.add(new LayerLines(layer, lines));
                before = lines;
            }
        }
        return steps;
    }

    /** Weights in whole hundredths that still sum to 1: the last input takes what is left. */
    private static Blend stepped(Blend exact) {
        List<Double> weights = new ArrayList<>();
        double left = 1;
        for (int i = 0; i < exact.weights().size() - 1; i++) {
            double w = Math.min(left, Math.rint(exact.weights().get(i) / SMALLEST_CHANGE) * SMALLEST_CHANGE);
            weights.add(w);
            left -= w;
        }
        weights.add(Math.max(0, left));
        return new Blend(weights);
    }

    private static Blend blend(Rack rack, int extruder) {
        return rack.extruder(extruder)
                .blend()
                .orElseThrow(() -> Refusal.of("T%d is no blend; give it weights in the rack.", extruder));
    }
}
