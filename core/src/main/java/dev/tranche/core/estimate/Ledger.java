package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;

/**
 * A plan's totals, for the whole plate.
 *
 * @param base the print without swaps
 * @param firstLoad if the printer has a macro for it
 * @param cleared what another print left in the nozzle, if that is another spool than the first
 * @param swaps in order
 * @param pauses halts in order
 * @param stretches of printing with one spool or mixture, in order
 * @param uses one a spool, in the order of the palette; their seconds add up to the total
 * @param loading which spool is in which virtual extruder: the first load, then one stage a swap
 * @param filament of the printer
 * @param layers when each is printed
 * @param turns where a nozzle that blends is told what to blend
 * @param feeding what each of the inputs of such a nozzle holds at first; none of any other
 * @param tower that takes the purge, where Tranche reckons with one; a file's own is part of what it prints
 * @param terms how many, and what current costs
 * @param place where purge goes
 */
public record Ledger(
        BasePrint base,
        Optional<FirstLoad> firstLoad,
        Optional<Cleared> cleared,
        List<Swap> swaps,
        List<Pause> pauses,
        List<Stretch> stretches,
        List<SpoolUse> uses,
        Loading loading,
        Filament filament,
        LayerTimes layers,
        List<Turn> turns,
        List<Optional<SpoolId>> feeding,
        Optional<Tower> tower,
        Terms terms,
        PurgePlace place) {
    private static final String AS_RUN = "dry run of the macro";

    public Ledger {
        swaps = List.copyOf(swaps);
        pauses = List.copyOf(pauses);
        stretches = List.copyOf(stretches);
        uses = List.copyOf(uses);
        turns = List.copyOf(turns);
        feeding = List.copyOf(feeding);
    }

    /** Seconds that colours add: the first load, swaps, the tower's own printing, ways over what stands, and the file's heating. */
    public double addedSeconds() {
        return firstLoad.map(FirstLoad::seconds).orElse(0.0)
                + swaps.stream().mapToDouble(Swap::seconds).sum()
                + towerSeconds()
                + base.waysOver()
                + base.heating();
    }

    /** Seconds that the tower itself takes to print. */
    public double towerSeconds() {
        return uses.stream().mapToDouble(SpoolUse::towerSeconds).sum();
    }

    /** Seconds of the same print in one colour: printing and halts. */
    public double plainSeconds() {
        return base.plainSeconds() + pauses.stream().mapToDouble(Pause::seconds).sum();
    }

    public double totalSeconds() {
        return plainSeconds() + addedSeconds();
    }

    /** Swaps at which somebody has to be there. */
    public long visits() {
        return swaps.stream().filter(Swap::needsPerson).count();
    }

    /** How often another spool is put in; blends turn without. */
    public int spoolSwaps() {
        return (int) swaps.stream().filter(s -> !s.turns()).count();
    }

    /** So many of its stops for another colour, in words: swaps, or changes where blends turn among them. */
    public String changes(int count) {
        return Words.count(count, spoolSwaps() == swaps.size() ? "swap" : "change");
    }

    public Derivation swapCount() {
        return Derivation.sum(
                "Swaps",
                Unit.COUNT,
                "one wherever what is printed next has another spool; the first load is none, nor is a blend that turns into another",
                swaps.stream()
                        .filter(s -> !s.turns())
                        .map(s -> Derivation.of(s.out().name() + " → " + s.in().name(), 1, Unit.COUNT, s.place()))
                        .toList());
    }

    /** Purge in mm of filament, swap by swap down to the colour model. */
    public Derivation purgeLength() {
        return Derivation.sum(
                "Purge",
                Unit.MILLIMETRES,
                cleared.isPresent() ? "what is in the nozzle, and the purges of all swaps" : "the purges of all swaps",
                Stream.concat(
                                cleared.map(this::purgeOf).stream(),
                                swaps.stream().map(this::purgeOf))
                        .toList());
    }

    private Derivation purgeOf(Cleared first) {
        return new Derivation(
                Words.format(
                        "%s, left in the nozzle → %s",
                        first.out().name(), first.in().name()),
                filament.length(first.purge().volume()),
                Unit.MILLIMETRES,
                "pushed out before the first layer",
                List.of(detail(first.purge())));
    }

    private static Derivation detail(Purge purge) {
        return purge.measured() ? measured(purge) : computed(purge);
    }

    private Derivation purgeOf(Swap swap) {
        Purge purge = swap.purge();
        return new Derivation(
                swap.out().name() + " → " + swap.in().name(),
                filament.length(swap.pushed()),
                Unit.MILLIMETRES,
                place instanceof PurgePlace.Routine
                        ? "what the machine's routine pushes, whatever the colours"
                        : "volume ÷ π d²/4, d = " + filament.diameter() + " mm",
                place instanceof PurgePlace.Routine ? routine(swap) : List.of(detail(purge)));
    }

    /** The routine and a small tower add up. */
    private List<Derivation> routine(Swap swap) {
        double onto = filament.length(swap.ontoTower());
        return onto == 0
                ? List.of()
                : List.of(
                        Derivation.of(
                                "The machine's routine",
                                filament.length(swap.pushed()) - onto,
                                Unit.MILLIMETRES,
                                "beside the print"),
                        Derivation.of("Small tower", onto, Unit.MILLIMETRES, "after it"));
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
                purge.isForNozzle()
                        ? "the least that fills the nozzle again, or clears another plastic: colours alone need less"
                        : "V₀ ln(1/c*), rounded up, × plastic × factor",
                List.of(
                        Derivation.of("Colour difference", purge.difference(), Unit.RATIO, "CIEDE2000, unmixed"),
                        Derivation.of("c*", purge.cleanShare(), Unit.RATIO, "share of the old colour nobody sees"),
                        Derivation.of("Other plastic", purge.materialFactor(), Unit.RATIO, "1, or 1.5 between classes"),
                        Derivation.of("Factor", purge.planFactor(), Unit.RATIO, "the plan's")));
    }

    public Derivation purgeGrams() {
        return perSpool(
                "Purge",
                Unit.GRAMS,
                "volume × density of the spool pushed through",
                u -> u.purge().grams(u.spool().density()),
                u -> volume(u.purge().cubicMillimetres(), u));
    }

    /** What the tower takes beyond purge: layers that carry it without a swap, and its shell. */
    public Derivation towerGrams() {
        return perSpool(
                "Tower beside purge",
                Unit.GRAMS,
                tower.map(t -> Words.format(
                                "%.0f × %.1f mm, to layer %d: per layer its purge or its shell, whichever is more",
                                t.width(), t.depth(), t.layers().size()))
                        .orElse("no tower"),
                u -> u.tower().grams(u.spool().density()),
                u -> volume(u.tower().cubicMillimetres(), u));
    }

    private static String volume(double cubicMillimetres, SpoolUse use) {
        return Words.format("%.0f mm³ × %s g/cm³", cubicMillimetres, use.spool().density());
    }

    /** All that is thrown away. */
    public Derivation wasteGrams() {
        return Derivation.sum(
                "Waste",
                Unit.GRAMS,
                "what is printed or pushed and thrown away",
                tower.isPresent() ? List.of(purgeGrams(), towerGrams()) : List.of(purgeGrams()));
    }

    public Derivation wasteCost() {
        return perSpool(
                "Waste", Unit.MONEY, "mass × price", u -> u.wasteCost().doubleValue(), u -> money(u.wasteGrams(), u));
    }

    private static String money(double grams, SpoolUse use) {
        return Words.format(
                "%.2f g × %s a kg", grams, use.spool().pricePerKilogram().toPlainString());
    }

    private Derivation perSpool(
            String label,
            Unit unit,
            String how,
            ToDoubleFunction<SpoolUse> value,
            java.util.function.Function<SpoolUse, String> reckoning) {
        return Derivation.sum(
                label,
                unit,
                how,
                uses.stream()
                        .filter(u -> value.applyAsDouble(u) > 0)
                        .map(u -> Derivation.of(u.spool().name(), value.applyAsDouble(u), unit, reckoning.apply(u)))
                        .toList());
    }

    /** What colours add to the time: exactly the whole print less the same print in one colour. */
    public Derivation addedTime() {
        List<Derivation> parts = new ArrayList<>();
        firstLoad.ifPresent(f -> parts.add(stop("First load of " + f.spool().name(), f.dryRun(), "before layer 1")));
        swaps.forEach(s -> parts.add(
                stop(s.out().name() + " → " + s.in().name(), s.machineSeconds(), howLong(s), s.dryRun(), s.place())));
        tower.ifPresent(t -> parts.add(Derivation.of(
                "Tower",
                towerSeconds(),
                Unit.SECONDS,
                Words.format(
                        "%.0f mm³ at the printer's print speed, 15 %% travel, 1 s a layer",
                        t.plastic().cubicMillimetres()))));
        if (base.waysOver() > 0) {
            parts.add(Derivation.of(
                    "Ways in this order",
                    base.waysOver(),
                    Unit.SECONDS,
                    "motion of the G-code as it is printed, less that as it was sliced"));
        }
        if (base.heating() > 0) {
            parts.add(Derivation.of(
                    "Heating",
                    base.heating(),
                    Unit.SECONDS,
                    "what the G-code waits for the nozzle at its own changes of tools"));
        }
        return Derivation.sum("Added time", Unit.SECONDS, "all that comes with colours, machine and person", parts);
    }

    private static String howLong(Swap swap) {
        return swap.spared() < 1
                ? AS_RUN
                : Words.format("%s, less %.0f s that the file need not heat for any more", AS_RUN, swap.spared());
    }

    private static Derivation stop(String name, DryRun run, String place) {
        return stop(name, run.machineSeconds(), AS_RUN, run, place);
    }

    private static Derivation stop(String name, double machine, String how, DryRun run, String place) {
        return Derivation.sum(
                name,
                Unit.SECONDS,
                place,
                List.of(
                        Derivation.of("Machine", machine, Unit.SECONDS, how),
                        Derivation.of("Person", run.personSeconds(), Unit.SECONDS, "at its stops, as the macro says")));
    }

    /** The same print in one colour. */
    public Derivation plainTime() {
        List<Derivation> parts = new ArrayList<>();
        parts.add(Derivation.of("Printing", base.plainSeconds(), Unit.SECONDS, howPrinted()));
        pauses.forEach(p ->
                p.dryRun().ifPresent(run -> parts.add(stop("Halt: " + p.note(), run, "before layer " + p.layer()))));
        return Derivation.sum("In one colour", Unit.SECONDS, "printing and halts", parts);
    }

    private String howPrinted() {
        return reckonedFrom() + (base.pace() == 1 ? "" : Words.format(", × %.2f as set for the printer", base.pace()));
    }

    private String reckonedFrom() {
        return base.source() == BasePrint.Source.SLICED
                ? "motion of the sliced G-code, with all that it holds"
                : "estimated from the model: " + terms.filling().words() + ", 15 % travel, 1 s a layer"
                        + (terms.copies() > 1 ? ", × " + terms.copies() + " copies" : "");
    }

    public Derivation totalTime() {
        return Derivation.sum(
                "Whole print", Unit.SECONDS, "in one colour, and what colours add", List.of(plainTime(), addedTime()));
    }

    public Derivation timePerColour() {
        return Derivation.sum(
                "Time by colour",
                Unit.SECONDS,
                "printing with it, and the swaps that put it in",
                uses.stream()
                        .map(u -> Derivation.of(
                                u.spool().name(),
                                u.seconds(),
                                Unit.SECONDS,
                                tower.isPresent()
                                        ? "printing, its swaps, its share of the tower"
                                        : "printing and its swaps"))
                        .toList());
    }

    /** All plastic, by spool. */
    public Derivation filamentGrams() {
        return perSpool(
                "Filament",
                Unit.GRAMS,
                "part and waste",
                SpoolUse::grams,
                u -> Words.format(
                        "%.1f g part, %.1f g waste", u.plastic().grams(u.spool().density()), u.wasteGrams()));
    }

    /** Plastic, and current where it is counted. */
    public Derivation cost() {
        List<Derivation> parts = new ArrayList<>();
        uses.forEach(u ->
                parts.add(Derivation.of(u.spool().name(), u.cost().doubleValue(), Unit.MONEY, money(u.grams(), u))));
        terms.power()
                .ifPresent(power -> parts.add(Derivation.of(
                        "Current",
                        power.cost(totalSeconds()),
                        Unit.MONEY,
                        Words.format(
                                "%.2f kWh at %.0f W × %s a kWh",
                                power.kilowattHours(totalSeconds()),
                                power.watts(),
                                power.perKilowattHour().toPlainString()))));
        return Derivation.sum(
                "Cost",
                Unit.MONEY,
                terms.power().isPresent()
                        ? "part and waste, mass × price, and current"
                        : "part and waste, mass × price",
                parts);
    }

    /** Every figure that opens, for what sends or writes them all. */
    public List<Derivation> figures() {
        return List.of(swapCount(), purgeLength(), wasteGrams(), totalTime(), timePerColour(), filamentGrams(), cost());
    }

    /** A figure of the plate for one of its copies. */
    public Derivation each(Derivation plate) {
        return new Derivation(
                plate.label() + ", each",
                plate.value() / terms.copies(),
                plate.unit(),
                "the plate's ÷ " + terms.copies(),
                List.of(plate));
    }
}
