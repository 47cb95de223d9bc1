package dev.tranche.core.companion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.companion.Course.Expected;
import dev.tranche.core.companion.Entry.Kind;
import dev.tranche.core.companion.Visit.Act;
import dev.tranche.core.companion.Visit.Spans;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.macro.Event;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A print beside a real machine. */
class CourseTest {
    private static final Instant START = Instant.parse("2026-11-27T17:00:00Z");
    private static final SpoolId LEAF = new SpoolId(1);
    private static final SpoolId SOOT = new SpoolId(2);
    private static final SpoolId CHALK = new SpoolId(3);

    /** Two swaps, at 10 and at 30 min, each with 30 s until it waits, 120 s of a person and 20 s after; done after 60 min. */
    private static Course course() {
        return Course.beginning(
                new Agenda(
                        List.of(swap(1, 600, LEAF, SOOT), swap(2, 1800, SOOT, CHALK)),
                        3600,
                        LEAF,
                        List.of(
                                new Agenda.Use(LEAF, 'A', 5, 0),
                                new Agenda.Use(SOOT, 'B', 2, 0.4),
                                new Agenda.Use(CHALK, 'C', 1, 0.7))),
                START);
    }

    private static Visit swap(int number, double at, SpoolId out, SpoolId in) {
        return new Visit(
                Visit.Kind.SWAP,
                number,
                "before layer " + 10 * number,
                "",
                Optional.of(out),
                Optional.of(in),
                120,
                true,
                "by hand",
                90,
                new Spans(at, 30, 120, 20),
                List.of(new Act(1, "Pull it out"), new Act(1, "Push it in")));
    }

    private static Instant at(double minutes) {
        return START.plusMillis(Math.round(minutes * 60_000));
    }

    private static Entry entry(Kind kind, double minutes, int visit) {
        return new Entry(kind, at(minutes), visit, 0, "");
    }

    @Test
    void while_nothing_is_told_it_goes_as_planned() {
        List<Expected> expected = course().expected(at(1));
        assertThat(expected.get(0).waits()).isEqualTo(at(10.5));
        assertThat(expected.get(0).goesOn()).isEqualTo(at(12.5));
        assertThat(expected.get(1).waits()).isEqualTo(at(30.5));
        assertThat(course().end(at(1))).isEqualTo(at(60));
        assertThat(course().behind(at(1))).isZero();
        assertThat(course().next()).isZero();
        assertThat(course().inNozzle()).isEqualTo(LEAF);
    }

    @Test
    void a_stop_nobody_came_to_delays_all_that_follows_by_as_long_as_it_waits() {
        assertThat(course().expected(at(12)).get(1).waits()).isEqualTo(at(30.5));
        // It would have gone on at 12.5 min.
        assertThat(course().expected(at(20)).get(1).waits()).isEqualTo(at(38));
        assertThat(course().behind(at(20))).isEqualTo(Duration.ofSeconds(450));
    }

    @Test
    void whoever_is_late_moves_what_follows_by_one_press() {
        Course late = course().with(entry(Kind.DONE, 22.5, 0));
        assertThat(late.next()).isEqualTo(1);
        assertThat(late.expected(at(23)).get(1).waits()).isEqualTo(at(40.5));
        assertThat(late.end(at(23))).isEqualTo(at(70));
        assertThat(late.inNozzle()).isEqualTo(SOOT);
        Course early = course().with(entry(Kind.CAME, 8, 0)).with(entry(Kind.DONE, 9, 0));
        assertThat(early.expected(at(9)).get(0).waits()).isEqualTo(at(8));
        assertThat(early.expected(at(9)).get(1).waits()).isEqualTo(at(27));
        assertThat(early.took(0)).hasValue(60);
    }

    @Test
    void what_is_known_to_come_later_is_shifted_and_can_be_taken_back() {
        Course shifted = course().with(new Entry(Kind.SHIFTED, at(2), 0, 300, ""));
        assertThat(shifted.expected(at(2)).get(0).waits()).isEqualTo(at(15.5));
        assertThat(shifted.end(at(2))).isEqualTo(at(65));
        assertThat(shifted.with(new Entry(Kind.SHIFTED, at(3), 0, -300, "")).end(at(3)))
                .isEqualTo(at(60));
        // The same press twice is five minutes twice.
        assertThat(shifted.with(new Entry(Kind.SHIFTED, at(2), 0, 300, "")).end(at(2)))
                .isEqualTo(at(70));
    }

    @Test
    void what_two_windows_tell_is_told_once() {
        Course once = course().with(entry(Kind.TICKED, 11, 0))
                .with(entry(Kind.CAME, 11, 0))
                .with(entry(Kind.DONE, 12, 0));
        assertThat(once.with(entry(Kind.DONE, 12.1, 0))).isSameAs(once);
        assertThat(once.with(entry(Kind.CAME, 12.1, 0))).isSameAs(once);
        assertThat(once.with(entry(Kind.TICKED, 12.1, 0))).isSameAs(once);
        assertThat(once.ticked(0)).containsExactly(0);
        assertThat(once.with(entry(Kind.UNTICKED, 12.2, 0)).ticked(0)).isEmpty();
    }

    @Test
    void a_stop_that_nobody_told_of_is_passed_by_the_next() {
        Course second = course().with(entry(Kind.DONE, 33, 1));
        assertThat(second.next()).isEqualTo(2);
        assertThat(second.took(0)).isEmpty();
        assertThat(second.inNozzle()).isEqualTo(CHALK);
        assertThat(second.end(at(40))).isEqualTo(at(60.5));
    }

    @Test
    void a_clock_set_back_does_not_turn_the_print_back() {
        Course course = course().with(entry(Kind.CAME, 11, 0)).with(entry(Kind.DONE, 5, 0));
        assertThat(course.done(0)).hasValue(at(11));
        assertThat(course.took(0)).hasValue(0);
        assertThat(course.with(entry(Kind.CAME, -90, 1)).came(1)).hasValue(at(11));
    }

    @Test
    void what_cannot_be_is_refused_in_a_sentence() {
        assertThatThrownBy(() -> course().with(entry(Kind.CAME, 1, 2)))
                .isInstanceOf(Refusal.class)
                .hasMessage("This print has no stop 3; it has 2. Reload the page.");
        assertThatThrownBy(() -> course().with(entry(Kind.DONE, 1, -1))).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> course().with(new Entry(Kind.TICKED, at(1), 0, 2, "")))
                .hasMessageContaining("2 things to do");
        assertThatThrownBy(() -> course().with(new Entry(Kind.NOTED, at(1), 0, 0, " ")))
                .hasMessageContaining("A note needs at least");
        assertThatThrownBy(() -> course().with(new Entry(Kind.SHIFTED, at(1), 0, 1e9, "")))
                .hasMessageContaining("two days");
        assertThatThrownBy(() -> course().with(new Entry(Kind.BROKE_OFF, at(1), -1, 0, "x".repeat(301))))
                .hasMessageContaining("at most 300 letters");
        Course over = course().with(entry(Kind.ENDED, 61, -1));
        assertThatThrownBy(() -> over.with(entry(Kind.DONE, 62, 0))).hasMessageContaining("over");
        assertThat(over.with(new Entry(Kind.NOTED, at(70), 0, 0, "still grey after"))
                        .notes(0))
                .containsExactly("still grey after");
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -4, 10_000, Double.NaN, Double.POSITIVE_INFINITY})
    void a_measured_purge_of_nothing_or_of_ten_metres_is_refused(double length) {
        assertThatThrownBy(() -> course().with(new Entry(Kind.PUSHED, at(1), 0, length, "")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("measured purge");
    }

    @Test
    void the_machine_ran_from_where_it_was_let_go_on_to_where_somebody_came() {
        assertThat(course().ran()).isEmpty();
        Course told = course().with(entry(Kind.DONE, 12.5, 0)).with(entry(Kind.CAME, 32.5, 1));
        // Let go on at 12.5 min as planned, it was to wait at 30.5.
        assertThat(told.ran()).hasValueSatisfying(ran -> {
            assertThat(ran.reckoned()).isCloseTo(18 * 60, within(1e-9));
            assertThat(ran.took()).isCloseTo(20 * 60, within(1e-9));
        });
    }

    /** As above: 20 min where 18 were reckoned, on a machine that took 1.2 times as long as its file says before. */
    @Test
    void how_fast_the_machine_is_goes_by_what_was_reckoned_before_anything_was_measured() {
        Course told = basedOn(new Agenda.Basis(BasePrint.Source.SLICED, 1.2))
                .with(entry(Kind.DONE, 12.5, 0))
                .with(entry(Kind.CAME, 32.5, 1));
        assertThat(told.pace().orElseThrow()).isCloseTo(1.2 * 20 / 18, within(1e-9));
    }

    @Test
    void a_print_that_tells_too_little_or_what_no_machine_does_says_nothing_of_its_pace() {
        Agenda.Basis basis = new Agenda.Basis(BasePrint.Source.MODEL, 1);
        assertThat(basedOn(basis).pace()).isEmpty();
        assertThat(course().with(entry(Kind.DONE, 12.5, 0))
                        .with(entry(Kind.CAME, 32.5, 1))
                        .pace())
                .as("of a print whose basis is not known")
                .isEmpty();
        assertThat(basedOn(basis)
                        .with(entry(Kind.DONE, 12.5, 0))
                        .with(entry(Kind.CAME, 12.5 + 18 * 5.1, 1))
                        .pace())
                .isEmpty();
        Course soon = Course.beginning(
                new Agenda(
                        List.of(swap(1, 60, LEAF, SOOT), swap(2, 770, SOOT, CHALK)),
                        3600,
                        LEAF,
                        List.of(),
                        Optional.of(basis),
                        Optional.empty()),
                START);
        assertThat(soon.with(entry(Kind.DONE, 3, 0))
                        .with(entry(Kind.CAME, 14, 1))
                        .pace())
                .as("over 590 s")
                .isEmpty();
    }

    private static Course basedOn(Agenda.Basis basis) {
        Agenda a = course().agenda();
        return Course.beginning(
                new Agenda(a.visits(), a.seconds(), a.first(), a.uses(), Optional.of(basis), Optional.empty()), START);
    }

    @Test
    void the_purge_told_last_counts() {
        assertThat(course().with(new Entry(Kind.PUSHED, at(12), 0, 90, ""))
                        .with(new Entry(Kind.PUSHED, at(13), 0, 110, ""))
                        .pushed(0))
                .hasValue(110);
    }

    @Test
    void a_print_that_came_to_nothing_holds_what_was_loaded_by_then() {
        Course broken = course().with(entry(Kind.DONE, 12, 0)).with(new Entry(Kind.BROKE_OFF, at(20), -1, 0, "split"));
        assertThat(broken.brokeOff()).isTrue();
        assertThat(broken.inNozzle()).isEqualTo(SOOT);
        assertThat(broken.end(at(90))).isEqualTo(at(20));
        assertThat(course().with(entry(Kind.ENDED, 60, -1)).inNozzle()).isEqualTo(CHALK);
    }

    @Test
    void what_a_person_needs_at_one_stop_is_told_apart_from_what_is_pushed() {
        // Of the 120 s planned, 90 were the person's and 30 the purge.
        assertThat(swap(1, 600, LEAF, SOOT).personal(150)).isEqualTo(120, within(1e-9));
        assertThat(swap(1, 600, LEAF, SOOT).personal(10)).isZero();
    }

    @Test
    void one_slip_does_not_change_what_is_learned() {
        assertThat(new Lesson(90, List.of(60.0, 70.0, 900.0)).learned()).isEqualTo(70);
        assertThat(new Lesson(90, List.of(60.0, 70.0)).learned()).isEqualTo(65);
        // Two seconds and a half are taken over as three, and offered no more.
        assertThat(new Lesson(3, List.of(2.5)).isBelieved(1)).isTrue();
        assertThat(new Lesson(1.08, List.of(1.075)).isBelieved(0.01)).isTrue();
        assertThat(new Lesson(3, List.of(2.4)).isBelieved(1)).isFalse();
        assertThatThrownBy(() -> new Lesson(90, List.of())).isInstanceOf(Refusal.class);
    }

    /** Whatever is pressed, whenever: stops stay in their order, and what has passed stays passed. */
    @Property(tries = 300)
    void stops_never_change_places(@ForAll @Size(max = 20) List<@IntRange(max = 8_999_999) Integer> presses) {
        Course course = course();
        int next = 0;
        for (int press : presses) {
            Kind kind = Kind.values()[press % 6];
            try {
                course = course.with(new Entry(kind, at(press / 10_000.0 % 90), press / 10 % 3, press % 2, "x"));
            } catch (Refusal said) {
                continue;
            }
            assertThat(course.next()).isGreaterThanOrEqualTo(next);
            next = course.next();
            List<Instant> times = new ArrayList<>(List.of());
            course.expected(at(press / 7_000.0 % 120)).forEach(e -> times.addAll(List.of(e.waits(), e.goesOn())));
            for (int i = 0; i < times.size(); i += 2) {
                assertThat(times.get(i)).isBeforeOrEqualTo(times.get(i + 1));
            }
        }
    }

    @Test
    void an_agenda_is_the_ledgers_stops_with_the_times_the_macro_takes() {
        Bench bench = new Bench();
        bench.start(2.0, Spools.CHALK).halt(1.2, "embed a ring");
        Agenda agenda = Agenda.of(bench.ledger(), bench.rig(), bench.plan);
        assertThat(agenda.seconds()).isEqualTo(bench.ledger().totalSeconds());
        assertThat(agenda.visits()).extracting(Visit::kind).endsWith(Visit.Kind.HALT, Visit.Kind.SWAP);
        Visit visit = agenda.visits().get(agenda.visits().size() - 1);
        Swap swap = bench.ledger().swaps().get(0);
        assertThat(visit.spans().prints() - visit.spans().at()).isCloseTo(swap.seconds(), within(1e-6));
        assertThat(visit.spans().person()).isGreaterThanOrEqualTo(visit.stops() * visit.usual());
        assertThat(visit.usual())
                .isEqualTo(bench.rig()
                        .macros()
                        .answer(Event.SWAP)
                        .orElseThrow()
                        .person()
                        .toSeconds());
        // A hand is told what the list says.
        assertThat(visit.acts())
                .extracting(Act::text)
                .anyMatch(t -> t.contains(Words.format(" %.0f mm", visit.purge())));
        assertThat(agenda.uses()).extracting(Agenda.Use::letter).containsExactly('A', 'B');
        assertThat(agenda.uses().stream().mapToDouble(Agenda.Use::grams).sum())
                .isCloseTo(bench.ledger().filamentGrams().value(), within(1e-6));
    }
}
