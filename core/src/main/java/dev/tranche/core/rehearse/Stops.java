package dev.tranche.core.rehearse;

import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.estimate.FirstLoad;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.BlockStamp.What;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Mixing.Exchange;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Which stop of the plan the machine is at: told by the marks round what Tranche wrote, and for stops that were in the file
 * already, by what became of them.
 */
final class Stops {
    private final PlanFacts facts;
    /** Of stops in the file that stay, in their order: what of the plan each is, if anything. */
    private final Deque<Optional<StopTable.Meeting>> inTheFile = new ArrayDeque<>();

    private Optional<BlockStamp> block = Optional.empty();
    /** The block of the last stop, and how many there were in it. */
    private Optional<BlockStamp> last = Optional.empty();

    private int before;

    Stops(PlanFacts facts) {
        this.facts = facts;
        facts.stops().stream()
                .flatMap(t -> t.rows().stream())
                .filter(r -> !r.is(StopTable.Choice.REPLACE))
                .forEach(r -> inTheFile.add(r.is(StopTable.Choice.ADOPT) ? r.meets() : Optional.empty()));
    }

    /** A spool that goes into a slot of a feeder. */
    record Refill(int slot, SpoolId spool) {}

    /**
     * What is to be done at a stop.
     *
     * @param wanted the spool to put in, if one is changed there by hand
     * @param input at which it is put in, where the nozzle has several
     * @param toTheGears whether the machine takes it from the gears
     * @param push mm that the person pushes
     */
    record Duty(
            What what,
            Moment moment,
            Optional<SpoolId> wanted,
            OptionalInt input,
            boolean toTheGears,
            double push,
            double personSeconds,
            Optional<Refill> refill,
            List<String> acts) {
        Encounter encounter(long line, double seconds) {
            return new Encounter(Optional.of(what), moment.number(), moment.layer(), line, seconds, wanted, acts);
        }
    }

    /** A comment of the file. */
    void mark(String comment) {
        Optional<BlockStamp> begins = BlockStamp.beginning(comment);
        if (begins.isPresent()) {
            block = begins;
        } else if (BlockStamp.isEnd(comment)) {
            block = Optional.empty();
        }
    }

    /** The block in which the file is being read. */
    Optional<BlockStamp> block() {
        return block;
    }

    /** What is to be done where the machine has stopped, at a line of {@code at} or of no block. */
    Optional<Duty> next(Optional<BlockStamp> at) {
        if (at.isPresent()) {
            before = at.equals(last) ? before + 1 : 0;
            last = at;
            return duty(at.get().what(), at.get().number(), before);
        }
        Optional<StopTable.Meeting> adopted = inTheFile.isEmpty() ? Optional.empty() : inTheFile.poll();
        return adopted.flatMap(m -> duty(m.what(), m.number(), 0));
    }

    /** What is to be done in a wait of so many seconds: nothing in those that are not for a person. */
    Optional<Duty> inWait(Optional<BlockStamp> at, double seconds) {
        return at.filter(b -> !at.equals(last))
                .flatMap(b -> macro(event(b.what())))
                .filter(m ->
                        m.steps().stream().noneMatch(s -> s.on() && s.step().asksForPerson()))
                .filter(m -> m.steps().stream()
                        .filter(s -> s.on() && s.step() instanceof Step.Dwell)
                        .mapToInt(s -> ((Step.Dwell) s.step()).seconds())
                        .allMatch(s -> s <= seconds + 0.5))
                .flatMap(m -> next(at));
    }

    private static Event event(What what) {
        return what == What.LOAD ? Event.FIRST_LOAD : what == What.HALT ? Event.HALT : Event.SWAP;
    }

    private Optional<Macro> macro(Event event) {
        return facts.rig().macros().answer(event);
    }

    /** @param stopsBefore of the same block: a second one is for looking */
    private Optional<Duty> duty(What what, int number, int stopsBefore) {
        Optional<Macro> macro = macro(event(what));
        double person = macro.map(m -> m.person().toMillis() / 1000.0).orElse(0.0);
        return switch (what) {
            case SWAP -> facts.ledger().swaps().stream()
                    .filter(s -> s.number() == number)
                    .findFirst()
                    .map(s -> swap(s, macro, person, stopsBefore));
            case HALT -> facts.ledger().pauses().stream()
                    .filter(p -> p.number() == number)
                    .findFirst()
                    .map(p -> halt(p, person));
            case LOAD -> facts.ledger().firstLoad().map(f -> load(f, macro, person, stopsBefore));
            default -> Optional.empty();
        };
    }

    private Duty swap(Swap swap, Optional<Macro> macro, double person, int stopsBefore) {
        boolean fed = macro.filter(m -> m.feedsItself(swap.moment().extruder())).isPresent();
        boolean byHand = swap.exchanges().map(e -> !e.isEmpty()).orElse(!fed);
        boolean changes = stopsBefore == 0 && byHand;
        Purging purging = swap.dryRun().purging();
        return new Duty(
                swap.turns() ? What.MIX : What.SWAP,
                swap.moment(),
                changes ? Optional.of(swap.put()) : Optional.empty(),
                swap.exchanges().stream()
                        .flatMap(List::stream)
                        .mapToInt(Exchange::input)
                        .findFirst(),
                macro.filter(Stops::takesFromTheGears).isPresent(),
                changes && purging.by() == Purging.By.PERSON ? purging.length() : 0,
                person,
                Optional.empty(),
                acts(swap.duties(facts.rig()), stopsBefore));
    }

    private Duty load(FirstLoad load, Optional<Macro> macro, double person, int stopsBefore) {
        return new Duty(
                What.LOAD,
                load.moment(),
                stopsBefore == 0 && !load.spool().id().isMixture()
                        ? Optional.of(load.spool().id())
                        : Optional.empty(),
                OptionalInt.empty(),
                macro.filter(Stops::takesFromTheGears).isPresent(),
                0,
                person,
                Optional.empty(),
                List.of("Load " + load.moment().in()));
    }

    private Duty halt(Pause pause, double person) {
        return new Duty(
                What.HALT,
                pause.moment(),
                Optional.empty(),
                OptionalInt.empty(),
                false,
                0,
                person,
                refill(pause),
                acts(pause.duties(facts.rig()), 0));
    }

    /** The slot that has to be filled for the next swap, where there are fewer of them than spools. */
    private Optional<Refill> refill(Pause pause) {
        return facts.ledger().swaps().stream()
                .filter(s -> s.startsAt() >= pause.startsAt())
                .findFirst()
                .flatMap(s -> {
                    Loading.Stage stage = facts.ledger().loading().stages().get(s.number());
                    return stage.replaced().map(gone -> new Refill(stage.extruder(), s.in().id()));
                });
    }

    private static List<String> acts(List<dev.tranche.core.macro.Duty> duties, int stop) {
        return stop < duties.size() ? duties.get(stop).acts() : List.of();
    }

    private static boolean takesFromTheGears(Macro macro) {
        return has(macro, Step.FirmwareRoutine.class) || has(macro, Step.Load.class);
    }

    private static boolean has(Macro macro, Class<? extends Step> kind) {
        return macro.steps().stream().anyMatch(s -> s.on() && kind.isInstance(s.step()));
    }
}
