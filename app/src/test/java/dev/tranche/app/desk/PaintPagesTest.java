package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.exchange.PlanFileReader;
import dev.tranche.app.exchange.PlanFileWriter;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.interactions.Actions;
import org.springframework.beans.factory.annotation.Autowired;

/** Blends and fades of a plan: made at the desk, moved by their borders, written into a file. */
class PaintPagesTest extends BrowserTest {
    @Autowired
    private PlanFileWriter writer;

    @Autowired
    private PlanFileReader reader;

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    private SpoolId spool(String name) {
        return shelf.all().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** The nameplate, all in the dark spool, on a nozzle that blends dark and light. */
    private PlanState blended(String name) {
        return blended(name, Beginning.BLENDING.rig(name));
    }

    private PlanState blended(String name, Rig rig) {
        long printer = workshop.add(rig.with(
                        rig.rack().feeding(0, Optional.of(spool("Dark"))).feeding(1, Optional.of(spool("Light")))))
                .id();
        PlanState plan = plan(name);
        return plans.editAll(plan.id(), plan.edition(), "elsewhere", c -> c.on(printer));
    }

    private ColourPlan colours(String id) {
        return plans.get(id).content().colours();
    }

    private Mixture.Fade fade(String id) {
        return (Mixture.Fade) colours(id).mixtures().list().get(0);
    }

    /** The page shows the fade between these heights, and so it is. */
    private void seeFade(String id, String begins, String ends) {
        browser.until(() -> begins.equals(end("begins")) && ends.equals(end("ends")));
        assertThat(fade(id).begins()).isEqualTo(Height.parse(begins));
        assertThat(fade(id).ends()).isEqualTo(Height.parse(ends));
    }

    private String end(String which) {
        return browser.find("#paint-1 input[aria-label$='" + which + " at, mm']")
                .getDomProperty("value");
    }

    private void fadeHere(String begins, String ends) {
        if (browser.find("#paints").getDomAttribute("open") == null) {
            browser.click("#paints summary");
        }
        browser.choose("#fade-from", "Dark");
        browser.choose("#fade-to", "Light");
        browser.type("#fade-begins", begins);
        browser.type("#fade-ends", ends);
        browser.click("#fade-here");
        browser.see("#paints", "Dark to Light");
    }

    /** Drags the border that lies at a height to a layer. */
    private void drag(String move, int layer) {
        List<?> at = (List<?>) browser.driver()
                .executeScript(
                        """
                const field = document.querySelector(".layers-of");
                const { bottom, first, each } = field.dataset;
                const up = Number(first) + (arguments[0] - 1.5) * each;
                const at = new DOMPoint(Number(field.getAttribute("x")) + 20, bottom - up).matrixTransform(field.getScreenCTM());
                return [Math.round(at.x), Math.round(at.y)];
                """,
                        layer);
        new Actions(browser.driver())
                .clickAndHold(browser.find(".border-handle[data-move='" + move + "'] .grip"))
                .moveToLocation(((Number) at.get(0)).intValue(), ((Number) at.get(1)).intValue())
                .release()
                .perform();
    }

    @Test
    void a_fade_is_made_moved_by_its_borders_and_written() throws IOException {
        String id = blended("Fading").id();
        browser.open("/plans/" + id);
        fadeHere("1", "4");
        assertThat(colours(id).starts().list()).extracting(ColourStart::wished).containsExactly(h(0), h(1), h(4));
        assertThat(colours(id).starts().get(2).spool()).isEqualTo(spool("Light"));
        assertThat(browser.text("#ledger")).contains("Swaps\n0");
        browser.click("#findings-known summary");
        browser.see("#findings", "Feed A Dark to input 1 and B Light to input 2");

        // Its lower border goes up by four layers, its upper one down by two, and the fade with them.
        drag("starts/1/move", 10);
        seeFade(id, "1.80", "4.00");
        drag("starts/2/move", 19);
        seeFade(id, "1.80", "3.60");
        assertThat(colours(id).starts().list()).extracting(ColourStart::wished).containsExactly(h(0), h(1.8), h(3.6));

        browser.click("#to-hand-off");
        byte[] original = sliced(new SmallGcode()).bytes();
        give("#gcode-file", file("fading.gcode", original));
        browser.see("#blend-lines", "M166 A1.80 Z3.60 I0 J1 S1");
        browser.click("#write-swaps");
        String text = Files.readString(browser.download("fading-with-swaps.gcode"), StandardCharsets.ISO_8859_1);
        assertThat(text.lines().filter(l -> l.startsWith("M16")))
                .containsExactly(
                        "M163 S0 P1",
                        "M163 S1 P0",
                        "M164 S0",
                        "M163 S0 P0",
                        "M163 S1 P1",
                        "M164 S1",
                        "M166 A1.80 Z3.60 I0 J1 S1",
                        "M166 S0");
        int turns = text.indexOf("M166 A1.80");
        assertThat(text.indexOf("G1 Z1.80000")).isBetween(0, turns);
        assertThat(text.indexOf("G1 Z2.00000")).isGreaterThan(turns);
        give("#gcode-file", browser.download("fading-with-swaps.gcode"));
        browser.see(".file-facts", "Holds swaps");
        browser.click("#take-swaps-out");
        assertThat(Files.readAllBytes(browser.download("fading-without-swaps.gcode")))
                .isEqualTo(original);
    }

    @Test
    void where_the_firmware_knows_no_gradient_the_file_holds_its_steps() {
        Rig rig = Beginning.BLENDING.rig("Steps");
        PlanState plan = blended(
                "Stepped",
                rig.with(rig.printer().with(Abilities.of("T", "M163 SP", "M164 S", "M0", "M104 S", "M109 S"))));
        browser.open("/plans/" + plan.id());
        fadeHere("1", "4");
        browser.click("#to-hand-off");
        browser.see("#blend-lines", "Before layer 6:");
        assertThat(browser.text("#blend-lines"))
                .contains("M163 S0 P0.967", "up to layer 21")
                .doesNotContain("M166");
    }

    @Test
    void ends_of_a_fade_that_lie_elsewhere_than_borders_have_handles_and_fields_of_their_own() {
        String id = blended("Apart").id();
        browser.open("/plans/" + id);
        fadeHere("1", "4");
        // The border above goes: the fade goes on to the top, and ends where it did.
        browser.click("[hx-post$='/starts/2/merge']");
        browser.until(() -> colours(id).starts().size() == 2);
        browser.until(() -> browser.all(".border-handle.fades").size() == 1);
        drag("paints/-1/ends", 19);
        seeFade(id, "1.00", "3.60");
        browser.type("#paint-1 input[aria-label$='begins at, mm']", "0.8", Keys.TAB);
        seeFade(id, "0.80", "3.60");
        assertThat(colours(id).starts().get(1).wished()).isEqualTo(h(0.8));
        browser.click("#undo");
        seeFade(id, "1.00", "3.60");
    }

    @Test
    void a_blend_is_kept_and_chosen_like_a_spool() {
        String id = blended("Blending").id();
        browser.open("/plans/" + id);
        browser.click("#paints summary");
        browser.click("#preset-2");
        browser.see("#paints", "Dark 67 + Light 33");
        browser.type("#blend-share-0", "30");
        browser.click("#blend-keep");
        browser.see("#notice, #refused", "The weights sum to 0.8 and must sum to 1");
        assertThat(browser.find("#blend-share-0").getDomProperty("value")).isEqualTo("30");
        browser.type("#blend-share-1", "70");
        browser.click("#blend-keep");
        browser.see("#paints", "Dark 30 + Light 70");
        browser.type("#start-height", "2.4");
        browser.choose("#start-spool", "Dark 30 + Light 70");
        browser.click("#start-here");
        browser.until(() -> colours(id).spools().contains(new SpoolId(-2)));
        // No spool is swapped, but what is in the nozzle is cleared.
        browser.until(() -> !browser.text("#ledger").contains("Purge\n0 mm"));
        assertThat(browser.text("#ledger")).contains("Swaps\n0");
        browser.type("#paint-2 input[name=share]", "40", Keys.TAB);
        browser.see("#notice, #refused", "The weights sum to 1.1");
        // What is not printed with can go; the other cannot.
        assertThat(browser.all("#remove-paint-2")).isEmpty();
        browser.click("#remove-paint-1");
        browser.until(() -> browser.all("#paint-1").isEmpty());
        assertThat(colours(id).mixtures().list()).hasSize(1);
        browser.open("/plans/" + id + "/purge");
        browser.see("main", "A blend is reckoned from its spools");
    }

    @Test
    void a_plan_file_takes_its_paints_along() throws IOException {
        PlanState plan = blended("Travels");
        SpoolId id = new SpoolId(-1);
        plan = plans.edit(
                plan.id(),
                plan.edition(),
                "fade",
                p -> p.fading(
                        new Mixture.Fade(id, Recipe.of(spool("Dark")), Recipe.of(spool("Light")), h(1), h(4)),
                        spool("Light"),
                        p.layers().on(h(5))));
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        writer.write(plan, file);
        PlanState read = reader.read(new ByteArrayInputStream(file.toByteArray()));
        assertThat(read.content().colours()).isEqualTo(plan.content().colours());
    }
}
