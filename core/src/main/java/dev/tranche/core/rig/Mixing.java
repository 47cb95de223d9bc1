package dev.tranche.core.rig;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * How a nozzle that blends prints the paints of a plan: which spool feeds which input, and which virtual extruder stands for
 * which paint. Blends that the rack keeps are used where they are; others take extruders that the plan has no other use for.
 *
 * <p>A fade is one M166 where the firmware honours all of it, whose meaning is common practice in open firmware: from A to Z mm
 * it turns from extruder I into J. Else M163 and M164 redefine the fade's extruder layer by layer.
 *
 * @param inputs the spool of each input; nothing where the plan needs none
 * @param extruders of the plan's spools and mixtures, and {@code blends} what each extruder in use has to be
 * @param smooth whether fades are M166
 * @param defines whether the firmware can be told what its extruders are
 */
public record Mixing(
        List<Optional<SpoolId>> inputs,
        Map<SpoolId, Integer> extruders,
        Map<Integer, Blend> blends,
        boolean smooth,
        boolean defines) {

    /** As fine as weights are written: a hundredth of a dark spool shows in a light one. */
    private static final double SMALLEST_CHANGE = 0.001;

    public Mixing {
        inputs = List.copyOf(inputs);
        extruders = Map.copyOf(extruders);
        blends = java.util.Collections.unmodifiableMap(new TreeMap<>(blends));
    }

    /** Nothing for a plan that mixes nothing, or on a printer that {@link #lacking lacks} something for it. */
    public static Optional<Mixing> of(Rig rig, ColourPlan plan) {
        return plan.mixed().isEmpty() || lacking(rig, plan).isPresent()
                ? Optional.empty()
                : Optional.of(new Maker(rig, plan).made());
    }

    /** Why a printer cannot print the mixtures of a plan, in one sentence with what to do; nothing if it can. */
    public static Optional<String> lacking(Rig rig, ColourPlan plan) {
        if (plan.mixed().isEmpty()) {
            return Optional.empty();
        }
        Printer printer = rig.printer();
        if (!printer.hotend().blends()) {
            return Optional.of(
                    "The plan blends spools, and this printer's nozzle has one input; print it on one that blends, or choose spools instead of blends.");
        }
        Set<SpoolId> spools = Maker.spools(plan);
        int inputs = printer.hotend().inputs();
        if (spools.size() > inputs) {
            return Optional.of(Words.format(
                    "The plan prints with %d spools, and a nozzle that blends holds no more than its %d inputs; give it fewer.",
                    spools.size(), inputs));
        }
        Mixing made = new Maker(rig, plan).made();
        boolean fades = plan.mixed().stream().anyMatch(m -> m instanceof Mixture.Fade);
        boolean kept = (made.smooth || !fades)
                && made.blends.entrySet().stream()
                        .allMatch(e -> e.getKey() < rig.rack().size()
                                && rig.rack()
                                        .extruder(e.getKey())
                                        .blend()
                                        .filter(e.getValue()::isLike)
                                        .isPresent());
        if (!made.defines && !kept) {
            return Optional.of(
                    "This firmware cannot be told of blends, since it does not understand M163 and M164; tick what it understands under Abilities.");
        }
        if (!printer.abilities().understands(Command.T)) {
            return Optional.of(
                    "This firmware does not understand T, so it cannot choose between blends; tick what it understands under Abilities.");
        }
        return made.blends.keySet().stream().anyMatch(n -> n >= Rack.MOST)
                ? Optional.of(Words.format(
                        "The plan needs more than %d blends; let some of its paints be the same.", Rack.MOST))
                : Optional.empty();
    }

    /** How many virtual extruders the firmware has to have for it. */
    public int needed() {
        return blends.keySet().stream().mapToInt(n -> n + 1).max().orElse(0);
    }

    /** “Leaf to input 1 and Straw to input 2”, spools called by {@code names}. */
    public String feeding(Function<SpoolId, String> names) {
        List<String> each = new ArrayList<>();
        for (int i = 0; i < inputs.size(); i++) {
            int number = i + 1;
            inputs.get(i).ifPresent(s -> each.add(names.apply(s) + " to input " + number));
        }
        String last = each.remove(each.size() - 1);
        return each.isEmpty() ? last : String.join(", ", each) + " and " + last;
    }

    /** The extruder that prints {@code paint}. */
    public int extruder(SpoolId paint) {
        Integer number = extruders.get(paint);
        if (number == null) {
            throw new IllegalArgumentException("nothing of the plan: " + paint);
        }
        return number;
    }

    /** Weights over the inputs. */
    public Blend blend(Recipe recipe) {
        return new Blend(
                inputs.stream().map(i -> i.map(recipe::share).orElse(0.0)).toList());
    }

    /** What the firmware is told once, before it prints anything. */
    public List<String> startLines() {
        List<String> lines = new ArrayList<>();
        if (defines) {
            blends.forEach((number, blend) -> lines.addAll(blend.definition(number)));
        }
        return lines;
    }

    /**
     * What makes the extruder of {@code fade} be what it is on {@code layer}; nothing where the firmware sees to that itself, and of
     * what is the same on all layers.
     */
    public List<String> step(Mixture fade, LayerGrid grid, int layer) {
        if (smooth || !(fade instanceof Mixture.Fade)) {
            return List.of();
        }
        int middle = (grid.bottom(layer).micrometres() + grid.top(layer).micrometres()) / 2;
        Recipe there = fade.recipe(fade.shade(Height.ofMicrometres(middle)));
        return stepped(blend(there)).definition(extruder(fade.id()));
    }

    /** What lets a fade go on by itself once its extruder is chosen; {@code raft} is what the file prints beneath the model. */
    public List<String> begins(Mixture fade, Height raft) {
        if (!smooth || !(fade instanceof Mixture.Fade f)) {
            return List.of();
        }
        return List.of("M166 A" + f.begins().plus(raft) + " Z" + f.ends().plus(raft) + " I" + number(f.from()) + " J"
                + number(f.to()) + " S1");
    }

    /** What ends it. */
    public List<String> ends(Mixture fade) {
        return smooth && fade instanceof Mixture.Fade ? List.of("M166 S0") : List.of();
    }

    private int number(Recipe recipe) {
        Blend wanted = blend(recipe);
        return blends.entrySet().stream()
                .filter(e -> e.getValue().isLike(wanted))
                .mapToInt(Map.Entry::getKey)
                .findFirst()
                .orElseThrow();
    }

    /** Weights in whole thousandths that still sum to 1: the last input takes what is left. */
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

    /** Settles inputs and extruders. */
    private static final class Maker {
        private final Rack rack;
        private final ColourPlan plan;
        private final boolean smooth;
        private final boolean defines;
        private final List<Optional<SpoolId>> inputs;
        private final Map<Integer, Blend> blends = new TreeMap<>();

        Maker(Rig rig, ColourPlan plan) {
            this.rack = rig.rack();
            this.plan = plan;
            var abilities = rig.printer().abilities();
            this.smooth = "AZIJS".chars().allMatch(c -> abilities.honours(Command.M166, (char) c));
            this.defines = abilities.understands(Command.M163) && abilities.understands(Command.M164);
            this.inputs = inputs(rig.printer().hotend().inputs());
        }

        static Set<SpoolId> spools(ColourPlan plan) {
            Set<SpoolId> all = new LinkedHashSet<>();
            plan.spools().forEach(p -> all.addAll(plan.mixtures().spools(p)));
            return all;
        }

        /** What the rack says, as far as the plan has a use for it; what is left where there is room, in the plan's order. */
        private List<Optional<SpoolId>> inputs(int count) {
            Set<SpoolId> waiting = new LinkedHashSet<>(plan.palette());
            waiting.retainAll(spools(plan));
            List<Optional<SpoolId>> made = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                made.add(i < rack.inputs().size() ? rack.inputs().get(i).filter(waiting::remove) : Optional.empty());
            }
            for (SpoolId spool : waiting) {
                made.set(made.indexOf(Optional.<SpoolId>empty()), Optional.of(spool));
            }
            return made;
        }

        Mixing made() {
            Mixing bare = new Mixing(inputs, Map.of(), Map.of(), smooth, defines);
            Map<SpoolId, Blend> wanted = new LinkedHashMap<>();
            List<Blend> ends = new ArrayList<>();
            for (SpoolId paint : plan.palette()) {
                if (!plan.spools().contains(paint)) {
                    continue;
                }
                if (plan.mixtures().find(paint).orElse(null) instanceof Mixture.Fade fade) {
                    if (smooth) {
                        wanted.put(paint, bare.blend(fade.from()));
                        ends.add(bare.blend(fade.to()));
                    }
                } else {
                    wanted.put(
                            paint,
                            bare.blend(plan.mixtures()
                                    .find(paint)
                                    .map(m -> m.recipe(0))
                                    .orElseGet(() -> Recipe.of(paint))));
                }
            }
            List<Blend> all = new ArrayList<>(wanted.values());
            all.addAll(ends);
            keep(all);
            all.forEach(this::number);
            Map<SpoolId, Integer> extruders = new LinkedHashMap<>();
            wanted.forEach((paint, blend) -> extruders.put(paint, number(blend)));
            // A fade in steps has an extruder of its own, since it is redefined.
            for (Mixture m : plan.mixed()) {
                if (!extruders.containsKey(m.id())) {
                    int own = free();
                    blends.put(own, bare.blend(m.recipe(0)));
                    extruders.put(m.id(), own);
                }
            }
            return new Mixing(inputs, extruders, blends, smooth, defines);
        }

        /** What the rack has already stays where it is. */
        private void keep(List<Blend> wanted) {
            for (int t = 0; t < rack.size(); t++) {
                int number = t;
                wanted.stream()
                        .filter(w ->
                                rack.extruder(number).blend().filter(w::isLike).isPresent())
                        .filter(w -> blends.values().stream().noneMatch(w::isLike))
                        .findFirst()
                        .ifPresent(w -> blends.put(number, w));
            }
        }

        private int number(Blend wanted) {
            Optional<Integer> there = blends.entrySet().stream()
                    .filter(e -> e.getValue().isLike(wanted))
                    .map(Map.Entry::getKey)
                    .findFirst();
            int number = there.orElseGet(this::free);
            blends.putIfAbsent(number, wanted);
            return number;
        }

        /** First what the rack blends and the plan does not, then its plain inputs, and beyond it at last. */
        private int free() {
            return Stream.concat(
                            Stream.of(false, true).flatMap(plain -> IntStream.range(0, rack.size())
                                    .filter(t -> isPlain(t) == plain)
                                    .boxed()),
                            Stream.iterate(rack.size(), n -> n + 1))
                    .filter(n -> !blends.containsKey(n))
                    .findFirst()
                    .orElseThrow();
        }

        private boolean isPlain(int number) {
            return rack.extruder(number)
                    .blend()
                    .filter(b -> b.weights().contains(1.0))
                    .isPresent();
        }
    }

    /**
     * The stages of a print with it.
     *
     * @param sequence paints in the order of printing, the first load first
     */
    public Loading loading(int size, List<SpoolId> sequence) {
        List<Optional<SpoolId>> contents = new ArrayList<>(java.util.Collections.nCopies(
                Math.max(
                        size,
                        extruders.values().stream().mapToInt(n -> n + 1).max().orElse(0)),
                Optional.empty()));
        extruders.forEach((paint, number) -> contents.set(number, Optional.of(paint)));
        return new Loading(sequence.stream()
                .map(paint -> new Loading.Stage(extruder(paint), contents, false, Optional.empty()))
                .toList());
    }

    /** @throws Refusal with what the printer lacks for the plan, if anything */
    public static void require(Rig rig, ColourPlan plan) {
        lacking(rig, plan).ifPresent(said -> {
            throw new Refusal(said);
        });
    }
}
