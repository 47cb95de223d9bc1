package dev.tranche.core.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PrinterTest {
    @Test
    void a_bed_knows_what_lies_on_it() {
        assertThat(new Bed.Rectangular(200, 100).contains(new Point(200, 100))).isTrue();
        assertThat(new Bed.Rectangular(200, 100).contains(new Point(-1, 50))).isFalse();
        assertThat(new Bed.Round(200).contains(new Point(70, 70))).isTrue();
        assertThat(new Bed.Round(200).contains(new Point(80, 80))).isFalse();
    }

    @Test
    void abilities_say_which_parameters_are_honoured() {
        Abilities abilities = Abilities.of("M600 XY", "M117");
        assertThat(abilities.understands(Command.M117)).isTrue();
        assertThat(abilities.understands(Command.M0)).isFalse();
        assertThat(abilities.honours(Command.M600, 'X')).isTrue();
        assertThat(abilities.honours(Command.M600, 'L')).isFalse();
    }

    @Test
    void what_no_printer_can_be_is_refused() {
        assertThatThrownBy(() -> new Bed.Round(5)).isInstanceOf(Refusal.class).hasMessageContaining("diameter");
        assertThatThrownBy(() -> new Drive.Direct(700))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("measure again");
        assertThatThrownBy(() -> new Pace(1, 5.1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("5.1 times what is reckoned");
        assertThatThrownBy(() -> new Pace(Double.NaN, 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Motion(0, 50, 10, 30, 500, 0.02))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("travel speed");
        assertThatThrownBy(() -> new Point(Double.NaN, 0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Command.parse("M999")).isInstanceOf(Refusal.class);
    }

    @Test
    void the_carriage_waits_the_press_short_of_the_switch() {
        // Common practice: a switch at 350 mm with 3 mm of travel is waited for at 347 mm.
        Lever far = new Lever(Axis.X, 350, 3, false);
        assertThat(far.waiting(Corner.FRONT_LEFT)).isEqualTo(347);
        assertThat(far.direction(Corner.FRONT_LEFT)).isEqualTo(1);
    }

    @Test
    void a_switch_at_the_homing_end_or_a_carriage_that_homes_at_the_other_end_is_the_mirror() {
        assertThat(new Lever(Axis.X, 0, 3, true).waiting(Corner.FRONT_LEFT)).isEqualTo(3);
        assertThat(new Lever(Axis.X, 0, 3, false).waiting(Corner.FRONT_RIGHT)).isEqualTo(3);
        assertThat(new Lever(Axis.X, 350, 3, true).waiting(Corner.FRONT_RIGHT)).isEqualTo(347);
        assertThat(new Lever(Axis.Y, 310, 3, false).waiting(Corner.REAR_LEFT)).isEqualTo(313);
        assertThat(new Lever(Axis.Y, 310, 3, false).waiting(Corner.FRONT_RIGHT)).isEqualTo(307);
    }

    @Test
    void a_switch_beyond_the_axis_and_presses_that_cannot_be_are_refused() {
        Selector selector = new Selector(new Lever(Axis.X, 350, 3, false), 0.5, List.of(1, 2));
        assertThatThrownBy(() -> Printers.with(
                        Printers.plain(),
                        Printers.plain().travel(),
                        Corner.FRONT_LEFT,
                        Hotend.COMMON,
                        Optional.empty(),
                        Optional.of(selector)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("beyond the axis, which goes from 0.0 to 220.0");
        assertThat(selector.pressesFor(2)).isEqualTo(2);
        assertThatThrownBy(() -> selector.pressesFor(3))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("2 slots");
        assertThatThrownBy(() -> new Selector(selector.lever(), 0.5, List.of())).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Selector(selector.lever(), 0.5, List.of(0)))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Lever(Axis.X, 10, 300, false))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("3 is common");
    }

    @Test
    void the_nozzle_of_a_round_bed_travels_in_a_circle() {
        Bed round = new Bed.Round(200);
        Printer p = new Printer(
                "Round",
                round,
                new Travel(-110, 110, -110, 110),
                Printers.plain().maxHeight(),
                Corner.REAR_LEFT,
                Hotend.COMMON,
                Printers.plain().filament(),
                Printers.plain().drive(),
                Optional.empty(),
                Optional.empty(),
                Motion.COMMON,
                Abilities.of());
        assertThat(p.reaches(new Point(0, 109))).isTrue();
        assertThat(p.reaches(new Point(90, 90))).isFalse();
        assertThat(Printers.plain().reaches(new Point(219, 219))).isTrue();
    }

    @Test
    void a_host_pauses_only_on_commands_that_stop() {
        Abilities abilities = Abilities.of("M25", "M0").behindHost(Command.M25);
        assertThat(abilities.pausesHost(Command.M25)).isTrue();
        assertThat(abilities.pausesHost(Command.M0)).isFalse();
        assertThat(Abilities.of("M0").behindHost(Command.M25).pausesHost(Command.M25))
                .isFalse();
        assertThatThrownBy(() -> Abilities.of("M117").behindHost(Command.M117)).isInstanceOf(Refusal.class);
    }

    @Test
    void a_line_of_gcode_tells_its_command() {
        assertThat(Command.startingLine("M600 X5")).contains(Command.M600);
        assertThat(Command.startingLine("t3")).contains(Command.T);
        assertThat(Command.startingLine("M6000")).isEmpty();
        assertThat(Command.startingLine("M600_LOAD")).isEmpty();
        assertThat(Command.startingLine("G1 X5")).isEmpty();
        assertThat(Command.startingLine("; M600")).isEmpty();
    }
}
