package dev.tranche.app.demo;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.run.Rehearsals;
import dev.tranche.app.run.Setup;
import dev.tranche.app.support.Browser;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Report;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** The demo's shapes are sound, and every page of it can be read by everybody. */
@SpringBootTest(webEnvironment = WebEnvironment.RANDOM_PORT)
@ActiveProfiles("demo")
class DemoPagesTest {
    @TempDir
    private static Path data;

    @LocalServerPort
    private int port;

    @Autowired
    private Rehearsals rehearsals;

    @Autowired
    private Plans plans;

    @Autowired
    private Workbench workbench;

    @Autowired
    private Workshop workshop;

    @DynamicPropertySource
    static void data(DynamicPropertyRegistry registry) {
        registry.add("tranche.data", data::toString);
    }

    private long blending() {
        return workshop.all().stream()
                .filter(m -> m.printer().hotend().blends())
                .findFirst()
                .orElseThrow()
                .id();
    }

    private PlanState plan(String beginning) {
        return plans.all().stream()
                .filter(p -> p.name().startsWith(beginning))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void the_demos_models_are_watertight_and_have_the_volume_of_their_layers() {
        for (Mesh mesh : List.of(DemoShapes.rowMarker("BEANS"), DemoShapes.hollinHill())) {
            int[] planes = java.util.stream.IntStream.range(0, mesh.height().micrometres() / 20)
                    .map(i -> 20 + 40 * i)
                    .toArray();
            List<Section> sections =
                    dev.tranche.core.geometry.SectionSweep.cut(mesh, planes, dev.tranche.core.speech.Progress.UNHEARD);
            assertThat(sections).allMatch(s -> s.openEnds() == 0);
            double sum = sections.stream().mapToDouble(s -> s.area() * 0.02).sum();
            assertThat(sum).isBetween(mesh.volume() * 0.995, mesh.volume() * 1.005);
        }
    }

    @Test
    void the_row_marker_is_three_heights_two_swaps_and_timed_from_its_gcode() {
        Workpiece work = workbench.openNow(plan("Row marker"));
        assertThat(work.tranches()).extracting(t -> t.lastLayer()).containsExactly(10, 13, 16);
        assertThat(work.ledger().swaps()).hasSize(2);
        assertThat(work.match()).isPresent();
        assertThat(work.cut().model().surfaces())
                .extracting(s -> s.height().toString())
                .containsExactly("2.00", "2.60", "3.20");
    }

    @Test
    void the_relief_tile_is_five_colours_with_something_to_find() {
        Workpiece work = workbench.openNow(plan("Relief tile"));
        assertThat(work.tranches()).hasSize(5);
        assertThat(work.findings()).extracting(f -> f.key()).contains("off-grid-3", "first-spool");
    }

    @Test
    void what_the_demo_hands_off_is_rehearsed_clean() throws IOException {
        for (String plan : List.of("Row marker", "in bands", "Pot with")) {
            Report report = rehearsals.now(workbench.openNow(plan(plan)), Setup.PLAIN);
            assertThat(report.troubles()).as(plan).isEmpty();
            assertThat(report.isClean()).as(plan).isTrue();
        }
    }

    @Test
    void every_page_passes_the_checks_of_accessibility_by_day_and_by_night() throws IOException {
        String marker = "/plans/" + plan("Row marker").id();
        String tile = "/plans/" + plan("Relief tile").id();
        String leaf = "/plans/" + plan("Leaf panel").id();
        List<SpoolId> palette = plan("Relief tile").content().colours().palette();
        long first = palette.get(0).value();
        long second = palette.get(1).value();
        long printer = workshop.all().get(0).id();
        Set<String> found = new TreeSet<>();
        try (Browser browser = new Browser(port)) {
            browser.beforeEveryPage(axe());
            for (String page : List.of(
                    "/",
                    "/words",
                    "/begin/printer",
                    "/begin/spools",
                    "/begin/model",
                    marker,
                    tile,
                    "/plans/" + plan("Leaf panel").id() + "?side=parts&layer=1",
                    "/plans/" + plan("Tag of").id() + "?side=regions&region=0&layer=1",
                    "/plans/" + plan("Pot with").id(),
                    "/plans/" + plan("Pot with").id() + "/hand-off",
                    marker + "/hand-off",
                    marker + "/swap-list",
                    marker + "/rehearse",
                    marker + "/print",
                    "/prints",
                    "/printers/" + printer + "/coupons",
                    tile + "/look",
                    tile + "/look?view=ABOVE",
                    leaf + "/look?view=LIGHT",
                    leaf + "/order",
                    "/plans/" + plan("in bands").id() + "/order",
                    "/plans/" + plan("in bands").id() + "/hand-off",
                    leaf + "/plate",
                    marker + "/plate",
                    marker + "/jobs?before=11",
                    tile + "/jobs?before=9999",
                    tile + "/purge",
                    tile + "/purge?out=" + first + "&in=" + second,
                    tile + "/clock",
                    leaf + "/compare",
                    "/settings",
                    "/api",
                    "/shelf",
                    "/printers/new",
                    "/printers/" + printer,
                    "/printers/" + printer + "/abilities",
                    "/printers/" + printer + "/rack",
                    "/printers/" + printer + "/macros",
                    "/printers/" + printer + "/macros/0",
                    "/printers/" + blending() + "/rack",
                    "/printers/" + blending())) {
                browser.size(1280, 800);
                browser.open(page);
                if (page.endsWith("/rehearse") && browser.all("#verdict").isEmpty()) {
                    browser.click("#rehearse");
                    browser.see("#verdict", "Clean");
                }
                found.addAll(violations(browser, ALL, "day " + page));
                // With all that can be folded out, by day and by night, on a desk and on a phone.
                if (!browser.all("details:not(.step):not([open])").isEmpty()) {
                    browser.script("document.querySelectorAll('details:not(.step)').forEach(d => d.open = true)");
                    browser.until(
                            () -> browser.all("details[open] .htmx-request").isEmpty());
                    found.addAll(violations(browser, ALL, "day, folded out " + page));
                }
                found.addAll(folds(browser, page));
                browser.script("document.documentElement.dataset.bsTheme = 'dark'");
                found.addAll(violations(browser, CONTRAST, "night " + page));
                browser.size(390, 844);
                found.addAll(violations(browser, CONTRAST, "night on a phone " + page));
                browser.script("document.documentElement.dataset.bsTheme = 'light'");
                found.addAll(violations(browser, ALL, "on a phone " + page));
            }
        }
        assertThat(found).isEmpty();
    }

    private static String axe() throws IOException {
        try (InputStream in =
                DemoPagesTest.class.getResourceAsStream("/META-INF/resources/webjars/axe-core/4.6.3/axe.min.js")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** A page in a state that somebody has to bring about, looked at by day and by night, on a desk and on a phone. */
    private static void state(Browser browser, String name, Set<String> found) {
        found.addAll(violations(browser, ALL, name));
        browser.script("document.documentElement.dataset.bsTheme = 'dark'");
        found.addAll(violations(browser, CONTRAST, "night, " + name));
        browser.size(390, 844);
        browser.script("document.documentElement.dataset.bsTheme = 'light'");
        found.addAll(violations(browser, ALL, "on a phone, " + name));
        browser.size(1280, 800);
    }

    @Test
    void what_comes_up_over_a_page_and_pages_one_has_to_bring_about_pass_them_too() throws IOException {
        String tile = "/plans/" + plan("Relief tile").id();
        Set<String> found = new TreeSet<>();
        try (Browser browser = new Browser(port)) {
            browser.beforeEveryPage(axe());
            browser.open(tile);
            browser.click("#keys-button");
            state(browser, "keys", found);
            browser.press(Keys.ESCAPE);
            browser.click("[data-term=score]");
            browser.see("#term", "as time goes by");
            state(browser, "a word", found);
            browser.open(tile);
            browser.choose("#start-spool", "new spool…");
            browser.until(() -> browser.find("#new-spool-dialog").isDisplayed());
            state(browser, "a new spool", found);
            browser.open(tile);
            browser.type("#start-height", "999");
            browser.click("#start-here");
            browser.until(() -> browser.find("#refused").isDisplayed());
            state(browser, "a refusal", found);
            browser.open(tile);
            browser.click("#findings .quietly");
            browser.find(".aside-why input");
            state(browser, "why a finding is put aside", found);
            browser.open(tile);
            browser.click("#dabs .dab");
            state(browser, "a spool in hand", found);
            browser.open(tile + "/history");
            browser.find("h1");
            state(browser, "a point of the history", found);
            browser.open("/");
            browser.script("document.querySelector('.choose input').click()");
            state(browser, "plans chosen", found);
            browser.open("/?q=nothing+of+the+kind");
            state(browser, "nothing found", found);
            browser.find("#model-file").sendKeys(apart().toString());
            browser.see("h1", "Which of these?");
            state(browser, "things to choose from", found);
            browser.open("/settings");
            browser.click("#guide-again");
            browser.until(() -> browser.path().equals("/begin/printer"));
            browser.click("#guide-next");
            browser.until(() -> browser.path().equals("/begin/spools"));
            browser.click("#guide-next");
            browser.until(() -> browser.path().equals("/begin/model"));
            browser.open(tile);
            browser.find("#start-guide");
            state(browser, "the guide at the desk", found);
            browser.open("/");
            state(browser, "the guide among plans", found);
            browser.click("#guide-leave");
            browser.open(tile + "/print");
            browser.click("#start-now");
            browser.until(() -> !"none".equals(browser.find("#beside").getDomAttribute("data-state")));
            state(browser, "a print under way", found);
            browser.open("/prints");
            browser.click("#content a[href*='/prints/']");
            browser.find("h1");
            state(browser, "a print afterwards", found);
            browser.open("/plans/00000000");
            state(browser, "a plan that is not there", found);
        }
        assertThat(found).isEmpty();
    }

    private static Path apart() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        List<ThreeMfWriter.Thing> things = List.of(0, 50).stream()
                .map(x -> new ThreeMfWriter.Thing(
                        "Box " + x,
                        "Leaf",
                        Srgb.parse("#3E7D3A"),
                        List.of(new Shapes().box(x, 0, 0, 20, 20, 3).mesh())))
                .toList();
        ThreeMfWriter.write("Boxes", things, bytes);
        return Files.write(data.resolve("boxes.3mf"), bytes.toByteArray());
    }

    /** What folds out over the page is open one at a time. */
    private static List<String> folds(Browser browser, String page) {
        List<String> found = new ArrayList<>();
        for (int i = 0; i < browser.all("details.step").size(); i++) {
            browser.script(
                    "document.querySelectorAll('details.step').forEach((d, i) => { d.open = i === arguments[0] })", i);
            browser.until(() -> browser.all("details.step[open] .htmx-request").isEmpty());
            if (browser.all("details.step[open]").isEmpty()) {
                continue;
            }
            found.addAll(violations(browser, "details.step[open]", FOLD, "fold " + i + " of " + page));
        }
        browser.script("document.querySelectorAll('details.step').forEach(d => { d.open = false })");
        return found;
    }

    private static final String ALL =
            "{runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']}";
    /** A heading in a fold follows others of its page. */
    private static final String FOLD = ALL.replace("}", ", rules: {'heading-order': {enabled: false}}}");

    private static final String CONTRAST = "{runOnly: ['color-contrast']}";

    private static List<String> violations(Browser browser, String rules, String page) {
        return violations(browser, "html", rules, page);
    }

    @SuppressWarnings("unchecked")
    private static List<String> violations(Browser browser, String of, String rules, String page) {
        List<String> rows = (List<String>)
                browser.driver()
                        .executeAsyncScript(
                                "var done = arguments[arguments.length - 1];"
                                        + "axe.run('" + of
                                        + "', Object.assign({resultTypes: ['violations'], preload: false}, " + rules
                                        + ")).then(r => done(r.violations.concat("
                                        + "r.passes.length + r.inapplicable.length > 0 ? [] : [{id: 'nothing was checked', nodes: []}]).map(v =>"
                                        + " v.id + ': ' + v.nodes.slice(0, 4).map(n => n.target.join(' ') + ' ' + n.failureSummary.split('\\n')[1]).join(' | '))), e => done(['not checked: ' + e]))");
        return rows.stream().map(row -> page + " " + row).toList();
    }

    @Test
    void at_1280_by_800_the_whole_desk_is_seen_without_scrolling_and_a_phone_can_read_it() {
        try (Browser browser = new Browser(port)) {
            for (PlanState plan : plans.all()) {
                browser.size(1280, 800);
                browser.open("/plans/" + plan.id());
                browser.find("#score svg");
                assertThat(browser.script("return document.documentElement.scrollHeight <= 800"
                                + " && document.documentElement.scrollWidth <= 1280"))
                        .as(plan.name())
                        .isEqualTo(true);
                browser.size(390, 844);
                browser.open("/plans/" + plan.id());
                browser.find("#score svg");
                assertThat(browser.script("return document.documentElement.scrollWidth <= 390"))
                        .as(plan.name() + " on a phone")
                        .isEqualTo(true);
            }
            String marker = "/plans/" + plan("Row marker").id();
            for (String page : List.of(
                    "/",
                    marker + "/hand-off",
                    marker + "/swap-list",
                    marker + "/order",
                    marker + "/look",
                    marker + "/look?view=BELOW",
                    "/plans/" + plan("Tag of").id() + "/plate",
                    marker + "/jobs?before=11",
                    marker + "/purge",
                    marker + "/clock",
                    marker + "/compare",
                    "/settings",
                    "/api",
                    "/shelf",
                    "/printers")) {
                browser.open(page);
                browser.find("#content h1");
                assertThat(browser.script("return document.documentElement.scrollWidth <= 390"))
                        .as(page + " on a phone")
                        .isEqualTo(true);
            }
        }
    }
}
