package dev.tranche.core.macro;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.Draw;
import dev.tranche.core.gcode.Modes;
import dev.tranche.core.gcode.Trim;
import dev.tranche.core.gcode.Units;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MacroTest {
    private static final ControllerState ENTRY = ControllerState.standingAt(90, 80, 3.2, 210);

    private static Moment moment(ControllerState entry, String in) {
        return new Moment(1, 2, 17, "A Soot", in, 215, 205, 150, 100, 1, "", entry);
    }

    private static Macro ready(SwapMethod method) {
        return method.ready().answer(Event.SWAP).orElseThrow();
    }

    private static DryRun run(Step... steps) {
        return DryRun.of(Macro.of(Event.SWAP, steps), Printers.plain(), moment(ENTRY, "B Chalk"));
    }

    private static List<String> sentences(DryRun run) {
        return run.faults().stream().map(Fault::sentence).toList();
    }

    private static List<String> text(List<RenderedLine> lines) {
        return RenderedLine.texts(lines);
    }

    @Test
    void a_pause_parks_waits_purges_and_comes_back() {
        Macro macro = ready(SwapMethod.PAUSE_AND_PARK);
        assertThat(text(MacroRenderer.render(macro, Printers.plain(), moment(ENTRY, "B Chalk"))))
                .containsExactly(
                        "G90",
                        "M83",
                        "M400",
                        "G1 E-2 F1800",
                        "G1 Z8.2 F600",
                        "G1 X5 Y5 F7200",
                        "M300 S880 P300",
                        "M117 Swap 1 of 2: load B Chalk",
                        "M109 S215",
                        "M0",
                        "M109 S205",
                        "G1 E102 F240",
                        "G1 E-2 F1800",
                        "G1 X25 F7200",
                        "G1 X5 F7200",
                        "G1 X25 F7200",
                        "G1 X5 F7200",
                        "G1 X90 Y80 F7200",
                        "G1 Z3.2 F600",
                        "G1 E2 F1800",
                        "G1 F3000",
                        "M82",
                        "G92 E0");
    }

    @Test
    void the_firmware_routine_gets_only_the_parameters_it_honours() {
        Macro macro = ready(SwapMethod.FIRMWARE_ROUTINE);
        Printer some = Printers.plain().with(Abilities.of("M600 XY", "M117"));
        assertThat(text(MacroRenderer.render(macro, some, moment(ENTRY, "B Chalk"))))
                .contains("M600 X5 Y5")
                .noneMatch(l -> l.startsWith("M300"));
        Printer none = Printers.plain().with(Abilities.of("M600"));
        assertThat(text(MacroRenderer.render(macro, none, moment(ENTRY, "B Chalk"))))
                .contains("M600");
        Printer all = Printers.plain().with(Abilities.of("M600 XYZUL"));
        assertThat(text(MacroRenderer.render(macro, all, moment(ENTRY, "B Chalk"))))
                .contains("M600 X5 Y5 Z5 U60 L60");
    }

    private static ControllerState state(double x, double y, double z, double e, double r, Modes modes, Units units) {
        return new ControllerState(x, y, z, e, Draw.of(r), Draw.of(r), 30, modes, units, 210, 210, Trim.NONE);
    }

    @Test
    void names_cannot_smuggle_commands_or_comments_into_a_line() {
        Macro macro = ready(SwapMethod.PAUSE_AND_PARK);
        List<String> lines =
                text(MacroRenderer.render(macro, Printers.plain(), moment(ENTRY, "B Chalk\nM104 S300 ; (x) é")));
        assertThat(lines).hasSize(23).contains("M117 Swap 1 of 2: load B Chalk M104 S300 x e");
    }

    @Test
    void a_file_in_inches_with_relative_extrusion_gets_its_modes_back() {
        ControllerState inches = state(90, 80, 3.2, 25.4, 1.5, new Modes(true, true, true), new Units(true, 0));
        List<RenderedLine> lines =
                MacroRenderer.render(ready(SwapMethod.PAUSE_AND_PARK), Printers.plain(), moment(inches, "B"));
        assertThat(text(lines)).startsWith("G21").endsWith("G1 F1800", "G20", "G91", "M83", "G92 E1");
        assertThat(DryRun.of(ready(SwapMethod.PAUSE_AND_PARK), Printers.plain(), moment(inches, "B"))
                        .faults())
                .isEmpty();
    }

    @Test
    void a_dry_run_counts_filament_and_time() {
        DryRun run = DryRun.of(ready(SwapMethod.PAUSE_AND_PARK), Printers.plain(), moment(ENTRY, "B"));
        assertThat(run.pushed() - run.pulled()).isCloseTo(100, within(1e-6));
        // 102 mm at 4 mm/s alone take 25.5 s.
        assertThat(run.machineSeconds()).isGreaterThan(25.5);
        assertThat(run.personSeconds()).isEqualTo(90);
        assertThat(run.strip().stream().mapToDouble(DryRun.StepTime::machine).sum())
                .isCloseTo(run.machineSeconds(), within(1e-9));
        assertThat(run.strip().get(6).person()).isEqualTo(90);
        assertThat(run.path()).anyMatch(leg -> leg.step() == 2 && leg.toX() == 5 && leg.fromX() == 90);
    }

    @Test
    void a_dry_run_sees_the_nozzle_leave_its_travel_dip_and_scratch() {
        DryRun run = run(new Step.Raw("G1 X500\nG1 X90 Z1\nG1 Z3.2 F3000"));
        assertThat(sentences(run))
                .anyMatch(s -> s.contains("leaves its travel at X 500.0"))
                .anyMatch(s -> s.contains("dips into the print at Z 1.00"))
                .anyMatch(s -> s.contains("crosses the print"));
        assertThat(run.faults()).allMatch(f -> f.step() == 0 || f.step() == RenderedLine.FRAME);
    }

    @Test
    void a_dry_run_sees_a_cold_nozzle_but_not_one_it_knows_nothing_of() {
        Macro push = Macro.of(Event.SWAP, new Step.Prime(5, 4));
        ControllerState unknown = ControllerState.standingAt(90, 80, 3.2, ControllerState.UNKNOWN);
        ControllerState cold = ControllerState.standingAt(90, 80, 3.2, 0);
        assertThat(sentences(DryRun.of(push, Printers.plain(), moment(unknown, "B"))))
                .noneMatch(s -> s.contains("too cold"));
        assertThat(sentences(DryRun.of(push, Printers.plain(), moment(cold, "B"))))
                .anyMatch(s -> s.contains("too cold"));
    }

    @Test
    void own_lines_that_change_modes_are_named_with_their_step() {
        assertThat(run(new Step.Lift(5), new Step.Raw("G91\nG1 X5\nG1 X-5")).faults())
                .anyMatch(f -> f.step() == 1 && f.sentence().contains("absolute and relative"));
        assertThat(run(new Step.Raw("M82")).faults())
                .anyMatch(f -> f.step() == 0 && f.sentence().contains("how filament is counted"));
        assertThat(run(new Step.Raw("G20")).faults()).anyMatch(f -> f.sentence().contains("the unit"));
        assertThat(sentences(run(new Step.Raw("G91\nG1 X5\nG1 X-5\nG90\nM83"))))
                .noneMatch(s -> s.contains("change back"));
    }

    @Test
    void own_lines_that_do_not_come_back_are_seen() {
        assertThat(sentences(run(new Step.Raw("G1 X100"))))
                .anyMatch(s -> s.contains("does not return to where it came from, but to X 100.00"));
        assertThat(sentences(run(new Step.Raw("G92 X0")))).anyMatch(s -> s.contains("does not return"));
        Printer drawing = Printers.plain().with(Abilities.of("G10", "G11"));
        assertThat(sentences(DryRun.of(Macro.of(Event.SWAP, new Step.Raw("G10")), drawing, moment(ENTRY, "B"))))
                .anyMatch(s -> s.contains("no G11"));
    }

    @Test
    void a_wait_longer_than_the_heater_is_seen() {
        assertThat(sentences(run(new Step.Lift(5), new Step.Park(), new Step.Dwell(900))))
                .anyMatch(s -> s.contains("cools after 600 s") && s.contains("about 900 s"));
    }

    @Test
    void a_nozzle_that_waits_over_the_print_is_seen() {
        assertThat(sentences(run(new Step.Lift(5), new Step.WaitForPerson(Command.M0))))
                .anyMatch(s -> s.contains("waits over the print"));
    }

    @Test
    void a_temperature_beyond_the_printer_is_seen() {
        assertThat(run(new Step.Raw("M104 S300")).faults())
                .anyMatch(f -> f.step() == 0 && f.sentence().contains("more than the 260 °C"));
    }

    @Test
    void a_command_the_firmware_lacks_is_left_out_and_what_it_can_do_is_offered() {
        Printer mute = Printers.plain().with(Abilities.of("G4 S", "M300 SP"));
        Macro macro = Macro.of(Event.SWAP, new Step.Park(), new Step.WaitForPerson(Command.M0));
        DryRun run = DryRun.of(macro, mute, moment(ENTRY, "B"));
        assertThat(RenderedLine.texts(run.lines())).doesNotContain("M0");
        assertThat(run.lines()).anyMatch(l -> l.text().equals("M0") && !l.written());
        Fault fault = run.faults().stream()
                .filter(f -> f.sentence().contains("does not understand M0"))
                .findFirst()
                .orElseThrow();
        Macro mended = fault.mend().orElseThrow().change().apply(macro);
        assertThat(mended.steps()).extracting(MacroStep::step).endsWith(new Step.Tone(880, 800), new Step.Dwell(120));
        assertThat(sentences(DryRun.of(mended, mute, moment(ENTRY, "B")))).noneMatch(s -> s.contains("understand"));
    }

    @Test
    void an_ignored_parameter_is_shown_left_out_and_named() {
        Printer some = Printers.plain().with(Abilities.of("M600 XY"));
        DryRun run = DryRun.of(ready(SwapMethod.FIRMWARE_ROUTINE), some, moment(ENTRY, "B"));
        RenderedLine line = run.lines().stream()
                .filter(l -> l.text().startsWith("M600"))
                .findFirst()
                .orElseThrow();
        assertThat(line.words())
                .filteredOn(Word::ignored)
                .extracting(Word::text)
                .containsExactly("Z5", "U60", "L60");
        assertThat(line.text()).isEqualTo("M600 X5 Y5");
        assertThat(sentences(run)).anyMatch(s -> s.contains("no notice of L of M600 (way in, gears to nozzle)"));
        DryRun own = DryRun.of(Macro.of(Event.SWAP, new Step.Raw("M600 L90 X5")), some, moment(ENTRY, "B"));
        assertThat(RenderedLine.texts(own.lines())).contains("M600 X5");
    }

    @Test
    void every_number_has_its_setting() {
        for (SwapMethod method : SwapMethod.values()) {
            for (RenderedLine line : DryRun.of(ready(method), Printers.plain(), moment(ENTRY, "B"))
                    .lines()) {
                assertThat(line.words().subList(1, line.words().size()))
                        .as(line.text())
                        .allMatch(w -> !w.setting().isEmpty());
            }
        }
    }

    @Test
    void a_comment_behind_a_command_is_a_fault_only_where_the_firmware_chokes() {
        Macro macro = Macro.of(Event.SWAP, new Step.Raw("; on its own\nM117 hello ; there"));
        Printer fussy = Printers.plain().with(Printers.plain().abilities().withoutComments());
        assertThat(sentences(DryRun.of(macro, fussy, moment(ENTRY, "B")))).anyMatch(s -> s.contains("chokes"));
        assertThat(sentences(DryRun.of(macro, Printers.plain(), moment(ENTRY, "B"))))
                .noneMatch(s -> s.contains("chokes"));
    }

    @Test
    void a_command_nobody_knows_is_noted() {
        assertThat(run(new Step.Raw("M907 X800")).faults())
                .anyMatch(f -> f.severity() == Severity.NOTE && f.sentence().contains("M907"));
        assertThat(sentences(run(new Step.Raw("M106 S128")))).noneMatch(s -> s.contains("M106"));
    }

    @Test
    void names_are_filled_in_and_unknown_ones_refused() {
        DryRun run = run(new Step.Raw(
                "M117 {{in}} at {{temp_in}} before {{layer}} ({{layer_from_0}}), {{purge}} mm, T{{extruder}}"));
        assertThat(RenderedLine.texts(run.lines())).contains("M117 B Chalk at 205 before 17 (16), 100 mm, T1");
        assertThatThrownBy(() -> new Step.Raw("M117 {{spool}}"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("{{spool}} is not a name that macros know");
        assertThatThrownBy(() -> new Step.Message("load {{in"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("braces");
        assertThatThrownBy(() -> new Step.Raw("{{>other}}")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Step.Raw("x".repeat(5000)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("5000");
        assertThatThrownBy(() -> new Step.Message(" ")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Step.Message("one\ntwo")).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{{<in}}x{{/in}}",
                "{{}}",
                "{{=}}",
                "{{=<% %>=}}",
                "{{#in}}x{{/in}}",
                "{{^in}}x{{/in}}",
                "{{$in}}x{{/in}}",
                "{{!note}}",
                "{{>other}}",
                "{{.}}",
                "{{in.out}}",
                "{{{in}}",
                "{{in}}}",
                "{{{{in}}}}",
                "{{in",
                "in}}",
                "{{ }}"
            })
    void text_holds_names_and_nothing_else_of_the_template_language(String text) {
        assertThatThrownBy(() -> new Step.Message(text))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("{{");
        assertThatThrownBy(() -> new Step.Raw("M117 " + text)).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"{{in}}", "{{ in }}", "{{{in}}}", "{{&in}}", "{{& in}}"})
    void a_name_may_be_escaped_or_not(String name) {
        assertThat(text(run(new Step.Raw("M117 " + name)).lines())).contains("M117 B Chalk");
    }

    @Test
    void filament_goes_in_and_out_by_the_measured_length_in_moves_no_firmware_refuses() {
        Printer tube = Beginning.SELECTOR.rig("Box").printer();
        List<String> lines = text(DryRun.of(Macro.of(Event.SWAP, new Step.Unload(20, 30)), tube, moment(ENTRY, "B"))
                .lines());
        // 700 mm of tube and 20 mm: four moves of 180 mm, since firmware often refuses more than 200 (common practice).
        assertThat(lines.stream().filter("G1 E-180 F1800"::equals)).hasSize(4);
    }

    @Test
    void steps_that_contradict_each_other_are_seen_and_mended() {
        Macro macro =
                Macro.of(Event.SWAP, new Step.Park(), new Step.Load(0, 30), new Step.Unload(0, 30), new Step.Return());
        Fault fault = only(macro, "Load stands before Unload");
        assertThat(fault.severity()).isEqualTo(Severity.STOP);
        assertThat(fault.step()).isEqualTo(1);
        assertThat(fault.mend().orElseThrow().change().apply(macro).steps())
                .extracting(s -> s.step().title())
                .containsExactly("Park", "Unload", "Load", "Return");
        Macro early = Macro.of(Event.SWAP, new Step.Return(), new Step.Park(), new Step.Dwell(10));
        Macro late = only(early, "Return stands before")
                .mend()
                .orElseThrow()
                .change()
                .apply(early);
        assertThat(late.steps()).extracting(s -> s.step().title()).endsWith("Return");
        only(Macro.of(Event.SWAP, new Step.Unload(0, 30)), "never loaded again");
        only(Macro.of(Event.SWAP, new Step.Purge(4)), "over the print");
        only(
                Macro.of(Event.SWAP, new Step.WaitForPerson(Command.M0), Step.FirmwareRoutine.PLAIN),
                "nothing done in between");
        only(Macro.of(Event.SWAP, new Step.PressSwitch()), "no selector box");
    }

    @Test
    void a_length_beyond_the_tube_by_more_than_a_third_is_seen() {
        only(Macro.of(Event.SWAP, new Step.Unload(21, 30)), "over a third more than the 60 mm");
        assertThat(sentences(run(new Step.Unload(20, 30)))).noneMatch(s -> s.contains("a third"));
        only(Macro.of(Event.SWAP, new Step.Load(-60, 30)), "moves nothing");
    }

    private static Fault only(Macro macro, String words) {
        List<Fault> found = DryRun.of(macro, Printers.plain(), moment(ENTRY, "B")).faults().stream()
                .filter(f -> f.sentence().contains(words))
                .toList();
        assertThat(found).as(words).hasSize(1);
        return found.get(0);
    }

    @Test
    void steps_can_be_switched_off_and_limited_to_extruders() {
        MacroStep tone = new MacroStep(new Step.Tone(440, 100), true, Set.of(0, 2));
        Macro macro = Macro.of(Event.SWAP, new Step.Dwell(10)).insert(0, tone);
        Moment t1 = moment(ENTRY, "B");
        assertThat(text(DryRun.of(macro, Printers.plain(), t1).lines())).noneMatch(l -> l.startsWith("M300"));
        assertThat(text(DryRun.of(macro, Printers.plain(), t1.onto(2)).lines())).anyMatch(l -> l.startsWith("M300"));
        Macro off = macro.replace(0, new MacroStep(tone.step(), false, Set.of()));
        assertThat(text(DryRun.of(off, Printers.plain(), t1.onto(2)).lines())).noneMatch(l -> l.startsWith("M300"));
        assertThatThrownBy(() -> new MacroStep(tone.step(), true, Set.of(16))).isInstanceOf(Refusal.class);
    }

    @Test
    void steps_move_and_go() {
        Macro macro = Macro.of(Event.HALT, new Step.Lift(1), new Step.Park(), new Step.Return());
        assertThat(macro.move(0, 2).steps())
                .extracting(s -> s.step().title())
                .containsExactly("Park", "Return", "Lift");
        assertThat(macro.move(2, 0).steps())
                .extracting(s -> s.step().title())
                .containsExactly("Return", "Lift", "Park");
        assertThat(macro.remove(1).steps()).hasSize(2);
        assertThatThrownBy(() -> macro.remove(3)).isInstanceOf(Refusal.class).hasMessageContaining("no step 4");
    }

    @Test
    void a_wipe_and_a_cut_stay_on_the_machine_and_are_taken_back() {
        DryRun run = run(
                new Step.Lift(5),
                new Step.Park(),
                new Step.Wipe(Axis.X, 20, 2),
                new Step.Cut(Axis.Y, 220, 8),
                new Step.Dwell(120));
        assertThat(text(run.lines())).contains("G1 X25 F7200", "G1 Y212 F7200", "G1 Y220 F1200");
        assertThat(run.faults()).isEmpty();
    }

    @Test
    void heating_and_cooling_take_their_temperatures_from_spools_and_rack() {
        assertThat(text(run(new Step.Heat(HeatFor.HOTTER), new Step.Cool(), new Step.Heat(HeatFor.OUTGOING))
                        .lines()))
                .contains("M109 S215", "M104 S150");
    }

    @Test
    void a_printer_without_a_park_spot_lifts_and_stays() {
        Printer nowhere = Printers.parkingAt(Printers.plain(), Optional.empty());
        assertThat(text(MacroRenderer.render(ready(SwapMethod.PAUSE_AND_PARK), nowhere, moment(ENTRY, "B"))))
                .noneMatch(l -> l.contains("X"));
        assertThat(Printers.parkingAt(Printers.plain(), Optional.of(new Point(1, 2)))
                        .parkSpot())
                .isPresent();
    }

    @Property(tries = 500)
    void no_macro_of_valid_steps_leaves_anything_changed(
            @ForAll("macros") List<Step> steps, @ForAll("states") ControllerState entry) {
        Printer box = Beginning.SELECTOR.rig("Box").printer();
        for (Printer printer : new Printer[] {Printers.plain(), box}) {
            Macro macro = Macro.of(Event.SWAP, steps.toArray(Step[]::new));
            DryRun run = DryRun.of(macro, printer, moment(entry, "B"));
            assertThat(run.exit().continuesAs(entry))
                    .as(() -> text(run.lines()).toString())
                    .isTrue();
            for (boolean together : new boolean[] {true, false}) {
                Rs274 independent = new Rs274(entry, together);
                text(run.lines()).forEach(independent::obey);
                assertThat(independent.isBackAt(entry))
                        .as(() -> text(run.lines()).toString())
                        .isTrue();
            }
        }
    }

    @Provide
    Arbitrary<List<Step>> macros() {
        return Arbitraries.<Step>of(
                        new Step.Tone(880, 100),
                        Step.Message.LOAD,
                        new Step.Retract(2),
                        new Step.Lift(5),
                        new Step.Park(),
                        new Step.WaitForPerson(Command.M0),
                        new Step.Dwell(10),
                        new Step.Heat(HeatFor.INCOMING),
                        new Step.Cool(),
                        new Step.Unload(10, 30),
                        new Step.Load(-5, 30),
                        new Step.Prime(3, 2),
                        new Step.Cut(Axis.Y, 215, 4),
                        new Step.PressSwitch(),
                        new Step.SelectExtruder(),
                        new Step.Wipe(Axis.X, 12, 3),
                        new Step.WaitForMoves(),
                        new Step.Purge(4),
                        Step.FirmwareRoutine.PLAIN,
                        new Step.Return())
                .list()
                .ofMinSize(1)
                .ofMaxSize(12);
    }

    @Provide
    Arbitrary<ControllerState> states() {
        return Combinators.combine(
                        Arbitraries.doubles().between(0, 200),
                        Arbitraries.doubles().between(0, 200),
                        Arbitraries.doubles().between(0.2, 100),
                        Arbitraries.doubles().between(0, 5000),
                        Arbitraries.doubles().between(0, 3),
                        Combinators.combine(
                                        Arbitraries.of(true, false),
                                        Arbitraries.of(true, false),
                                        Arbitraries.of(true, false))
                                .as(Modes::new),
                        Arbitraries.of(true, false))
                .as((x, y, z, e, r, modes, inches) -> state(x, y, z, e, r, modes, new Units(inches, 0)));
    }

    @Test
    void steps_and_macros_out_of_range_are_refused() {
        assertThatThrownBy(() -> new Step.Lift(0)).isInstanceOf(Refusal.class).hasMessageContaining("0.2");
        assertThatThrownBy(() -> new Step.WaitForPerson(Command.M117)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Macro.of(
                        Event.SWAP, Collections.nCopies(10_000, new Step.Park()).toArray(Step[]::new)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("A macro of 10000 steps is too long");
    }

    @Test
    void a_step_that_is_off_or_a_lacking_command_in_own_lines_offers_no_button() {
        Macro off = Macro.of(Event.SWAP, new Step.Dwell(10))
                .insert(0, MacroStep.always(new Step.Unload(500, 30)).turned(false));
        assertThat(sentences(DryRun.of(off, Printers.plain(), moment(ENTRY, "B"))))
                .noneMatch(s -> s.contains("a third"));
        Printer mute = Printers.plain().with(Abilities.of("M600 XYZUL", "M0"));
        Macro spoken = Macro.of(Event.SWAP, new Step.FirmwareRoutine("M117 hello", ""));
        assertThat(DryRun.of(spoken, mute, moment(ENTRY, "B")).faults())
                .filteredOn(f -> f.sentence().contains("understand M117"))
                .singleElement()
                .satisfies(f -> assertThat(f.mend()).isEmpty());
    }

    @Test
    void a_halt_whose_routine_is_lacking_gets_the_steps_of_a_halt() {
        Printer plain = Printers.plain().with(Abilities.of("M0", "M300 SP", "M117"));
        Macro halt = Macro.of(Event.HALT, Step.FirmwareRoutine.PLAIN);
        Fault fault = DryRun.of(halt, plain, moment(ENTRY, "B")).faults().get(0);
        assertThat(fault.mend().orElseThrow().change().apply(halt).steps())
                .extracting(s -> s.step().title())
                .contains("Lift", "Wait for the person")
                .doesNotContain("Purge");
    }

    @Test
    void letters_no_firmware_reads_are_left_out_of_own_lines() {
        assertThat(text(run(new Step.Raw("M117 F\u00fcller \u2013 {{in}}\nM400"))
                        .lines()))
                .contains("M117 Fuller  B Chalk", "M400");
        assertThat(Template.plain("Wei\u00DF; St\u00F8v \u017B\u00F3\u0142ty \u767D"))
                .isEqualTo("Weiss Stov Zolty");
    }
}
