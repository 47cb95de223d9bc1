package dev.tranche.app.demo;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.support.Browser;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.interactions.Actions;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** Renews the pictures of the main views; run by {@code ./tranche screenshots}, not with the tests. */
@SpringBootTest(webEnvironment = WebEnvironment.RANDOM_PORT)
@ActiveProfiles("demo")
@EnabledIfSystemProperty(named = "tranche.screenshots", matches = ".+")
class ScreenshotsIT {
    @TempDir
    private static Path data;

    @LocalServerPort
    private int port;

    @Autowired
    private Plans plans;

    @Autowired
    private Workshop workshop;

    private final Path folder = Path.of(System.getProperty("tranche.screenshots", "."));

    @DynamicPropertySource
    static void data(DynamicPropertyRegistry registry) {
        registry.add("tranche.data", data::toString);
    }

    private String printer(String beginning) {
        return "/printers/"
                + workshop.all().stream()
                        .filter(m -> m.printer().name().startsWith(beginning))
                        .findFirst()
                        .orElseThrow()
                        .id();
    }

    private String plan(String beginning) {
        PlanState plan = plans.all().stream()
                .filter(p -> p.name().startsWith(beginning))
                .findFirst()
                .orElseThrow();
        return "/plans/" + plan.id();
    }

    @Test
    void take_one_of_each_view() throws IOException {
        try (Browser browser = new Browser(port)) {
            browser.open("/");
            browser.until(() -> browser.all(".undrawn").isEmpty()
                    && !browser.all(".card-figures").isEmpty());
            shoot(browser, "/", "plans");
            browser.open(plan("Pot with"));
            browser.until(
                    () -> (Boolean)
                            browser.script(
                                    "const small = document.querySelector('#to-piece img'); return small.complete && small.naturalWidth > 0"));
            save(browser, "desk-pot");
            browser.open(plan("Relief tile"));
            browser.leaveFields();
            browser.press("]");
            browser.press(Keys.ARROW_UP);
            browser.until(() -> browser.path().contains("layer=30"));
            save(browser, "desk-relief-tile");
            browser.open(plan("Relief tile") + "/look");
            browser.until(() -> browser.find("#piece-body").getDomAttribute("data-pictures") != null);
            save(browser, "piece");
            shoot(browser, plan("Leaf panel") + "/look?view=LIGHT", "held-to-light");
            shoot(browser, plan("Row marker") + "/hand-off", "hand-off");
            browser.open(plan("Row marker") + "/rehearse");
            browser.click("#asks");
            browser.click("#rehearse");
            browser.see("#stage", "The machine waits: swap 1");
            browser.until(() -> browser.find("#now-layer").getText().length() > 0
                    && !browser.find("#now-line").getText().equals("–"));
            save(browser, "rehearsal");
            start(browser, "Row marker", "2027-04-09T18:30");
            shoot(browser, plan("Row marker") + "/swap-list", "swap-list");
            shoot(browser, plan("in bands") + "/order", "order");
            browser.open(plan("Leaf panel") + "/purge");
            browser.click("#small-tower");
            browser.click("#purge-like-this");
            browser.see(".places", "but for the last of it");
            browser.open(plan("Leaf panel") + "/plate");
            browser.type("#plate-copies", "4");
            browser.click("#arrange");
            browser.until(() -> browser.all(".plate .copy").size() == 4);
            browser.leaveFields();
            save(browser, "plate");
            shoot(browser, plan("Relief tile") + "/purge", "purge");
            start(browser, "Relief tile", "2027-04-09T21:50");
            save(browser, "clock");
            shoot(browser, plan("Leaf panel") + "/compare", "compare");
            browser.open(printer("Small direct drive, two") + "/coupons");
            browser.choose("#purge_ladder-in", "Clay");
            browser.click("#make-purge_ladder");
            browser.see("#content", "What to look for");
            save(browser, "coupon");
            browser.open(printer("Shed printer") + "/macros/0");
            new Actions(browser.driver())
                    .moveToElement(browser.find("#step-5 .step-title"))
                    .perform();
            browser.find("tr.lit");
            save(browser, "macro-editor");
            shoot(browser, "/shelf", "shelf");
            browser.size(390, 844);
            shoot(browser, plan("Row marker"), "desk-phone");
            browser.size(1280, 800);
            past(browser);
            browser.size(390, 844);
            browser.open(plan("Row marker") + "/print");
            browser.click("#start-now");
            browser.see("#next-title", "Swap 1");
            save(browser, "print-phone");
        }
    }

    /** A print with a late swap, a measured purge and a note, as if an hour had gone by. */
    private void past(Browser browser) throws IOException {
        String plan = plan("Row marker");
        browser.open(plan + "/print");
        browser.script(
                "document.getElementById('start-at').value = arguments[0]",
                LocalDateTime.now().minusMinutes(26).withSecond(0).withNano(0).toString());
        browser.click("#start-then");
        browser.see("#next-title", "Swap 1");
        String print = (String) browser.script("return document.getElementById('beside').dataset.print");
        long minute = 60_000;
        for (String told : List.of(
                "CAME 0 0 " + 11 * minute,
                "PUSHED 0 61 " + 10 * minute,
                "DONE 0 0 " + 9 * minute,
                "CAME 1 0 " + 5 * minute,
                "DONE 1 0 " + 3 * minute)) {
            String[] said = told.split(" ");
            browser.script(
                    "return fetch(arguments[0] + '/told', {method: 'POST', headers: {...JSON.parse(document.body.getAttribute('hx-headers')), 'HX-Request': 'true'},"
                            + " body: new URLSearchParams({print: arguments[1], kind: arguments[2], visit: arguments[3], amount: arguments[4], ago: arguments[5]})}).then(() => true)",
                    plan + "/print",
                    print,
                    said[0],
                    said[1],
                    said[2],
                    said[3]);
        }
        browser.open(plan + "/print");
        browser.click("#it-is-done");
        browser.click("#afterwards");
        browser.see("#lessons", "Reckon with that");
        save(browser, "past-print");
    }

    /** At ten to ten in the evening some swaps come while everyone sleeps. */
    private void start(Browser browser, String beginning, String at) {
        browser.open(plan(beginning) + "/clock");
        browser.script("document.getElementById('start').value = arguments[0]", at);
        browser.click("#set-start");
        browser.see(".lead", "Friday 9 April");
    }

    private void shoot(Browser browser, String page, String name) throws IOException {
        browser.open(page);
        save(browser, name);
    }

    private void save(Browser browser, String name) throws IOException {
        browser.until(() -> (Boolean) browser.script("return document.fonts.status === 'loaded'"));
        Files.write(folder.resolve(name + ".png"), browser.driver().getScreenshotAs(OutputType.BYTES));
    }
}
