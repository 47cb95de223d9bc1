package dev.tranche.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.HostScripts;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RigTest {
    private static Rig rig(Beginning beginning) {
        return beginning.rig("Bench");
    }

    private static List<String> texts(DryRun run) {
        return RenderedLine.texts(run.lines());
    }

    private static RigFinding only(Rig rig, String words) {
        List<RigFinding> found = RigChecks.findings(rig).stream()
                .filter(f -> f.sentence().contains(words))
                .toList();
        assertThat(found).as(words + " in " + RigChecks.findings(rig)).hasSize(1);
        return found.get(0);
    }

    @ParameterizedTest
    @EnumSource(Beginning.class)
    void every_macro_of_every_kind_of_machine_passes_its_dry_run_and_leaves_nothing_changed(Beginning beginning) {
        Rig rig = rig(beginning);
        assertThat(RigChecks.findings(rig)).isEmpty();
        for (Macro macro : rig.macros().macros()) {
            for (int t = 0; t < rig.rack().size(); t++) {
                DryRun run = rig.tryOut(macro, t);
                assertThat(run.faults()).as(macro.name()).isEmpty();
                assertThat(run.exit().continuesAs(rig.typical(macro.event(), t).entry()))
                        .isTrue();
            }
        }
    }

    @Test
    void every_way_of_swapping_has_a_kind_of_machine() {
        assertThat(Beginning.values()).extracting(Beginning::method).containsExactlyInAnyOrder(SwapMethod.values());
    }

    @Test
    void a_person_is_needed_only_where_a_hand_changes_the_spool() {
        for (Beginning beginning : Beginning.values()) {
            Rig rig = rig(beginning);
            DryRun run = rig.tryOut(rig.macros().answer(Event.SWAP).orElseThrow(), 1);
            double person = run.personSeconds();
            assertThat(run.attended())
                    .isEqualTo(!Set.of(Beginning.FEEDER, Beginning.SELECTOR, Beginning.BLENDING)
                            .contains(beginning));
            assertThat(run.stops() > 0).isEqualTo(person > 0);
            switch (beginning) {
                case FEEDER, SELECTOR, BLENDING, TIMED_WAITS -> assertThat(person)
                        .isZero();
                    // 150 mm are pushed by hand, at 4 mm/s.
                case TUBE_ROUTINE, HOST -> assertThat(person).isEqualTo(90 + 37.5);
                default -> assertThat(person).isEqualTo(90);
            }
        }
    }

    @Test
    void the_selector_presses_as_often_as_the_slot_wants_and_waits_beside_the_switch() {
        Rig rig = rig(Beginning.SELECTOR);
        List<String> lines = texts(rig.tryOut(rig.macros().answer(Event.SWAP).orElseThrow(), 2));
        assertThat(lines.stream().filter("G1 X350 F7200"::equals)).hasSize(3);
        // Waits once before the first press and goes back to it after each (347: common practice).
        assertThat(lines.stream().filter("G1 X347 F7200"::equals)).hasSize(4);
        assertThat(lines.stream().filter("G4 S0.5"::equals)).hasSize(5);
    }

    @Test
    void the_selector_is_mirrored_where_the_switch_sits_at_the_homing_end() {
        Rig rig = rig(Beginning.SELECTOR);
        Selector mirrored = new Selector(new Lever(Axis.X, 0, 3, true), 0.5, List.of(1, 2, 3, 4));
        Rig other = rig.with(Printers.with(
                rig.printer(),
                rig.printer().travel(),
                Corner.FRONT_LEFT,
                rig.printer().hotend(),
                rig.printer().parkSpot(),
                Optional.of(mirrored)));
        Macro swap = rig.macros().answer(Event.SWAP).orElseThrow();
        List<String> there = texts(rig.tryOut(swap, 1)).stream()
                .map(l -> l.replace("X350 ", "X0 ").replace("X347 ", "X3 "))
                .toList();
        assertThat(texts(other.tryOut(swap, 1))).isEqualTo(there);
        assertThat(RigChecks.findings(other)).isEmpty();
    }

    @Test
    void a_slot_the_box_has_not_is_seen() {
        Rig rig = rig(Beginning.SELECTOR);
        Rig five = rig.with(rig.rack().resize(5));
        assertThat(only(five, "has 4 slots, and extruder T4 would be slot 5").severity())
                .isEqualTo(Severity.STOP);
    }

    @Test
    void two_macros_for_one_event_are_a_stop_that_one_button_mends() {
        Rig rig = rig(Beginning.DIRECT_PAUSE);
        Rig twice = rig.with(
                rig.macros().add(Macro.of(Event.SWAP, new Step.Dwell(10)).named("Quick")));
        RigFinding finding = only(twice, "Swap fires 2 macros, “Swap” and “Quick”");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(RigChecks.findings(finding.mend().orElseThrow().change().apply(twice)))
                .isEmpty();
    }

    @Test
    void a_printer_without_a_swap_macro_is_told_to_have_one() {
        Rig rig = rig(Beginning.DIRECT_PAUSE);
        Rig off = rig.with(rig.macros().replace(0, rig.macros().macro(0).turned(false)));
        RigFinding finding = only(off, "No macro is on for a swap");
        assertThat(RigChecks.findings(finding.mend().orElseThrow().change().apply(off)))
                .isEmpty();
    }

    @Test
    void a_macro_that_acts_itself_and_makes_the_host_act_as_well_fires_twice() {
        Rig rig = rig(Beginning.HOST);
        Rig doubled = rig.with(rig.macros()
                .replace(
                        0,
                        Macro.of(
                                Event.SWAP,
                                new Step.Lift(5),
                                new Step.Park(),
                                new Step.WaitForPerson(Command.M25),
                                new Step.Return())));
        RigFinding finding = only(doubled, "Swap fires twice");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        Rig mended = finding.mend().orElseThrow().change().apply(doubled);
        assertThat(RigChecks.findings(mended)).isEmpty();
    }

    @Test
    void the_host_parks_and_comes_back_when_the_file_pauses() {
        Rig rig = rig(Beginning.HOST);
        DryRun run = rig.tryOut(rig.macros().answer(Event.SWAP).orElseThrow(), 0);
        assertThat(run.path()).anyMatch(leg -> leg.toX() == 5 && leg.toY() == 225);
        assertThat(texts(run)).doesNotContain("G1 X5 Y225 F7200").contains("M25");
        // 150 mm by hand, and what the resume script pushes.
        assertThat(run.pushed() - run.pulled()).isEqualTo(155);
    }

    @Test
    void host_scripts_are_two_texts_with_places_as_the_host_writes_them() {
        Rig rig = rig(Beginning.HOST);
        HostScripts scripts = HostScripts.of(
                rig.macros().naming(new HostNames("[px]", "[py]", "[pe]", "[pf]", "[how]")),
                rig.printer(),
                rig.typical(Event.HOST_PAUSE, 0));
        assertThat(HostScripts.text(scripts.pause()))
                .isEqualTo(
                        """
                        G90
                        M83
                        M400
                        G1 E-2 F1800
                        G91
                        G1 Z5 F600
                        G90
                        M83
                        G1 X5 Y225 F7200
                        M300 S880 P300
                        """);
        assertThat(HostScripts.text(scripts.resume()))
                .isEqualTo(
                        """
                        G90
                        M83
                        M400
                        G1 E7 F240
                        G1 E-2 F1800
                        G1 X25 F7200
                        G1 X5 F7200
                        G1 X25 F7200
                        G1 X5 F7200
                        G1 X[px] Y[py] F7200
                        G91
                        G1 Z-5 F600
                        G90
                        M83
                        G1 E2 F1800
                        G1 F[pf]
                        [how]
                        G92 E[pe]
                        """);
    }

    @Test
    void half_a_pair_and_a_script_that_needs_the_plan_are_seen() {
        Rig rig = rig(Beginning.HOST);
        int resume = 4;
        assertThat(rig.macros().macro(resume).event()).isEqualTo(Event.HOST_RESUME);
        assertThat(only(rig.with(rig.macros().remove(resume)), "no host resume macro")
                        .severity())
                .isEqualTo(Severity.STOP);
        Macro knowing = Macro.of(Event.HOST_RESUME, new Step.Message("load {{in}}"), new Step.Purge(4));
        Rig asks = rig.with(rig.macros().replace(resume, knowing));
        assertThat(only(asks, "{{in}} needs to know the swap").step()).isZero();
        assertThat(only(asks, "Purge needs to know the swap").step()).isEqualTo(1);
        Macro endless = Macro.of(Event.HOST_RESUME, new Step.WaitForPerson(Command.M25));
        only(rig.with(rig.macros().replace(resume, endless)), "without end");
        assertThatThrownBy(() ->
                        HostScripts.of(rig.macros().remove(resume), rig.printer(), rig.typical(Event.HOST_PAUSE, 0)))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void what_the_pause_moves_by_own_lines_the_resume_must_move_back() {
        Rig rig = rig(Beginning.HOST);
        Macro pause = rig.macros().macro(3);
        Rig moved = rig.with(
                rig.macros().replace(3, pause.insert(4, MacroStep.always(new Step.Raw("G91\nG1 Z2\nG90\nM83")))));
        assertThat(RigChecks.findings(moved))
                .anyMatch(
                        f -> f.macro().equals(OptionalInt.of(3)) && f.sentence().contains("does not return"));
    }

    @Test
    void extruders_must_agree_on_the_one_nozzle_and_one_button_settles_it() {
        Rig rig = rig(Beginning.FEEDER);
        VirtualExtruder t2 = rig.rack().extruder(2);
        VirtualExtruder wrong = new VirtualExtruder(
                t2.spool(), 210, 205, 150, 0.8, 0.6, 2.85, new Point(25, 0), Optional.of(Blend.only(0, 2)));
        Rig odd = rig.with(rig.rack().replace(2, wrong));
        RigFinding finding =
                only(odd, "T2 believes in a nozzle of 0.6 mm, where the one nozzle has 0.4 mm, and 3 more");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        Rig settled = finding.mend().orElseThrow().change().apply(odd);
        assertThat(RigChecks.findings(settled)).isEmpty();
        // What the nozzle does not share stays.
        assertThat(settled.rack().extruder(2).liftOnRetract()).isEqualTo(0.8);
    }

    @Test
    void a_rack_grows_and_shrinks_between_1_and_16() {
        Rack rack = rig(Beginning.DIRECT_PAUSE).rack();
        assertThat(rack.resize(16).size()).isEqualTo(16);
        assertThat(rack.resize(16).resize(2).size()).isEqualTo(2);
        assertThatThrownBy(() -> rack.resize(17)).isInstanceOf(Refusal.class).hasMessageContaining("1 to 16");
        assertThatThrownBy(() -> rack.resize(0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> rack.extruder(1)).isInstanceOf(Refusal.class).hasMessageContaining("no T1");
    }

    @Test
    void an_extruder_brings_its_own_temperature_for_its_own_spool() {
        Rack rack = rig(Beginning.FEEDER).rack();
        VirtualExtruder chalk = rack.extruder(1).with(Spools.CHALK);
        VirtualExtruder cooler =
                new VirtualExtruder(chalk.spool(), 200, 195, 140, 0, 0.4, 1.75, chalk.offset(), chalk.blend());
        Rack own = rack.replace(1, cooler);
        assertThat(own.temperature(1, Spools.CHALK, 2)).isEqualTo(195);
        assertThat(own.temperature(1, Spools.SOOT, 2)).isEqualTo(205);
        assertThat(own.temperature(0, Spools.CHALK, 2)).isEqualTo(205);
        // The first layer has temperatures of its own.
        assertThat(own.temperature(1, Spools.CHALK, 1)).isEqualTo(200);
        assertThat(own.temperature(1, Spools.SOOT, 1)).isEqualTo(Spools.SOOT.firstLayerTemperature());
    }

    @Test
    void a_variant_says_in_what_it_differs() {
        Rig plain = rig(Beginning.DIRECT_PAUSE);
        Rig variant = new Rig(
                Printers.parkingAt(plain.printer().named("Two colours"), Optional.of(new Point(9, 9))),
                plain.rack().resize(2),
                plain.macros().replace(0, plain.macros().macro(0).remove(0)));
        assertThat(Difference.between(plain, plain)).isEmpty();
        assertThat(Difference.between(variant, plain))
                .extracting(Difference::what)
                .containsExactly("Park spot", "Extruders", "Macro “Swap”");
        assertThat(Difference.between(variant, plain).get(2).there()).startsWith("Retract, Lift, Park");
        Macro higher = plain.macros().macro(0).replace(1, MacroStep.always(new Step.Lift(9)));
        assertThat(Difference.between(plain.with(plain.macros().replace(0, higher)), plain))
                .containsExactly(
                        new Difference("Macro “Swap”", "step 2, Lift, height 9.0", "step 2, Lift, height 5.0"));
        assertThat(Difference.between(variant, plain).get(0))
                .isEqualTo(new Difference("Park spot", "X 9 Y 9", "X 5 Y 5"));
    }

    @ParameterizedTest
    @EnumSource(Beginning.class)
    void a_probe_tries_abilities_without_heat_filament_or_leaving_the_machine(Beginning beginning) {
        Rig rig = rig(beginning);
        List<String> lines = Probe.file(rig.printer());
        Macro probe = Macro.of(Event.FIRST_LOAD, new Step.Raw(String.join("\n", lines.subList(5, lines.size()))));
        DryRun run = DryRun.of(probe, rig.printer(), rig.typical(Event.FIRST_LOAD, 0));
        assertThat(run.faults()).noneMatch(f -> f.sentence().contains("leaves its travel"));
        assertThat(run.path()).allMatch(leg -> leg.fed() == 0);
        assertThat(lines)
                .noneMatch(l -> l.matches("M10[49] [SR](?!0$|4\\d$).*"))
                .allMatch(l -> l.chars().allMatch(c -> c < 128));
        assertThat(Probe.trials(rig.printer()).stream()
                        .map(Probe.Trial::command)
                        .distinct())
                .contains(
                        Command.M600,
                        Command.M0,
                        Command.M25,
                        Command.M300,
                        Command.M117,
                        Command.G4,
                        Command.M104,
                        Command.M109,
                        Command.M400,
                        Command.T,
                        Command.G10);
    }
}
