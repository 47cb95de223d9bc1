package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.util.unit.DataSize;

/** What every page needs beside itself is fetched once. */
class StaticFilesTest extends BrowserTest {
    /** How a file is answered to a browser that has never seen it: the status, and how long it may be kept. */
    private String answer(String address) {
        return (String) browser.driver()
                .executeAsyncScript(
                        "fetch(arguments[0], {method: 'HEAD', cache: 'no-store'})"
                                + ".then(r => arguments[1](r.status + ' ' + r.headers.get('Cache-Control')))",
                        address);
    }

    @Test
    void a_page_after_the_first_asks_for_no_style_and_no_script_again() {
        browser.open("/shelf");
        browser.open("/settings");
        assertThat(
                        (List<?>)
                                browser.script(
                                        "return performance.getEntriesByType('resource')"
                                                + ".map(r => r.transferSize + ' ' + r.name).filter(r => !r.startsWith('0 ') && /(js|css)$/.test(r))"))
                .isEmpty();
        assertThat((Long) browser.script("return performance.getEntriesByType('resource').length"))
                .isGreaterThan(40);
    }

    @Test
    void what_a_page_names_is_kept_for_good_and_a_plain_address_is_asked_about_each_time() {
        browser.open("/settings");
        List<?> named = (List<?>) browser.script("return [...document.querySelectorAll('link[href], script[src]')]"
                + ".map(e => e.getAttribute('href') ?? e.getAttribute('src'))");
        assertThat(named)
                .hasSizeGreaterThan(20)
                .anySatisfy(address -> assertThat((String) address).matches("/css/[0-9a-f]{12}/web/house\\.css"))
                .allSatisfy(
                        address -> assertThat(answer((String) address)).isEqualTo("200 max-age=31536000, immutable"));
        assertThat(answer("/css/web/house.css")).isEqualTo("200 no-cache");
        // One of an earlier edition is not taken for this one.
        assertThat(answer("/css/0123456789ab/web/house.css")).startsWith("404");
    }

    @Test
    void pages_and_styles_go_packed_and_a_print_file_as_it_is() throws IOException {
        PlanState plan = plan("packed");
        byte[] gcode = sliced(new SmallGcode()).bytes();
        plans.giveGcode(
                plan.id(),
                new PlanState.Gcode(
                        files.keep(new ByteArrayInputStream(gcode), DataSize.ofMegabytes(1))
                                .hash(),
                        "packed.gcode"));
        browser.open("/plans/" + plan.id());
        assertThat((Boolean) browser.script("const page = performance.getEntriesByType('navigation')[0];"
                        + "return page.encodedBodySize * 3 < page.decodedBodySize"))
                .isTrue();
        assertThat(packing("GET", "/css/web/house.css")).isEqualTo("200 gzip");
        assertThat(packing("POST", "/plans/" + plan.id() + "/gcode/with-swaps")).isEqualTo("200 null");
    }

    private Object packing(String method, String address) {
        return browser.driver()
                .executeAsyncScript(
                        "const headers = JSON.parse(document.body.getAttribute('hx-headers'));"
                                + "fetch(arguments[1], {method: arguments[0], headers, cache: 'no-store'})"
                                + ".then(r => arguments[2](r.status + ' ' + r.headers.get('Content-Encoding')))",
                        method,
                        address);
    }
}
