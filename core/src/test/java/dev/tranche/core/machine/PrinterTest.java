package dev.tranche.core.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.units.Refusal;
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
        assertThatThrownBy(() -> new Motion(0, 50, 10, 500, 0.02))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("travel speed");
        assertThatThrownBy(() -> new Point(Double.NaN, 0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Command.parse("M999")).isInstanceOf(Refusal.class);
    }
}
