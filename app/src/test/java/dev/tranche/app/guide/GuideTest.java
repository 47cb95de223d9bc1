package dev.tranche.app.guide;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.plan.Spool;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.springframework.test.context.TestPropertySource;

/** Somebody starts Tranche for the first time. The house is this class's own, and as empty as theirs. */
@TestPropertySource(properties = "tranche.largest-gcode=21MB")
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class GuideTest extends BrowserTest {
    private void see(String page) {
        browser.until(() -> browser.path().equals(page));
    }

    private List<String> shelved() {
        return browser.until(() -> browser.all(".guide-shelf li > span:first-of-type").stream()
                .map(WebElement::getText)
                .toList());
    }

    @Test
    @Order(1)
    void a_newcomer_is_led_from_an_empty_house_to_a_first_written_file() throws IOException {
        browser.open("/");
        assertThat(browser.text("#start-guide")).contains("Your first plan, step by step");
        browser.click("#guide-begin");
        see("/begin/printer");
        browser.click("#kind-TUBE_ROUTINE");
        browser.type("#printer-name", "Bench by the window");
        browser.click("#guide-printer");
        see("/begin/spools");
        // What a first start put there gives way; nobody had touched it.
        assertThat(workshop.all()).extracting(m -> m.printer().name()).containsExactly("Bench by the window");
        browser.click("#pick-teal");
        browser.until(() -> shelved().equals(List.of("Dark", "Light", "Teal")));
        browser.click(".guide-shelf li:first-child button");
        browser.until(() -> shelved().equals(List.of("Light", "Teal")));
        browser.click("#guide-next");
        see("/begin/model");
        browser.click("#ours-row-marker");
        browser.see("#start-guide", "4. A first colour");
        String desk = browser.path();
        browser.click(".flat-list .chip");
        browser.choose("#start-spool", "Teal");
        browser.click("#start-here");
        // One of ours is sliced already.
        browser.see("#start-guide", "5. The file");
        browser.click("#start-guide a");
        browser.see("#start-guide", "press Write swaps");
        browser.click("#write-swaps");
        String written = Files.readString(browser.download("row-marker-with-swaps.gcode"), StandardCharsets.ISO_8859_1);
        assertThat(written).contains("M600");
        browser.open(desk);
        browser.see("#start-guide", "Your first file is written");
        browser.click("#guide-leave");
        browser.until(() -> browser.all("#start-guide").isEmpty());
        browser.open("/");
        browser.find(".card-plan");
        assertThat(browser.all("#start-guide")).isEmpty();
    }

    @Test
    @Order(2)
    void it_is_begun_again_under_settings_goes_on_where_it_was_left_and_takes_ones_own_model() throws IOException {
        browser.open("/settings");
        browser.click("#guide-again");
        see("/begin/printer");
        browser.click("#guide-next");
        see("/begin/spools");
        // Two spools of one colour keep apart.
        browser.click("#pick-teal");
        browser.until(() -> shelved().equals(List.of("Light", "Teal", "Teal 2")));
        browser.script("document.getElementById('guide-colour').value = '#a4583a'");
        browser.type("#guide-name", "Clay of mine", Keys.ENTER);
        browser.until(() -> shelved().contains("Clay of mine"));
        browser.open("/");
        assertThat(browser.text("#start-guide")).contains("2. Your spools comes next");
        browser.click("#guide-begin");
        see("/begin/spools");
        browser.click("#guide-next");
        see("/begin/model");
        give("#model-file", file("peg.stl", StlWriter.binary(nameplate().mesh())));
        browser.see("#start-guide", "4. A first colour");
        String desk = browser.path();
        browser.open("/");
        browser.see("#start-guide", "4. A first colour comes next");
        browser.click("#guide-begin");
        browser.until(() -> browser.path().startsWith(desk));
        browser.find("#desk");
        browser.click(".flat-list .chip");
        browser.click("#start-here");
        browser.see("#start-guide", "with layers of 0.20 and 0.20 mm");
        assertThat(workshop.all()).hasSize(1);
    }

    @Test
    @Order(3)
    void a_spool_that_plans_print_with_stays_and_a_printer_that_is_used_too() {
        plan("in teal");
        Spool first = shelf.all().get(0);
        browser.open("/begin/spools");
        browser.click(".guide-shelf button[aria-label='Take " + first.name() + " off the shelf']");
        browser.see("#notice, #refused", "This spool is part of");
        assertThat(shelf.all()).contains(first);
        browser.open("/begin/printer");
        browser.click("#guide-printer");
        see("/begin/spools");
        assertThat(workshop.all()).hasSize(2);
        browser.open("/begin/nowhere");
        assertThat(browser.text("main")).contains("no such step");
    }

    @Test
    @Order(4)
    void a_new_plan_prints_where_one_planned_last() throws IOException {
        long second = workshop.all().get(1).id();
        PlanState plan = plan("on the other one");
        plans.editAll(plan.id(), plan.edition(), "elsewhere", c -> c.on(second));
        browser.open("/");
        give("#model-file", file("hook.stl", StlWriter.binary(nameplate().mesh())));
        browser.find("#desk");
        assertThat(plans.get(browser.path().split("[/?]")[2]).content().printer())
                .isEqualTo(second);
    }
}
