package dev.tranche.core.rig;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
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
 * @param inputs how many the nozzle has
 * @param feeds at which of them, from 0, each spool of the plan is put in; those at one input are swapped for one another
 * @param extruders of the plan's spools and mixtures, and {@code blends} what each extruder in use has to be
 * @param smooth whether fades are M166
 * @param defines whether the firmware can be told what its extruders are
 */
public record Mixing(
        int inputs,
        Map<SpoolId, Integer> feeds,
        Map<SpoolId, Integer> extruders,
        Map<Integer, Blend> blends,
        boolean smooth,
        boolean defines) {

    /** As fine as weights are written: a hundredth of a dark spool shows in a light one. */
    private static final double SMALLEST_CHANGE = 0.001;

    /** So often a spool is tried at an input before nothing is believed to fit: who mixes by hand needs a few. */
    private static final int MOST_TRIES = 5_000;

    public Mixing {
        feeds = Map.copyOf(feeds);
        extruders = Map.copyOf(extruders);
        blends = Collections.unmodifiableMap(new TreeMap<>(blends));
    }

    /**
     * Nothing for a plan that mixes nothing and whose spools have an input each, or on a printer that {@link #lacking lacks}
     * something for it.
     */
    public static Optional<Mixing> of(Rig rig, ColourPlan plan) {
        return !concerns(rig.printer(), plan) || lacking(rig, plan).isPresent()
                ? Optional.empty()
                : Optional.of(new Maker(rig, plan).made());
    }

    /** Why a printer cannot print the mixtures of a plan, in one sentence with what to do; nothing if it can. */
    public static Optional<String> lacking(Rig rig, ColourPlan plan) {
        Printer printer = rig.printer();
        if (!concerns(printer, plan)) {
            return Optional.empty();
        }
        if (!printer.hotend().blends()) {
            return Optional.of(
                    "The plan blends spools, and this printer's nozzle has one input; print it on one that blends, or choose spools instead of blends.");
        }
        if (new Maker(rig, plan).feeds.isEmpty()) {
            return Optional.of(Words.format(
                    "The plan blends more spools with one another than the %d inputs of this nozzle hold; let its blends share spools.",
                    printer.hotend().inputs()));
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

    /** Spools that are more than the inputs share one, also where none is blended. */
    private static boolean concerns(Printer printer, ColourPlan plan) {
        return !plan.mixed().isEmpty()
                || printer.hotend().blends()
                        && plan.spools().size() > printer.hotend().inputs();
    }

    /** How many virtual extruders the firmware has to have for it. */
    public int needed() {
        return blends.keySet().stream().mapToInt(n -> n + 1).max().orElse(0);
    }

    /**
     * A spool that takes another's place.
     *
     * @param input from 0
     */
    public record Exchange(int input, SpoolId out, SpoolId in) {}

    /** “Leaf to input 1 and Straw to input 2”, spools called by {@code names}. */
    public static String feeding(List<Optional<SpoolId>> inputs, Function<SpoolId, String> names) {
        List<String> each = new ArrayList<>();
        for (int i = 0; i < inputs.size(); i++) {
            int number = i + 1;
            inputs.get(i).ifPresent(s -> each.add(names.apply(s) + " to input " + number));
        }
        String last = each.remove(each.size() - 1);
        return each.isEmpty() ? last : String.join(", ", each) + " and " + last;
    }

    /** Whether a spool has to be swapped for another to print {@code in} after {@code out}. */
    public boolean swaps(Mixtures mixtures, SpoolId out, SpoolId in) {
        return mixtures.spools(in).stream().anyMatch(i -> mixtures.spools(out).stream()
                .anyMatch(o -> !o.equals(i) && feeds.get(o).equals(feeds.get(i))));
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
        List<Double> weights = new ArrayList<>(Collections.nCopies(inputs, 0.0));
        recipe.portions().forEach(p -> weights.set(feeds.get(p.spool()), p.share()));
        return new Blend(weights);
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
        Recipe there = fade.recipe(fade.shade(grid.middle(layer)));
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
        private final int inputs;
        private final Map<SpoolId, Integer> feeds;
        private final Map<Integer, Blend> blends = new TreeMap<>();
        private int tries;

        Maker(Rig rig, ColourPlan plan) {
            this.rack = rig.rack();
            this.plan = plan;
            var abilities = rig.printer().abilities();
            this.smooth = "AZIJS".chars().allMatch(c -> abilities.honours(Command.M166, (char) c));
            this.defines = abilities.understands(Command.M163) && abilities.understands(Command.M164);
            this.inputs = rig.printer().hotend().inputs();
            this.feeds = feeds().orElse(Map.of());
        }

        /**
         * Spools that run together come to inputs of their own; what the rack has settled stays there if that can be; and as few
         * spools as possible share an input.
         */
        private Optional<Map<SpoolId, Integer>> feeds() {
            Map<SpoolId, Set<SpoolId>> together = new LinkedHashMap<>();
            for (SpoolId paint : plan.spools()) {
                Set<SpoolId> with = plan.mixtures().spools(paint);
                with.forEach(s ->
                        together.computeIfAbsent(s, k -> new LinkedHashSet<>()).addAll(with));
            }
            if (plan.mixed().stream().anyMatch(m -> m.spools().size() > inputs)) {
                return Optional.empty();
            }
            List<SpoolId> order = new ArrayList<>(together.keySet());
            order.sort(Comparator.comparingInt((SpoolId s) -> -together.get(s).size())
                    .thenComparingInt(plan.palette()::indexOf));
            Map<SpoolId, Integer> settled = new LinkedHashMap<>();
            for (int i = 0; i < Math.min(inputs, rack.inputs().size()); i++) {
                int input = i;
                rack.inputs().get(i).filter(order::contains).ifPresent(s -> settled.putIfAbsent(s, input));
            }
            return place(order, together, settled).or(() -> place(order, together, Map.of()));
        }

        private Optional<Map<SpoolId, Integer>> place(
                List<SpoolId> order, Map<SpoolId, Set<SpoolId>> together, Map<SpoolId, Integer> settled) {
            Map<SpoolId, Integer> placed = new LinkedHashMap<>(settled);
            boolean clash = settled.entrySet().stream().anyMatch(e -> together.get(e.getKey()).stream()
                    .anyMatch(s -> !s.equals(e.getKey()) && e.getValue().equals(settled.get(s))));
            List<SpoolId> left =
                    order.stream().filter(s -> !settled.containsKey(s)).toList();
            tries = 0;
            return !clash && place(left, 0, together, placed) ? Optional.of(placed) : Optional.empty();
        }

        private boolean place(
                List<SpoolId> left, int at, Map<SpoolId, Set<SpoolId>> together, Map<SpoolId, Integer> placed) {
            if (at == left.size()) {
                return true;
            }
            if (tries++ > MOST_TRIES) {
                return false;
            }
            SpoolId spool = left.get(at);
            List<Integer> free = IntStream.range(0, inputs)
                    .boxed()
                    .sorted(Comparator.comparingLong(
                            i -> placed.values().stream().filter(i::equals).count()))
                    .toList();
            for (int input : free) {
                if (together.get(spool).stream()
                        .noneMatch(s -> Integer.valueOf(input).equals(placed.get(s)))) {
                    placed.put(spool, input);
                    if (place(left, at + 1, together, placed)) {
                        return true;
                    }
                    placed.remove(spool);
                }
            }
            return false;
        }

        Mixing made() {
            Mixing bare = new Mixing(inputs, feeds, Map.of(), Map.of(), smooth, defines);
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
            return new Mixing(inputs, feeds, extruders, blends, smooth, defines);
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
        List<Optional<SpoolId>> contents = new ArrayList<>(Collections.nCopies(
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
