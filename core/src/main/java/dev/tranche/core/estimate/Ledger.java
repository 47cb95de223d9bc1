package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.units.Filament;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A plan's totals.
 *
 * @param base the print without swaps
 * @param firstLoad if the printer has a macro for it
 * @param swaps in order
 * @param pauses halts in order
 * @param stretches of printing between the swaps, one more than there are
 * @param uses one a spool, in the order of the palette; their seconds add up to the total
 * @param loading which spool is in which virtual extruder: the first load, then one stage a swap
 * @param filament of the printer
 */
public record Ledger(
        BasePrint base,
        Optional<FirstLoad> firstLoad,
        List<Swap> swaps,
        List<Pause> pauses,
        List<Stretch> stretches,
        List<SpoolUse> uses,
        Loading loading,
        Filament filament) {
    public Ledger {
        swaps = List.copyOf(swaps);
        pauses = List.copyOf(pauses);
        stretches = List.copyOf(stretches);
        uses = List.copyOf(uses);
    }

    /** Seconds that stops add. */
    public double addedSeconds() {
        return firstLoad.map(FirstLoad::seconds).orElse(0.0)
                + swaps.stream().mapToDouble(Swap::seconds).sum()
                + pauses.stream().mapToDouble(Pause::seconds).sum();
    }

    /** Seconds from the start to the first plastic of {@code layer}, with every stop up to it. */
    public double secondsUntil(int layer) {
        return base.secondsUntil(layer) + stopsUntil(layer, false);
    }

    /** Seconds from the start to the last plastic of {@code layer}. */
    public double secondsAfter(int layer) {
        return base.secondsUntil(layer + 1) + stopsUntil(layer, true);
    }

    private double stopsUntil(int layer, boolean itsOwn) {
        return firstLoad.map(FirstLoad::seconds).orElse(0.0)
                + swaps.stream()
                        .filter(s -> s.layer() < layer || s.layer() == layer && (itsOwn || !s.within()))
                        .mapToDouble(Swap::seconds)
                        .sum()
                + pauses.stream()
                        .filter(p -> p.layer() <= layer)
                        .mapToDouble(Pause::seconds)
                        .sum();
    }

    public double totalSeconds() {
        return base.seconds() + addedSeconds();
    }

    public Derivation swapCount() {
        return Derivation.sum(
                "Swaps",
                Unit.COUNT,
                "one wherever what is printed next has another spool; the first load is none",
                swaps.stream()
                        .map(s -> Derivation.of(s.out().name() + " → " + s.in().name(), 1, Unit.COUNT, s.place()))
                        .toList());
    }

    /** Purge in mm of filament, swap by swap down to the colour model. */
    public Derivation purgeLength() {
        return Derivation.sum(
                "Purge",
                Unit.MILLIMETRES,
                "the purges of all swaps",
                swaps.stream().map(this::purgeOf).toList());
    }

    private Derivation purgeOf(Swap swap) {
        Purge purge = swap.purge();
        return new Derivation(
                swap.out().name() + " → " + swap.in().name(),
                swap.purgeLength(),
                Unit.MILLIMETRES,
                "volume ÷ π d²/4, d = " + filament.diameter() + " mm",
                List.of(purge.measured() ? measured(purge) : computed(purge)));
    }

    private static Derivation measured(Purge purge) {
        return new Derivation(
                "Volume",
                purge.volume().cubicMillimetres(),
                Unit.CUBIC_MILLIMETRES,
                "measured, × factor",
                List.of(
                        Derivation.of(
                                "Measured",
                                purge.unscaled().cubicMillimetres(),
                                Unit.CUBIC_MILLIMETRES,
                                "on this printer"),
                        Derivation.of("Factor", purge.planFactor(), Unit.RATIO, "the plan's")));
    }

    private static Derivation computed(Purge purge) {
        return new Derivation(
                "Volume",
                purge.volume().cubicMillimetres(),
                Unit.CUBIC_MILLIMETRES,
                "V₀ ln(1/c*), rounded up, × plastic × factor",
                List.of(
                        Derivation.of("Colour difference", purge.difference(), Unit.RATIO, "CIEDE2000, unmixed"),
                        Derivation.of("c*", purge.cleanShare(), Unit.RATIO, "share of the old colour nobody sees"),
                        Derivation.of("Other plastic", purge.materialFactor(), Unit.RATIO, "1, or 1.5 between classes"),
                        Derivation.of("Factor", purge.planFactor(), Unit.RATIO, "the plan's")));
    }

    public Derivation purgeGrams() {
        return Derivation.sum(
                "Purge",
                Unit.GRAMS,
                "volume × density of the spool pushed through",
                uses.stream()
                        .filter(u -> u.purge().cubicMillimetres() > 0)
                        .map(u -> Derivation.of(
                                u.spool().name(),
                                u.purge().grams(u.spool().density()),
                                Unit.GRAMS,
                                "%.0f mm³ × %s g/cm³"
                                        .formatted(
                                                u.purge().cubicMillimetres(),
                                                u.spool().density())))
                        .toList());
    }

    public Derivation purgeCost() {
        return Derivation.sum(
                "Purge",
                Unit.MONEY,
                "mass × price",
                uses.stream()
                        .filter(u -> u.purge().cubicMillimetres() > 0)
                        .map(u -> Derivation.of(
                                u.spool().name(),
                                u.purgeCost().doubleValue(),
                                Unit.MONEY,
                                "%.2f g × %s a kg"
                                        .formatted(
                                                u.purge().grams(u.spool().density()),
                                                u.spool().pricePerKilogram().toPlainString())))
                        .toList());
    }

    public Derivation addedTime() {
        List<Derivation> parts = new ArrayList<>();
        firstLoad.ifPresent(f -> parts.add(stop("First load of " + f.spool().name(), f.dryRun(), "before layer 1")));
        swaps.forEach(s -> parts.add(stop(s.out().name() + " → " + s.in().name(), s.dryRun(), s.place())));
        pauses.forEach(p ->
                p.dryRun().ifPresent(run -> parts.add(stop("Halt: " + p.note(), run, "before layer " + p.layer()))));
        return Derivation.sum("Added time", Unit.SECONDS, "swaps and halts, machine and person", parts);
    }

    private static Derivation stop(String name, DryRun run, String place) {
        return Derivation.sum(
                name,
                Unit.SECONDS,
                place,
                List.of(
                        Derivation.of("Machine", run.machineSeconds(), Unit.SECONDS, "dry run of the macro"),
                        Derivation.of("Person", run.personSeconds(), Unit.SECONDS, "at its stops, as the macro says")));
    }

    public Derivation totalTime() {
        String how = base.source() == BasePrint.Source.SLICED
                ? "motion of the sliced G-code"
                : "estimated from the model: walls, solid shells, 15 % infill, 15 % travel, 1 s a layer";
        return Derivation.sum(
                "Whole print",
                Unit.SECONDS,
                "printing, swaps and halts",
                List.of(Derivation.of("Printing", base.seconds(), Unit.SECONDS, how), addedTime()));
    }

    public Derivation timePerColour() {
        return Derivation.sum(
                "Time by colour",
                Unit.SECONDS,
                "printing with it, and the swaps that put it in",
                uses.stream()
                        .map(u -> Derivation.of(u.spool().name(), u.seconds(), Unit.SECONDS, "printing and its swaps"))
                        .toList());
    }

    public Derivation cost() {
        return Derivation.sum(
                "Plastic",
                Unit.MONEY,
                "part and purge, mass × price",
                uses.stream()
                        .map(u -> Derivation.of(
                                u.spool().name(),
                                u.cost().doubleValue(),
                                Unit.MONEY,
                                "%.1f g × %s a kg"
                                        .formatted(
                                                u.grams(),
                                                u.spool().pricePerKilogram().toPlainString())))
                        .toList());
    }
}
