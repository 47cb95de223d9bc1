package dev.tranche.app.companion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.companion.Prints.Word;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.InNozzle;
import dev.tranche.app.support.Browser;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Entry.Kind;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;

/** A person stands beside the machine, a phone in hand. */
class CompanionPageTest extends BrowserTest {
    @Autowired
    private Prints prints;

    @Autowired
    private InNozzle nozzles;

    @Autowired
    private PrintViews views;

    @LocalServerPort
    private int port;

    /** What is learned here changes no other test's printer. */
    private static Long bench;

    private long bench() {
        bench = bench == null
                ? workshop.add(Beginning.DIRECT_PAUSE.rig("Companion's bench")).id()
                : bench;
        return bench;
    }

    /** A printer prints one thing at a time. */
    @AfterEach
    void endAll() {
        prints.all().stream()
                .filter(p -> !p.course().isOver())
                .forEach(p -> prints.tell(p.plan(), p.id(), word(Kind.BROKE_OFF, -1, 0)));
    }

    private static Word word(Kind kind, int visit, double amount) {
        return new Word(kind, visit, amount, "", UUID.randomUUID().toString(), Duration.ZERO);
    }

    /** Dark, Light from 2.4 mm, Zinc from 4.0. */
    private PlanState threeColours(String name) {
        PlanState plan = plan(name);
        LayerSettings layers = LayerSettings.COMMON;
        return plans.editAll(plan.id(), plan.edition(), "three colours", c -> c.on(bench())
                .with(c.colours()
                        .startAt(Height.ofMillimetres(2.4), shelf.all().get(1).id(), layers.on(Height.ofMillimetres(5)))
                        .startAt(Height.ofMillimetres(4), zinc().id(), layers.on(Height.ofMillimetres(5)))));
    }

    private PlanState started(String name) {
        PlanState plan = threeColours(name);
        browser.size(390, 844);
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> !browser.all("#start-now").isEmpty());
        browser.click("#start-now");
        browser.see("#next-title", "Swap 1");
        return plan;
    }

    @Test
    void a_late_swap_moves_all_that_follows_and_what_was_ticked_stays_through_a_reload() {
        PlanState plan = started("late");
        browser.see("#behind", "as planned");
        browser.see(".cards", "Swap 2");
        browser.click("[aria-label='5 min later']");
        browser.see("#behind", "5 min later than planned");
        browser.click("#it-stopped");
        browser.see("#next-count", "it waits since");
        browser.click(".ticks li:first-child button");
        browser.until(() -> browser.all("[aria-checked=true]").size() == 1);
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> browser.all("[aria-checked=true]").size() == 1);
        assertThat(browser.script("return document.documentElement.scrollWidth <= 390"))
                .isEqualTo(true);
        browser.click("#it-goes-on");
        browser.see("#next-title", "Swap 2");
        browser.see(".passed summary", "What has passed");
        browser.click("#went-on");
        browser.see("#next-title", "Nothing more to do");
        browser.click("#it-is-done");
        browser.click("#afterwards");
        browser.see("#past-stops", "Swap 1");
    }

    @Test
    void a_figure_and_its_unit_stay_on_one_line_in_what_there_is_to_do() {
        started("narrow");
        browser.click("#it-stopped");
        browser.see(".ticks", "°C");
        assertThat((String) browser.script("return document.querySelector('.ticks').textContent"))
                .containsPattern("\\d\u00a0°C")
                .doesNotContainPattern("\\d (°C|mm|s)\\b");
    }

    @Test
    void the_main_press_of_a_stop_is_in_sight_on_a_phone() {
        started("in sight");
        browser.click("#it-stopped");
        browser.until(() -> !browser.all("#it-goes-on").isEmpty());
        browser.script("scrollTo(0, 0)");
        assertThat(
                        (Boolean)
                                browser.script(
                                        "const r = document.getElementById('it-goes-on').getBoundingClientRect(); return r.bottom <= 844 && r.height >= 44"))
                .isTrue();
    }

    /** As an earlier Tranche could, of a printer that cannot blend. */
    @Test
    void a_blend_that_was_noted_for_a_spool_is_shown_as_the_spool_that_goes_in_first() {
        PlanState plan = started("a blend");
        Agenda agenda = prints.under(plan.id()).orElseThrow().course().agenda();
        assertThat(views.mark(agenda, new SpoolId(-3)).name())
                .isEqualTo(shelf.byId().get(agenda.first()).name());
    }

    @Test
    void two_windows_show_the_same_print() {
        PlanState plan = started("two windows");
        try (Browser other = new Browser(port)) {
            other.open("/plans/" + plan.id() + "/print");
            other.see("#next-title", "Swap 1");
            browser.click("#it-stopped");
            other.until(() -> !other.all("#it-goes-on").isEmpty());
            other.click("#it-goes-on");
            browser.see("#next-title", "Swap 2");
        }
    }

    @Test
    void what_is_pressed_without_a_connection_is_sent_with_its_time_when_it_is_back() {
        PlanState plan = started("lost");
        Map<String, Object> lost =
                Map.of("offline", true, "latency", 0, "downloadThroughput", -1, "uploadThroughput", -1);
        browser.driver().executeCdpCommand("Network.enable", Map.of());
        browser.driver().executeCdpCommand("Network.emulateNetworkConditions", lost);
        browser.click("#it-stopped");
        browser.see("#offline", "1 press waits here");
        assertThat(prints.under(plan.id()).orElseThrow().course().entries()).isEmpty();
        browser.driver()
                .executeCdpCommand(
                        "Network.emulateNetworkConditions",
                        Map.of("offline", false, "latency", 0, "downloadThroughput", -1, "uploadThroughput", -1));
        browser.until(() -> !browser.all("#it-goes-on").isEmpty());
        browser.until(() -> !browser.find("#offline").isDisplayed());
        assertThat(prints.under(plan.id()).orElseThrow().course().came(0)).isPresent();
    }

    @Test
    void what_was_measured_is_taken_over_by_one_press_and_the_spools_lose_what_was_used() {
        PlanState plan = threeColours("teaches");
        long printer = plan.content().printer();
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> !browser.all("#start-now").isEmpty());
        browser.click("#start-now");
        browser.click("#it-stopped");
        browser.until(() -> !browser.all("#it-goes-on").isEmpty());
        browser.type("#pushed", "77");
        browser.click("#pushed-ok");
        browser.until(
                () -> prints.under(plan.id()).orElseThrow().course().pushed(0).isPresent());
        browser.click("#it-goes-on");
        browser.see("#next-title", "Swap 2");
        browser.click("#went-on");
        browser.click("#it-is-done");
        browser.click("#afterwards");
        browser.see("#lessons", "77 mm measured once");
        browser.see("#past-stops", "77 mm");
        browser.click("#take-pair-0");
        browser.see("#lessons", "is reckoned with");
        assertThat(workshop.get(printer).purges()).anySatisfy(p -> assertThat(
                        workshop.get(printer).printer().filament().length(p.volume()))
                .isCloseTo(77, within(1e-6)));
        browser.click("#take-SWAP");
        browser.until(() -> browser.all("#take-SWAP").isEmpty());
        assertThat(workshop.get(printer)
                        .rig()
                        .macros()
                        .answer(Event.SWAP)
                        .orElseThrow()
                        .person())
                .isLessThan(Duration.ofSeconds(60));
        double before = shelf.all().get(0).gramsLeft();
        browser.type("#took tbody tr:first-child input", "2.5");
        browser.click("#take-off");
        browser.see("#taken-off", "off the spools");
        assertThat(shelf.all().get(0).gramsLeft()).isCloseTo(before - 2.5, within(1e-6));
        Spool spool = shelf.all().get(0);
        shelf.change(spool.as(spool.id(), before));
        // The macro says what it rests on.
        int swap = workshop.get(printer).rig().macros().macros().stream()
                .map(m -> m.event())
                .toList()
                .indexOf(Event.SWAP);
        browser.open("/printers/" + printer + "/macros/" + swap);
        browser.see("#person-measured", "measured at ");
        // So does the ledger.
        browser.open("/plans/" + plan.id());
        browser.click("#ledger details[hx-get*='addedTime'] summary");
        browser.see("#ledger .grounds", "measured at ");
        // And the last spool is in the nozzle.
        browser.open("/plans/" + plan.id() + "/print");
        browser.see("#holds", zinc().name() + " was in the nozzle last");
        browser.open("/printers/" + printer + "/rack");
        assertThat(browser.find("#in-nozzle").getDomProperty("value"))
                .isEqualTo(Long.toString(zinc().id().value()));
        browser.choose("#in-nozzle", "not known");
        // The field shows it at once; what is known changes when it has been sent.
        browser.until(() -> nozzles.of(printer).isEmpty());
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> !browser.all("#start-now").isEmpty());
        assertThat(browser.all("#holds")).isEmpty();
    }

    @Test
    void a_person_who_takes_no_time_at_a_stop_is_told_of_in_the_ledger_too() {
        Long usual = bench;
        bench = workshop.add(Beginning.DIRECT_PAUSE.rig("Bench of the quick")).id();
        try {
            PlanState plan = threeColours("quick");
            workshop.edit(bench(), workshop.get(bench()).version().edition(), "no time", rig -> {
                Macro swap = rig.macros().answer(Event.SWAP).orElseThrow();
                return rig.with(rig.macros().replace(rig.macros().macros().indexOf(swap), swap.taking(Duration.ZERO)));
            });
            browser.open("/plans/" + plan.id());
            browser.click("#ledger details[hx-get*='addedTime'] summary");
            browser.see("#ledger .grounds", "as it is set up");
        } finally {
            bench = usual;
        }
    }

    private static Visit swap(int number, double at, SpoolId out, SpoolId in) {
        Visit.Spans spans = new Visit.Spans(at, 0, 60, 0);
        List<Visit.Act> acts = List.of(new Visit.Act(1, "Pull it out"));
        return new Visit(
                Visit.Kind.SWAP, number, "", "", Optional.of(out), Optional.of(in), 100, true, "", 60, spans, acts);
    }

    /** Let go on after 1 h 1 min, it stops 70 min 48 s later, where 59 min were reckoned. */
    @Test
    void how_long_the_machine_took_is_reckoned_with_by_one_press() {
        Long usual = bench;
        bench = workshop.add(Beginning.DIRECT_PAUSE.rig("Bench of the slow")).id();
        try {
            PlanState plan = threeColours("slow machine");
            SpoolId one = shelf.all().get(0).id();
            SpoolId other = shelf.all().get(1).id();
            Agenda agenda = new Agenda(
                    List.of(swap(1, 3600, one, other), swap(2, 7200, other, one)),
                    10_800,
                    one,
                    List.of(),
                    Optional.of(new Agenda.Basis(BasePrint.Source.MODEL, 1)),
                    Optional.empty());
            Instant start = Instant.now().minus(Duration.ofHours(5));
            Print print = prints.start(plan, "Bench of the slow", agenda, Optional.of(start));
            tellAfter(print, Kind.DONE, 0, 3660);
            tellAfter(print, Kind.CAME, 1, 3660 + 1.2 * 3540);
            browser.open("/plans/" + plan.id());
            String before = browser.find("#ledger").getText();
            browser.open("/prints/" + print.id());
            browser.see(
                    "#running",
                    "× 1.00 of what is reckoned from the model was believed, × 1.20 measured in this print");
            browser.click("#take-running");
            browser.see("#running", "is reckoned with");
            assertThat(workshop.get(bench()).printer().motion().pace()).isEqualTo(new Pace(1.2, 1));
            browser.open("/printers/" + bench());
            assertThat(browser.find("#pace-model").getDomProperty("value")).isEqualTo("1.2");
            browser.open("/plans/" + plan.id());
            assertThat(browser.find("#ledger").getText()).isNotEqualTo(before);
            browser.click("#ledger details[hx-get*='totalTime'] summary");
            browser.see("#ledger", "× 1.20 as set for the printer");
        } finally {
            bench = usual;
        }
    }

    private void tellAfter(Print print, Kind kind, int visit, double seconds) {
        Instant at = print.course().start().plusMillis(Math.round(1000 * seconds));
        String token = UUID.randomUUID().toString();
        prints.tell(print.plan(), print.id(), new Word(kind, visit, 0, "", token, Duration.between(at, Instant.now())));
    }

    @Test
    void it_starts_at_a_time_and_the_calendar_follows() throws IOException {
        PlanState plan = threeColours("later");
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> !browser.all("#start-at").isEmpty());
        browser.script("document.getElementById('start-at').value = arguments[0]", soon());
        browser.click("#start-then");
        browser.see("#beside", "starts in");
        browser.click("#put-off");
        browser.until(() -> !browser.all("#start-now").isEmpty());
        browser.click("#start-now");
        browser.click("[aria-label='5 min later']");
        browser.see("#behind", "5 min later");
        browser.click("#print-calendar");
        String calendar = Files.readString(browser.download("swaps.ics"));
        // That of the clock is the same while it prints.
        browser.open("/plans/" + plan.id() + "/clock");
        browser.click("#calendar");
        assertThat(Files.readString(browser.download("later-swaps.ics"))
                        .lines()
                        .filter(l -> l.startsWith("DTSTART"))
                        .toList())
                .isEqualTo(calendar.lines().filter(l -> l.startsWith("DTSTART")).toList());
        assertThat(calendar).contains("BEGIN:VEVENT", plan.id() + "-swap-1@tranche", plan.id() + "-swap-2@tranche");
    }

    /** Tomorrow at noon, as the field has it. */
    private static String soon() {
        return LocalDate.now().plusDays(1) + "T12:00";
    }

    @Test
    void a_stop_that_the_print_does_not_have_or_a_purge_that_cannot_be_is_refused_in_a_sentence() {
        PlanState plan = started("refused");
        Print print = prints.under(plan.id()).orElseThrow();
        assertThatThrownBy(() -> prints.tell(print.plan(), print.id(), word(Kind.DONE, 7, 0)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no stop 8");
        browser.type("#pushed", "10000");
        browser.click("#pushed-ok");
        browser.see("#offline", "A measured purge of 10000 mm of filament cannot be");
        assertThat(prints.under(plan.id()).orElseThrow().course().entries()).isEmpty();
    }

    @Test
    void a_print_is_not_told_of_through_another_plan() {
        PlanState plan = started("one");
        PlanState other = threeColours("other");
        Print print = prints.under(plan.id()).orElseThrow();
        assertThatThrownBy(() -> prints.tell(other.id(), print.id(), word(Kind.CAME, 0, 0)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no longer there");
    }

    @Test
    void a_note_on_an_old_print_and_a_start_that_is_still_to_come_leave_the_nozzle_as_it_is() {
        PlanState plan = started("old");
        Print old = prints.under(plan.id()).orElseThrow();
        prints.tell(plan.id(), old.id(), word(Kind.ENDED, -1, 0));
        SpoolId since = shelf.all().get(1).id();
        nozzles.holds(bench(), since, old.course().start());
        prints.tell(
                plan.id(),
                old.id(),
                new Word(Kind.NOTED, 0, 0, "still grey after", UUID.randomUUID().toString(), Duration.ZERO));
        assertThat(nozzles.of(bench())).hasValue(since);
        browser.open("/plans/" + plan.id() + "/print");
        browser.until(() -> !browser.all("#start-at").isEmpty());
        browser.see("#holds", " mm of ");
        browser.script("document.getElementById('start-at').value = arguments[0]", soon());
        browser.click("#start-then");
        browser.see("#beside", "starts in");
        assertThat(nozzles.of(bench())).hasValue(since);
    }

    @Test
    void a_press_that_is_sent_twice_is_told_once() {
        PlanState plan = started("twice");
        Print print = prints.under(plan.id()).orElseThrow();
        Word later = new Word(Kind.SHIFTED, 0, 300, "", "the same", Duration.ZERO);
        prints.tell(print.plan(), print.id(), later);
        prints.tell(print.plan(), print.id(), later);
        assertThat(prints.under(plan.id()).orElseThrow().course().entries()).hasSize(1);
    }

    @Test
    void a_printer_prints_one_thing_at_a_time() {
        started("first");
        PlanState second = threeColours("second");
        browser.open("/plans/" + second.id() + "/print");
        browser.until(() -> !browser.all("#start-now").isEmpty());
        browser.click("#start-now");
        browser.see("body", "is printing “first”");
        assertThat(prints.under(second.id())).isEmpty();
        browser.see("#occupied", "is printing first");
        browser.click("#occupied a");
        browser.see("#is-over", "It came to nothing");
    }

    @Test
    void a_print_whose_plan_was_deleted_does_not_hold_its_printer() {
        PlanState plan = started("deleted");
        String print = prints.under(plan.id()).orElseThrow().id();
        plans.delete(plan.id());
        browser.size(1280, 1400);
        browser.open("/prints/" + print);
        browser.click("#is-over");
        browser.see(".lead", "came to nothing");
        started("next");
    }

    @Test
    void prints_that_have_been_are_listed_with_how_they_ended() {
        PlanState plan = started("listed");
        browser.size(1280, 1400);
        browser.click(".ending summary");
        browser.type("#why", "it came off the bed");
        browser.click("#broke-off");
        browser.see("#beside", "It came to nothing");
        browser.open("/prints");
        browser.see("table", "came to nothing");
        List<Print> all = prints.of(plan.id());
        browser.open("/prints/" + all.get(0).id());
        browser.see("main", "it came off the bed");
    }
}
