package dev.tranche.app.run;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.units.Height;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.WindowType;
import org.openqa.selenium.support.ui.Select;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.util.unit.DataSize;

/** A plan's print is rehearsed beside the desk. */
class RehearsePageTest extends BrowserTest {
    @Autowired
    private Rehearsals rehearsals;

    @LocalServerPort
    private int port;

    /** Dark, Light from 2.4 mm, Zinc from 4.0, with its sliced file. */
    private PlanState threeColours(String name) throws IOException {
        PlanState plan = plan(name);
        LayerSettings layers = LayerSettings.COMMON;
        plans.editAll(
                plan.id(),
                plan.edition(),
                "three colours",
                c -> c.with(c.colours()
                        .startAt(Height.ofMillimetres(2.4), shelf.all().get(1).id(), layers.on(Height.ofMillimetres(5)))
                        .startAt(Height.ofMillimetres(4), zinc().id(), layers.on(Height.ofMillimetres(5)))));
        byte[] gcode = sliced(new SmallGcode()).bytes();
        String hash = files.keep(new ByteArrayInputStream(gcode), DataSize.ofMegabytes(1))
                .hash();
        plans.giveGcode(plan.id(), new PlanState.Gcode(hash, name + ".gcode"));
        return plans.get(plan.id());
    }

    @Test
    void a_rehearsal_with_the_wrong_spool_at_swap_2_ends_in_the_right_report() throws IOException {
        PlanState plan = threeColours("wrong spool");
        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.until(() -> !browser.all("#rehearse").isEmpty());
        browser.click("#asks");
        browser.click("#rehearse");
        browser.see("#stage", "The machine waits: swap 1");
        browser.see("#stage", "before layer 13");
        browser.see("#stage", "Cut the end of B");
        browser.click("#deed-done");
        browser.see("#stage", "The machine waits: swap 2");
        browser.until(() -> {
            new Select(browser.find("#deed-spool")).selectByIndex(0);
            return true;
        });
        browser.click("#deed-done");
        browser.see("#verdict", "Not as planned");
        browser.see("#rehearsed-stops", ", not C");
        browser.see("#stage", "5 layers are not as planned");
        browser.see("#unclean", "Layer 21");
        assertThat(browser.find("#unclean").getText()).doesNotContain("Layer 20");
        assertThat(browser.all("#seen-layer .mark.wrong")).isNotEmpty();
        browser.click("#unclean li:last-child button");
        browser.see("#seen-layer figcaption", "Layer 25");

        // That was the hand's doing, and says nothing of the plan.
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rehearsed", "Rehearse it on the simulated printer");
    }

    @Test
    void a_rehearsal_is_begun_anew_in_its_own_place_also_where_no_other_is_free() throws IOException {
        Setup slow = new Setup(1, false, Map.of(), Duration.ZERO, List.of());
        List<Run> runs = new ArrayList<>();
        PlanState last = null;
        for (String name : List.of("one", "two", "three")) {
            last = threeColours(name);
            runs.add(rehearsals.start(workbench.openNow(last), slow));
        }
        Workpiece again = workbench.openNow(last);
        try {
            runs.add(rehearsals.start(again, slow));
            assertThat(runs.get(2).isOver()).isTrue();
            assertThat(rehearsals.of(last.id())).containsSame(runs.get(3));
        } finally {
            runs.forEach(Run::cancel);
        }
    }

    @Test
    void what_only_a_rehearsal_sees_becomes_a_finding_of_the_plan() throws IOException {
        PlanState plan = threeColours("too little purge");
        plans.editAll(plan.id(), plan.edition(), "little purge", c -> c.with(new PurgeSettings(2, 0.1)));
        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.until(() -> !browser.all("#rehearse").isEmpty());
        browser.click("#rehearse");
        browser.see("#verdict", "Not as planned");
        browser.see("#unclean", "mixed, by up to ΔE");
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rehearsed", "and not as planned: ");
        browser.open("/plans/" + plan.id());
        browser.see("#finding-rehearsed", "did not come out as planned: ");
        browser.click("#finding-rehearsed a");
        browser.see("#verdict", "Not as planned");
    }

    @Test
    void what_was_rehearsed_clean_says_so_until_the_plan_or_its_printer_changes() throws IOException {
        PlanState plan = threeColours("clean");
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rehearsed", "Rehearse it on the simulated printer");
        browser.click("#rehearsed a");
        browser.click("#rehearse");
        browser.see("#verdict", "Clean: everything comes out as planned");
        // What is seen is the end, however fast it came.
        browser.see("#now-layer", "25");
        browser.see("#now-z", "5.00");
        assertThat(browser.text("#now-line")).isEqualTo("–");
        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.see("#now-layer", "25");
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rehearsed", "Rehearsed clean on");
        browser.open("/");
        browser.see("#card-" + plan.id(), "rehearsed clean");
        workshop.edit(
                plan.content().printer(),
                workshop.get(plan.content().printer()).version().edition(),
                "another name",
                rig -> rig.with(rig.printer().named("Renamed bench")));
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rehearsed", "Rehearse it on the simulated printer");
    }

    @Test
    void it_is_held_goes_on_line_by_line_and_is_stopped() throws IOException {
        PlanState plan = threeColours("held");
        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.choose("#pace", "10 ×");
        browser.click("#rehearse");
        browser.click("#hold");
        browser.until(() -> !browser.all("#one-line").isEmpty());
        browser.until(() -> !browser.find("#now-line").getText().equals("–"));
        String before = browser.find("#now-line").getText();
        browser.click("#one-line");
        browser.until(() -> !browser.find("#now-line").getText().equals(before));
        String last = browser.find("#now-line").getText();
        browser.click("#stop-it");
        browser.see("#stage", "It did not end");
        browser.see("#stage", "Stopped.");
        assertThat(rehearsals.of(plan.id()).orElseThrow().isOver()).isTrue();

        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.until(() -> browser.find("#now-line").getText().equals(last));
        assertThat(Double.parseDouble(browser.find("#not-printed").getDomAttribute("height")))
                .as("what was not printed when it was stopped")
                .isPositive();
    }

    @Test
    void a_page_that_shows_a_rehearsal_which_the_server_no_longer_knows_says_that_it_is_gone() {
        PlanState plan = plan("forgotten");
        browser.open("/plans/" + plan.id() + "/rehearse/stage?was=running");
        browser.see("#gone", "That rehearsal is gone");
        browser.open("/plans/" + plan.id() + "/rehearse/stage?was=none");
        assertThat(browser.all("#gone")).isEmpty();
    }

    /** A browser holds six connections to a server of HTTP/1.1 (common practice, no source). */
    @Test
    void seven_windows_that_are_told_of_rehearsals_and_prints_leave_a_connection_for_the_eighth() {
        PlanState plan = plan("many windows");
        for (int window = 1; window <= 7; window++) {
            browser.open("/plans/" + plan.id() + "/rehearse");
            browser.see("#stage", "Rehearse the print");
            browser.driver().switchTo().newWindow(WindowType.TAB);
        }
        browser.open("/words");
        browser.see("h1", "Words");
    }

    /** The events are told to whoever asks, as the standard has server-sent events (WHATWG HTML, 9.2). */
    @Test
    void its_events_are_read_by_another_client() throws Exception {
        PlanState plan = threeColours("events");
        browser.open("/plans/" + plan.id() + "/rehearse");
        HttpResponse<java.io.InputStream> stream = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(
                                        "http://localhost:" + port + "/plans/" + plan.id() + "/rehearse/events"))
                                .build(),
                        HttpResponse.BodyHandlers.ofInputStream());
        assertThat(stream.headers().firstValue("Content-Type").orElse("")).startsWith("text/event-stream");
        browser.click("#rehearse");
        List<String> data = new ArrayList<>();
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(stream.body(), StandardCharsets.UTF_8))) {
            String line = lines.readLine();
            while (line != null && !line.contains("\"state\":\"over\"")) {
                data.add(line);
                line = lines.readLine();
            }
        }
        assertThat(data).contains("event:now").anyMatch(l -> l.startsWith("data:{") && l.contains("\"line\""));
    }

    @Test
    void a_plan_without_a_sliced_file_says_what_is_missing() {
        PlanState plan = plan("no file");
        browser.open("/plans/" + plan.id() + "/rehearse");
        browser.see("#nothing-to-rehearse", "this plan has none yet");
        assertThat(browser.all("#rehearse")).as("nothing to press for nothing").isEmpty();
        browser.click("#nothing-to-rehearse a");
        browser.see("#gcode-title, h2", "The sliced file");
    }
}
