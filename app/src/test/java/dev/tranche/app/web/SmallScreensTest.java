package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Phones, small laptops, paper, and names as long as they may be and without a gap. */
class SmallScreensTest extends BrowserTest {
    /** Words one beneath the other, drawings and boxes that show nothing, words cut short, and what lies upon something else or is cut off. */
    private static final String SQUEEZED =
            """
            const name = (e) => e.id || e.className.baseVal || e.className || e.tagName;
            const words = (e) => [...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim().split(/\\s+/).length > 5);
            const narrow = [...document.querySelectorAll("main :is(p, span, figcaption), main figure svg, main td .form-select, main td:first-child .form-control")].filter((e) => {
              const r = e.getBoundingClientRect();
              return r.width > 0 && (e.matches("svg") ? r.width < 120 : e.matches(".form-control, .form-select") ? r.width < 60 : words(e) && r.width < 60 && r.height > 90);
            });
            const parents = (e) => e.parentElement ? [e.parentElement, ...parents(e.parentElement)] : [];
            const seen = (e) => parents(e).filter((p) => getComputedStyle(p).overflow !== "visible").map((p) => p.getBoundingClientRect())
              .reduce((a, b) => ({ left: Math.max(a.left, b.left), right: Math.min(a.right, b.right), top: Math.max(a.top, b.top), bottom: Math.min(a.bottom, b.bottom) }), e.getBoundingClientRect());
            const laid = (e) => [e, ...parents(e)].every((p) => ["static", "relative"].includes(getComputedStyle(p).position));
            const boxes = [...document.querySelectorAll("main :is(input, select, textarea, button, .step-title)")]
              .filter((e) => e.checkVisibility() && laid(e)).map((e) => ({ e, at: seen(e) }));
            const upon = boxes.flatMap((a, i) => boxes.slice(i + 1).filter((b) => !a.e.contains(b.e)
              && Math.min(a.at.right, b.at.right) - Math.max(a.at.left, b.at.left) > 3
              && Math.min(a.at.bottom, b.at.bottom) - Math.max(a.at.top, b.at.top) > 6).map((b) => name(a.e) + " lies upon " + name(b.e)));
            const short = [...document.querySelectorAll("main td")].filter((e) => e.scrollWidth > e.clientWidth + 2 && getComputedStyle(e).textOverflow === "ellipsis");
            const cut = boxes.filter(({ e }) => e.closest(".panel") && e.getBoundingClientRect().right > e.closest(".panel").getBoundingClientRect().right);
            return [...narrow.map((e) => name(e) + " is narrow"), ...short.map((e) => e.textContent + " is cut short"), ...upon, ...cut.map(({ e }) => name(e) + " is cut off")];
            """;

    private PlanState longNames() {
        long printer = workshop.add(Beginning.DIRECT_PAUSE.rig("P".repeat(60))).id();
        Spool spool = shelf.add(named(shelf.all().get(1), "S".repeat(40)));
        PlanState plan = plan("N".repeat(80));
        plan = plans.editAll(plan.id(), plan.edition(), "long", c -> c.on(printer));
        return plans.edit(
                plan.id(),
                plan.edition(),
                "start",
                p -> p.startAt(Height.ofMillimetres(2.4), spool.id(), p.layers().on(Height.ofMillimetres(5))));
    }

    private Number right(String css) {
        return (Number)
                browser.script("return document.querySelector(arguments[0]).getBoundingClientRect().right", css);
    }

    @Test
    void nothing_reaches_beyond_the_window_however_small_it_is_and_however_long_names_are() {
        PlanState plan = longNames();
        long printer = plan.content().printer();
        List<String> beyond = new ArrayList<>();
        for (int[] size : new int[][] {{390, 844}, {1024, 768}}) {
            browser.size(size[0], size[1]);
            for (String page : List.of(
                    "",
                    "?side=parts",
                    "?side=regions",
                    "/look",
                    "/order",
                    "/purge",
                    "/plate",
                    "/clock",
                    "/compare",
                    "/history",
                    "/hand-off",
                    "/rehearse",
                    "/print",
                    "/swap-list",
                    "/jobs",
                    "/texts")) {
                look("/plans/" + plan.id() + page, size[0], beyond);
            }
            for (String page : List.of("", "/abilities", "/rack", "/macros", "/macros/0", "/coupons")) {
                look("/printers/" + printer + page, size[0], beyond);
            }
            for (String page : List.of("/", "/shelf", "/settings", "/words", "/begin/printer", "/begin/spools")) {
                look(page, size[0], beyond);
            }
        }
        assertThat(beyond).isEmpty();
        browser.open("/plans/" + plan.id());
        assertThat(right("#to-hand-off").doubleValue()).isLessThanOrEqualTo(1024);
    }

    private void look(String page, int width, List<String> beyond) {
        browser.open(page);
        browser.find("h1");
        Number wide = (Number) browser.script("return document.documentElement.scrollWidth");
        if (wide.intValue() > width) {
            beyond.add(page + " at " + width + " px is " + wide + " px wide");
        }
        List<?> squeezed = (List<?>) browser.script(SQUEEZED);
        squeezed.forEach(s -> beyond.add(page + " at " + width + " px: " + s));
    }

    @Test
    void on_a_phone_swaps_are_cards_whose_boxes_stay_ticked_until_the_stops_change() {
        PlanState plan = longNames();
        browser.size(390, 844);
        browser.open("/plans/" + plan.id() + "/swap-list");
        browser.find(".swap-table td[data-label='Before layer']");
        assertThat(browser.script("return getComputedStyle(document.querySelector('.swap-table tbody tr')).display"))
                .isEqualTo("grid");
        assertThat(
                        browser.script(
                                "return getComputedStyle(document.querySelector('td.num[data-label=\"Before layer\"]'), '::before').wordSpacing"))
                .as("a figure stands near its unit, but words are words")
                .isEqualTo("0px");
        String sameRow =
                "const at = n => document.querySelector(`.swap-table td[data-label='${n}']`).getBoundingClientRect().top;"
                        + " return at('Out') === at('In')";
        assertThat(browser.script(sameRow)).isEqualTo(true);
        String height = "const row = document.querySelector('.swap-table tbody tr'), next = row.nextElementSibling;"
                + " return Math.round(next.getBoundingClientRect().bottom - row.getBoundingClientRect().top)";
        assertThat((long) browser.script(height)).isGreaterThan(300);
        browser.click("#done-1");
        assertThat((long) browser.script(height))
                .as("what is done takes a line or two")
                .isLessThan(120);
        assertThat((boolean) browser.script(sameRow)).isTrue();
        browser.open("/plans/" + plan.id() + "/clock");
        browser.until(() -> browser.find("#done-1").isSelected());
        plan = plans.get(plan.id());
        plans.edit(
                plan.id(),
                plan.edition(),
                "move",
                p -> p.move(1, Height.ofMillimetres(4), p.layers().on(Height.ofMillimetres(5))));
        browser.open("/plans/" + plan.id() + "/swap-list");
        browser.find("#done-1");
        assertThat(browser.find("#done-1").isSelected()).isFalse();
    }

    private void finger(String what, double x, double y) {
        List<Map<String, Object>> at = what.equals("touchEnd") ? List.of() : List.of(Map.of("x", x, "y", y));
        browser.driver().executeCdpCommand("Input.dispatchTouchEvent", Map.of("type", what, "touchPoints", at));
    }

    /** A finger put on what is found, once the page stands still, and moved up by so many pixels. */
    private void swipe(String css, double right, int up) {
        String place =
                "const box = document.querySelector(arguments[0]).getBoundingClientRect(); const at = [box.left + box.width * arguments[1], box.top + box.height / 2];";
        browser.script("document.querySelector('#section').scrollIntoView({ block: 'center' })");
        browser.until(() -> Boolean.TRUE.equals(browser.script(
                place
                        + "const still = window.lastPlace === at.join(); window.lastPlace = at.join(); return still && document.elementFromPoint(...at)?.matches(arguments[0]);",
                css,
                right)));
        List<?> at = (List<?>) browser.script(place + "return at;", css, right);
        double x = ((Number) at.get(0)).doubleValue();
        double y = ((Number) at.get(1)).doubleValue();
        finger("touchStart", x, y);
        for (int i = 1; i <= 10; i++) {
            finger("touchMove", x, y - up * i / 10.0);
        }
        finger("touchEnd", x, y);
    }

    @Test
    void a_finger_that_scrolls_the_page_moves_no_border_and_one_that_takes_its_ring_does() {
        PlanState plan = longNames();
        browser.size(390, 844);
        browser.open("/plans/" + plan.id());
        browser.find("svg .border-handle .grip");
        swipe("svg .border-handle .grip", 0.3, 80);
        browser.until(() -> browser.all(".border-handle.dragged").isEmpty());
        browser.click("#plan-title");
        swipe("svg .border-handle circle", 0.5, 60);
        browser.until(() -> plans.get(plan.id()).edition() > plan.edition());
        assertThat(plans.get(plan.id()).edition()).as("only the ring").isEqualTo(plan.edition() + 1);
        assertThat(plans.get(plan.id())
                        .content()
                        .colours()
                        .starts()
                        .get(1)
                        .wished()
                        .isAbove(Height.ofMillimetres(2.4)))
                .isTrue();
    }

    @Test
    void a_piece_that_is_touched_on_a_phone_is_coloured_by_small_dabs() {
        browser.size(390, 844);
        browser.open("/plans/" + plan("dabs on a phone").id());
        browser.click("svg.layer-plan .plastic");
        browser.find("#piece .dab svg");
        // However many spools there are on the shelf.
        Number height = (Number)
                browser.script("const piece = document.querySelector('#piece'), dab = piece.querySelector('.dab');"
                        + " for (let i = 0; i < 60; i++) dab.after(dab.cloneNode(true));"
                        + " return piece.getBoundingClientRect().height");
        assertThat(height.intValue()).isLessThan(120);
    }

    /** Contrast of what is read, W3C, WCAG 2.2, 1.4.3. */
    private double worstContrast(String css) {
        return ((Number) browser.script(
                        "const light = (c) => { const [r, g, b] = c.match(/[\\d.]+/g).slice(0, 3).map(v => v / 255).map(v => v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4); return 0.2126 * r + 0.7152 * g + 0.0722 * b; };"
                                + "const back = (e) => { for (; e; e = e.parentElement) { const c = getComputedStyle(e).backgroundColor; if (!/^rgba.*, 0\\)$/.test(c)) return c; } return 'rgb(255, 255, 255)'; };"
                                + "const front = (e) => getComputedStyle(e)[e instanceof SVGElement ? 'fill' : 'color'];"
                                + "return Math.min(...[...document.querySelectorAll(arguments[0])].filter(e => e.textContent.trim() && e.getClientRects().length)"
                                + ".map(e => { const [a, b] = [light(front(e)), light(back(e))].sort((x, y) => y - x); return (a + 0.05) / (b + 0.05); }));",
                        css))
                .doubleValue();
    }

    private void seenAs(Map<String, Object> media, Runnable look) {
        browser.driver().executeCdpCommand("Emulation.setEmulatedMedia", media);
        try {
            look.run();
        } finally {
            browser.driver()
                    .executeCdpCommand("Emulation.setEmulatedMedia", Map.of("media", "", "features", List.of()));
        }
    }

    @Test
    void what_is_printed_by_night_is_dark_on_white() {
        PlanState plan = longNames();
        browser.open("/plans/" + plan.id() + "/swap-list");
        browser.script("document.documentElement.dataset.bsTheme = 'dark'");
        seenAs(Map.of("media", "print"), () -> {
            assertThat(worstContrast("main :is(td, th, p, h1, li)")).isGreaterThan(7);
            assertThat(browser.script("return getComputedStyle(document.body).backgroundColor"))
                    .isEqualTo("rgb(255, 255, 255)");
        });
    }

    @Test
    void drawings_are_read_where_the_system_allows_few_colours() {
        PlanState plan = longNames();
        browser.open("/plans/" + plan.id());
        browser.find("svg.score .staves text");
        Map<String, Object> fewColours = Map.of(
                "features",
                List.of(
                        Map.of("name", "forced-colors", "value", "active"),
                        Map.of("name", "prefers-color-scheme", "value", "dark")));
        seenAs(fewColours, () -> assertThat(worstContrast("svg.score text, svg.section text, #to-hand-off, .panel h2"))
                .isGreaterThan(4.5));
    }

    /** WCAG 2.2, 1.4.4: text can be made twice as large without loss of what it says or does. */
    @Test
    void with_text_twice_as_large_a_colour_can_still_be_started_and_every_side_reached() {
        PlanState plan = longNames();
        browser.open("/plans/" + plan.id());
        browser.find("#start-here");
        browser.script("document.documentElement.style.fontSize = '200%'");

        assertThat(
                        (List<?>)
                                browser.script(
                                        """
                        return [...document.querySelectorAll('.sides button, .stratum-list .num, .start-form :is(input, select, .btn, .act)')]
                            .filter(e => e.getBoundingClientRect().right > e.closest('.panel').getBoundingClientRect().right
                                || e.scrollWidth > e.clientWidth + 1)
                            .map(e => e.id || e.textContent)"""))
                .isEmpty();
    }

    @Test
    void however_large_the_text_is_no_mark_lies_on_the_words_it_explains() {
        browser.open("/printers");
        browser.find(".with-term");
        assertThat(
                        (List<?>)
                                browser.script(
                                        """
                        return [100, 125, 150, 175, 200].flatMap(percent => {
                            document.documentElement.style.fontSize = percent + '%';
                            return [...document.querySelectorAll('.with-term > label')].filter(label => {
                                const words = document.createRange();
                                words.selectNode(label.firstChild);
                                const mark = label.parentElement.querySelector('.term').getBoundingClientRect();
                                return [...words.getClientRects()].some(r => r.right > mark.left && r.top < mark.bottom);
                            }).map(label => percent + ' % ' + label.firstChild.textContent);
                        })"""))
                .isEmpty();
    }
}
