package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PatchTest {
    private static List<Patch.Insertion> before(SlicedFile file, String state, List<Integer> layers) {
        List<Patch.Insertion> insertions = new ArrayList<>();
        for (int layer : layers) {
            insertions.add(new Patch.Insertion(
                    file.layers().get(layer).door().orElseThrow(),
                    new BlockStamp("plan-1", state, BlockStamp.What.SWAP, insertions.size() + 1),
                    List.of("M600", "M117 Load B")));
        }
        return insertions;
    }

    @Property(tries = 100)
    void taking_out_what_was_put_in_gives_the_file_byte_for_byte(
            @ForAll @IntRange(min = 2, max = 30) int layers,
            @ForAll boolean crlf,
            @ForAll @Size(min = 1, max = 5) List<@IntRange(min = 1, max = 29) Integer> swaps)
            throws IOException {
        SmallGcode gcode = crlf ? new SmallGcode().crlf() : new SmallGcode();
        byte[] original = gcode.grid(0.2, 0.2, layers).bytes();
        List<Integer> at =
                swaps.stream().filter(s -> s < layers).distinct().sorted().toList();
        SlicedFile file = SurveyTest.survey(original);
        byte[] written = Patch.writing(file, before(file, "a", at)).applyTo(original);
        SlicedFile again = SurveyTest.survey(written);
        assertThat(again.blocks()).hasSameSizeAs(at);
        assertThat(again.layers()).hasSameSizeAs(file.layers());
        assertThat(again.stops()).isEmpty();
        assertThat(Patch.removing(again).applyTo(written)).isEqualTo(original);
    }

    @Test
    void writing_again_replaces() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 6).bytes();
        SlicedFile file = SurveyTest.survey(original);
        byte[] once = Patch.writing(file, before(file, "a", List.of(2, 4))).applyTo(original);
        SlicedFile surveyed = SurveyTest.survey(once);
        byte[] twice =
                Patch.writing(surveyed, before(surveyed, "a", List.of(2, 4))).applyTo(once);
        assertThat(twice).isEqualTo(once);
        byte[] moved =
                Patch.writing(surveyed, before(surveyed, "b", List.of(3))).applyTo(once);
        assertThat(SurveyTest.survey(moved).blocks())
                .extracting(b -> b.stamp().state())
                .containsExactly("b");
        assertThat(moved)
                .isEqualTo(Patch.writing(file, before(file, "b", List.of(3))).applyTo(original));
    }

    @Test
    void a_file_damaged_inside_a_block_is_refused() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 3).bytes();
        SlicedFile file = SurveyTest.survey(original);
        String written =
                new String(Patch.writing(file, before(file, "a", List.of(2))).applyTo(original));
        byte[] damaged = written.replace("; tranche end", "; gone").getBytes();
        assertThatThrownBy(() -> SurveyTest.survey(damaged))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("swap 1");
    }

    @Test
    void line_breaks_cannot_be_smuggled_into_a_block() throws IOException {
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.2, 0.2, 3));
        SlicedLayer.Door door = file.layers().get(1).door().orElseThrow();
        assertThatThrownBy(() -> new Patch.Insertion(
                        door, new BlockStamp("p", "s", BlockStamp.What.HALT, 1), List.of("M117 x\nM104 S300")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new BlockStamp("p\nM112", "s", BlockStamp.What.LOAD, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

    private static String twoSwaps() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        SlicedFile file = SurveyTest.survey(original);
        List<Patch.Insertion> swaps = List.of(insertion(file, 4, 1), insertion(file, 9, 2));
        return new String(Patch.writing(file, swaps).applyTo(original), StandardCharsets.ISO_8859_1);
    }

    private static Patch.Insertion insertion(SlicedFile file, int run, int number) {
        return new Patch.Insertion(
                file.layers().get(run).door().orElseThrow(),
                new BlockStamp("plan", "state", BlockStamp.What.SWAP, number),
                List.of("M0"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"; tranche end swap=1\n", "; tranche begin plan=plan state=state swap=2\n"})
    void a_file_that_has_lost_a_mark_is_refused_with_the_line_and_not_taken_apart(String lost) throws IOException {
        String written = twoSwaps();
        assertThat(written).contains(lost);
        byte[] damaged = written.replace(lost, "").getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> SurveyTest.survey(damaged))
                .isInstanceOf(Refusal.class)
                .hasMessageMatching("Line \\d+ of the G-code is “; tranche (begin|end).*undamaged copy of the file\\.");
    }

    @Test
    void a_space_behind_a_mark_hides_nothing() throws IOException {
        String written = twoSwaps();
        byte[] spaced = written.replaceAll("(?m)(; tranche .*)$", "$1 \t").getBytes(StandardCharsets.ISO_8859_1);
        SlicedFile file = SurveyTest.survey(spaced);
        assertThat(file.blocks()).hasSize(2);
        assertThat(Patch.removing(file).applyTo(spaced))
                .isEqualTo(new SmallGcode().grid(0.2, 0.2, 15).bytes());
    }

    /** Cut anywhere between lines, also where something is put in or a line is taken out. */
    @Property(tries = 60)
    void parts_that_are_copied_one_by_one_are_the_whole(@ForAll @IntRange(min = 0, max = 10_000) int somewhere)
            throws IOException {
        SmallGcode gcode = new SmallGcode().layers(0.2).line("M0 ; by hand").layers(0.4, 0.6);
        byte[] original = gcode.bytes();
        SlicedFile file = SurveyTest.survey(original);
        SlicedFile.Stop stop = file.stops().get(0);
        List<Patch.Insertion> all = new ArrayList<>(before(file, "a", List.of(1, 2)));
        all.add(new Patch.Insertion(
                stop.span().from(),
                stop.line(),
                new BlockStamp("plan-1", "a", BlockStamp.What.STOP, 9),
                List.of(),
                Optional.of(stop.span())));
        all.add(new Patch.Insertion(
                original.length,
                file.lines() + 1,
                new BlockStamp("plan-1", "a", BlockStamp.What.HALT, 10),
                List.of("M300"),
                Optional.empty()));
        Patch patch = Patch.writing(file, all);
        assertThat(patch.insertions())
                .extracting(Patch.Insertion::offset)
                .isSorted()
                .hasSize(4);
        int cut = gcode.text().indexOf('\n', somewhere % (original.length - 40)) + 1;
        ByteArrayOutputStream parts = new ByteArrayOutputStream();
        List<Long> heard = new ArrayList<>();
        Progress progress = (done, of) -> heard.add(done);
        patch.copy(new ByteArrayInputStream(original), new SlicedFile.Span(0, cut), parts, progress);
        patch.copy(
                new ByteArrayInputStream(original, cut, original.length - cut),
                new SlicedFile.Span(cut, original.length),
                parts,
                progress);
        assertThat(new String(parts.toByteArray(), StandardCharsets.ISO_8859_1))
                .isEqualTo(new String(patch.applyTo(original), StandardCharsets.ISO_8859_1))
                .contains("; tranche took M0 ; by hand\n");
        assertThat(heard).isSorted().endsWith((long) original.length);
    }
}
