package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a file knows beside places and modes, and a block has to give back. */
class OtherStateTest {
    private static final double AREA = Math.PI * 1.75 * 1.75 / 4;

    private static List<String> lines(byte[] file) {
        return new String(file, StandardCharsets.ISO_8859_1).lines().toList();
    }

    private static List<String> block(List<String> lines, String stamp) {
        String begin = lines.stream()
                .filter(l -> l.startsWith("; tranche begin") && l.endsWith(stamp))
                .findFirst()
                .orElseThrow();
        return lines.subList(lines.indexOf(begin), lines.indexOf("; tranche end " + stamp));
    }

    /**
     * 1.6 mm with one tool, which is drawn back by 10 mm when it goes, and the rest with another, which is pushed by 1.5 mm before each
     * layer, the first as well.
     *
     * @param first chooses the first tool, or leaves it to be understood
     */
    private static byte[] retractingTools(String first) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion().line(first);
        gcode.grid(0.2, 0.2, 8).line("G1 E-10 F1800").line("T1");
        return gcode.grid(1.8, 0.2, 7).bytes();
    }

    @ParameterizedTest
    @ValueSource(strings = {"T0", "; the first goes without saying"})
    void a_new_tool_prints_from_its_first_millimetre_however_far_the_old_one_was_drawn_back(String first)
            throws IOException {
        byte[] original = retractingTools(first);
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(original);
        List<String> swap = block(lines(bench.reckoning().patch().applyTo(original)), "swap=1");
        List<String> fed = swap.stream().filter(l -> l.startsWith("G1 E")).toList();
        // Out of its 10 + 1.5 + 2 mm by the purge, back by 2 before the way to the print, and out but for what the file
        // pushes then.
        assertThat(fed.get(fed.size() - 1)).isEqualTo("G1 E0.5 F1800");
        assertThat(bench.ledger().swaps().get(0).dryRun().exit().draw().length())
                .isCloseTo(1.5, within(1e-9));
    }

    @Test
    void what_is_pushed_beyond_what_was_drawn_back_is_the_files_own_priming() throws IOException {
        String text = new String(retractingTools("T0"), StandardCharsets.ISO_8859_1);
        byte[] priming = text.replace("\nT1\n", "\nT1\nG1 E30 F1800\n").getBytes(StandardCharsets.ISO_8859_1);
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(priming);
        assertThat(bench.ledger().swaps().get(0).dryRun().exit().draw().length())
                .isCloseTo(11.5, within(1e-9));
    }

    @Test
    void before_the_layer_that_a_new_tool_begins_it_is_drawn_back_as_the_file_pushes_it_then() throws IOException {
        SlicedFile file = new Bench().sliced(retractingTools("T0")).file.orElseThrow();
        assertThat(file.layers().get(8).door().orElseThrow().state().draw().length())
                .isCloseTo(1.5, within(1e-9));
    }

    @Test
    void tools_that_stand_for_one_spool_leave_nothing_drawn_back() throws IOException {
        byte[] original = retractingTools("T0");
        Bench bench = new Bench().sliced(original);
        bench.said = Said.NOTHING.tool(0, Optional.of(Spools.SOOT.id())).tool(1, Optional.of(Spools.SOOT.id()));
        assertThat(bench.ledger().swaps()).isEmpty();
        byte[] written = bench.reckoning().patch().applyTo(original);
        List<String> all = lines(written);
        int took = all.indexOf("; tranche took T1");
        assertThat(all.subList(0, took)).contains("G1 E10 F1800");
        bench.sliced(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    /** 25 layers whose filament is counted in mm³ (M200, common practice). */
    private static byte[] volumetric() {
        StringBuilder text = new StringBuilder("M109 S210\nG28\nG90\nM82\nM200 D1.75\nG92 E0\n");
        double e = 0;
        for (int layer = 1; layer <= 15; layer++) {
            text.append("G1 Z%s F600\nG1 X90 Y90 F7200\n".formatted(0.2 * layer));
            for (String to : List.of("X110 Y90", "X110 Y110", "X90 Y110", "X90 Y90")) {
                e += 1.6;
                text.append("G1 %s E%.5f F1800\n".formatted(to, e));
            }
        }
        return text.toString().getBytes(StandardCharsets.US_ASCII);
    }

    @Test
    void filament_that_is_counted_by_volume_stays_as_much() throws IOException {
        byte[] original = volumetric();
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(original);
        SlicedFile file = bench.file.orElseThrow();
        assertThat(file.extruded() * AREA).isCloseTo(15 * 4 * 1.6, within(1e-6));
        List<String> swap = block(lines(bench.reckoning().patch().applyTo(original)), "swap=1");
        // In between, what a swap pushes is said in millimetres.
        assertThat(swap).containsSubsequence("M200 D0", "M0", "M200 D1.75", "M82", "G92 E64");
        double purge =
                bench.ledger().filament().length(bench.ledger().swaps().get(0).pushed());
        assertThat(swap).contains("G1 E%s F240".formatted(trimmed(purge + 2)));
    }

    private static String trimmed(double mm) {
        String text = String.format(java.util.Locale.ROOT, "%.3f", mm);
        return text.replaceAll("0+$", "").replaceAll("\\.$", "");
    }

    /** NISTIR 6556 §3.4: a motion command stays in force until another is given. */
    @Test
    void a_line_without_a_command_goes_on_with_the_move_before_it() {
        StringBuilder text = new StringBuilder("M109 S210\nG28\nG90\nM83\n");
        for (int layer = 1; layer <= 15; layer++) {
            text.append("G1 Z%s F600\nX90 Y90 F7200\nG1 X110 E0.5 F1800\nY110 E.5\nN7 X90 E0.5\nY90 E0.5\n"
                    .formatted(0.2 * layer));
        }
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(text.toString().getBytes(StandardCharsets.US_ASCII));
        assertThat(bench.match()).isPresent();
        assertThat(bench.file.orElseThrow().extruded()).isCloseTo(15 * 2, within(1e-9));
        assertThat(bench.match().orElseThrow().layer(3).extent().getHeight()).isCloseTo(20, within(1e-9));
    }

    @Test
    void names_of_macros_are_no_moves() {
        byte[] file = new SmallGcode()
                .grid(0.2, 0.2, 5)
                .line("STATUS X5 E9")
                .line("EXTRA_PURGE E50")
                .line("Z_TILT")
                .grid(1.2, 0.2, 10)
                .bytes();
        assertThat(new Bench().sliced(file).file.orElseThrow().extruded()).isCloseTo(15 * 4 * 0.66, within(1e-6));
    }

    /** The bed takes 300 s · ln(110/70) to 60 °C from 20 °C, the nozzle 150 s · ln(380/190) to 210 °C (domain, from memory). */
    @Test
    void what_is_heated_together_is_waited_for_once() {
        String print = new SmallGcode().grid(0.2, 0.2, 15).text().replace("M190 S60\nM109 S210\n", "");
        Bench bench = new Bench();
        bench.sliced(("M140 S60\nM104 S210\nM190 S60\nM109 S210\n" + print).getBytes(StandardCharsets.ISO_8859_1));
        double together = bench.file.orElseThrow().secondsBefore();
        bench.sliced(("M190 S60\nM109 S210\n" + print).getBytes(StandardCharsets.ISO_8859_1));
        double after = bench.file.orElseThrow().secondsBefore();
        double bed = 300 * Math.log(110 / 70.0);
        double nozzle = 150 * Math.log(380 / 190.0);
        assertThat(after - together).isCloseTo(nozzle, within(0.001));
        assertThat(together).isBetween(bed, bed + 5);
    }

    @Test
    void an_origin_that_is_home_again_when_the_print_begins_is_no_matter() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        byte[] before = ("G92 X10 Y10\n" + new SmallGcode().grid(0.2, 0.2, 15).text() + "G92 X5\n")
                .getBytes(StandardCharsets.ISO_8859_1);
        bench.sliced(before);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("origin-moved");
    }

    @Test
    void a_file_that_moves_the_origin_is_told_of() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(new SmallGcode().line("G92 X10 Y0").centredAt(0, 100).grid(0.2, 0.2, 15));
        Finding finding = bench.found("origin-moved");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence()).startsWith("Line 7 of the G-code calls another place X 0 Y 0");
        // What its places are to the machine is not known, so nor is whether it gets there.
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("beyond-travel");
        // At home it says what is so anyway, and heights and filament are no matter of places.
        bench.sliced(new SmallGcode().line("G92 X0 Y0 Z0.1 E3").line("G92 E0").grid(0.2, 0.2, 15));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("origin-moved");
    }

    /**
     * G18 and G19 lay arcs into other planes, G55 and G59.1 are other origins, G92.1 takes one back (NISTIR 6556 §3.5); G5 is a
     * spline, G68 turns places, and firmwares take G92 alone as nothing or as a zero for every axis (common practice).
     */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "G92",
                "g92 ; all of it",
                "N7 G92*61",
                "G92.1",
                "G5 X1 Y1 I0 J1 P0 Q-1",
                "G18",
                "G55",
                "G59.1",
                "G68 R90"
            })
    void a_command_that_is_not_followed_is_told_of_before_a_file_is_believed(String line) {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(new SmallGcode().line("G0 X1").line(line).grid(0.2, 0.2, 15));
        Finding finding = bench.found("not-followed");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence()).startsWith("Line 8 of the G-code ");
        assertThat(finding.acceptance()).isPresent();
    }

    @ParameterizedTest
    @ValueSource(strings = {"G92 E0", "G17", "G54", "G53", "G29", "G10", "G64", "G80"})
    void a_command_that_leaves_places_as_they_are_is_no_matter(String line) {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(new SmallGcode().line("G0 X1").line(line).grid(0.2, 0.2, 15));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("not-followed");
    }
}
