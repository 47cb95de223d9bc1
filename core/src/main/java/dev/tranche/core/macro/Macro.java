package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What the printer does at an event.
 *
 * @param name as its owner calls it
 * @param event that it answers
 * @param on whether it fires
 * @param person how long the person takes at each stop
 * @param steps in order; none yet is allowed
 */
public record Macro(String name, Event event, boolean on, Duration person, List<MacroStep> steps) {
    public static final int MOST_STEPS = 200;

    /** What a person takes to change a spool by hand, unless measured (common practice). */
    public static final Duration BY_HAND = Duration.ofSeconds(90);

    public Macro {
        name = Words.oneLine(name);
        if (name.isEmpty() || name.length() > 60) {
            throw new Refusal("A macro needs a name of at most 60 letters.");
        }
        if (person.isNegative() || person.compareTo(Duration.ofHours(12)) > 0) {
            throw new Refusal("The person's time at a stop must be between 0 s and 12 hours.");
        }
        steps = List.copyOf(steps);
        if (steps.size() > MOST_STEPS) {
            throw Refusal.of("A macro of %d steps is too long; %d are allowed.", steps.size(), MOST_STEPS);
        }
    }

    /** Whether one of its steps is of that kind. */
    boolean has(Class<? extends Step> kind) {
        return steps.stream().anyMatch(s -> kind.isInstance(s.step()));
    }

    /** Whether a step that is done at {@code moment} is of a kind. */
    boolean does(Moment moment, Predicate<Step> kind) {
        return steps.stream().anyMatch(s -> s.happensFor(moment.extruder()) && kind.test(s.step()));
    }

    /** Whether the machine changes the filament by itself in it, by a feeder or a selector box, when {@code extruder} prints next. */
    public boolean feedsItself(int extruder) {
        return steps.stream()
                .filter(s -> s.happensFor(extruder))
                .anyMatch(s -> s.step() instanceof Step.SelectExtruder || s.step() instanceof Step.PressSwitch);
    }

    /** As it is done at {@code moment}: where a blend turns, nobody is called, and no filament is drawn out. */
    Macro at(Moment moment) {
        if (!moment.turns()) {
            return this;
        }
        List<Integer> waits = stops(moment.extruder());
        return new Macro(
                name,
                event,
                on,
                person,
                IntStream.range(0, steps.size())
                        .mapToObj(
                                i -> waits.contains(i) || step(i).step().isForSpool() ? step(i).turned(false) : step(i))
                        .toList());
    }

    /** Its steps in which a person is waited for at {@code moment}, in their order. */
    List<Integer> stops(Moment moment) {
        return moment.turns() ? List.of() : stops(moment.extruder());
    }

    /** Where none asks for somebody and the machine does not feed itself, they are the dwells from the longest on. */
    private List<Integer> stops(int extruder) {
        List<Integer> asking = happening(extruder, Step::asksForPerson);
        if (!asking.isEmpty() || feedsItself(extruder)) {
            return asking;
        }
        List<Integer> dwells = happening(extruder, Step.Dwell.class::isInstance);
        Comparator<Integer> seconds = Comparator.comparingInt(i -> ((Step.Dwell) step(i).step()).seconds());
        return dwells.stream()
                .max(seconds.thenComparing(Comparator.reverseOrder()))
                .map(longest -> dwells.subList(dwells.indexOf(longest), dwells.size()))
                .orElse(List.of());
    }

    private List<Integer> happening(int extruder, Predicate<Step> kind) {
        return IntStream.range(0, steps.size())
                .filter(i -> step(i).happensFor(extruder) && kind.test(step(i).step()))
                .boxed()
                .toList();
    }

    /** Whether it calls a routine of {@code printer}'s own, which may purge by itself, when {@code extruder} prints next. */
    public boolean callsRoutine(Printer printer, int extruder) {
        return steps.stream()
                .filter(s -> s.happensFor(extruder))
                .map(MacroStep::step)
                .anyMatch(s -> s instanceof Step.FirmwareRoutine
                        || s instanceof Step.SelectExtruder && !printer.hotend().blends());
    }

    /** Whether the nozzle is brought beside the bed before its steps, since nothing can be loaded where it is. */
    boolean beginsAside(Printer printer) {
        return event == Event.FIRST_LOAD
                && printer.parkSpot().isPresent()
                && !has(Step.Park.class)
                && !has(Step.FirmwareRoutine.class);
    }

    /** A macro that fires, of steps that are always done, with a person who takes the usual time. */
    public static Macro of(Event event, Step... steps) {
        return new Macro(
                event.title(),
                event,
                true,
                BY_HAND,
                Arrays.stream(steps).map(MacroStep::always).toList());
    }

    public Macro turned(boolean onOrOff) {
        return new Macro(name, event, onOrOff, person, steps);
    }

    public Macro named(String other) {
        return new Macro(other, event, on, person, steps);
    }

    /**
     * The same with a wait for a person: once the nozzle stands aside, or, where it never does, before anything is pushed through it.
     *
     * @return nothing if {@code printer} understands no command that waits, or there is no room for another step
     */
    public Optional<Macro> waitingForPerson(Printer printer) {
        int parked = last(Step.Park.class::isInstance) + 1;
        int pushes = first(s -> s instanceof Step.SelectExtruder || s instanceof Step.Load || s instanceof Step.Purge);
        return Stream.of(Command.M0, Command.M1, Command.M25)
                .filter(c -> steps.size() < MOST_STEPS && printer.abilities().understands(c))
                .findFirst()
                .map(c -> insert(parked > 0 ? parked : pushes, MacroStep.always(new Step.WaitForPerson(c))));
    }

    private int first(Predicate<Step> kind) {
        return IntStream.range(0, steps.size())
                .filter(i -> steps.get(i).on() && kind.test(steps.get(i).step()))
                .findFirst()
                .orElse(steps.size());
    }

    private int last(Predicate<Step> kind) {
        return IntStream.range(0, steps.size())
                .filter(i -> steps.get(i).on() && kind.test(steps.get(i).step()))
                .reduce(-1, (a, b) -> b);
    }

    public Macro taking(Duration personsTime) {
        return new Macro(name, event, on, personsTime, steps);
    }

    /** The step at {@code index}, from 0. */
    public MacroStep step(int index) {
        require(index);
        return steps.get(index);
    }

    /** With {@code step} put in before place {@code index}, from 0. */
    public Macro insert(int index, MacroStep step) {
        return changed(list -> list.add(Math.max(0, Math.min(index, list.size())), step));
    }

    public Macro replace(int index, MacroStep step) {
        require(index);
        return changed(list -> list.set(index, step));
    }

    public Macro remove(int index) {
        require(index);
        return changed(list -> list.remove(index));
    }

    /** With the step at {@code from} taken out and put in again so that it is at {@code to}. */
    public Macro move(int from, int to) {
        require(from);
        require(to);
        return changed(list -> list.add(to, list.remove(from)));
    }

    private Macro changed(Consumer<List<MacroStep>> change) {
        List<MacroStep> list = new ArrayList<>(steps);
        change.accept(list);
        return new Macro(name, event, on, person, list);
    }

    private void require(int index) {
        if (index < 0 || index >= steps.size()) {
            throw Refusal.of("There is no step %d in this macro any more; reload the page.", index + 1);
        }
    }
}
