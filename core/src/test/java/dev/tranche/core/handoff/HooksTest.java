package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.macro.HookNames;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class HooksTest {
    private static final HookNames PLAIN = HookNames.COMMON;

    private static HookNames knowing(String purge, String ifTools, String ifLayer) {
        return new HookNames(
                "<old>", "<new>", "<layer>", "<x>", "<y>", "<z>", "<e>", "<mode>", purge, ifTools, ifLayer, "<end>", 0);
    }

    /** Three colours, and back to the first. */
    private static Bench bench(HookNames names) {
        Bench bench =
                new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY).start(2.6, Spools.SOOT);
        bench.macros = bench.macros.naming(names);
        return bench;
    }

    private static Hooks hooks(Bench bench) {
        return Hooks.of(bench.plan, bench.rig(), bench.ledger());
    }

    @Test
    void where_the_program_knows_all_that_differs_one_text_does_for_all_pairs() {
        Hooks hooks = hooks(bench(knowing("<purge>", "", "")));
        assertThat(hooks.atToolChange()).hasSize(1);
        String text = hooks.atToolChange().get(0).lines();
        assertThat(text)
                .contains("M117 Swap at layer <layer> of the print: load <new>\n", "G1 E<purge> F240\n")
                .contains("G1 X<x> Y<y> F", "G91\nG1 Z5 F", "\n<mode>\nG92 E<e>\n");
        assertThat(hooks.atToolChange().get(0).when()).isEmpty();
        assertThat(hooks.atStart()).isEmpty();
    }

    @Test
    void a_program_without_a_word_for_the_purge_gets_a_text_for_each_pair() {
        List<Hooks.Text> texts = hooks(bench(PLAIN)).atToolChange();
        assertThat(texts)
                .extracting(Hooks.Text::when)
                .containsExactly(
                        "from tool 0, Soot, to tool 1, Chalk",
                        "from tool 1, Chalk, to tool 2, Burgundy",
                        "from tool 2, Burgundy, to tool 0, Soot");
        assertThat(texts).extracting(Hooks.Text::lines).doesNotHaveDuplicates();
    }

    @Test
    void a_program_with_conditions_gets_them_all_in_one_text() {
        List<Hooks.Text> texts = hooks(bench(knowing("", "<if # to #>", ""))).atToolChange();
        assertThat(texts).hasSize(1);
        assertThat(texts.get(0).lines().lines().filter(l -> l.startsWith("<if")))
                .containsExactly("<if 0 to 1>", "<if 1 to 2>", "<if 2 to 0>");
        assertThat(texts.get(0).lines().lines().filter("<end>"::equals)).hasSize(3);
    }

    @Test
    void steps_for_some_extruders_only_are_conditions_too() {
        Bench bench = bench(knowing("<purge>", "<if # to #>", ""));
        bench.rack = Optional.of(Rack.of(bench.printer, 3));
        bench.macros = bench.macros.replace(
                0, bench.macros.macro(0).insert(1, new MacroStep(new Step.Dwell(7), true, Set.of(2))));
        String text = hooks(bench).atToolChange().get(0).lines();
        assertThat(text.lines().filter(l -> l.startsWith("<if"))).hasSize(3);
        int begin = text.indexOf("<if 1 to 2>");
        String onlyOne = text.substring(begin, text.indexOf("<end>", begin));
        assertThat(onlyOne).contains("G4 ");
        assertThat(text.split("G4 ", -1)).hasSize(2);
    }

    @Test
    void a_file_at_hand_changes_nothing_of_them() {
        Bench bench = bench(knowing("<purge>", "", ""));
        Hooks without = hooks(bench);
        bench.sliced(new SmallGcode().relativeExtrusion().grid(0.2, 0.2, 15));
        assertThat(hooks(bench)).isEqualTo(without);
    }

    @Test
    void layers_are_counted_as_the_program_counts_them() {
        Bench bench = bench(knowing("<purge>", "", "<if layer #>")).halt(1.6, "lay the nut in");
        List<Hooks.Text> texts = hooks(bench).beforeLayers();
        assertThat(texts).hasSize(1);
        assertThat(texts.get(0).lines().lines().filter(l -> l.startsWith("<if")))
                .containsExactly("<if layer 5>", "<if layer 8>", "<if layer 10>", "<if layer 13>");
        assertThat(texts.get(0).lines()).contains("lay the nut in");
        // A program that prints in one colour knows nothing of tools.
        assertThat(hooks(bench(PLAIN)).beforeLayers().get(1).lines())
                .contains("M117 Swap 2 of 3: load C Burgundy\n")
                .contains("G1 X{x} Y{y} F")
                .doesNotContain("{new}", "{old}", "{layer}");
        assertThat(hooks(bench(PLAIN)).beforeLayers())
                .extracting(Hooks.Text::when)
                .containsExactly("before layer 6", "before layer 11", "before layer 14");
    }

    @Test
    void the_first_load_is_a_text_for_the_start() {
        Bench bench = bench(PLAIN);
        bench.macros = bench.macros.replace(1, bench.macros.macro(1).turned(true));
        assertThat(hooks(bench).atStart()).hasSize(1);
        assertThat(hooks(bench).atStart().get(0).lines()).contains("M117 Load A Soot\n");
    }

    /** A program that fills its words in leaves the print where it was, in absolute and in relative files. */
    @Test
    void with_its_words_filled_in_the_print_goes_on_where_it_was() throws IOException {
        String text =
                hooks(bench(knowing("<purge>", "", ""))).atToolChange().get(0).lines();
        for (String mode : List.of("M82", "M83")) {
            String filled = text;
            for (Map.Entry<String, String> word : Map.of(
                            "<x>", "81.5", "<y>", "77", "<z>", "2.4", "<e>", "12.25", "<mode>", mode, "<purge>", "90",
                            "<layer>", "12", "<new>", "1", "<old>", "0")
                    .entrySet()) {
                filled = filled.replace(word.getKey(), word.getValue());
            }
            assertThat(filled).doesNotContain("<");
            String before = "G28\nG90\n" + mode + "\nM109 S210\nG92 E12.25\nG1 X81.5 Y77 Z2.4 F3000\n";
            ControllerState was = run(before);
            ControllerState is = run(before + filled);
            assertThat(is.x()).isCloseTo(was.x(), within(1e-9));
            assertThat(is.y()).isCloseTo(was.y(), within(1e-9));
            assertThat(is.z()).isCloseTo(was.z(), within(1e-9));
            assertThat(is.e()).isCloseTo(was.e(), within(1e-9));
            assertThat(is.draw()).isEqualTo(was.draw());
            assertThat(is.modes().relativeFilament()).isEqualTo(was.modes().relativeFilament());
            assertThat(is.modes().relativeMoves()).isFalse();
        }
    }

    private static ControllerState run(String lines) throws IOException {
        Controller controller = new Controller(Dialect.COMMON);
        GcodeScanner scanner =
                new GcodeScanner(new ByteArrayInputStream(lines.getBytes(StandardCharsets.US_ASCII)), 8192);
        while (scanner.next()) {
            controller.execute(scanner);
        }
        return controller.state();
    }

    @Test
    void conditions_say_where_their_numbers_stand() {
        assertThatThrownBy(() -> knowing("", "<if #>", ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("two #");
        assertThatThrownBy(() -> knowing("", "", "<if>"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("one #");
        assertThatThrownBy(() -> new HookNames("", "n", "l", "x", "y", "z", "", "m", "", "", "", "", 1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("the old tool");
        assertThatThrownBy(() -> new HookNames("o", "n", "l", "x", "y", "z", "", "m", "", "", "", "", 2))
                .isInstanceOf(Refusal.class);
    }
}
