package dev.tranche.core.rig;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The virtual extruders of a printer, T0 upwards.
 *
 * @param extruders 1 to 16
 * @param inputs spools at the inputs of a nozzle that blends, as far as they are settled; empty on any other
 */
public record Rack(List<VirtualExtruder> extruders, List<Optional<SpoolId>> inputs) {
    public static final int MOST = 16;

    public Rack {
        extruders = List.copyOf(extruders);
        inputs = List.copyOf(inputs);
        if (extruders.isEmpty() || extruders.size() > MOST) {
            throw Refusal.of("A rack has 1 to %d virtual extruders, not %d.", MOST, extruders.size());
        }
    }

    /** {@code count} extruders without spools; on a nozzle that blends, the first are its inputs, one each. */
    public static Rack of(Printer printer, int count) {
        List<VirtualExtruder> extruders = new ArrayList<>();
        int inputs = printer.hotend().inputs();
        for (int i = 0; i < count; i++) {
            VirtualExtruder plain = VirtualExtruder.of(printer);
            extruders.add(printer.hotend().blends() ? plain.blending(Blend.only(i % inputs, inputs)) : plain);
        }
        return new Rack(
                extruders, printer.hotend().blends() ? Collections.nCopies(inputs, Optional.empty()) : List.of());
    }

    public int size() {
        return extruders.size();
    }

    public VirtualExtruder extruder(int number) {
        if (number < 0 || number >= extruders.size()) {
            throw Refusal.of("There is no T%d in this rack; it ends at T%d.", number, extruders.size() - 1);
        }
        return extruders.get(number);
    }

    public Rack replace(int number, VirtualExtruder extruder) {
        extruder(number);
        List<VirtualExtruder> list = new ArrayList<>(extruders);
        list.set(number, extruder);
        return new Rack(list, inputs);
    }

    /** With as many extruders as {@code count}: new ones are like the last, the highest go. */
    public Rack resize(int count) {
        if (count < 1 || count > MOST) {
            throw Refusal.of("A rack has 1 to %d virtual extruders, not %d.", MOST, count);
        }
        List<VirtualExtruder> list = new ArrayList<>(extruders.subList(0, Math.min(count, extruders.size())));
        VirtualExtruder last = extruders.get(extruders.size() - 1);
        while (list.size() < count) {
            list.add(new VirtualExtruder(
                    Optional.empty(),
                    last.firstLayerTemperature(),
                    last.temperature(),
                    last.standby(),
                    last.liftOnRetract(),
                    last.nozzle(),
                    last.filament(),
                    last.offset(),
                    last.blend()));
        }
        return new Rack(list, inputs);
    }

    /** Every spool that an extruder or an input is settled for. */
    public Set<SpoolId> spools() {
        return Stream.concat(extruders.stream().map(VirtualExtruder::spool), inputs.stream())
                .flatMap(Optional::stream)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** The same with each spool known by another number; where there is none for it, nothing is settled any more. */
    public Rack renumbered(Function<SpoolId, Optional<SpoolId>> other) {
        return new Rack(
                extruders.stream().map(e -> e.holding(e.spool().flatMap(other))).toList(),
                inputs.stream().map(i -> i.flatMap(other)).toList());
    }

    /** What a blend that extruder {@code number} keeps is made of, if the spools of its inputs are settled; of plain inputs nothing. */
    public Optional<Recipe> recipe(int number) {
        Map<SpoolId, Double> shares = new LinkedHashMap<>();
        List<Double> weights = extruder(number).blend().map(Blend::weights).orElse(List.of());
        for (int i = 0; i < weights.size(); i++) {
            if (weights.get(i) > 0) {
                if (i >= inputs.size() || inputs.get(i).isEmpty()) {
                    return Optional.empty();
                }
                shares.merge(inputs.get(i).get(), weights.get(i), Double::sum);
            }
        }
        return shares.size() < 2 ? Optional.empty() : Optional.of(Recipe.of(shares));
    }

    public Rack feeding(int input, Optional<SpoolId> spool) {
        if (input < 0 || input >= inputs.size()) {
            throw Refusal.of("There is no input %d on this nozzle; it has %d.", input + 1, inputs.size());
        }
        List<Optional<SpoolId>> list = new ArrayList<>(inputs);
        list.set(input, spool);
        return new Rack(extruders, list);
    }

    /** Where an extruder believes something else of the one nozzle than the printer knows. */
    public record Disagreement(int extruder, String what, String believed, String known) {}

    public List<Disagreement> disagreements(Printer printer) {
        List<Disagreement> found = new ArrayList<>();
        for (int t = 0; t < extruders.size(); t++) {
            VirtualExtruder e = extruders.get(t);
            if (e.nozzle() != printer.nozzle()) {
                found.add(new Disagreement(t, "nozzle", mm(e.nozzle()), mm(printer.nozzle())));
            }
            if (e.filament() != printer.filament().diameter()) {
                found.add(new Disagreement(
                        t, "filament", mm(e.filament()), mm(printer.filament().diameter())));
            }
            if (!e.offset().equals(VirtualExtruder.NO_OFFSET)) {
                found.add(new Disagreement(
                        t,
                        "offset",
                        Words.format(
                                "X %s Y %s mm",
                                plain(e.offset().x()), plain(e.offset().y())),
                        "none"));
            }
            int inputs = printer.hotend().inputs();
            if (e.blend().map(b -> b.weights().size()).orElse(inputs) != inputs) {
                found.add(new Disagreement(
                        t,
                        "blend",
                        e.blend().orElseThrow().weights().size() + " inputs",
                        inputs + (inputs == 1 ? " input" : " inputs")));
            }
        }
        return found;
    }

    /** The same rack with every extruder believing what the printer knows. */
    public Rack agreeingWith(Printer printer) {
        int count = printer.hotend().inputs();
        List<VirtualExtruder> list = new ArrayList<>();
        for (int t = 0; t < extruders.size(); t++) {
            VirtualExtruder e = extruders.get(t).agreeingWith(printer);
            boolean fits = e.blend().map(b -> b.weights().size()).orElse(0) == (count > 1 ? count : 0);
            list.add(fits ? e : reblended(e, t, count));
        }
        List<Optional<SpoolId>> feeds = new ArrayList<>();
        for (int i = 0; count > 1 && i < count; i++) {
            feeds.add(i < inputs.size() ? inputs.get(i) : Optional.empty());
        }
        return new Rack(list, feeds);
    }

    private static VirtualExtruder reblended(VirtualExtruder e, int number, int inputs) {
        return new VirtualExtruder(
                e.spool(),
                e.firstLayerTemperature(),
                e.temperature(),
                e.standby(),
                e.liftOnRetract(),
                e.nozzle(),
                e.filament(),
                e.offset(),
                inputs > 1 ? Optional.of(Blend.only(number % inputs, inputs)) : Optional.empty());
    }

    /**
     * °C for printing {@code spool} with extruder {@code number}: the extruder's own if it is its spool.
     *
     * @param layer that is printed, from 1; the first has a temperature of its own
     */
    public int temperature(int number, Spool spool, int layer) {
        VirtualExtruder e = extruder(number);
        boolean own = e.spool().filter(spool.id()::equals).isPresent();
        if (layer == 1) {
            return own ? e.firstLayerTemperature() : spool.firstLayerTemperature();
        }
        return own ? e.temperature() : spool.temperature();
    }

    private static String mm(double value) {
        return plain(value) + " mm";
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }
}
