package dev.tranche.app.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rearrange.TwoTools;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** Files that are printed in another order than they were sliced in. */
class OtherOrderTest extends BrowserTest {
    /** A tray of 40 × 10 × 2.4 mm in stripes of two colours. */
    private PlanState tray(String name) {
        SpoolId stripes = shelf.all().get(1).id();
        PlanState plan = plan(name, new Shapes().box(0, 0, 0, 40, 10, 2.4).mesh());
        return plans.edit(plan.id(), plan.edition(), "stripes", p -> {
            for (int stripe = 0; stripe < 2; stripe++) {
                p = p.with(p.regions()
                        .plus(new Region(
                                "stripe " + stripe,
                                new Shape.Zone(new Outline.Box(10, 10), 15 + 20 * stripe, 5, 0, false),
                                stripes,
                                Range.ALL)));
            }
            return p;
        });
    }

    private static long swaps(byte[] file) {
        return new String(file, StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> l.startsWith("; tranche begin") && l.contains(" swap="))
                .count();
    }

    @Test
    void from_a_tray_of_two_colours_to_a_file_in_bands_and_back() throws IOException {
        PlanState plan = tray("tray");
        byte[] original = new TwoTools(EnumSet.of(TwoTools.Way.HOPS), 12).bytes();
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("tray.gcode", original));
        browser.see(".file-facts h3", "tray.gcode");
        browser.see(".lead", "12 swaps");

        browser.open("/plans/" + plan.id() + "/order");
        browser.see("#order-sliced", "the plan's");
        assertThat(browser.text("#order-bands")).contains("counted once you print it like this");
        browser.find("#plan-bands").sendKeys(Keys.ENTER);
        browser.see("#order-bands", "the plan's");
        assertThat(browser.text("#order-bands")).doesNotContain("counted once");
        assertThat(browser.text("#order-bands .order-figures dd")).contains("1");

        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.see("#rearranged", "Printed in bands instead of as it was sliced: 1 swap, not 12");
        browser.click("#changes > summary");
        browser.see("#changes-list", "change places");
        browser.click("#write-swaps");
        byte[] written = Files.readAllBytes(browser.download("tray-with-swaps.gcode"));
        assertThat(swaps(written)).isEqualTo(1);

        // What was written is known again, and gives back what came in.
        give("#gcode-file", browser.download("tray-with-swaps.gcode"));
        browser.see(".file-facts h3", "tray-with-swaps.gcode");
        browser.see("#rearranged", "1 swap, not 12");
        browser.click("#take-swaps-out");
        assertThat(Files.readAllBytes(browser.download("tray-without-swaps.gcode")))
                .isEqualTo(original);
    }

    @Test
    void a_file_that_cannot_be_taken_apart_says_why_and_is_printed_as_it_is() throws IOException {
        PlanState plan = tray("homes");
        String original = new String(
                        new TwoTools(EnumSet.noneOf(TwoTools.Way.class), 12).bytes(), StandardCharsets.US_ASCII)
                .replaceFirst("; layer 7\n", "; layer 7\nG28 X\n");
        plans.edit(plan.id(), plan.edition(), "bands", p -> p.with(p.ordering().by(Ordering.Rule.BANDS)));
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("homes.gcode", original.getBytes(StandardCharsets.US_ASCII)));
        browser.see("main", "“G28 X”, in the middle of the print");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
        browser.click("#mend-not-rearranged");
        browser.until(() -> browser.find("#write-swaps").isEnabled());
        browser.see(".lead", "12 swaps");
    }

    /** The nameplate, whose upper part is in another colour. */
    private PlanState twoColours(String name) {
        PlanState plan = plan(name);
        SpoolId upper = shelf.all().get(1).id();
        return plans.edit(
                plan.id(),
                plan.edition(),
                "start",
                p -> p.startAt(Height.parse("2.4"), upper, p.layers().on(Height.parse("5"))));
    }

    @Test
    void plates_printed_one_after_another_swap_on_each_of_them() throws IOException {
        PlanState plan = twoColours("one after another");
        byte[] two = sliced(sliced(new SmallGcode().centredAt(60, 60)).centredAt(130, 60))
                .bytes();
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("two.gcode", two));
        browser.see(".lead", "3 swaps");
        browser.see(".file-facts", "it comes down again and visits them 50 times in all");
        browser.click("#write-swaps");
        assertThat(swaps(Files.readAllBytes(browser.download("two-with-swaps.gcode"))))
                .isEqualTo(3);
    }

    @Test
    void a_plate_is_cut_into_jobs_and_joined_again() throws IOException {
        PlanState plan = twoColours("in jobs");
        byte[] whole = sliced(new SmallGcode()).line("M104 S0").bytes();
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("plate.gcode", whole));
        browser.see(".file-facts h3", "plate.gcode");
        browser.click("#to-jobs");
        browser.type("#before", "99", Keys.ENTER);
        browser.see("#refusal", "give layers from 2 to 25");
        browser.type("#before", "13; 21", Keys.ENTER);
        browser.see("#jobs-title", "3 jobs");
        assertThat(browser.all("#jobs tbody tr").get(1).getText().replace('\n', ' '))
                .contains("13–20", "2.40", "4.00", "0.00 mm", "load");
        List<Path> jobs = new ArrayList<>();
        for (int job = 0; job < 3; job++) {
            browser.all("a.job-file").get(job).click();
            jobs.add(browser.download("in-jobs-job-" + (job + 1) + ".gcode"));
        }
        assertThat(Files.readString(jobs.get(1), StandardCharsets.ISO_8859_1))
                .contains("G28", "; tranche job 2 of 3 begins", "; tranche job 2 of 3 ends")
                .endsWith("M104 S0\n");

        browser.click("#join > summary");
        browser.find("#job-files").sendKeys(jobs.get(2) + "\n" + jobs.get(0) + "\n" + jobs.get(1));
        browser.see(".lead", "1 swap");
        browser.see(".file-facts h3", "in-jobs.gcode");
        browser.click("#write-swaps");
        Files.delete(browser.download("in-jobs-with-swaps.gcode"));
        assertThat(Files.readAllBytes(
                        files.path(plans.get(plan.id()).gcode().orElseThrow().hash())))
                .isEqualTo(whole);
    }
}
