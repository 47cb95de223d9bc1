package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.handoff.PlainMachine.Move;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rearrange.RearrangedTest;
import dev.tranche.core.rearrange.TwoTools;
import dev.tranche.core.rearrange.TwoTools.Way;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A print cut at heights into files of their own. */
class JobsTest {
    @Test
    void a_file_with_numbered_lines_is_not_cut_since_numbers_would_be_left_out() {
        String[] lines = new String(tile().bytes(), StandardCharsets.UTF_8).split("\n");
        StringBuilder numbered = new StringBuilder();
        for (int i = 0; i < lines.length; i++) {
            numbered.append(lines[i].startsWith(";") ? lines[i] : "N" + (i + 1) + " " + lines[i])
                    .append('\n');
        }
        Bench bench =
                new Bench().start(2, Spools.CHALK).sliced(numbered.toString().getBytes(StandardCharsets.UTF_8));
        assertThat(bench.match()).isPresent();
        assertThatThrownBy(() -> bench.reckoning().jobs(Set.of(6)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("numbers its lines");
    }

    /** The bench's tile, 15 layers, whose upper step is another colour. */
    private static SmallGcode tile() {
        return new SmallGcode()
                .sized(19.6, 19.6)
                .grid(0.2, 0.2, 10)
                .sized(9.6, 9.6)
                .grid(2.2, 0.2, 5)
                .line("M104 S0")
                .line("G91")
                .line("G1 Z5 F600")
                .line("G90")
                .line("G1 X0 Y200 F6000");
    }

    private static List<byte[]> cut(Bench bench, byte[] file, Integer... before) throws IOException {
        Jobs jobs = bench.sliced(file).reckoning().jobs(Set.of(before));
        List<byte[]> cut = new ArrayList<>();
        for (Jobs.Job job : jobs.list()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            jobs.copy(job, new ByteArrayInputStream(file), out, Progress.UNHEARD);
            cut.add(out.toByteArray());
        }
        return cut;
    }

    private static byte[] joined(List<byte[]> jobs) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        JoinedJobs.copy(
                jobs.stream()
                        .map(j -> (JoinedJobs.File) () -> new ByteArrayInputStream(j))
                        .toList(),
                out);
        return out.toByteArray();
    }

    private static List<Move> laid(byte[] file) {
        return PlainMachine.moves(file, false).stream().filter(Move::lays).toList();
    }

    @Test
    void a_tile_cut_at_its_colour_is_two_files_that_start_and_end_as_the_whole_does() throws IOException {
        byte[] whole = tile().bytes();
        Bench bench = new Bench().start(2.0, Spools.CHALK);
        Jobs jobs = bench.sliced(whole).reckoning().jobs(Set.of(11));
        assertThat(jobs.list()).extracting(j -> j.first() + "–" + j.last()).containsExactly("1–10", "11–15");
        assertThat(jobs.list()).extracting(j -> j.begins().name()).containsExactly("Soot", "Chalk");
        assertThat(jobs.list()).extracting(Jobs.Job::gap).containsExactly(0.0, 0.0);
        assertThat(jobs.list()).extracting(Jobs.Job::swaps).containsExactly(0, 0);
        assertThat(jobs.list().get(1).from()).hasToString("2.00");
        List<byte[]> files = cut(bench, whole, 11);
        String first = new String(files.get(0), StandardCharsets.ISO_8859_1);
        String second = new String(files.get(1), StandardCharsets.ISO_8859_1);
        assertThat(second).startsWith(first.substring(0, first.indexOf("G1 Z")));
        for (String job : List.of(first, second)) {
            assertThat(job).contains("M109 S210", "G28").endsWith("G90\nG1 X0 Y200 F6000\n");
            assertThat(job).doesNotContain("swap=");
        }
        assertThat(laid(files.get(0)).size() + laid(files.get(1)).size())
                .isEqualTo(laid(whole).size());
    }

    @Test
    void the_nozzle_comes_to_the_second_job_over_what_stands() throws IOException {
        List<byte[]> files = cut(new Bench().start(2.0, Spools.CHALK), tile().bytes(), 11);
        List<Move> moves = PlainMachine.moves(files.get(1), false);
        Move first = moves.stream().filter(Move::lays).findFirst().orElseThrow();
        assertThat(first.toZ()).isCloseTo(2.2, within(1e-9));
        List<Move> way = moves.subList(0, moves.indexOf(first)).stream()
                .filter(m -> m.length() > 0)
                .toList();
        assertThat(way).isNotEmpty().allMatch(m -> m.lowest() > 2.2 - 1e-9 || m.lowest() > 2.0 + 0.5 || m.toZ() >= 2.2);
    }

    @Property(tries = 60)
    void jobs_lay_the_plastic_of_the_whole_each_line_once_and_joined_they_are_the_whole(
            @ForAll("ways") Set<Way> ways, @ForAll("seams") Set<Integer> before) throws IOException {
        byte[] whole = new TwoTools(ways, 8).bytes();
        Bench bench = BesideEachOther.bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 10, 1.6).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        List<byte[]> jobs = cut(bench, whole, before.toArray(Integer[]::new));
        List<Move> all = new ArrayList<>();
        jobs.forEach(j -> all.addAll(laid(j)));
        List<Move> as = laid(whole);
        assertThat(all).hasSameSizeAs(as);
        for (int i = 0; i < as.size(); i++) {
            Move one = as.get(i);
            Move other = all.get(i);
            assertThat(Math.hypot(one.fromX() - other.fromX(), one.fromY() - other.fromY()))
                    .isLessThan(0.002);
            assertThat(Math.hypot(one.toX() - other.toX(), one.toY() - other.toY()))
                    .isLessThan(0.002);
            assertThat(other.toZ()).isCloseTo(one.toZ(), within(0.002));
            assertThat(other.filament()).isCloseTo(one.filament(), within(5e-4));
            // The plan's spools are heated as they want it, at swaps.
            assertThat(other.said().replaceAll("M104 [^,]*,", ""))
                    .isEqualTo(one.said().replaceAll("M104 [^,]*,", ""));
        }
        Collections.reverse(jobs);
        byte[] again = joined(jobs);
        Bench back = new Bench().sliced(again);
        assertThat(Patch.removing(back.file.orElseThrow()).applyTo(again)).isEqualTo(whole);
    }

    @Provide
    Arbitrary<Set<Way>> ways() {
        return Arbitraries.of(Way.class).set();
    }

    @Provide
    Arbitrary<Set<Integer>> seams() {
        return Arbitraries.integers().between(2, 8).set().ofMinSize(1).ofMaxSize(3);
    }

    @Test
    void a_raft_is_of_the_first_job_and_lifts_the_others() throws IOException {
        SmallGcode file = new SmallGcode().sized(24, 24).layers(0.3, 0.6);
        file.sized(19.6, 19.6).grid(0.8, 0.2, 10).sized(9.6, 9.6).grid(2.8, 0.2, 5);
        Bench bench = new Bench().start(2.0, Spools.CHALK);
        bench.plan = bench.plan.withLayers(bench.plan.layers().withRaft(Height.parse("0.6")));
        Jobs jobs = bench.sliced(file.bytes()).reckoning().jobs(Set.of(6, 11));
        assertThat(jobs.list())
                .extracting(j -> j.from() + "–" + j.to())
                .containsExactly("0.00–1.60", "1.60–2.60", "2.60–3.60");
        List<byte[]> files = cut(bench, file.bytes(), 6, 11);
        assertThat(laid(files.get(1)).get(0).toZ()).isCloseTo(1.8, within(1e-9));
    }

    @Test
    void a_job_ends_and_begins_over_all_that_stands_though_the_band_ended_lower() throws IOException {
        // Six layers of the left stripe, and beside them the right one up to the second only.
        SmallGcode file = new SmallGcode().line("T0");
        file.centredAt(50, 50).sized(19.6, 9.6).grid(0.2, 0.2, 6);
        file.line("T1").centredAt(70, 50).grid(0.2, 0.2, 2);
        file.line("T0").centredAt(50, 50).grid(1.4, 0.2, 6);
        Bench bench = new Bench();
        bench.mesh = new Shapes()
                .box(0, 0, 0, 20, 10, 2.4)
                .box(20, 0, 0, 20, 10, 0.4)
                .mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        bench.region(new Region(
                "low", new Shape.Zone(new Outline.Box(20, 10), 30, 5, 0, false), Spools.CHALK.id(), Range.ALL));
        List<byte[]> jobs = cut(bench, file.bytes(), 7);
        for (byte[] job : jobs) {
            List<Move> moves = PlainMachine.moves(job, false);
            int seam = job == jobs.get(0)
                    ? moves.lastIndexOf(laid(job).get(laid(job).size() - 1))
                    : 0;
            int until =
                    job == jobs.get(0) ? moves.size() : moves.indexOf(laid(job).get(0));
            // No way goes aside lower than the left stripe stands.
            assertThat(moves.subList(seam + 1, until))
                    .filteredOn(m -> m.length() > 0)
                    .isNotEmpty()
                    .allMatch(m -> m.lowest() > 1.2);
        }
    }

    @Test
    void a_job_that_begins_with_another_spool_loads_it_as_the_swap_there_would() throws IOException {
        Bench bench = new Bench().start(2.0, Spools.CHALK);
        bench.macros = bench.macros.replace(
                1,
                Macro.of(Event.FIRST_LOAD, new Step.Message("load {{in}} into T{{extruder}}"), new Step.Load(0, 10)));
        bench.rack = Optional.of(Rack.of(bench.printer, 2));
        List<byte[]> files = cut(bench, tile().bytes(), 11);
        int slot = bench.ledger().swaps().get(0).moment().extruder();
        assertThat(new String(files.get(1), StandardCharsets.ISO_8859_1)).contains("M117 load B Chalk into T" + slot);
    }

    @ParameterizedTest
    @EnumSource(
            value = Beginning.class,
            names = {"FEEDER", "BLENDING"})
    void filament_is_neither_short_nor_over_where_a_job_begins_whichever_tool_prints(Beginning machine)
            throws IOException {
        Rig rig = machine.rig("Of several tools");
        Bench bench = new Bench().start(2.0, Spools.CHALK);
        bench.printer = rig.printer();
        bench.macros = rig.macros();
        bench.rack = Optional.of(rig.rack());
        List<byte[]> files = cut(bench, tile().bytes(), 6, 11, 13);
        assertThat(files).hasSize(4);
        for (byte[] file : files.subList(1, 4)) {
            List<String> begins = new String(file, StandardCharsets.ISO_8859_1)
                    .lines()
                    .dropWhile(l -> !l.contains(" begins at byte "))
                    .filter(l -> l.matches("(G1 [XYZ]|T\\d|G1 E-).*"))
                    .limit(3)
                    .toList();
            // Over what stands, the tool, and only then is its filament drawn back.
            assertThat(begins.get(0)).startsWith("G1 Z");
            assertThat(begins.get(1)).startsWith("T");
            assertThat(begins.get(2)).startsWith("G1 E-");
            Move first = laid(file).get(0);
            assertThat(first.drawn()).isCloseTo(0, within(1e-3));
            assertThat(first.net()).isCloseTo(0, within(1e-3));
        }
    }

    @Test
    void a_layer_inside_a_band_begins_no_job_and_one_under_a_halt_does() {
        byte[] whole = new TwoTools(EnumSet.of(Way.ADDED), 12).bytes();
        Bench bench = RearrangedTest.bar(12, Ordering.Rule.BANDS);
        assertThatThrownBy(() -> bench.sliced(whole).reckoning().jobs(Set.of(7)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("plan a halt there");
        bench.halt(1.2, "cut here");
        assertThat(bench.reckoning().jobs(Set.of(7)).list()).hasSize(2);
    }

    @Test
    void layers_that_are_none_and_jobs_that_are_missing_get_a_sentence() throws IOException {
        Bench bench = new Bench().start(2.0, Spools.CHALK).sliced(tile());
        for (int layer : new int[] {-3, 0, 1, 16, 1000}) {
            assertThatThrownBy(() -> bench.reckoning().jobs(Set.of(layer)))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("give layers from 2 to 15");
        }
        List<byte[]> files = cut(new Bench().start(2.0, Spools.CHALK), tile().bytes(), 6, 11);
        assertThatThrownBy(() -> joined(files.subList(0, 2)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("3 is missing");
        assertThatThrownBy(() -> joined(List.of(files.get(0), files.get(0), files.get(1))))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> joined(List.of(files.get(0), tile().bytes())))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no job");
    }

    @Test
    void only_jobs_that_were_cut_from_one_print_at_the_same_layers_are_joined() throws IOException {
        Bench bench = new Bench().start(2.0, Spools.CHALK);
        List<byte[]> low = cut(bench, tile().bytes(), 6);
        List<byte[]> high = cut(bench, tile().bytes(), 11);
        List<byte[]> longer = cut(bench, tile().line("M84").bytes(), 11);
        assertThat(joined(high)).isNotEmpty();
        List<byte[]> three = cut(bench, tile().bytes(), 6, 11);
        for (List<byte[]> mixed : List.of(
                List.of(low.get(0), high.get(1)),
                List.of(high.get(0), low.get(1)),
                List.of(high.get(0), longer.get(1)),
                List.of(three.get(0), without(" begins[^\n]*", three.get(1)), three.get(2)))) {
            assertThatThrownBy(() -> joined(mixed))
                    .isInstanceOf(Refusal.class)
                    .hasMessageStartingWith("Job 2 does not begin where job 1 ends: ");
        }
    }

    /** Jobs that were cut before the place was written into them. */
    @Test
    void jobs_that_do_not_say_where_they_were_cut_are_joined_by_their_numbers() throws IOException {
        List<byte[]> jobs = cut(new Bench().start(2.0, Spools.CHALK), tile().bytes(), 6, 11);
        List<byte[]> earlier = new ArrayList<>();
        for (byte[] job : jobs) {
            earlier.add(without(" at byte[^\n]*", job));
        }
        assertThat(joined(earlier)).isEqualTo(joined(jobs));
        assertThatThrownBy(() -> joined(List.of(earlier.get(0), jobs.get(1), jobs.get(2))))
                .hasMessageStartingWith("Job 2 does not begin where job 1 ends: ");
    }

    private static byte[] without(String pattern, byte[] job) {
        String text = new String(job, StandardCharsets.ISO_8859_1);
        String rest = text.replaceAll("(" + BlockStamp.JOB + "\\d of \\d(?: begins| ends)?)" + pattern, "$1");
        assertThat(rest).isNotEqualTo(text);
        return rest.getBytes(StandardCharsets.ISO_8859_1);
    }
}
