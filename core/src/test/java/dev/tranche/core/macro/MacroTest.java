package dev.tranche.core.macro;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.units.Refusal;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class MacroTest {
    private static final ControllerState ENTRY = ControllerState.standingAt(90, 80, 3.2, 210);

    private static SwapMoment moment(ControllerState entry, String in) {
        return new SwapMoment(1, 2, 17, "A Soot", in, 205, 100, entry);
    }

    private static List<String> text(List<RenderedLine> lines) {
        return lines.stream().map(RenderedLine::text).toList();
    }

    @Test
    void a_pause_parks_waits_purges_and_comes_back() {
        SwapMacro macro = SwapMacro.ready(SwapMethod.PAUSE_AND_PARK);
        assertThat(text(MacroRenderer.render(macro, Printers.plain(), moment(ENTRY, "B Chalk"))))
                .containsExactly(
                        "G90",
                        "M83",
                        "M400",
                        "G1 E-2 F1800",
                        "G1 Z8.2 F600",
                        "G1 X5 Y5 F6000",
                        "M300 S880 P300",
                        "M117 Swap 1 of 2: load B Chalk",
                        "M0",
                        "M109 S205",
                        "G1 E102 F240",
                        "G1 E-2 F1800",
                        "G1 X90 Y80 F6000",
                        "G1 Z3.2 F600",
                        "G1 E2 F1800",
                        "G1 F3000",
                        "M82",
                        "G92 E0");
    }

    @Test
    void the_firmware_routine_gets_only_the_parameters_it_honours() {
        SwapMacro macro = SwapMacro.ready(SwapMethod.FIRMWARE_ROUTINE);
        Printer some = Printers.with(Printers.plain(), Abilities.of("M600 XY", "M117"));
        assertThat(text(MacroRenderer.render(macro, some, moment(ENTRY, "B Chalk"))))
                .contains("M600 X5 Y5")
                .noneMatch(l -> l.startsWith("M300"));
        Printer none = Printers.with(Printers.plain(), Abilities.of("M600"));
        assertThat(text(MacroRenderer.render(macro, none, moment(ENTRY, "B Chalk"))))
                .contains("M600");
        Printer all = Printers.with(Printers.plain(), Abilities.of("M600 XYZUL"));
        assertThat(text(MacroRenderer.render(macro, all, moment(ENTRY, "B Chalk"))))
                .contains("M600 X5 Y5 Z5 U60 L60");
    }

    @Test
    void a_command_the_firmware_lacks_is_left_out_and_named() {
        Printer mute = Printers.with(Printers.plain(), Abilities.of("M0"));
        assertThat(MacroRenderer.missing(new Step.Tone(440, 100), mute)).contains(Command.M300);
        assertThat(MacroRenderer.missing(new Step.Lift(5), mute)).isEmpty();
    }

    @Test
    void names_cannot_smuggle_commands_or_comments_into_a_line() {
        SwapMacro macro = SwapMacro.ready(SwapMethod.PAUSE_AND_PARK);
        List<String> lines =
                text(MacroRenderer.render(macro, Printers.plain(), moment(ENTRY, "B Chalk\nM104 S300 ; (x) é")));
        assertThat(lines).hasSize(18).contains("M117 Swap 1 of 2: load B Chalk M104 S300 x e");
    }

    @Test
    void a_file_in_inches_with_relative_extrusion_gets_its_modes_back() {
        ControllerState inches = new ControllerState(90, 80, 3.2, 25.4, 1.5, 30, true, true, true, 210);
        List<RenderedLine> lines =
                MacroRenderer.render(SwapMacro.ready(SwapMethod.PAUSE_AND_PARK), Printers.plain(), moment(inches, "B"));
        assertThat(text(lines)).startsWith("G21").endsWith("G1 F1800", "G20", "G91", "M83", "G92 E1");
        assertThat(DryRun.of(lines, Printers.plain(), inches).faults()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(SwapMethod.class)
    void each_ready_macro_passes_its_dry_run(SwapMethod method) {
        List<RenderedLine> lines =
                MacroRenderer.render(SwapMacro.ready(method), Printers.plain(), moment(ENTRY, "B Chalk"));
        DryRun run = DryRun.of(lines, Printers.plain(), ENTRY);
        assertThat(run.faults()).isEmpty();
        assertThat(run.machineSeconds()).isBetween(1.0, 120.0);
    }

    @Test
    void a_dry_run_counts_filament_and_time() {
        DryRun run = DryRun.of(
                MacroRenderer.render(SwapMacro.ready(SwapMethod.PAUSE_AND_PARK), Printers.plain(), moment(ENTRY, "B")),
                Printers.plain(),
                ENTRY);
        assertThat(run.pushed() - run.pulled()).isCloseTo(100, within(1e-6));
        // 102 mm at 4 mm/s alone take 25.5 s.
        assertThat(run.machineSeconds()).isGreaterThan(25.5);
    }

    @Test
    void a_dry_run_sees_the_nozzle_leave_the_bed_dip_and_extrude_cold() {
        List<RenderedLine> lines = List.of(
                new RenderedLine("G1 X500", 0, ""),
                new RenderedLine("G1 X90 Z1", 1, ""),
                new RenderedLine("G1 Z3.2 F3000", 2, ""));
        assertThat(DryRun.of(lines, Printers.plain(), ENTRY).faults())
                .extracting(DryRun.Fault::sentence)
                .anyMatch(s -> s.contains("leaves the bed at X 500.0"))
                .anyMatch(s -> s.contains("dips into the print at Z 1.00"));
        ControllerState unknown = ControllerState.standingAt(90, 80, 3.2, ControllerState.UNKNOWN);
        assertThat(DryRun.of(List.of(new RenderedLine("G1 E5", 0, "")), Printers.plain(), unknown)
                        .faults())
                .extracting(DryRun.Fault::sentence)
                .noneMatch(s -> s.contains("too cold"));
        ControllerState cold = ControllerState.standingAt(90, 80, 3.2, 0);
        assertThat(DryRun.of(List.of(new RenderedLine("G1 E5", 0, "")), Printers.plain(), cold)
                        .faults())
                .extracting(DryRun.Fault::sentence)
                .anyMatch(s -> s.contains("too cold"))
                .anyMatch(s -> s.contains("would not go on where it was left"));
    }

    @Test
    void a_printer_without_a_park_spot_lifts_and_stays() {
        Printer nowhere = Printers.parkingAt(Printers.plain(), Optional.empty());
        assertThat(text(MacroRenderer.render(SwapMacro.ready(SwapMethod.PAUSE_AND_PARK), nowhere, moment(ENTRY, "B"))))
                .noneMatch(l -> l.contains("X"));
        assertThat(Printers.parkingAt(Printers.plain(), Optional.of(new Point(1, 2)))
                        .parkSpot())
                .isPresent();
    }

    @Property(tries = 500)
    void no_macro_of_valid_steps_leaves_anything_changed(
            @ForAll("macros") List<Step> steps, @ForAll("states") ControllerState entry) {
        List<RenderedLine> lines = MacroRenderer.render(
                new SwapMacro(SwapMethod.PAUSE_AND_PARK, steps), Printers.plain(), moment(entry, "B"));
        assertThat(DryRun.of(lines, Printers.plain(), entry).faults()).isEmpty();
    }

    @Provide
    Arbitrary<List<Step>> macros() {
        return Arbitraries.<Step>of(
                        new Step.Tone(880, 100),
                        new Step.Message(),
                        new Step.Retract(2),
                        new Step.Lift(5),
                        new Step.Park(),
                        new Step.WaitForPerson(),
                        new Step.Dwell(10),
                        new Step.Heat(),
                        new Step.Purge(4),
                        new Step.FirmwareRoutine(),
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
                        Arbitraries.of(true, false),
                        Arbitraries.of(true, false),
                        Arbitraries.of(true, false))
                .as((x, y, z, e, r, moves, extrusion, inches) ->
                        new ControllerState(x, y, z, e, r, 30, moves, extrusion, inches, 210));
    }

    @Test
    void steps_and_macros_out_of_range_are_refused() {
        assertThatThrownBy(() -> new Step.Lift(0)).isInstanceOf(Refusal.class).hasMessageContaining("0.2");
        assertThatThrownBy(() -> new SwapMacro(SwapMethod.PAUSE_AND_PARK, List.of()))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new SwapMacro(
                        SwapMethod.PAUSE_AND_PARK, java.util.Collections.nCopies(10_000, new Step.Park())))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("too long");
    }
}
