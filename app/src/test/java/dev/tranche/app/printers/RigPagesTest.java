package dev.tranche.app.printers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** A printer set up in a real browser: its measures, abilities, rack and macros. */
class RigPagesTest extends BrowserTest {
    private String add(Beginning kind) {
        return "/printers/" + workshop.add(kind.rig(kind.title())).id();
    }

    private List<String> steps() {
        return browser.until(() -> browser.all(".step-row .step-title").stream()
                .map(WebElement::getText)
                .toList());
    }

    private void seeSteps(String... titles) {
        browser.until(() -> steps().equals(List.of(titles)));
    }

    private void addStep(String kind) {
        int before = browser.all(".step-row").size();
        browser.choose("#new-kind", kind);
        browser.click("#add-step");
        browser.until(() -> browser.all(".step-row").size() == before + 1);
    }

    @Test
    void a_printer_goes_out_as_a_file_and_comes_in_as_it_was_but_for_its_spools() throws IOException {
        Rig rig = Beginning.SELECTOR.rig("Bench that travels");
        Spool spool = shelf.all().get(0);
        long id = workshop.add(
                        rig.with(rig.rack().replace(2, rig.rack().extruder(2).with(spool))))
                .id();
        browser.open("/printers/" + id);
        browser.click(".rig-head details summary");
        browser.click("#printer-file");
        Path file = browser.download("Bench-that-travels.printer.json");
        browser.open("/printers/new");
        give("#printer-from", file);
        browser.until(() -> browser.path().matches("/printers/\\d+"));
        long other = Long.parseLong(browser.path().replaceAll("\\D", ""));
        assertThat(other).isNotEqualTo(id);
        assertThat(workshop.get(other).rig().rack().spools()).isEmpty();
        assertThat(workshop.get(other).printer()).isEqualTo(rig.printer());
        assertThat(workshop.get(other).rig().macros()).isEqualTo(rig.macros());

        String text = Files.readString(file);
        refused(text.substring(0, 300), "holds no JSON");
        refused("{\"format\": \"something else\"}", "no printer's file");
        refused(text.replace("\"version\" : 1", "\"version\" : 7"), "version 7");
        refused(text.replaceFirst("\"nozzle\" : [0-9.]+", "\"nozzle\" : -3"), "nozzle");
    }

    private void refused(String file, String why) throws IOException {
        browser.open("/printers/new");
        give("#printer-from", file("refused.json", file.getBytes(StandardCharsets.UTF_8)));
        browser.see("#notice, #refused", why);
    }

    @Test
    void a_printer_is_set_up_from_its_kind_and_corrected() {
        browser.open("/printers/new");
        browser.type("#printer-name", "Attic printer");
        browser.click("input[value=TIMED_WAITS]");
        browser.click("#add-printer");
        browser.see(".rig-head", "Attic printer");
        browser.type("input[name=bedWidth]", "200");
        browser.click("#save-printer");
        browser.see("#printer-form", "Saved");
        browser.type("input[name=nozzle]", "9");
        browser.click("#save-printer");
        browser.see("#notice, #refused", "A nozzle of 9.0 mm is out of range");
        assertThat(browser.find("input[name=nozzle]").getDomProperty("value")).isEqualTo("9");
        browser.click("#undo");
        browser.until(() -> "170".equals(browser.find("input[name=bedWidth]").getDomProperty("value")));
    }

    @Test
    void a_length_is_measured_with_the_guide() {
        browser.open(add(Beginning.DIRECT_PAUSE));
        browser.click(".guide summary");
        browser.type("#mark-to-tip", "112,5");
        browser.type("#above-gears", "40", Keys.TAB);
        browser.see("#measured", "72.5 mm");
        browser.click("#take-measured");
        assertThat(browser.find("#gears").getDomProperty("value")).isEqualTo("72.5");
        browser.type("#above-gears", "400", Keys.TAB);
        browser.see("#notice, #refused", "cannot be longer than the whole");
    }

    @Test
    void a_selector_box_is_described_and_drawn_and_mirrored() {
        String printer = add(Beginning.SELECTOR);
        browser.open(printer);
        browser.see("#lever", "350 − 3 = 347 mm");
        browser.click("input[name=atHomingEnd]");
        browser.see("#lever", "350 + 3 = 353 mm");
        browser.type("input[name=position]", "0", Keys.TAB);
        browser.see("#lever", "0 + 3 = 3 mm");
        browser.click("#save-printer");
        browser.see("#printer-form", "Saved");
        browser.open(printer + "/macros/0");
        browser.see(".code", "G1 X3 F7200");
        browser.open(printer);
        browser.type("input[name=position]", "900");
        browser.click("#save-printer");
        browser.see("#notice, #refused", "The switch at X 900.0 mm is beyond the axis");
    }

    @Test
    void a_variant_shows_what_differs_and_leaves_the_plain_one_untouched() {
        String plain = add(Beginning.DIRECT_PAUSE);
        browser.open(plain);
        browser.click(".rig-head summary");
        browser.type("#variant-name", "Four colours");
        browser.click("form[hx-post$='/variant'] button");
        browser.see(".rig-head", "Four colours");
        browser.see(".differs", "Nothing but the name");
        browser.type("input[name=parkX]", "9");
        browser.click("#save-printer");
        browser.see(".differs", "X 9 Y 5");
        browser.open(plain);
        assertThat(browser.find("input[name=parkX]").getDomProperty("value")).isEqualTo("5");
    }

    @Test
    void an_ignored_parameter_is_struck_through_and_found() throws IOException {
        String printer = add(Beginning.TUBE_ROUTINE);
        browser.open(printer + "/abilities");
        browser.see(".abilities", "Swap, Halt");
        browser.click("#can-M600-L");
        // The server has kept it when there is something to undo.
        browser.until(() -> browser.find("#undo").getDomAttribute("title").contains("abilities"));
        assertThat(browser.find("#can-M600-L").isSelected()).isFalse();
        browser.open(printer + "/macros/0");
        browser.see("s.ignored", "L420");
        browser.see("#faults", "takes no notice of L of M600");
        browser.open(printer + "/abilities");
        browser.click("#can-M600");
        browser.until(() -> !browser.find("#can-M600-X").isEnabled());
        assertThat(browser.find("#can-M600").isSelected()).isFalse();
        browser.see("#mends", "Swap at a pause instead");
        browser.open(printer + "/macros/0");
        browser.see("#faults", "does not understand M600");
        browser.see(".rig-head", "to mend before hand-off");
        browser.click("#faults .finding.stop button");
        browser.see("#faults", "Nothing is wrong");
        seeSteps(
                "Retract",
                "Lift",
                "Park",
                "Tone",
                "Message",
                "Heat",
                "Wait for the person",
                "Heat",
                "Purge",
                "Retract",
                "Message",
                "Wait for the person",
                "Wipe",
                "Return");
        browser.open(printer + "/abilities");
        browser.click("#get-probe");
        String probe = Files.readString(browser.download("Tube-fed-with-a-filament-change-routine-probe.gcode"));
        assertThat(probe).contains("G28").contains("M600 X10").contains("M117 1 ");
    }

    @Test
    void a_macro_is_built_by_mouse_broken_read_and_mended() {
        String printer = add(Beginning.DIRECT_PAUSE);
        browser.open(printer + "/macros");
        browser.click("#macro-on-0");
        browser.see("#rig", "No macro is on for a swap");
        browser.click("#add-SWAP");
        browser.see(".fires", "Swap 2");
        browser.open(printer + "/macros/3");
        browser.see("#rig", "No steps yet");
        browser.see("#faults", "never stops the machine");
        for (String kind : List.of("Lift", "Wait for the person", "Park", "Purge", "Wipe", "Return")) {
            addStep(kind);
        }
        browser.see("#faults", "The nozzle waits over the print");

        // Dragged by its handle, Park goes before the wait.
        WebElement park = browser.find("#step-2 .grip");
        WebElement wait = browser.find("#step-1");
        new Actions(browser.driver())
                .clickAndHold(park)
                .moveToElement(wait)
                .release()
                .perform();
        seeSteps("Lift", "Park", "Wait for the person", "Purge", "Wipe", "Return");
        browser.see("#faults", "Nothing is wrong");
        browser.see(".code", "G1 X5 Y5 F7200");
        browser.see(".totals", "1 min 30 s");

        // Pointing at a step lights its lines; each number says its setting.
        new Actions(browser.driver())
                .moveToElement(browser.find("#step-1 .step-title"))
                .perform();
        browser.until(
                () -> browser.all("tr.lit").stream().anyMatch(r -> r.getText().contains("G1 X5 Y5")));
        assertThat(browser.find("tr.lit .from-setting").getDomAttribute("title"))
                .isEqualTo("park spot X");

        // Broken: own lines that move away.
        addStep("Own lines");
        // The list may be replaced under the hand; who sees that types again.
        browser.until(() -> {
            WebElement field = browser.find("#step-6-lines");
            if (!"G1 X100".equals(field.getDomProperty("value"))) {
                field.sendKeys(Keys.chord(Keys.CONTROL, "a"), "G1 X100", Keys.TAB);
            }
            return browser.find("#faults").getText().contains("does not return to where it came from, but to X 100.00");
        });
        browser.click("#step-6-remove");
        browser.see("#faults", "Nothing is wrong");

        // A number out of range is refused and stays in its field.
        browser.type("#step-0-height", "900", Keys.TAB);
        browser.see("#notice, #refused", "A lift of 900 mm is out of range");
        assertThat(browser.find("#step-0-height").getDomProperty("value")).isEqualTo("900");
    }

    @Test
    void a_macro_is_built_by_keyboard_and_undone() {
        String printer = add(Beginning.DIRECT_PAUSE);
        browser.open(printer + "/macros/0");
        int steps = browser.all(".step-row").size();
        for (int i = 0; i < steps; i++) {
            int left = steps - i - 1;
            browser.until(() -> {
                browser.find("#step-0-remove").sendKeys(Keys.ENTER);
                return true;
            });
            browser.until(() -> browser.all(".step-row").size() == left);
        }
        for (String[] kind : new String[][] {{"Timed", "Timed wait"}, {"Lift", "Lift"}, {"Park", "Park"}}) {
            int before = browser.all(".step-row").size();
            browser.find("#new-kind").sendKeys(kind[0], Keys.TAB, Keys.TAB, Keys.ENTER);
            browser.until(() -> browser.all(".step-row").size() == before + 1);
        }
        seeSteps("Timed wait", "Lift", "Park");
        browser.find("#step-0-seconds").sendKeys(Keys.chord(Keys.ALT, Keys.ARROW_DOWN));
        seeSteps("Lift", "Timed wait", "Park");
        browser.until(() -> "step-1-seconds"
                .equals(browser.driver().switchTo().activeElement().getDomAttribute("id")));
        browser.press(Keys.chord(Keys.ALT, Keys.ARROW_DOWN));
        seeSteps("Lift", "Park", "Timed wait");
        browser.find("#step-1-on").sendKeys(Keys.SPACE);
        browser.until(() -> browser.find("#step-1").getDomAttribute("class").contains("off"));
        browser.see("#faults", "Nothing is wrong");
        browser.leaveFields();
        browser.press(Keys.chord(Keys.CONTROL, "z"));
        browser.until(() -> !browser.find("#step-1").getDomAttribute("class").contains("off"));
        browser.driver().navigate().refresh();
        seeSteps("Lift", "Park", "Timed wait");
        assertThat(browser.find("#undo").getDomAttribute("title")).contains("move a step");
    }

    @Test
    void what_the_person_does_is_said_at_each_stop_and_can_be_said_otherwise() {
        String printer = add(Beginning.TUBE_ROUTINE);
        browser.open(printer + "/macros/0");
        browser.see("#faults", "Nothing is wrong");
        browser.click("#step-5-acts summary");
        assertThat(browser.find("#step-5-told").getDomProperty("value"))
                .contains("The printer draws {{out}} out; take it away")
                .contains("Push {{purge_mm}} mm more through, until it is clean");
        // The list may be replaced under the hand; who sees that types again.
        browser.until(() -> {
            if (!browser.find("#step-5-acts summary").getText().contains("in your words")) {
                browser.find("#step-5-told")
                        .sendKeys(Keys.chord(Keys.CONTROL, "a"), "Open the lid, then put {{in}} in", Keys.TAB);
            }
            return browser.find("#step-5-acts summary").getText().contains("in your words");
        });
        assertThat(workshop.get(Long.parseLong(printer.substring(10)))
                        .rig()
                        .macros()
                        .macro(0)
                        .step(5)
                        .told())
                .isEqualTo("Open the lid, then put {{in}} in");
        browser.click("#step-5-numbers summary");
        browser.type("#step-5-out", "400", Keys.TAB);
        browser.see(".code", "U400");
    }

    @Test
    void a_command_that_is_unticked_offers_the_nearest_one_there_is() {
        String printer = add(Beginning.TUBE_ROUTINE);
        browser.open(printer + "/abilities");
        browser.click("#can-M600");
        browser.see("#mends", "does not understand M600");
        browser.click("#mends .finding.stop button");
        browser.until(() -> browser.all("#mends").isEmpty());
        browser.open(printer + "/macros/0");
        browser.see("#faults", "Nothing is wrong");
    }

    @Test
    void two_macros_for_one_event_are_a_stop_and_one_button_keeps_one() {
        String printer = add(Beginning.HOST);
        browser.open(printer + "/macros");
        browser.see("#host-pause", "G1 X5 Y225 F7200");
        browser.see("#host-resume", "G1 X{x} Y{y} F7200");
        browser.click("#ready-SWAP");
        browser.see(".fires", "Swap 2");
        browser.click("#macro-on-5");
        browser.see("#rig", "Swap fires 2 macros");
        browser.click(".finding.stop button");
        browser.see("#rig", "Each event fires one macro at most");
        browser.type(".host-names input[name=x]", "<px>", Keys.TAB);
        browser.see("#host-resume", "G1 X<px> Y{y}");
    }

    @Test
    void extruders_that_disagree_are_settled_with_one_button() {
        String printer = add(Beginning.FEEDER);
        browser.open(printer + "/rack");
        browser.choose("#T1 select[name=spool]", "Light");
        browser.until(() -> browser.find("#T1 .extruder-head").getText().contains("#F2F1EC"));
        browser.click("#T2 .shared summary");
        browser.type("#T2 input[name=nozzle]", "0.6", Keys.TAB);
        browser.see("#rig", "T2 believes in a nozzle of 0.6 mm");
        browser.click(".finding.stop button");
        browser.until(() -> browser.all(".finding").isEmpty());
        assertThat(browser.find("#T2 input[name=nozzle]").getDomProperty("value"))
                .isEqualTo("0.4");
        browser.type("#rack-count", "20", Keys.TAB);
        browser.see("#notice, #refused", "1 to 16 virtual extruders, not 20");
    }

    @Test
    void blends_show_their_colour_and_weights_that_do_not_sum_to_one_are_refused() {
        browser.open(add(Beginning.BLENDING) + "/rack");
        browser.choose("#input-0", "Dark");
        browser.until(() -> browser.find("#T0 .extruder-head").getText().contains("#26272A"));
        browser.choose("#input-1", "Light");
        browser.until(() -> browser.find("#T1 .extruder-head").getText().contains("#F2F1EC"));
        browser.see("#definitions", "M163 S0 P0.67");
        browser.type("#T2 input[name=weight]", "0.5", Keys.TAB);
        browser.see("#notice, #refused", "The weights sum to 0.83 and must sum to 1");
    }

    @Test
    void more_spools_than_extruders_are_tracked_swap_by_swap() {
        String printer = add(Beginning.DIRECT_PAUSE);
        String id = plan("tracked").id();
        browser.open("/plans/" + id);
        browser.type("#start-height", "2.4");
        browser.choose("#start-spool", "Light");
        browser.click("#start-here");
        browser.see("#ledger", "2 colours");
        plans.editAll(id, plans.get(id).edition(), "printer", c -> c.on(Long.parseLong(printer.substring(10))));
        browser.open(printer + "/rack");
        browser.see(".loading", "swap 1");
        assertThat(browser.all(".loading tbody tr")).hasSize(2);
        assertThat(browser.all(".loading td.prints"))
                .extracting(WebElement::getText)
                .containsExactly("Dark put in, prints", "Light put in, prints");
        browser.type("#rack-count", "2", Keys.TAB);
        browser.until(() -> browser.all(".loading thead th").size() == 3);
    }

    @Test
    void a_macro_with_a_stop_is_kept_but_not_handed_off() throws IOException {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Broken")).id();
        workshop.edit(
                id,
                0,
                "break",
                rig -> rig.with(rig.macros()
                        .replace(0, Macro.of(Event.SWAP, new Step.WaitForPerson(Command.M0), new Step.Raw("G91")))));
        String plan = plan("broken").id();
        plans.editAll(plan, 0, "printer and colours", c -> c.with(c.colours()
                        .startAt(
                                dev.tranche.core.units.Height.ofMillimetres(2.4),
                                shelf.all().get(1).id(),
                                c.colours().layers().on(dev.tranche.core.units.Height.ofMillimetres(5))))
                .on(id));
        browser.open("/plans/" + plan + "/hand-off");
        give("#gcode-file", file("broken.gcode", sliced(new SmallGcode()).bytes()));
        browser.see(".file-facts", "one for one");
        browser.see("main", "Swap macro, step 2: The step changes between absolute and relative places");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
        workshop.undo(id, workshop.get(id).version().edition());
        browser.open("/plans/" + plan + "/hand-off");
        assertThat(browser.find("#write-swaps").isEnabled()).isTrue();
    }

    @Test
    void a_halt_is_put_into_a_plan_and_comes_out_in_list_and_file() throws IOException {
        String id = plan("halted").id();
        browser.open("/plans/" + id + "?layer=6");
        browser.click(".halts-list summary");
        browser.type("#halt-note", "lay the nut in", Keys.ENTER);
        browser.see(".halt-list", "lay the nut in");
        assertThat(browser.all("svg.section .halts > g")).hasSize(1);
        assertThat(browser.all("svg.score .halts > g")).hasSize(1);
        assertThat(browser.text("#ledger")).contains("In one colour");
        browser.open("/plans/" + id + "/swap-list");
        browser.see(".swap-table", "Halt: lay the nut in");
        browser.open("/plans/" + id + "/hand-off");
        give("#gcode-file", file("halted.gcode", sliced(new SmallGcode()).bytes()));
        browser.see(".file-facts", "one for one");
        browser.click("#write-swaps");
        String text = Files.readString(browser.download("halted-with-swaps.gcode"), StandardCharsets.ISO_8859_1);
        assertThat(text).containsOnlyOnce("M117 Halt 1: lay the nut in").contains("halt=1");
        browser.open("/plans/" + id);
        browser.click(".halt-list button.quiet");
        browser.until(() -> browser.all(".halt-list li").isEmpty());
    }

    @Test
    void a_page_that_fell_behind_is_told_and_shows_the_printer_as_it_is() {
        String printer = add(Beginning.DIRECT_PAUSE);
        browser.open(printer + "/macros/0");
        workshop.edit(
                Long.parseLong(printer.substring(10)),
                0,
                "remove a step",
                rig -> rig.with(rig.macros().replace(0, rig.macros().macro(0).remove(0))));
        browser.click("#step-3-remove");
        browser.see("#notice, #refused", "This printer was changed in another tab (remove a step)");
        browser.until(() -> browser.all(".step-row").size() == 13);
    }

    @Test
    void the_macro_editor_is_seen_whole_at_1280_by_800_and_read_on_a_phone() {
        for (Beginning kind : Beginning.values()) {
            String printer = add(kind);
            browser.size(1280, 800);
            browser.open(printer + "/macros/0");
            browser.find(".strip");
            assertThat(browser.script("return document.documentElement.scrollHeight <= 800"
                            + " && document.documentElement.scrollWidth <= 1280"))
                    .as(kind.title())
                    .isEqualTo(true);
            browser.size(390, 844);
            for (String page : List.of("", "/abilities", "/rack", "/macros", "/macros/0")) {
                browser.open(printer + page);
                browser.find("#rig");
                assertThat(browser.script("return document.documentElement.scrollWidth <= 390"))
                        .as(kind.title() + page + " on a phone")
                        .isEqualTo(true);
            }
        }
    }
}
