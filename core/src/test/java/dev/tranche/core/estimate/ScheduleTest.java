package dev.tranche.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.check.Bench;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import org.junit.jupiter.api.Test;

class ScheduleTest {
    private static final ZoneId ZONE = ZoneId.of("Europe/Berlin");
    private static final Duration TEN = Duration.ofMinutes(10);

    private final Ledger ledger =
            new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY).ledger();

    private static ZonedDateTime at(String local) {
        return Schedule.startAt(LocalDateTime.parse(local), ZONE);
    }

    @Test
    void each_swap_has_a_time_of_day_and_a_window_as_long_as_the_heater_stays_on() {
        Schedule schedule = Schedule.of(ledger, at("2026-11-25T19:00"), TEN, List.of());
        Schedule.Stop first = schedule.stops().get(0);
        assertThat(Duration.between(schedule.start(), first.at()).toSeconds())
                .isEqualTo(Math.round(ledger.swaps().get(0).startsAt()));
        assertThat(Duration.between(first.at(), first.until())).isEqualTo(TEN);
        assertThat(first.needsPerson()).isTrue();
        assertThat(Duration.between(schedule.start(), schedule.end()).toSeconds())
                .isEqualTo(Math.round(ledger.totalSeconds()));
    }

    @Test
    void a_swap_is_missed_only_if_its_whole_window_is_quiet() {
        List<QuietTime> night = QuietTime.parse("22:30-6:30");
        ZonedDateTime swap = at("2026-11-25T06:24");
        assertThat(QuietTime.covers(night, swap, TEN)).isFalse();
        assertThat(QuietTime.covers(night, swap, Duration.ofMinutes(5))).isTrue();
        assertThat(QuietTime.covers(night, at("2026-11-25T22:30"), TEN)).isTrue();
        assertThat(QuietTime.covers(night, at("2026-11-25T22:29"), TEN)).isFalse();
    }

    @Test
    void quiet_times_may_follow_one_another() {
        List<QuietTime> day = QuietTime.parse("22:00–6:00, 6:00-17:00");
        assertThat(QuietTime.covers(day, at("2026-11-25T05:55"), Duration.ofHours(2)))
                .isTrue();
        assertThat(QuietTime.covers(QuietTime.parse("0:00-12:00,12:00-0:00"), at("2026-11-25T05:55"), TEN))
                .isTrue();
    }

    @Test
    void a_quiet_time_of_some_days_begins_on_those_alone() {
        // 25 November 2026 is a Wednesday (ISO 8601 calendar).
        List<QuietTime> work = QuietTime.parse("Mo–Fr 8:00-16:30");
        assertThat(QuietTime.covers(work, at("2026-11-27T16:00"), TEN)).isTrue();
        assertThat(QuietTime.covers(work, at("2026-11-28T16:00"), TEN)).isFalse();
        List<QuietTime> late = QuietTime.parse("fr sa 23:00-9:00");
        assertThat(QuietTime.covers(late, at("2026-11-29T08:00"), TEN)).isTrue();
        assertThat(QuietTime.covers(late, at("2026-11-27T08:00"), TEN)).isFalse();
        List<QuietTime> weekend = QuietTime.parse("Sat-Sun 0:00-12:00, Sat-Sun 12:00-0:00");
        assertThat(QuietTime.covers(weekend, at("2026-11-28T00:00"), Duration.ofHours(47)))
                .isTrue();
        assertThat(QuietTime.covers(weekend, at("2026-11-28T00:00"), Duration.ofHours(48)))
                .isFalse();
        assertThat(QuietTime.parse("tu su mo 1:00-2:00, sa mo 3:00-4:00, 5:00-6:00")
                        .toString())
                .isEqualTo("[Su-Tu 01:00-02:00, Mo Sa 03:00-04:00, 05:00-06:00]");
        assertThat(QuietTime.parse("Mo Tu Su 01:00-02:00")).isEqualTo(QuietTime.parse("Su-Tu 1:00-2:00"));
    }

    @Test
    void the_suggested_start_is_the_first_that_misses_nothing() {
        List<QuietTime> night = QuietTime.parse("19:00-23:00");
        ZonedDateTime wished = at("2026-11-25T18:55");
        assertThat(Schedule.of(ledger, wished, TEN, night).missed()).isPositive();
        Schedule other = Schedule.suggested(ledger, wished, TEN, night);
        assertThat(other.missed()).isZero();
        assertThat(other.start()).isEqualTo(at("2026-11-25T23:00"));
        assertThat(Schedule.suggested(ledger, at("2026-11-25T08:00"), TEN, night)
                        .start())
                .isEqualTo(at("2026-11-25T08:00"));
    }

    @Test
    void a_start_at_which_somebody_is_there_is_passed_over_if_a_swap_would_be_missed() {
        // Swaps come a minute and a half and five and a half after the start.
        assertThat(ledger.swaps())
                .extracting(s -> s.startsAt() / 60)
                .satisfiesExactly(first -> assertThat(first).isBetween(1.0, 2.0), second -> assertThat(second)
                        .isBetween(5.25, 6.0));
        ZonedDateTime wished = at("2026-11-25T18:55");
        Duration minute = Duration.ofMinutes(1);
        List<QuietTime> nap =
                List.of(new QuietTime(EnumSet.allOf(DayOfWeek.class), LocalTime.of(19, 0, 12), LocalTime.of(19, 4)));
        assertThat(Schedule.of(ledger, wished, minute, nap).missed()).isEqualTo(1);
        // At 19:00 one is still awake, and asleep at the first swap.
        assertThat(Schedule.of(ledger, wished.plusMinutes(5), minute, nap).missed())
                .isEqualTo(1);
        Schedule other = Schedule.suggested(ledger, wished, minute, nap);
        assertThat(other.missed()).isZero();
        assertThat(other.start()).isEqualTo(at("2026-11-25T19:05"));
    }

    @Test
    void halts_stand_among_the_swaps_as_they_come() {
        Ledger halting = new Bench()
                .start(1, Spools.CHALK)
                .start(2, Spools.BURGUNDY)
                .halt(0.6, "lay the nut in")
                .halt(2.4, "look")
                .ledger();
        Schedule schedule = Schedule.of(halting, at("2026-11-25T19:00"), TEN, List.of());
        assertThat(schedule.stops()).extracting(Schedule.Stop::swap).containsExactly(false, true, true, false);
        assertThat(schedule.stops()).isSortedAccordingTo(Comparator.comparing(Schedule.Stop::at));
        assertThat(schedule.stops()).allMatch(Schedule.Stop::needsPerson);
        assertThat(schedule.at(60)).isEqualTo(at("2026-11-25T19:01"));
    }

    @Test
    void where_somebody_is_never_there_the_start_that_misses_least_is_suggested() {
        List<QuietTime> always = QuietTime.parse("0:10-0:05");
        Schedule best = Schedule.suggested(ledger, at("2026-11-25T18:55"), TEN, always);
        assertThat(best.missed()).isPositive();
        assertThat(best.start().toLocalTime()).isEqualTo(LocalTime.of(0, 5));
    }

    /** Europe's clocks go back at 3:00 on 25 October 2026 and forward at 2:00 on 28 March 2027 (tz database). */
    @Test
    void a_night_in_which_clocks_change_is_as_long_as_it_is() {
        Schedule schedule = Schedule.of(ledger, at("2026-10-25T01:30"), TEN, List.of());
        assertThat(Duration.between(schedule.start(), schedule.end()).toSeconds())
                .isEqualTo(Math.round(ledger.totalSeconds()));
        ZonedDateTime before = at("2026-10-25T02:59").plusMinutes(2);
        assertThat(before.toLocalTime()).isEqualTo(LocalTime.of(2, 1));
        assertThatThrownBy(() -> at("2027-03-28T02:30"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("go forward")
                .hasMessageContaining("03:00");
    }

    @Test
    void what_is_no_time_of_day_is_refused() {
        for (String bad :
                new String[] {"late", "22:30", "25:00-6:00", "8:00-8:00", "Mo", "Xx 8:00-9:00", "8:00-9:00 Mo"}) {
            assertThatThrownBy(() -> QuietTime.parse(bad)).isInstanceOf(Refusal.class);
        }
        assertThat(QuietTime.parse(" ")).isEmpty();
    }
}
