package dev.tranche.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HeatFor;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class LedgerTest {
    private static Bench three() {
        return new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY);
    }

    @Test
    void three_tranches_are_two_swaps() {
        // Common practice, whatever the number of copies.
        Ledger ledger = three().ledger();
        assertThat(ledger.swaps()).extracting(Swap::layer).containsExactly(6, 11);
        assertThat(ledger.swaps()).extracting(s -> s.height().toString()).containsExactly("1.00", "2.00");
        assertThat(ledger.swapCount().value()).isEqualTo(2);
    }

    @Test
    void what_the_last_print_left_in_the_nozzle_is_purged_before_the_first_layer_and_is_no_swap() {
        Ledger before = three().ledger();
        Bench bench = three();
        bench.inNozzle = Optional.of(Spools.CHALK.id());
        Ledger ledger = bench.ledger();
        assertThat(ledger.swaps()).hasSameSizeAs(before.swaps());
        double length = ledger.cleared()
                .map(c -> bench.printer.filament().length(c.purge().volume()))
                .orElseThrow();
        assertThat(length).isPositive();
        assertThat(ledger.purgeLength().value()).isCloseTo(before.purgeLength().value() + length, within(1e-9));
        assertThat(ledger.purgeLength().parts().get(0).label()).contains("left in the nozzle");
        double grams = ledger.filamentGrams().value() - before.filamentGrams().value();
        assertThat(grams)
                .isCloseTo(ledger.cleared().orElseThrow().purge().volume().grams(Spools.SOOT.density()), within(1e-9));

        bench.inNozzle = Optional.of(Spools.SOOT.id());
        assertThat(bench.ledger().cleared()).isEmpty();
    }

    @Test
    void a_first_load_by_hand_pushes_what_was_left_in_the_nozzle_through_and_says_how_much() {
        Bench bench = three();
        Macro load = bench.macros.macros().stream()
                .filter(m -> m.event() == Event.FIRST_LOAD)
                .findFirst()
                .orElseThrow();
        bench.macros = bench.macros.replace(bench.macros.macros().indexOf(load), load.turned(true));
        double plain = bench.ledger().firstLoad().orElseThrow().seconds();
        bench.inNozzle = Optional.of(Spools.CHALK.id());
        Ledger ledger = bench.ledger();
        FirstLoad first = ledger.firstLoad().orElseThrow();
        double length = bench.printer
                .filament()
                .length(ledger.cleared().orElseThrow().purge().volume());
        assertThat(first.dryRun().purging().by()).isEqualTo(Purging.By.PERSON);
        assertThat(first.seconds()).isCloseTo(plain + length / Purging.SPEED, within(1e-6));
        assertThat(Duty.of(bench.rig().macros().answer(Event.FIRST_LOAD).orElseThrow(), bench.printer, first.moment()))
                .anySatisfy(d -> assertThat(d.acts())
                        .anyMatch(a -> a.contains(Words.format("Push %.0f mm more through", length))));
    }

    @Test
    void the_same_spool_above_a_border_is_no_swap() {
        assertThat(new Bench().start(1, Spools.SOOT).ledger().swaps()).isEmpty();
    }

    @Test
    void parts_add_up_to_totals_to_the_last_gram_and_second() {
        for (Bench bench : new Bench[] {three(), three().sliced(new SmallGcode().grid(0.2, 0.2, 15))}) {
            Ledger ledger = bench.ledger();
            assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
            assertThat(ledger.totalTime().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
            double purge = ledger.swaps().stream()
                    .mapToDouble(s -> s.purge().volume().cubicMillimetres())
                    .sum();
            assertThat(ledger.uses().stream()
                            .mapToDouble(u -> u.purge().cubicMillimetres())
                            .sum())
                    .isCloseTo(purge, within(1e-9));
            assertThat(bench.printer
                            .filament()
                            .volume(ledger.purgeLength().value())
                            .cubicMillimetres())
                    .isCloseTo(purge, within(1e-6));
            double plastic = ledger.base().before().plastic().cubicMillimetres()
                    + ledger.base().layers().stream()
                            .mapToDouble(l -> l.plastic().cubicMillimetres())
                            .sum();
            assertThat(ledger.uses().stream()
                            .mapToDouble(u -> u.plastic().cubicMillimetres())
                            .sum())
                    .isCloseTo(plastic, within(1e-6));
        }
    }

    @Test
    void a_swap_starts_when_the_layers_and_swaps_before_it_are_done() {
        Ledger ledger = three().ledger();
        Swap second = ledger.swaps().get(1);
        assertThat(second.startsAt())
                .isCloseTo(
                        ledger.base().secondsUntil(11) + ledger.swaps().get(0).seconds(), within(1e-9));
        assertThat(ledger.addedSeconds()).isGreaterThan(180);
    }

    @Test
    void money_is_mass_times_price() {
        SpoolUse use = three().ledger().uses().get(1);
        // 456 mm³ of PLA at 1.24 g/cm³ and 20 a kilogram, from domain check values ± 1 mm³.
        assertThat(use.purge().cubicMillimetres()).isCloseTo(456, within(1.0));
        assertThat(use.wasteCost().doubleValue()).isCloseTo(456 * 1.24 / 1000 * 20 / 1000, within(0.0001));
    }

    @Test
    void a_solid_tile_is_estimated_from_its_walls_shells_and_infill() {
        Bench bench = new Bench();
        BasePrint base = BasePrint.from(bench.sections(), bench.grid, bench.printer, PrintSettings.COMMON);
        // Layer 1 is all shell: 20 × 20 × 0.2 mm³ of plastic, printed at 0.45 × 0.2 × 50 mm³/s.
        assertThat(base.layers().get(0).plastic().cubicMillimetres()).isCloseTo(80, within(1e-6));
        assertThat(base.layers().get(0).seconds()).isCloseTo(80 / (0.45 * 0.2 * 50) * 1.15 + 1, within(1e-6));
        // Layer 6 of 10 under the step lies within no shell of the step, but within that of the tile's top in part.
        double walls = 80 * 2 * 0.45;
        double inner = 400 - walls;
        assertThat(base.layers().get(5).plastic().cubicMillimetres())
                .isCloseTo((walls + 0.15 * inner) * 0.2, within(1e-6));
        assertThat(base.source()).isEqualTo(BasePrint.Source.MODEL);
    }

    @Test
    void how_the_model_is_filled_is_the_plans_to_say_and_stands_in_the_derivation() {
        Bench bench = three();
        double usual = bench.ledger().base().plastic().cubicMillimetres();
        bench.terms = new Terms(1, Optional.empty(), new PrintSettings(3, 0, 1));
        Ledger solid = bench.ledger();
        // Filled to the full it holds what the model does: 20 × 20 × 2 and 10 × 10 × 1.
        assertThat(solid.base().plastic().cubicMillimetres()).isCloseTo(900, within(1e-6));
        assertThat(usual).isLessThan(900);
        assertThat(solid.plainTime().parts().get(0).how()).contains("3 walls, 0 solid layers, 100 % infill");
        bench.terms = new Terms(1, Optional.empty(), new PrintSettings(1, 2, 0.4));
        PrintSettings found = BasePrint.holding(
                bench.ledger().base().plastic(),
                bench.sections(),
                bench.grid,
                bench.printer,
                new PrintSettings(1, 2, 0));
        assertThat(found.infill()).isCloseTo(0.4, within(1e-9));
        assertThat(new PrintSettings(1, 2, 0.1549).rounded()).isEqualTo(new PrintSettings(1, 2, 0.15));
        assertThatThrownBy(() -> new PrintSettings(2, 4, 1.5)).hasMessageContaining("give 0 to 100");
    }

    @Test
    void a_sliced_file_gives_time_and_plastic_of_each_layer() {
        Ledger ledger =
                three().sliced(new SmallGcode().primed().grid(0.2, 0.2, 15)).ledger();
        assertThat(ledger.base().source()).isEqualTo(BasePrint.Source.SLICED);
        assertThat(ledger.base().layers()).hasSize(15);
        double volume = 4 * 0.66 * Math.PI * 1.75 * 1.75 / 4;
        assertThat(ledger.base().layers().get(3).plastic().cubicMillimetres()).isCloseTo(volume, within(1e-3));
        assertThat(ledger.base().before().seconds()).isGreaterThan(100);
    }

    @Test
    void a_halt_delays_what_comes_after_it_and_swaps_nothing() {
        Ledger ledger = three().halt(0.6, "lay the nut in").halt(2.4, "look").ledger();
        assertThat(ledger.swaps()).hasSize(2);
        assertThat(ledger.pauses()).extracting(Pause::layer).containsExactly(4, 13);
        assertThat(ledger.pauses()).extracting(p -> p.loaded().name()).containsExactly("Soot", "Burgundy");
        Pause first = ledger.pauses().get(0);
        assertThat(first.startsAt()).isCloseTo(ledger.base().secondsUntil(4), within(1e-9));
        assertThat(first.seconds()).isGreaterThan(90);
        assertThat(ledger.swaps().get(0).startsAt())
                .isCloseTo(ledger.base().secondsUntil(6) + first.seconds(), within(1e-9));
        assertThat(ledger.purgeLength().value())
                .isEqualTo(three().ledger().purgeLength().value());
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
        assertThat(ledger.addedTime().value()).isCloseTo(ledger.addedSeconds(), within(1e-6));
    }

    @Test
    void a_halt_at_a_swap_that_waits_for_a_person_costs_nothing_more() {
        Ledger with = three().halt(1, "lay the nut in").ledger();
        assertThat(with.pauses()).hasSize(1);
        assertThat(with.pauses().get(0).dryRun()).isEmpty();
        assertThat(with.totalSeconds()).isEqualTo(three().ledger().totalSeconds());
    }

    @Test
    void a_halt_at_a_swap_that_needs_nobody_stops_before_it() {
        Bench bench = three().halt(1, "lay the nut in").swapping(new Step.SelectExtruder());
        bench.rack = Optional.of(Rack.of(bench.printer, 3));
        Ledger ledger = bench.ledger();
        assertThat(ledger.pauses().get(0).dryRun()).isPresent();
        assertThat(ledger.swaps().get(0).startsAt())
                .isCloseTo(
                        ledger.pauses().get(0).startsAt()
                                + ledger.pauses().get(0).seconds(),
                        within(1e-9));
    }

    @Test
    void a_nozzle_that_prints_is_hot_however_the_file_heats_it() {
        String waits = new String(new SmallGcode().grid(0.2, 0.2, 15).bytes(), StandardCharsets.ISO_8859_1);
        double swap = three().sliced(waits.getBytes(StandardCharsets.ISO_8859_1))
                .ledger()
                .swaps()
                .get(0)
                .seconds();
        // Told and not waited for; and by the printer's own lines for its start, of which the file says nothing.
        for (String heats : new String[] {"M104 S210", "START_PRINT"}) {
            assertThat(three().sliced(waits.replace("M109 S210", heats).getBytes(StandardCharsets.ISO_8859_1))
                            .ledger()
                            .swaps()
                            .get(0)
                            .seconds())
                    .as(heats)
                    .isCloseTo(swap, within(10.0));
        }
    }

    @Test
    void a_nozzle_that_was_told_to_cool_while_somebody_swaps_is_heated_again() {
        Bench bench = three().swapping(
                        new Step.Cool(),
                        new Step.WaitForPerson(Command.M0),
                        new Step.Heat(HeatFor.INCOMING),
                        new Step.Return());
        Swap swap = bench.ledger().swaps().get(1);
        // By hand: in 90 s from 205 towards the room, no lower than standby, and up again at full power.
        double cooled = Math.max(swap.moment().standby(), 20 + 185 * Math.exp(-90 / 150.0));
        assertThat(swap.dryRun().strip().get(2).machine())
                .isCloseTo(150 * Math.log((400 - cooled) / (400 - 205)), within(1.0));
    }

    @Test
    void a_first_load_that_is_on_comes_before_layer_1_and_is_no_swap() {
        Bench bench = three();
        int first = 1;
        assertThat(bench.macros.macro(first).event()).isEqualTo(Event.FIRST_LOAD);
        bench.macros = bench.macros.replace(first, bench.macros.macro(first).turned(true));
        Ledger ledger = bench.ledger();
        assertThat(ledger.swaps()).hasSize(2);
        assertThat(ledger.firstLoad().orElseThrow().spool()).isEqualTo(Spools.SOOT);
        assertThat(ledger.swaps().get(0).startsAt())
                .isCloseTo(
                        three().ledger().swaps().get(0).startsAt()
                                + ledger.firstLoad().get().seconds(),
                        within(1e-6));
        assertThat(ledger.totalSeconds())
                .isCloseTo(
                        three().ledger().totalSeconds()
                                + ledger.firstLoad().get().seconds(),
                        within(1e-6));
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
    }

    @Test
    void two_extruders_alternate_through_three_spools() {
        Bench bench = three();
        bench.rack = Optional.of(Rack.of(bench.printer, 2));
        assertThat(bench.ledger().loading().stages())
                .extracting(Loading.Stage::extruder)
                .containsExactly(0, 1, 0);
        assertThat(bench.ledger().swaps())
                .extracting(s -> s.moment().extruder())
                .containsExactly(1, 0);
    }

    @Test
    void the_same_print_in_layers_half_as_high_takes_about_twice_as_long() {
        Bench bench = three();
        BasePrint base = bench.ledger().base();
        Height half = Height.ofMillimetres(0.1);
        assertThat(base.roughSecondsIn(bench.grid, bench.grid.layerHeight(), 15, 1))
                .isCloseTo(base.seconds(), within(1e-9));
        double fine = base.roughSecondsIn(bench.grid, half, 30, 1);
        assertThat(fine).isCloseTo(2 * base.seconds(), within(1e-9));
        // One layer more is one second more for each copy, for the way to it.
        assertThat(base.times(4).roughSecondsIn(bench.grid, half, 31, 4)
                        - base.times(4).roughSecondsIn(bench.grid, half, 30, 4))
                .isCloseTo(4 * BasePrint.SECONDS_PER_LAYER, within(1e-9));
    }

    /** Two colours side by side on every layer of the tile. */
    private static Bench halves() {
        Bench bench = new Bench();
        return bench.region(new Region(
                "half", new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false), Spools.CHALK.id(), Range.ALL));
    }

    @Test
    void added_time_is_exactly_the_whole_print_less_the_same_print_in_one_colour() {
        Bench tower = halves().halt(1, "look");
        tower.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        for (Bench bench : new Bench[] {three(), halves(), tower}) {
            Ledger ledger = bench.ledger();
            assertThat(ledger.addedTime().value())
                    .isCloseTo(ledger.totalTime().value() - ledger.plainTime().value(), within(1e-9))
                    .isCloseTo(ledger.addedSeconds(), within(1e-6));
            assertThat(ledger.totalSeconds()).isCloseTo(ledger.totalTime().value(), within(1e-6));
            assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
            assertThat(ledger.layers().end(15)).isCloseTo(ledger.totalSeconds(), within(1e-6));
        }
    }

    @Test
    void a_tower_costs_its_purge_its_shell_and_its_own_printing() {
        Bench bench = three();
        double bin = bench.ledger().wasteGrams().value();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        Ledger ledger = bench.ledger();
        // By hand: 456 mm³ before layer 6, 0.2 mm high and 30 wide, are 76 deep; a shell is 2 (30 + 76) · 0.45 · 0.2.
        double deepest = ledger.swaps().stream()
                .mapToDouble(s -> s.purge().volume().cubicMillimetres())
                .max()
                .orElseThrow();
        double shell = 2 * (30 + deepest / 6) * 0.45 * 0.2;
        assertThat(ledger.tower().orElseThrow().layers()).hasSize(11);
        assertThat(ledger.tower().get().layers().get(0).cubicMillimetres()).isCloseTo(shell, within(1e-9));
        assertThat(ledger.wasteGrams().value()).isCloseTo(bin + 9 * shell * 1.24 / 1000, within(1e-6));
        double plastic = ledger.tower().get().plastic().cubicMillimetres();
        assertThat(ledger.addedTime().value())
                .isGreaterThan(plastic / (0.45 * 0.2 * bench.printer.motion().printSpeed()) * 1.15 + 11);
        // What is printed onto the tower is not pushed by the macro too.
        assertThat(ledger.swaps().get(0).moment().purge()).isZero();
    }

    @Test
    void copies_multiply_time_and_plastic_and_leave_swaps_and_purge() {
        Bench bench = three();
        Ledger one = bench.ledger();
        bench.terms = new Terms(12, Optional.empty());
        Ledger twelve = bench.ledger();
        assertThat(twelve.swaps()).hasSameSizeAs(one.swaps());
        assertThat(twelve.purgeGrams().value()).isEqualTo(one.purgeGrams().value());
        assertThat(twelve.base().seconds()).isCloseTo(12 * one.base().seconds(), within(1e-6));
        assertThat(twelve.uses().get(0).plastic().cubicMillimetres())
                .isCloseTo(12 * one.uses().get(0).plastic().cubicMillimetres(), within(1e-6));
        assertThat(twelve.each(twelve.totalTime()).value()).isLessThan(one.totalSeconds());
    }

    @Test
    void another_order_is_told_from_its_own_by_what_it_takes_longer() {
        BasePrint sliced = three().ledger().base();
        BasePrint slower = sliced.at(new Pace(1.5, 1)).insteadOf(sliced);
        assertThat(slower.waysOver()).isCloseTo(0.5 * sliced.seconds(), within(1e-6));
        assertThat(slower.at(new Pace(3, 1)).waysOver()).isCloseTo(sliced.seconds(), within(1e-6));
        assertThat(sliced.insteadOf(slower).waysOver()).isZero();
    }

    @Test
    void a_sliced_file_holds_all_copies_already() {
        Bench bench = three().sliced(new SmallGcode().grid(0.2, 0.2, 15));
        double one = bench.ledger().totalSeconds();
        bench.terms = new Terms(4, Optional.empty());
        assertThat(bench.ledger().totalSeconds()).isEqualTo(one);
    }

    @Test
    void a_machine_that_takes_longer_than_reckoned_prints_longer_and_swaps_as_before() {
        Bench bench = three();
        Ledger usual = bench.ledger();
        bench.printer = bench.printer.with(bench.printer.motion().with(new Pace(1.25, 0.9)));
        Ledger slow = bench.ledger();
        assertThat(slow.base().seconds()).isCloseTo(1.25 * usual.base().seconds(), within(1e-6));
        assertThat(slow.addedSeconds()).isCloseTo(usual.addedSeconds(), within(1e-6));
        assertThat(slow.swaps().get(1).startsAt() - slow.swaps().get(0).startsAt())
                .isGreaterThan(
                        usual.swaps().get(1).startsAt() - usual.swaps().get(0).startsAt());
        assertThat(slow.plainTime().parts().get(0).how()).endsWith(", × 1.25 as set for the printer");
        assertThat(usual.plainTime().parts().get(0).how()).doesNotContain("printer");
    }

    @Test
    void what_was_measured_with_sliced_files_counts_for_these() {
        Bench bench = three().sliced(new SmallGcode().grid(0.2, 0.2, 15));
        double usual = bench.ledger().base().seconds();
        bench.printer = bench.printer.with(bench.printer.motion().with(new Pace(1.25, 0.9)));
        assertThat(bench.ledger().base().seconds()).isCloseTo(0.9 * usual, within(1e-6));
    }

    @Test
    void a_pace_is_taken_off_again_as_it_was_put_on() {
        BasePrint usual = three().ledger().base();
        Pace slow = new Pace(1.25, 0.9);
        assertThat(usual.at(slow).at(slow).seconds()).isCloseTo(1.25 * usual.seconds(), within(1e-6));
        assertThat(usual.at(slow).at(Pace.AS_RECKONED).seconds()).isCloseTo(usual.seconds(), within(1e-6));
    }

    @Test
    void a_swap_lies_between_the_layers_that_it_parts() {
        Ledger ledger = three().ledger();
        assertThat(ledger.swaps()).extracting(Swap::number).containsExactly(1, 2);
        assertThat(ledger.swaps()).extracting(Swap::place).containsExactly("before layer 6", "before layer 11");
        assertThat(ledger.swaps().get(1).moment())
                .returns("B Chalk", Moment::out)
                .returns("C Burgundy", Moment::in)
                .returns(2, Moment::of)
                .returns(2.0, m -> m.entry().z());
        for (Swap swap : ledger.swaps()) {
            assertThat(ledger.layers().end(swap.layer() - 1)).isCloseTo(swap.startsAt(), within(1e-6));
            assertThat(ledger.layers().begin(swap.layer())).isCloseTo(swap.startsAt() + swap.seconds(), within(1e-6));
        }
        assertThat(ledger.layers().end(15)).isCloseTo(ledger.totalSeconds(), within(1e-6));
        assertThat(halves().ledger().swaps()).extracting(Swap::place).contains("in layer 1");
    }

    @Test
    void current_is_watts_times_hours_times_the_tariff() {
        Bench bench = three();
        double plastic = bench.ledger().cost().value();
        bench.terms = new Terms(1, Optional.of(new Power(120, new BigDecimal("0.30"))));
        Ledger ledger = bench.ledger();
        assertThat(ledger.cost().value() - plastic).isCloseTo(0.12 * ledger.totalSeconds() / 3600 * 0.30, within(1e-9));
    }

    @Test
    void in_bands_the_nozzle_swaps_on_top_of_the_highest_that_stands() {
        Bench bench = halves();
        bench.plan = bench.plan.with(bench.plan.ordering().by(Ordering.Rule.BANDS));
        Ledger ledger = bench.ledger();
        assertThat(ledger.swaps()).hasSize(1);
        assertThat(ledger.swaps().get(0).layer()).isEqualTo(1);
        assertThat(ledger.swaps().get(0).within()).isTrue();
        assertThat(ledger.swaps().get(0).height().toString()).isEqualTo("3.00");
        assertThat(ledger.layers().begin(2)).isLessThan(ledger.swaps().get(0).startsAt());
        assertThat(ledger.layers().end(2)).isGreaterThan(ledger.swaps().get(0).startsAt());
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
    }

    @Test
    void tool_changes_of_a_sliced_file_are_the_swaps() {
        SmallGcode gcode = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            String first = layer % 2 == 1 ? "T0" : "T1";
            String second = layer % 2 == 1 ? "T1" : "T0";
            gcode.line(first).layers(0.2 * layer).line(second).layers(0.2 * layer);
        }
        Bench bench = halves().sliced(gcode);
        Ledger ledger = bench.ledger();
        assertThat(ledger.swaps()).hasSize(15).allMatch(Swap::within).allMatch(s -> s.door()
                .isPresent());
        assertThat(ledger.swaps().get(0).in()).isEqualTo(Spools.CHALK);
        assertThat(ledger.base().source()).isEqualTo(BasePrint.Source.SLICED);
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
        double purged = ledger.purgeGrams().value();
        assertThat(purged)
                .isCloseTo(
                        bench.printer
                                .filament()
                                .volume(ledger.purgeLength().value())
                                .grams(1.24),
                        within(1e-6));
        // A file that prints nothing beside the model holds no tower, whatever the plan says of its purge.
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        assertThat(bench.ledger().base().holdsTower()).isFalse();
        assertThat(bench.ledger().uses()).allSatisfy(u -> assertThat(u.plastic().cubicMillimetres())
                .isEqualTo(ledger.uses().stream()
                        .filter(v -> v.spool().equals(u.spool()))
                        .findFirst()
                        .orElseThrow()
                        .plastic()
                        .cubicMillimetres()));
        // With a tower in the file, its plastic is part and purge together.
        SmallGcode beside = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            String first = layer % 2 == 1 ? "T0" : "T1";
            String second = layer % 2 == 1 ? "T1" : "T0";
            beside.line(first).layers(0.2 * layer).line(second).dab(130, 100).layers(0.2 * layer);
        }
        bench.sliced(beside);
        Ledger tower = bench.ledger();
        assertThat(tower.base().holdsTower()).isTrue();
        assertThat(tower.tower()).isEmpty();
        assertThat(tower.uses().stream()
                        .mapToDouble(u -> u.plastic().plus(u.purge()).cubicMillimetres())
                        .sum())
                .isCloseTo(
                        tower.base().before().plastic().cubicMillimetres()
                                + tower.base().layers().stream()
                                        .mapToDouble(l -> l.plastic().cubicMillimetres())
                                        .sum(),
                        within(1e-6));
        assertThat(bench.findings()).extracting(Finding::key).contains("tools-are-swaps");
    }

    @Test
    void a_towers_time_is_that_of_the_colours_printed_onto_it() {
        Bench bench = halves();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        Ledger ledger = bench.ledger();
        double perCubicMillimetre =
                1.15 / (bench.printer.lineWidth() * 0.2 * bench.printer.motion().printSpeed());
        double ways = 0;
        for (SpoolUse use : ledger.uses()) {
            double purge = ledger.swaps().stream()
                    .filter(s -> s.in().equals(use.spool()))
                    .mapToDouble(s -> s.purge().volume().cubicMillimetres())
                    .sum();
            double idle = use.tower().cubicMillimetres();
            // Each layer's way to the tower, a second, goes to the colour that is loaded when it begins.
            double seconds = use.towerSeconds() - (purge + idle) * perCubicMillimetre;
            assertThat(seconds)
                    .isBetween(-1e-6, ledger.tower().orElseThrow().layers().size() + 1e-6);
            assertThat(seconds).isCloseTo(Math.rint(seconds), within(1e-6));
            ways += seconds;
        }
        assertThat(ways).isCloseTo(ledger.tower().orElseThrow().layers().size(), within(1e-6));
        assertThat(ledger.timePerColour().value()).isCloseTo(ledger.totalSeconds(), within(1e-6));
    }

    @Test
    void a_swap_inside_the_first_layer_heats_for_the_first_layer() {
        Bench bench = halves();
        assertThat(Spools.CHALK.firstLayerTemperature()).isNotEqualTo(Spools.CHALK.temperature());
        Swap first = bench.ledger().swaps().get(0);
        assertThat(first.layer()).isEqualTo(1);
        assertThat(first.moment().temperatureIn()).isEqualTo(Spools.CHALK.firstLayerTemperature());
        assertThat(first.moment().temperatureOut()).isEqualTo(Spools.SOOT.firstLayerTemperature());
        assertThat(bench.ledger().swaps().get(2).moment().temperatureIn()).isEqualTo(Spools.CHALK.temperature());
    }

    /** Each line was reckoned again by hand from the lines beneath it. */
    @Test
    void an_opened_figure_reads_from_what_it_is_down_to_what_was_given() {
        Bench bench = three().halt(0.6, "lay the nut in");
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        bench.terms = new Terms(1, Optional.of(new Power(120, new BigDecimal("0.30"))));
        bench.inNozzle = Optional.of(Spools.MUSTARD.id());
        bench.macros = bench.macros.replace(1, bench.macros.macro(1).turned(true));
        assertThat(opened(bench.ledger().figures()))
                .isEqualTo(
                        """
                        Swaps: 2.00 COUNT, one wherever what is printed next has another spool; the first load is none, nor is a blend that turns into another
                          Soot → Chalk: 1.00 COUNT, before layer 6
                          Chalk → Burgundy: 1.00 COUNT, before layer 11
                        Purge: 278.55 MILLIMETRES, what is in the nozzle, and the purges of all swaps
                          Mustard, left in the nozzle → Soot: 48.23 MILLIMETRES, pushed out before the first layer
                            Volume: 116.00 CUBIC_MILLIMETRES, V₀ ln(1/c*), rounded up, × plastic × factor
                              Colour difference: 55.52 RATIO, CIEDE2000, unmixed
                              c*: 0.15 RATIO, share of the old colour nobody sees
                              Other plastic: 1.00 RATIO, 1, or 1.5 between classes
                              Factor: 1.00 RATIO, the plan's
                          Soot → Chalk: 190.00 MILLIMETRES, volume ÷ π d²/4, d = 1.75 mm
                            Volume: 457.00 CUBIC_MILLIMETRES, V₀ ln(1/c*), rounded up, × plastic × factor
                              Colour difference: 83.99 RATIO, CIEDE2000, unmixed
                              c*: 0.00 RATIO, share of the old colour nobody sees
                              Other plastic: 1.00 RATIO, 1, or 1.5 between classes
                              Factor: 1.00 RATIO, the plan's
                          Chalk → Burgundy: 40.33 MILLIMETRES, volume ÷ π d²/4, d = 1.75 mm
                            Volume: 97.00 CUBIC_MILLIMETRES, V₀ ln(1/c*), rounded up, × plastic × factor
                              Colour difference: 66.32 RATIO, CIEDE2000, unmixed
                              c*: 0.20 RATIO, share of the old colour nobody sees
                              Other plastic: 1.00 RATIO, 1, or 1.5 between classes
                              Factor: 1.00 RATIO, the plan's
                        Waste: 1.04 GRAMS, what is printed or pushed and thrown away
                          Purge: 0.83 GRAMS, volume × density of the spool pushed through
                            Soot: 0.14 GRAMS, 116 mm³ × 1.24 g/cm³
                            Chalk: 0.57 GRAMS, 457 mm³ × 1.24 g/cm³
                            Burgundy: 0.12 GRAMS, 97 mm³ × 1.24 g/cm³
                          Tower beside purge: 0.21 GRAMS, 30 × 76.2 mm, to layer 11: per layer its purge or its shell, whichever is more
                            Soot: 0.12 GRAMS, 96 mm³ × 1.24 g/cm³
                            Chalk: 0.09 GRAMS, 76 mm³ × 1.24 g/cm³
                        Whole print: 810.40 SECONDS, in one colour, and what colours add
                          In one colour: 308.25 SECONDS, printing and halts
                            Printing: 208.85 SECONDS, estimated from the model: 2 walls, 4 solid layers, 15 % infill, 15 % travel, 1 s a layer
                            Halt: lay the nut in: 99.39 SECONDS, before layer 4
                              Machine: 9.39 SECONDS, dry run of the macro
                              Person: 90.00 SECONDS, at its stops, as the macro says
                          Added time: 502.16 SECONDS, all that comes with colours, machine and person
                            First load of Soot: 114.80 SECONDS, before layer 1
                              Machine: 12.75 SECONDS, dry run of the macro
                              Person: 102.06 SECONDS, at its stops, as the macro says
                            Soot → Chalk: 95.41 SECONDS, before layer 6
                              Machine: 5.41 SECONDS, dry run of the macro
                              Person: 90.00 SECONDS, at its stops, as the macro says
                            Chalk → Burgundy: 95.41 SECONDS, before layer 11
                              Machine: 5.41 SECONDS, dry run of the macro
                              Person: 90.00 SECONDS, at its stops, as the macro says
                            Tower: 196.53 SECONDS, 726 mm³ at the printer's print speed, 15 % travel, 1 s a layer
                        Time by colour: 810.40 SECONDS, printing with it, and the swaps that put it in
                          Soot: 337.59 SECONDS, printing, its swaps, its share of the tower
                          Chalk: 324.84 SECONDS, printing, its swaps, its share of the tower
                          Burgundy: 147.98 SECONDS, printing, its swaps, its share of the tower
                        Filament: 1.98 GRAMS, part and waste
                          Soot: 0.69 GRAMS, 0.4 g part, 0.3 g waste
                          Chalk: 1.06 GRAMS, 0.4 g part, 0.7 g waste
                          Burgundy: 0.23 GRAMS, 0.1 g part, 0.1 g waste
                        Cost: 0.05 MONEY, part and waste, mass × price, and current
                          Soot: 0.01 MONEY, 0.69 g × 20 a kg
                          Chalk: 0.02 MONEY, 1.06 g × 20 a kg
                          Burgundy: 0.00 MONEY, 0.23 g × 20 a kg
                          Current: 0.01 MONEY, 0.03 kWh at 120 W × 0.30 a kWh
                        """);
    }

    @Test
    void what_a_routine_pushes_and_a_small_tower_takes_after_it_are_told_apart_and_so_is_what_was_measured() {
        Bench bench = three();
        bench.terms = new Terms(2, Optional.empty());
        bench.measured = List.of(new MeasuredPurge(Spools.SOOT.id(), Spools.CHALK.id(), new Volume(300)));
        bench.purge = new PurgeSettings(2, 1.2, new PurgePlace.Bin());
        Ledger bin = bench.ledger();
        assertThat(opened(List.of(bin.purgeLength(), bin.wasteCost(), bin.plainTime(), bin.each(bin.purgeGrams()))))
                .isEqualTo(
                        """
                        Purge: 198.06 MILLIMETRES, the purges of all swaps
                          Soot → Chalk: 149.67 MILLIMETRES, volume ÷ π d²/4, d = 1.75 mm
                            Volume: 360.00 CUBIC_MILLIMETRES, measured, × factor
                              Measured: 300.00 CUBIC_MILLIMETRES, on this printer
                              Factor: 1.20 RATIO, the plan's
                          Chalk → Burgundy: 48.39 MILLIMETRES, volume ÷ π d²/4, d = 1.75 mm
                            Volume: 116.40 CUBIC_MILLIMETRES, V₀ ln(1/c*), rounded up, × plastic × factor
                              Colour difference: 66.32 RATIO, CIEDE2000, unmixed
                              c*: 0.20 RATIO, share of the old colour nobody sees
                              Other plastic: 1.00 RATIO, 1, or 1.5 between classes
                              Factor: 1.20 RATIO, the plan's
                        Waste: 0.01 MONEY, mass × price
                          Chalk: 0.01 MONEY, 0.45 g × 20 a kg
                          Burgundy: 0.00 MONEY, 0.14 g × 20 a kg
                        In one colour: 417.71 SECONDS, printing and halts
                          Printing: 417.71 SECONDS, estimated from the model: 2 walls, 4 solid layers, 15 % infill, 15 % travel, 1 s a layer, × 2 copies
                        Purge, each: 0.30 GRAMS, the plate's ÷ 2
                          Purge: 0.59 GRAMS, volume × density of the spool pushed through
                            Chalk: 0.45 GRAMS, 360 mm³ × 1.24 g/cm³
                            Burgundy: 0.14 GRAMS, 116 mm³ × 1.24 g/cm³
                        """);
        bench.purge = bench.purge.into(new PurgePlace.Routine(80, Optional.of(PurgePlace.SmallTower.USUAL)));
        // 15 mm³ are 6.24 mm of filament.
        assertThat(opened(List.of(bench.ledger().purgeLength())))
                .isEqualTo(
                        """
                        Purge: 172.47 MILLIMETRES, the purges of all swaps
                          Soot → Chalk: 86.24 MILLIMETRES, what the machine's routine pushes, whatever the colours
                            The machine's routine: 80.00 MILLIMETRES, beside the print
                            Small tower: 6.24 MILLIMETRES, after it
                          Chalk → Burgundy: 86.24 MILLIMETRES, what the machine's routine pushes, whatever the colours
                            The machine's routine: 80.00 MILLIMETRES, beside the print
                            Small tower: 6.24 MILLIMETRES, after it
                        """);
        bench.purge = bench.purge.into(new PurgePlace.Routine(80));
        assertThat(bench.ledger().purgeLength().value()).isCloseTo(160, within(1e-9));
        assertThat(bench.ledger().purgeLength().parts())
                .allSatisfy(p -> assertThat(p.parts()).isEmpty());
        assertThat(bench.ledger().swaps()).allMatch(w -> w.moment().purge() > 79.9);
        // Nobody pushes by hand what the machine's own routine pushes.
        assertThat(bench.ledger().swaps()).noneMatch(w -> w.moment().byRoutine());
        bench.swapping(Step.FirmwareRoutine.PLAIN);
        assertThat(bench.ledger().swaps()).allMatch(w -> w.moment().byRoutine());
    }

    private static String opened(List<Derivation> figures) {
        return figures.stream()
                .map(f -> Words.format("%s: %.2f %s, %s\n", f.label(), f.value(), f.unit(), f.how())
                        + opened(f.parts()).indent(2))
                .collect(Collectors.joining());
    }

    @Test
    void an_opened_figure_shows_parts_that_add_up() {
        Bench bench = three();
        bench.terms = Terms.ONE;
        for (Derivation figure : bench.ledger().figures()) {
            assertAddsUp(figure.rounded());
        }
    }

    private static void assertAddsUp(Derivation figure) {
        boolean sum = figure.parts().size() > 1
                && figure.unit() != Unit.RATIO
                && figure.parts().stream().allMatch(p -> p.unit() == figure.unit());
        if (sum) {
            assertThat(figure.parts().stream().mapToDouble(Derivation::value).sum())
                    .as(figure.label())
                    .isCloseTo(figure.value(), within(1e-9));
        }
        figure.parts().forEach(LedgerTest::assertAddsUp);
    }
}
