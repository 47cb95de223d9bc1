package dev.tranche.app.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.app.support.StepBoxes;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.plan.Spool;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Solids of CAD programs: read in the browser, and planned like any model. */
class StepTest extends BrowserTest {
    @Autowired
    private Offers offers;

    private static StepBoxes lidOnBox() {
        return new StepBoxes()
                .box("Box", 1, 0, 1, 0, 0, 0, 30, 20, 4)
                .box("Lid", 0, 0.5019608, 0.5019608, 5, 5, 4, 20, 10, 1)
                .topped(1, 0, 1);
    }

    /** Inside the page, in one command: a driver that asks again and again keeps a worker from starting. */
    private static void waitForTheKernel() {
        browser.driver()
                .executeAsyncScript(
                        "const done = arguments[arguments.length - 1]; const field = document.getElementById('model-file');"
                                + "const look = setInterval(() => { const [file] = field.files; const said = document.getElementById('notice').textContent;"
                                + "if (!file || file.name.endsWith('.3mf') || said) { clearInterval(look); done(said); } }, 20);");
    }

    @Test
    void solids_come_with_their_names_and_colours_and_those_of_their_faces_and_are_as_large_as_they_were_drawn()
            throws IOException {
        browser.open("/");
        // Told by what it holds, whatever it is called.
        give("#model-file", file("lid-on-box.txt", lidOnBox().bytes()));
        // Asked of the server: the driver does not get on with a page whose kernel has just run.
        String id = browser.until(() -> plans.listed().stream()
                .filter(p -> p.name().equals("lid-on-box"))
                .map(Plans.Listed::id)
                .findFirst()
                .orElse(null));
        PlanState plan = plans.get(id);
        assertThat(plan.content().files().get(0).name()).endsWith(".3mf");
        Workpiece work = workbench.openNow(plan);
        assertThat(work.partNames()).containsExactly("Box", "Lid");
        assertThat(work.cut().model().footprint().getWidth()).isCloseTo(30, within(1e-4));
        assertThat(work.cut().model().footprint().getHeight()).isCloseTo(20, within(1e-4));
        assertThat(work.grid().modelHeight()).hasToString("5.00");
        assertThat(work.cut().model().body().volume()).isCloseTo(2600, within(0.01));
        assertThat(plan.content().colours().paletteInUse())
                .extracting(spool -> shelf.byId().get(spool))
                .extracting(Spool::name, s -> s.colour().hex())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("Fuchsia", "#FF00FF"),
                        org.assertj.core.groups.Tuple.tuple("Teal", "#008080"));
        assertThat(work.colouring().layer(work.grid().count()).spools())
                .extracting(spool -> shelf.byId().get(spool).name())
                .containsExactlyInAnyOrder("Teal", "Fuchsia");
    }

    @Test
    void solids_in_an_archive_are_read_and_chosen_beside_what_else_it_holds() throws IOException {
        byte[] peg = StlWriter.binary(nameplate().mesh());
        browser.open("/");
        String offer = sentTo(file(
                "shed.zip",
                ArchiveTest.zip(Map.of(
                        "cad/box.stp", lidOnBox().bytes(), "peg.stl", peg, "notes.txt", "mind the lid".getBytes()))));
        assertThat(offer).startsWith("/offers/");
        assertThat(offers.get(offer.replace("/offers/", "")).candidates())
                .extracting(Offers.Candidate::name, Offers.Candidate::size)
                .containsExactlyInAnyOrder(
                        org.assertj.core.groups.Tuple.tuple("box.3mf", "30.0 × 20.0 × 5.0 mm"),
                        org.assertj.core.groups.Tuple.tuple("peg.stl", "30.0 × 20.0 × 5.0 mm"));
    }

    @Test
    void one_that_is_cut_off_is_refused_in_a_sentence_and_nothing_is_sent() throws IOException {
        byte[] whole = lidOnBox().bytes();
        browser.open("/");
        give("#model-file", file("cut.step", Arrays.copyOf(whole, whole.length / 4)));
        waitForTheKernel();
        browser.see("#notice", "The STEP file “cut.step”");
        assertThat(browser.find("#model-file").getDomProperty("value")).isEmpty();
        assertThat(browser.path()).isEqualTo("/");
    }

    @Test
    void of_an_archive_the_file_that_is_cut_off_is_named_and_two_of_one_name_stay_two() throws IOException {
        byte[] whole = lidOnBox().bytes();
        browser.open("/");
        give(
                "#model-file",
                file(
                        "cad.zip",
                        ArchiveTest.zip(Map.of("box.stp", whole, "lid.step", Arrays.copyOf(whole, whole.length / 4)))));
        waitForTheKernel();
        browser.see("#notice", "The STEP file “lid.step” is cut off or damaged");
        browser.open("/");
        String offer = sentTo(file("twins.zip", ArchiveTest.zip(Map.of("box.stp", whole, "box.step", whole))));
        assertThat(offers.get(offer.replace("/offers/", "")).candidates())
                .extracting(Offers.Candidate::name)
                .hasSize(2)
                .doesNotHaveDuplicates();
    }

    /** Gives a file and waits for where the page is sent, which may be before anybody asks. */
    private String sentTo(Path file) {
        browser.script(
                "document.addEventListener('htmx:beforeOnLoad', e => { window.sentTo = e.detail.xhr.getResponseHeader('HX-Redirect') || window.sentTo; })");
        give("#model-file", file);
        return (String) browser.driver()
                .executeAsyncScript("const done = arguments[arguments.length - 1];"
                        + "const look = setInterval(() => { const to = location.pathname === '/' ? window.sentTo : location.pathname;"
                        + "if (to) { clearInterval(look); done(to); } }, 20);");
    }

    @Test
    void other_pages_may_compile_nothing() {
        browser.open("/");
        assertThat(
                        (String)
                                browser.driver()
                                        .executeAsyncScript(
                                                "const done = arguments[arguments.length - 1];"
                                                        + "WebAssembly.compile(new Uint8Array([0, 97, 115, 109, 1, 0, 0, 0])).then(() => done('compiled'), e => done(String(e)))"))
                .contains("Content Security Policy");
    }
}
