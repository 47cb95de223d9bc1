package dev.tranche.app.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** A sliced file with tools of its own, at the hand-off. */
class ToolsOfFilesTest extends BrowserTest {
    /** Layers 1 to 12 with T0, 13 to 25 with T1, as a program writes it that cools what rests. */
    private static byte[] twoTools(String... stop) {
        SmallGcode gcode = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 25; layer++) {
            if (layer == 13) {
                gcode.line("M104 T0 S150").line("T1 ; the second").line("M109 T1 S205");
                List.of(stop).forEach(gcode::line);
            }
            gcode.sized(layer <= 12 ? 30 : layer <= 20 ? 24 : 14, layer <= 12 ? 20 : layer <= 20 ? 14 : 8)
                    .layers(0.2 * layer);
        }
        return gcode.bytes();
    }

    /** What a machine does of a file. */
    private static List<String> obeyed(byte[] file) {
        return new String(file, StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> !l.startsWith(";"))
                .toList();
    }

    private PlanState mossAndBone(String name) {
        SpoolId base = shelf.add(named(shelf.all().get(0), "Moss of the file")).id();
        SpoolId letters = shelf.add(named(shelf.all().get(0), "Bone")).id();
        PlanState plan = plan(name);
        // The first spool is recoloured away, as most people do first.
        plan = plans.edit(plan.id(), plan.edition(), "recolour", p -> p.recolour(0, base));
        return plans.edit(
                plan.id(),
                plan.edition(),
                "start",
                p -> p.startAt(Height.parse("2.4"), letters, p.layers().on(Height.parse("5"))));
    }

    @Test
    void a_stop_of_the_files_own_is_asked_about_and_can_be_the_swap() throws IOException {
        PlanState plan = mossAndBone("a stop of its own");
        browser.open("/plans/" + plan.id() + "/hand-off");
        byte[] original = twoTools("M600 ; change");
        give("#gcode-file", file("stopping.gcode", original));
        browser.see("main", "The G-code already holds 1 stop");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
        assertThat(browser.find(".stops-there tbody tr").getText())
                .contains("M600 ; change", "before layer 13, at 2.40 mm", "swap 1", "Bone");

        takeItsStopForTheSwap();
        browser.click("#changes > summary");
        browser.see("#changes-list", "4 tool lines taken out");
        browser.click("#write-swaps");
        byte[] written = Files.readAllBytes(browser.download("stopping-with-swaps.gcode"));
        List<String> obeyed = obeyed(written);
        assertThat(obeyed).contains("M600 ; change").noneMatch(l -> l.equals("M0") || l.startsWith("T"));

        give("#gcode-file", browser.download("stopping-with-swaps.gcode"));
        browser.see(".file-facts h3", "stopping-with-swaps.gcode");
        browser.click("#take-swaps-out");
        assertThat(Files.readAllBytes(browser.download("stopping-without-swaps.gcode")))
                .isEqualTo(original);
    }

    private void takeItsStopForTheSwap() {
        browser.choose("#stop-0", "it is that stop: add nothing");
        browser.until(() -> browser.find("#write-swaps").isEnabled());
    }

    @Test
    void what_was_said_of_a_file_holds_for_it_with_swaps_and_without_and_for_no_other() throws IOException {
        PlanState plan = mossAndBone("said once");
        browser.open("/plans/" + plan.id() + "/hand-off");
        byte[] original = twoTools("M600 ; change");
        give("#gcode-file", file("said.gcode", original));
        takeItsStopForTheSwap();
        browser.click("#write-swaps");

        // What is to be known of it stands beside the button, which can be pressed.
        browser.choose("#stop-0", "leave it: stop twice");
        browser.see("#file-warnings", "The G-code keeps 1 stop of its own beside the plan's");
        assertThat(browser.find("#write-swaps").isEnabled()).isTrue();
        browser.choose("#stop-0", "it is that stop: add nothing");
        browser.until(() -> browser.all("#file-warnings").isEmpty());

        give("#gcode-file", browser.download("said-with-swaps.gcode"));
        browser.see(".file-facts h3", "said-with-swaps.gcode");
        assertThat(plans.get(plan.id()).gcode().orElseThrow().said().stops())
                .containsExactly(Map.entry(0, StopTable.Choice.ADOPT));
        assertThat(browser.find("#write-swaps").isEnabled()).isTrue();

        give("#gcode-file", file("said-as-it-came.gcode", original));
        browser.see(".file-facts h3", "said-as-it-came.gcode");
        assertThat(browser.find("#write-swaps").isEnabled()).isTrue();

        // Sliced again it may stop elsewhere; what was said is asked again.
        give("#gcode-file", file("said-anew.gcode", twoTools("M600 ; another")));
        browser.see(".file-facts h3", "said-anew.gcode");
        browser.see("main", "The G-code already holds 1 stop");
        assertThat(plans.get(plan.id()).gcode().orElseThrow().said()).isEqualTo(Said.NOTHING);
    }

    @Test
    void another_model_is_told_and_accepted_and_no_longer_accepted() throws IOException {
        PlanState plan = plan("another");
        browser.open("/plans/" + plan.id() + "/hand-off");
        give(
                "#gcode-file",
                file("square.gcode", new SmallGcode().grid(0.2, 0.2, 25).bytes()));
        browser.see("main", "On layer 1 the G-code prints something 20.0 mm wide and 20.0 mm deep");
        browser.click("#accept-another-model");
        browser.until(() -> browser.find("#write-swaps").isEnabled());
        // What was pressed is gone; the hand is at what comes next.
        browser.until(() -> "write-swaps".equals(browser.script("return document.activeElement.id")));
        assertThat(plans.get(plan.id()).gcode().orElseThrow().said().accepted())
                .singleElement()
                .asString()
                .startsWith("another-model.");
        browser.click("#refuse-another-model");
        browser.until(() -> !browser.find("#write-swaps").isEnabled());
    }

    @Test
    void a_slicing_program_gets_the_swaps_in_its_own_words() {
        PlanState plan = mossAndBone("texts");
        long printer = plan.content().printer();
        browser.open("/printers/" + printer + "/macros");
        browser.click("#hooks > summary");
        browser.type("#hook-new", "[next]", Keys.TAB);
        browser.until(
                () -> workshop.get(printer).rig().macros().hookNames().next().equals("[next]"));
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.click("#hook-texts");
        browser.see("#change-0", "[next]");
        browser.see("main", "Before a layer");
    }

    @Test
    void the_tools_of_a_file_are_matched_written_without_their_lines_and_given_back() throws IOException {
        PlanState plan = mossAndBone("two tools");
        browser.open("/plans/" + plan.id() + "/hand-off");
        byte[] original = twoTools();
        give("#gcode-file", file("two.gcode", original));
        browser.see(".tools", "Moss of the file");
        List<String> rows = browser.all(".tools tbody tr").stream()
                .map(row -> row.getText().replace('\n', ' '))
                .toList();
        assertThat(rows.get(0)).startsWith("T0").contains("layers 1–12", "Moss of the file");
        assertThat(rows.get(1)).startsWith("T1").contains("layers 13–25", "Bone");

        browser.click("#write-swaps");
        byte[] written = Files.readAllBytes(browser.download("two-with-swaps.gcode"));
        List<String> obeyed = obeyed(written);
        assertThat(obeyed)
                .noneMatch(l -> l.startsWith("T"))
                .doesNotContain("M104 T0 S150")
                .contains("M0");
        assertThat(obeyed).anyMatch(l -> l.startsWith("M117 Swap 1 of 1") && l.contains("Bone"));

        // Said otherwise, it contradicts the plan, and nothing is written until it does not.
        browser.choose("#tool-0", "B Bone");
        browser.see("main", "Not ready to hand off");
        browser.see("main", "On layer 1 the G-code prints");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
        browser.choose("#tool-0", "as it prints");
        browser.until(() -> browser.find("#write-swaps").isEnabled());

        give("#gcode-file", browser.download("two-with-swaps.gcode"));
        browser.see(".file-facts", "Holds swaps of Tranche");
        browser.click("#take-swaps-out");
        assertThat(Files.readAllBytes(browser.download("two-without-swaps.gcode")))
                .isEqualTo(original);
    }

    @Test
    void a_file_in_other_layers_gives_the_plan_its_own_in_one_press() throws IOException {
        PlanState plan = plan("other layers");
        browser.open("/plans/" + plan.id() + "/hand-off");
        // Ten layers of 0.5 mm for a plan of 25 of 0.2 mm.
        give(
                "#gcode-file",
                file("coarse.gcode", new SmallGcode().grid(0.5, 0.5, 10).bytes()));
        browser.see("main", "layer 1 ends at 0.50 mm in the G-code and at 0.20 mm in the plan");
        browser.click("#mend-other-layers");
        browser.see(".file-facts", "Its layers are the plan's, one for one");
        assertThat(plans.get(plan.id()).undo()).contains("take the file's layers");
    }

    @Test
    void a_plan_follows_a_file_that_was_coloured_when_it_was_sliced_with_spools_that_are_there() throws IOException {
        PlanState plan = plan("coloured when sliced");
        Spool zinc = zinc();
        List<Spool> others = shelf.all().stream()
                .filter(s -> !s.equals(shelf.all().get(0)) && !s.equals(zinc))
                .toList();
        others.forEach(s -> shelf.remove(s.id()));
        try {
            browser.open("/plans/" + plan.id() + "/hand-off");
            give("#gcode-file", file("two.gcode", twoTools()));
            browser.see("#mend-tool-without-spool", "Plan it as the file prints, T1 as Zinc");
            browser.click("#mend-tool-without-spool");
            browser.until(() -> browser.find("#write-swaps").isEnabled());
            assertThat(plans.get(plan.id()).content().colours().starts().list())
                    .extracting(s -> s.wished().toString() + " " + s.spool().value())
                    .containsExactly(
                            "0.00 " + shelf.all().get(0).id().value(),
                            "2.40 " + zinc.id().value());
        } finally {
            others.forEach(s -> shelf.restore(s.id()));
        }
    }

    /** The west of each layer with T0, and the rest with T1, as a program slices what was painted in it. */
    private static byte[] painted() {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 25; layer++) {
            double width = layer <= 12 ? 30 : layer <= 20 ? 24 : 14;
            double depth = layer <= 12 ? 20 : layer <= 20 ? 14 : 8;
            double south = 100.225 - depth / 2;
            gcode.rise(0.2 * layer).line("T0");
            gcode.outline(100.225 - width / 2, south, width / 2 + 1.55, depth - 0.45, 0.0374);
            gcode.line("T1").outline(102.225, south, width / 2 - 2.45, depth - 0.45, 0.0374);
        }
        return gcode.bytes();
    }

    @Test
    void a_model_that_was_painted_when_it_was_sliced_is_coloured_as_its_file_prints_it() throws IOException {
        PlanState plan = plan("painted when sliced");
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("painted.gcode", painted()));
        browser.click("#paint");
        browser.until(() -> browser.find("#write-swaps").isEnabled());
        PlanState coloured = plans.get(plan.id());
        assertThat(coloured.undo()).contains("draw the colours of the file");
        assertThat(coloured.content().colours().regions().list())
                .extracting(Region::name)
                .containsExactly("T1, layers 1–25");
        assertThat(coloured.content().colours().starts().list()).hasSize(1);
    }
}
