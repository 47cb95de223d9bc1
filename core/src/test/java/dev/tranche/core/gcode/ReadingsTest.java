package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.machine.Dialect.Counting;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Lines of 10 mm with 0.33 mm of filament each, in files that firmwares read differently: M83 then G90, M82 then G91. */
class ReadingsTest {
    private static final double EACH = 0.33;

    private final Readings readings = new Readings();
    private double count;

    private void lines(int lines, boolean byM83, boolean counting, double way) {
        Modes modes = Modes.ABSOLUTE.feeding(byM83).moving(!byM83);
        for (int i = 0; i < lines; i++) {
            count += EACH;
            readings.saw(modes, counting ? count : EACH, way);
        }
    }

    @ParameterizedTest
    @CsvSource({"M83,each,BY_ITSELF", "M83,counted,WITH_PLACES", "M82,each,WITH_PLACES", "M82,counted,BY_ITSELF"})
    void numbers_that_make_lines_of_plastic_tell_the_firmware_that_is_meant(
            String said, String numbers, Counting meant) {
        // Far enough that a whole count is no line of plastic.
        count = 100;
        readings.redefined(count);
        lines(20, said.equals("M83"), numbers.equals("counted"), 10);
        assertThat(readings.differ()).isTrue();
        assertThat(readings.sense()).isEqualTo(meant);
    }

    @Test
    void so_few_lines_say_nothing() {
        assertThat(readings.differ()).isFalse();
        lines(9, true, false, 10);
        assertThat(readings.sense()).isEqualTo(Counting.NOT_SAID);
        lines(1, true, false, 10);
        assertThat(readings.sense()).isEqualTo(Counting.BY_ITSELF);
    }

    @Test
    void retractions_and_specks_say_nothing() {
        lines(30, true, false, 0);
        lines(30, true, false, 0.5);
        assertThat(readings.sense()).isEqualTo(Counting.NOT_SAID);
    }

    @Test
    void a_count_that_is_set_to_nothing_begins_again() {
        count = 500;
        readings.redefined(count);
        lines(10, true, true, 10);
        count = 0;
        readings.redefined(0);
        lines(10, true, true, 10);
        assertThat(readings.sense()).isEqualTo(Counting.WITH_PLACES);
    }

    /** A count near nothing may pass for one line of plastic, and what passes as both ways says nothing. */
    @Test
    void what_may_be_either_says_nothing() {
        lines(12, true, true, 10);
        assertThat(readings.sense()).isEqualTo(Counting.NOT_SAID);
        lines(40, true, true, 10);
        assertThat(readings.sense()).isEqualTo(Counting.WITH_PLACES);
    }

    @Test
    void what_is_no_plastic_either_way_says_nothing() {
        for (int i = 1; i < 40; i++) {
            readings.saw(Modes.ABSOLUTE.feeding(true).moving(false), i % 2 == 0 ? 0.001 : 90, 10);
        }
        assertThat(readings.sense()).isEqualTo(Counting.NOT_SAID);
    }
}
