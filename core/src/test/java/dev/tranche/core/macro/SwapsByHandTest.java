package dev.tranche.core.macro;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.Draw;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Swaps as people make them: change, purge, clean, confirm. */
class SwapsByHandTest {
    private static final Printer PRINTER = Printers.plain();
    private static final Moment MOMENT = new Moment(
            1, 2, 17, "A Soot", "B Chalk", 205, 240, 150, 190, 0, "", ControllerState.standingAt(90, 80, 3.2, 205));

    private static Macro ready(SwapMethod method) {
        return method.ready().answer(Event.SWAP).orElseThrow();
    }

    private static Macro asking(Macro macro) {
        return new Macro(
                macro.name(),
                macro.event(),
                true,
                macro.person(),
                macro.steps().stream().map(s -> s.turned(true)).toList());
    }

    private static DryRun run(Macro macro, Printer printer, Moment moment) {
        return DryRun.of(macro, SwapMethod.HOST_SCRIPTS.ready(), printer, moment);
    }

    private static DryRun run(Step... steps) {
        return DryRun.of(Macro.of(Event.SWAP, steps), PRINTER, MOMENT);
    }

    private static List<String> texts(DryRun run) {
        return RenderedLine.texts(run.lines());
    }

    /** Else the new tip, pushed as far as the old one was pulled, would stop short, and the purge with it. */
    @Test
    void unloading_pulls_to_behind_the_gears_from_where_the_tip_is_drawn_back_to() {
        ControllerState drawn = ControllerState.standingAt(90, 80, 3.2, 205).drawn(Draw.of(4), Draw.of(4));
        DryRun run = DryRun.of(
                Macro.of(
                        Event.SWAP,
                        new Step.Retract(2),
                        new Step.Unload(20, 30),
                        new Step.Load(20, 30),
                        new Step.Purge(4)),
                PRINTER,
                MOMENT.at(drawn));
        double gears = PRINTER.drive().gearsToNozzle();
        assertThat(texts(run))
                .contains(
                        "G1 E-" + Numerals.mm(gears + 20 - 6) + " F1800", "G1 E" + Numerals.mm(gears + 20) + " F1800");
    }

    @ParameterizedTest
    @EnumSource(
            value = SwapMethod.class,
            names = {"FIRMWARE_ROUTINE", "PAUSE_AND_PARK", "TIMED_WAIT"})
    void a_ready_swap_by_hand_wipes_before_it_returns_and_can_ask_whether_it_is_clean(SwapMethod method) {
        Printer printer =
                PRINTER.with(Abilities.of("M600 XYZUL", "M0", "M117", "M300 SP", "G4 S", "M104 S", "M109 S", "M400"));
        Macro macro = ready(method);
        List<String> titles = macro.steps().stream()
                .filter(MacroStep::on)
                .map(s -> s.step().title())
                .toList();
        assertThat(titles).endsWith("Wipe", "Return");
        DryRun asked = run(asking(macro), printer, MOMENT);
        assertThat(asked.faults()).isEmpty();
        assertThat(Duty.of(asking(macro), printer, MOMENT))
                .hasSizeGreaterThan(1)
                .last()
                .extracting(Duty::acts)
                .asList()
                .contains("Clear away the strand");
    }

    @Test
    void two_stops_with_work_between_them_are_a_swap_and_its_confirmation() {
        DryRun confirmed = run(
                new Step.Lift(5),
                new Step.Park(),
                new Step.WaitForPerson(Command.M0),
                new Step.Purge(4),
                new Step.WaitForPerson(Command.M0),
                new Step.Return());
        assertThat(confirmed.faults()).isEmpty();
        assertThat(confirmed.personSeconds()).isEqualTo(180);
        Macro twice = Macro.of(
                Event.SWAP,
                new Step.Lift(5),
                new Step.Park(),
                new Step.WaitForPerson(Command.M0),
                new Step.WaitForPerson(Command.M0),
                new Step.Return());
        Fault fault = DryRun.of(twice, PRINTER, MOMENT).faults().get(0);
        assertThat(fault.sentence()).contains("has stopped at step 3 with nothing done in between");
        assertThat(DryRun.of(fault.mend().orElseThrow().change().apply(twice), PRINTER, MOMENT)
                        .faults())
                .isEmpty();
    }

    @Test
    void a_strand_that_would_hang_over_the_part_is_seen_and_wiped_away() {
        Macro bare = Macro.of(
                Event.SWAP,
                new Step.Lift(5),
                new Step.Park(),
                new Step.WaitForPerson(Command.M0),
                new Step.Purge(4),
                new Step.Return());
        Fault fault = DryRun.of(bare, PRINTER, MOMENT).faults().get(0);
        assertThat(fault.severity()).isEqualTo(Severity.WARN);
        assertThat(fault.sentence()).contains("strand");
        Macro wiped = fault.mend().orElseThrow().change().apply(bare);
        assertThat(DryRun.of(wiped, PRINTER, MOMENT).faults()).isEmpty();
        assertThat(DryRun.of(wiped, PRINTER, MOMENT).wayBack())
                .as("the way back begins where it was wiped")
                .hasSize(2);
    }

    @ParameterizedTest
    @EnumSource(SwapMethod.class)
    void what_the_pair_needs_is_pushed_by_somebody_and_counted_once(SwapMethod method) {
        Printer all = PRINTER.with(
                Abilities.of("M600 XYZUL", "M0", "M25", "T", "M117", "M300 SP", "G4 S", "M104 S", "M109 S", "M400"));
        for (boolean byRoutine : new boolean[] {false, true}) {
            Macro macro = ready(method);
            Moment moment = MOMENT.leavingPurge(byRoutine && macro.callsRoutine(all, 0));
            DryRun with = run(macro, all, moment);
            DryRun without = run(
                    macro,
                    all,
                    new Moment(1, 2, 17, "A Soot", "B Chalk", 205, 240, 150, 0, 0, "", MOMENT.entry())
                            .leavingPurge(moment.byRoutine()));
            assertThat(with.purging().length()).isEqualTo(190);
            assertThat(with.purging().by()).isNotEqualTo(Purging.By.NOBODY);
            assertThat(with.pushed() - with.pulled() - (without.pushed() - without.pulled()))
                    .as("%s, %s", method, with.purging())
                    .isCloseTo(190, within(1e-6));
            assertThat(with.seconds() - without.seconds()).isGreaterThan(190 / 4.0 - 1);
        }
    }

    @Test
    void the_person_is_told_how_much_to_push_where_nothing_else_does() {
        Printer printer = PRINTER.with(Abilities.of("M600 XYZUL", "M117", "M300 SP", "M104 S", "M109 S"));
        DryRun run = DryRun.of(ready(SwapMethod.FIRMWARE_ROUTINE), printer, MOMENT);
        assertThat(run.purging()).isEqualTo(new Purging(190, Purging.By.PERSON));
        assertThat(texts(run)).contains("M117 Swap 1 of 2: load B Chalk push 190 mm");
        // The usual 90 s, and 190 mm at 4 mm/s.
        assertThat(run.personSeconds()).isCloseTo(90 + 47.5, within(1e-9));
        DryRun routine = DryRun.of(ready(SwapMethod.FIRMWARE_ROUTINE), printer, MOMENT.leavingPurge(true));
        assertThat(texts(routine)).contains("M117 Swap 1 of 2: load B Chalk");
        assertThat(routine.personSeconds()).isEqualTo(90);
        assertThat(routine.machineSeconds() - run.machineSeconds()).isCloseTo(47.5, within(1e-9));
    }

    @Test
    void the_nozzle_is_as_hot_as_the_hotter_of_two_while_both_are_moved() {
        List<String> lines = texts(DryRun.of(
                ready(SwapMethod.FIRMWARE_ROUTINE), PRINTER.with(Abilities.of("M600 X", "M104 S", "M109 SR")), MOMENT));
        int change = lines.indexOf("M600 X5");
        // M109 S does not wait where it has to cool, M109 R does (common practice in open firmware).
        assertThat(lines.subList(0, change)).contains("M109 R240");
        assertThat(lines.subList(change, lines.size())).contains("M109 R240");
        Moment back = new Moment(
                2, 2, 30, "B Chalk", "A Soot", 240, 205, 150, 190, 0, "", ControllerState.standingAt(90, 80, 6, 240));
        List<String> cooling = texts(DryRun.of(
                ready(SwapMethod.FIRMWARE_ROUTINE), PRINTER.with(Abilities.of("M600 X", "M104 S", "M109 SR")), back));
        assertThat(cooling).containsSubsequence("M109 R240", "M600 X5", "M109 R205");
    }

    @Test
    void the_numbers_of_a_firmwares_routine_are_the_printers_unless_they_are_typed() {
        Printer all = PRINTER.with(Abilities.of("M600 XYZEUL"));
        assertThat(texts(DryRun.of(Macro.of(Event.SWAP, Step.FirmwareRoutine.PLAIN), all, MOMENT)))
                .contains("M600 X5 Y5 Z5 E2 U60 L60");
        Step.FirmwareRoutine typed = new Step.FirmwareRoutine(
                "",
                "",
                OptionalDouble.of(20),
                OptionalDouble.of(30),
                OptionalDouble.of(12),
                OptionalDouble.of(3),
                OptionalDouble.of(80),
                OptionalDouble.of(70),
                OptionalDouble.of(10));
        DryRun run = DryRun.of(Macro.of(Event.SWAP, typed), all, MOMENT);
        assertThat(texts(run)).contains("M600 X20 Y30 Z12 E3 U80 L70");
        assertThat(run.pulled()).isEqualTo(80);
        assertThat(run.strip().get(0).machine()).isCloseTo(150 / 10.0, within(1e-9));
        assertThat(run.path()).anyMatch(l -> l.toX() == 20 && l.toY() == 30);
        assertThatThrownBy(() -> new Step.FirmwareRoutine(
                        "",
                        "",
                        OptionalDouble.of(20),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("both X and Y");
    }

    @Test
    void every_parameter_that_can_be_ticked_is_written_by_some_step() {
        Abilities everything = Abilities.of(Arrays.stream(Command.values())
                .map(c -> c.name() + " " + c.parameters())
                .toArray(String[]::new));
        // G4 takes one of two.
        Abilities inMilliseconds = Abilities.of("G4 P", "M109 S");
        Set<String> written = Stream.of(everything, inMilliseconds)
                .flatMap(a -> run(
                        Macro.of(
                                Event.SWAP,
                                new Step.Tone(880, 300),
                                new Step.Dwell(5),
                                new Step.Cool(),
                                new Step.Heat(HeatFor.INCOMING),
                                Step.FirmwareRoutine.PLAIN),
                        PRINTER.with(a),
                        MOMENT)
                        .lines()
                        .stream())
                .flatMap(l -> l.words().stream()
                        .skip(1)
                        .filter(w -> !w.ignored())
                        .map(w -> l.words().get(0).text() + " " + w.text().charAt(0)))
                .collect(Collectors.toSet());
        for (Command command : Command.values()) {
            // Blends and fades write these: BlendTest.
            if (!command.name().startsWith("M16")) {
                command.parameters().chars().forEach(letter -> assertThat(written)
                        .contains(command + " " + (char) letter));
            }
        }
    }

    @Test
    void letters_nobody_can_tick_stay_in_lines_of_ones_own() {
        Printer some = PRINTER.with(Abilities.of("M600 X", "G10", "M0"));
        List<String> lines =
                texts(DryRun.of(Macro.of(Event.SWAP, new Step.Raw("M600 X5 B3 Y9\nG10 S1\nG11 S1")), some, MOMENT));
        assertThat(lines).contains("M600 X5 B3", "G10 S1");
    }

    @Test
    void a_pause_of_ones_own_is_a_stop_with_its_parameters() {
        Macro macro = Macro.of(
                Event.SWAP,
                new Step.Lift(5),
                new Step.Park(),
                new Step.OwnPause("HOLD_HERE TIME={{number}} Z=20"),
                new Step.Purge(4),
                Step.Wipe.USUAL,
                new Step.Return());
        assertThat(DryRun.of(macro, PRINTER, MOMENT).faults()).singleElement().matches(f -> f.sentence()
                .contains("Nothing says that this printer stops there"));
        Dialect named = new Dialect(Dialect.Counting.NOT_SAID, List.of(new OwnLine("HOLD_HERE")), List.of());
        DryRun run = DryRun.of(macro, PRINTER.with(PRINTER.abilities().reading(named)), MOMENT);
        assertThat(texts(run)).contains("HOLD_HERE TIME=1 Z=20");
        assertThat(run.faults()).isEmpty();
        assertThat(run.attended()).isTrue();
        assertThat(run.personSeconds()).isEqualTo(90);
        assertThat(run(new Step.OwnPause("HOLD_HERE")).faults())
                .anyMatch(f -> f.sentence().contains("waits over the print"));
        for (String wrong : new String[] {"", "A\nB", "; nothing", "(nothing)", "X {{nobody}}"}) {
            assertThatThrownBy(() -> new Step.OwnPause(wrong)).isInstanceOf(Refusal.class);
        }
    }

    @Test
    void axes_are_homed_beside_the_print_and_the_nozzle_comes_back() {
        DryRun run = run(
                new Step.Lift(5),
                new Step.Home(Step.Home.Axes.BOTH),
                new Step.WaitForPerson(Command.M0),
                new Step.Return());
        assertThat(texts(run)).containsSubsequence("G28 X Y", "M0", "G1 X90 Y80 F7200");
        assertThat(run.faults()).isEmpty();
        assertThat(texts(run(new Step.Home(Step.Home.Axes.Y)))).contains("G28 Y");
    }

    @Test
    void a_switch_that_stands_somewhere_on_the_other_axis_is_met_there() {
        Lever lever = new Lever(Axis.X, 220, 3, false, OptionalDouble.of(140));
        Printer boxed = Printers.with(
                PRINTER,
                PRINTER.travel(),
                Corner.FRONT_LEFT,
                PRINTER.hotend(),
                PRINTER.parkSpot(),
                Optional.of(new Selector(lever, 0, List.of(1, 2))));
        List<String> lines = texts(DryRun.of(
                Macro.of(Event.SWAP, new Step.Lift(5), new Step.PressSwitch(), new Step.Return()), boxed, MOMENT));
        assertThat(lines).containsSubsequence("G1 X217 F7200", "G1 Y140 F7200", "G1 X220 F7200", "G1 X217 F7200");
        assertThatThrownBy(() -> Printers.with(
                        PRINTER,
                        PRINTER.travel(),
                        Corner.FRONT_LEFT,
                        PRINTER.hotend(),
                        PRINTER.parkSpot(),
                        Optional.of(
                                new Selector(new Lever(Axis.X, 220, 3, false, OptionalDouble.of(900)), 0, List.of(1)))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("The switch at Y 900");
    }

    @Test
    void a_timed_wait_lasts_as_long_as_the_person_takes() {
        Macro hurried = Macro.of(
                        Event.SWAP,
                        new Step.Lift(5),
                        new Step.Park(),
                        new Step.Dwell(60),
                        new Step.Purge(4),
                        Step.Wipe.USUAL,
                        new Step.Return())
                .taking(Duration.ofSeconds(100));
        Fault fault = DryRun.of(hurried, PRINTER, MOMENT).faults().get(0);
        assertThat(fault.sentence()).contains("60 s is shorter than the 100 s");
        Macro patient = fault.mend().orElseThrow().change().apply(hurried);
        assertThat(DryRun.of(patient, PRINTER, MOMENT).faults()).isEmpty();
        // A hand that pushes 190 mm besides needs 47.5 s more.
        Macro byHand = Macro.of(Event.SWAP, new Step.Lift(5), new Step.Park(), new Step.Dwell(100), new Step.Return())
                .taking(Duration.ofSeconds(90));
        assertThat(DryRun.of(byHand, PRINTER, MOMENT).faults())
                .anyMatch(f -> f.sentence().contains("shorter than the 138 s"));
    }

    @Test
    void the_person_is_told_each_thing_to_do_in_its_order() {
        List<Duty> pause = Duty.of(asking(ready(SwapMethod.PAUSE_AND_PARK)), PRINTER, MOMENT);
        assertThat(pause).hasSize(2);
        assertThat(pause.get(0).acts())
                .containsExactly(
                        "Pull A Soot out by hand, while the nozzle has 240 °C",
                        "Cut the end of B Chalk at a slant",
                        "Push B Chalk in, 60 mm from gears to nozzle, until it comes out",
                        "The printer pushes 190 mm through afterwards",
                        "Let the printer go on");
        assertThat(pause.get(1).acts())
                .containsExactly(
                        "See whether B Chalk comes out clean; push more through if not",
                        "Clear away the strand",
                        "Let the printer go on");
        assertThat(Duty.of(ready(SwapMethod.FIRMWARE_ROUTINE), PRINTER, MOMENT)
                        .get(0)
                        .acts())
                .containsExactly(
                        "The printer draws A Soot out; take it away",
                        "Cut the end of B Chalk at a slant",
                        "Push B Chalk up to the gears and say so at the printer; it draws it in",
                        "Push 190 mm more through, until it is clean",
                        "Clear away the strand",
                        "Let the printer go on");
        assertThat(Duty.of(ready(SwapMethod.TIMED_WAIT), PRINTER, MOMENT).get(0).acts())
                .last()
                .isEqualTo("Hands off: it goes on by itself after 150 s");
        assertThat(Duty.of(ready(SwapMethod.HOST_SCRIPTS), PRINTER, MOMENT)
                        .get(0)
                        .acts())
                .last()
                .isEqualTo("Resume the print at the host");
        assertThat(Duty.of(ready(SwapMethod.FEEDER), PRINTER, MOMENT)).isEmpty();
    }

    @Test
    void what_the_person_is_told_can_be_said_in_other_words() {
        Macro macro = Macro.of(Event.SWAP, new Step.Park(), new Step.WaitForPerson(Command.M0), new Step.Return());
        Macro told = macro.replace(
                1, new MacroStep(new Step.WaitForPerson(Command.M0), true, Set.of(), "Open the lid\n\nPut {{in}} in"));
        assertThat(Duty.of(told, PRINTER, MOMENT))
                .containsExactly(new Duty(1, List.of("Open the lid", "Put B Chalk in")));
        assertThatThrownBy(() -> new MacroStep(new Step.Park(), true, Set.of(), "{{nobody}}"))
                .isInstanceOf(Refusal.class);
    }
}
