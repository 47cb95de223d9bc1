package dev.tranche.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class UnitsTest {
    @ParameterizedTest
    @CsvSource({"3.2,3200", "'3,2',3200", "' 0.125 mm',125", "0,0", ".5,500", "2.,2000"})
    void heights_are_read_as_people_type_them(String text, int micrometres) {
        assertThat(Height.parse(text).micrometres()).isEqualTo(micrometres);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "abc", "NaN", "Infinity", "1e3", "3.2.1", "0x10", "٣", "1\n2"})
    void what_is_no_number_of_millimetres_is_refused_by_name(String text) {
        assertThatThrownBy(() -> Height.parse(text))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is not a height");
    }

    @Test
    void a_height_below_the_bed_is_refused() {
        assertThatThrownBy(() -> Height.parse("-0.2"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("below the bed");
    }

    @Test
    void a_height_over_ten_metres_is_refused() {
        assertThatThrownBy(() -> Height.parse("99999999"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("ten metres");
    }

    @ParameterizedTest
    @CsvSource({"2000,2.00", "125,0.125", "1693,1.693", "0,0.00"})
    void heights_are_written_as_a_caliper_shows_them(int micrometres, String text) {
        assertThat(Height.ofMicrometres(micrometres)).hasToString(text);
    }

    @Test
    void one_hundred_and_eighty_millimetres_of_common_filament_hold_433_cubic_millimetres() {
        // Geometry; 1.24 g/cm³ for PLA is a datasheet value, from memory.
        Volume volume = Filament.COMMON.volume(180);
        assertThat(volume.cubicMillimetres()).isCloseTo(432.95, within(0.01));
        assertThat(volume.grams(1.24)).isCloseTo(0.537, within(0.001));
        assertThat(Filament.COMMON.length(volume)).isCloseTo(180, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"1.75,335.3", "2.85,126.4"})
    void a_kilogram_of_pla_is_so_many_metres(double diameter, double metres) {
        // Geometry: 1 kg / 1.24 g/cm³ over π d²/4.
        double length = new Filament(diameter).length(new Volume(1_000_000 / 1.24));
        assertThat(length / 1000).isCloseTo(metres, within(0.05));
    }

    @Test
    void volumes_and_filaments_that_cannot_be_are_refused() {
        assertThatThrownBy(() -> new Volume(-1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Volume(Double.NaN)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Filament(0)).isInstanceOf(Refusal.class).hasMessageContaining("1.75");
    }

    @Test
    void quoted_words_stay_on_one_line_and_short() {
        assertThat(Words.quoted("a\r\nM104 S300\u2028b")).isEqualTo("a M104 S300 b");
        assertThat(Words.quoted("x".repeat(100))).hasSize(40).endsWith("…");
        assertThat(Words.count(1, "swap")).isEqualTo("1 swap");
        assertThat(Words.count(3, "swap")).isEqualTo("3 swaps");
    }
}
