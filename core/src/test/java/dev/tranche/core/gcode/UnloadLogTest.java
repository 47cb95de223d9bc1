package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.gcode.SlicedFile.Unloading;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Filament that goes out of the nozzle and in again, worked out by hand from the lines. */
class UnloadLogTest {
    /** A layer that is begun, what is done there, and a side of a square. */
    private static SlicedFile file(String mode, String... lines) throws IOException {
        String text = "G90\n" + mode + "\nG28\nM109 S210\nG1 X90 Y90 Z0.2 F1800\nG1 X110 E0.75\n"
                + String.join("\n", lines) + "\n";
        return SurveyTest.survey(text.getBytes(StandardCharsets.US_ASCII));
    }

    private static List<List<String>> without(Unloading unloading) {
        return unloading.lines().stream().map(SlicedFile.Fed::without).toList();
    }

    private static double laid(SlicedFile file) {
        return file.layers().stream().mapToDouble(SlicedLayer::extruded).sum();
    }

    @Test
    void what_was_retracted_before_a_way_stays_so_when_it_is_in_again() throws IOException {
        SlicedFile file = file(
                "M83",
                "G1 E-2",
                "G0 X150",
                "G1 E-15",
                "G1 E-45 F600 ; slowly",
                "T1",
                "G1 E60",
                "G0 X90 Y110",
                "G1 E2",
                "G1 X110 E0.75");
        assertThat(file.unloadings()).singleElement().satisfies(u -> {
            assertThat(u.before()).isEqualTo(2);
            assertThat(u.length()).isEqualTo(60);
            assertThat(without(u))
                    .containsExactly(
                            List.of("G92 E-16.25000"), List.of("G1 F600", "G92 E-61.25000"), List.of("G92 E-1.25000"));
        });
        assertThat(laid(file)).isCloseTo(1.5, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"M82,-1.25,-61.25,0.75,1.5,0.75", "M83,-2,-60,62,0.75,2"})
    void what_was_retracted_before_is_pushed_all_the_same_where_the_file_has_all_of_it_in_again(
            String mode, String back, String out, String in, String line, double push) throws IOException {
        SlicedFile file = file(mode, "G1 E" + back, "G0 X150", "G1 E" + out, "T1", "G1 E" + in, "G1 X90 Y110 E" + line);
        assertThat(file.unloadings()).singleElement().satisfies(u -> {
            assertThat(u.before()).isEqualTo(2);
            assertThat(u.length()).isEqualTo(60);
            assertThat(without(u))
                    .containsExactly(List.of("G92 E-61.25000"), List.of("G92 E-1.25000", "G1 E%.5f".formatted(push)));
        });
        assertThat(laid(file)).isCloseTo(1.5, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"20,0", "20.5,1"})
    void no_retraction_goes_further_than_20_mm(double far, int found) throws IOException {
        assertThat(file("M83", "G1 E-" + far, "G1 E" + far, "G1 X90 E0.75").unloadings())
                .hasSize(found);
    }

    @ParameterizedTest
    @CsvSource({"X90 E4.5,1", "X90 E3.5,0"})
    void a_way_on_which_more_goes_in_than_a_line_could_take_prints_nothing(String way, int found) throws IOException {
        // 20 mm of way take 4 mm of filament at most.
        double filament = Double.parseDouble(way.split("E")[1]);
        SlicedFile file = file("M83", "G1 E-60", "T1", "G1 " + way, "G1 E" + (60 - filament), "G1 X110 E0.75");
        assertThat(file.unloadings()).hasSize(found);
        assertThat(laid(file)).isCloseTo(found == 1 ? 1.5 : 1.5 + filament, within(1e-9));
    }

    @Test
    void a_way_in_the_cold_ends_nothing_until_filament_is_back_where_it_was() throws IOException {
        SlicedFile file = file("M83", "G1 E-60", "G0 X150", "G1 E25", "G0 X90", "G1 E35", "G1 X110 E0.75");
        assertThat(file.unloadings()).singleElement().satisfies(u -> {
            assertThat(u.lines()).extracting(SlicedFile.Fed::line).containsExactly(7L, 9L, 11L);
            assertThat(u.holds(u.from())).isTrue();
        });
    }

    @ParameterizedTest
    @CsvSource({"149,1", "151,0"})
    void one_that_goes_on_for_over_300_lines_is_none(int times, int found) throws IOException {
        String[] lines = new String[2 * times + 2];
        lines[0] = "G1 E-60";
        for (int i = 0; i < times; i++) {
            lines[2 * i + 1] = "G1 E-1";
            lines[2 * i + 2] = "G1 E1";
        }
        lines[lines.length - 1] = "G1 E60";
        assertThat(file("M83", lines).unloadings()).hasSize(found);
    }
}
