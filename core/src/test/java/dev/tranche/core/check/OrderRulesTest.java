package dev.tranche.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Severity;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class OrderRulesTest {

    private static Bench box(Bench bench, Spool spool, double middle, double width, Range range) {
        return bench.region(new Region(
                spool.name(), new Shape.Zone(new Outline.Box(width, 20), middle, 10, 0, false), spool.id(), range));
    }

    private static Bench halves() {
        return box(new Bench(), Spools.CHALK, 5, 10, Range.ALL);
    }

    private static void mend(Bench bench, String key) {
        Fix fix = bench.found(key).fix().orElseThrow();
        bench.plan = fix.colours().apply(bench.plan);
        bench.purge = fix.purge().apply(bench.purge);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain(key);
    }

    @Test
    void bands_are_offered_where_colours_lie_side_by_side_and_need_a_file_with_tools() {
        Bench bench = halves();
        assertThat(bench.ledger().swaps()).hasSize(15);
        mend(bench, "side-by-side");
        assertThat(bench.ledger().swaps()).hasSizeLessThanOrEqualTo(5);
        mend(bench, "order-needs-tools");
        assertThat(bench.ledger().swaps()).hasSize(15);
    }

    /** Two halves, layer by layer, and what is said before and after each change of tools. */
    private static Bench halvesSliced(String before, String... after) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            for (int tool = 0; tool < 2; tool++) {
                boolean changes = layer > 1 || tool > 0;
                gcode.line(changes ? before : ";").line("T" + tool).line(changes ? after[tool] : ";");
                gcode.rise(0.2 * layer).outline(tool == 0 ? 100.2 : 90.2, 90.2, 9.6, 19.6, 0.04);
            }
        }
        return halves().sliced(gcode);
    }

    @Test
    void what_a_file_waits_for_at_its_own_changes_of_tools_is_waited_for_in_no_other_order() {
        Bench waiting = halvesSliced(";", "M109 S190", "M109 S230");
        Reckoning slow = waiting.reckoning();
        Reckoning quick = halvesSliced(";", "M104 S190", "M104 S230").reckoning();
        Orders orders = quick.facts().orders();
        for (PrintOrder order : List.of(orders.banded(), orders.best())) {
            assertThat(slow.ledger(order).totalSeconds())
                    .isCloseTo(quick.ledger(order).totalSeconds(), within(1.0));
        }
        Ledger own = slow.facts().ledger();
        assertThat(own.totalSeconds()).isGreaterThan(quick.facts().ledger().totalSeconds() + 100);
        assertThat(slow.ledger(slow.asSliced().orElseThrow()).totalSeconds()).isEqualTo(own.totalSeconds());
        SlicedFile file = waiting.file.orElseThrow();
        assertThat(file.seconds() - file.heatingAtChanges())
                .isCloseTo(file.warmAtChanges().seconds(), within(1e-6));
        // In one colour nobody would wait for that.
        assertThat(own.plainSeconds())
                .isCloseTo(quick.facts().ledger().plainSeconds(), within(1.0))
                .isCloseTo(slow.ledger(orders.banded()).plainSeconds(), within(1.0));
        assertThat(own.addedTime().value()).isCloseTo(own.addedSeconds(), within(1e-6));
        assertThat(own.addedTime().parts()).extracting(Derivation::label).contains("Heating");
    }

    /** Swaps heat and purge as the shelf says, and the file prints as it was sliced. */
    @Test
    void a_spool_that_the_file_prints_much_hotter_than_it_takes_is_told_with_both_temperatures() {
        assertThat(halvesSliced(";", "M104 S205", "M104 S215").findings())
                .extracting(Finding::key)
                .doesNotContain("heat-differs");
        Bench bench = halvesSliced(";", "M109 S205", "M109 S240");
        Finding differs = bench.found("heat-differs");
        assertThat(differs.severity()).isEqualTo(Severity.WARN);
        assertThat(differs.sentence()).contains("Chalk at 240 °C", "210 °C").doesNotContain("Soot");
        assertThat(differs.sentence().split("Chalk", -1)).hasSize(2);
        assertThat(differs.layer()).hasValue(1);
        bench.said = Said.NOTHING.accepting(Set.of(differs.word()));
        assertThat(bench.found("heat-differs").accepted()).isTrue();
        // With one tool the file says it of the first spool, and swaps of the others.
        Bench one = new Bench().start(1, Spools.CHALK);
        one.sliced(new SmallGcode().line("M104 S250").grid(0.2, 0.2, 15));
        assertThat(one.found("heat-differs").sentence()).contains("Soot at 250 °C", "210 °C");
    }

    /** Also of a file that lets the nozzle cool at the end of each piece, and goes on doing so. */
    @Test
    void what_an_order_was_said_to_take_it_takes_when_the_file_is_put_into_it() {
        for (Bench bench : List.of(
                halvesSliced(";", "M109 S190", "M109 S230"), halvesSliced("M109 S160", "M109 S210", "M109 S210"))) {
            Reckoning asked = bench.reckoning();
            double said = asked.ledger(asked.facts().orders().banded()).totalSeconds();
            bench.plan = bench.plan.with(bench.plan.ordering().by(Rule.BANDS));
            assertThat(bench.reckoning().brief().rearranging().made()).isPresent();
            // Ways over what stands are known only then.
            assertThat(bench.ledger().totalSeconds()).isCloseTo(said, within(60.0));
            // The purge where it goes already costs what the plan costs.
            assertThat(bench.reckoning().ledger(bench.ledger().place()).totalSeconds())
                    .isCloseTo(bench.ledger().totalSeconds(), within(1e-6));
            assertThat(bench.reckoning().ledger(bench.ledger().place()).addedSeconds())
                    .isCloseTo(bench.ledger().addedSeconds(), within(1e-6));
        }
    }

    @Test
    void a_numbering_that_needs_fewer_swaps_is_offered() {
        // Layer 1 holds soot, chalk and burgundy, layer 2 soot and chalk: by number, burgundy is loaded in between.
        Bench bench = box(new Bench(), Spools.CHALK, 3, 6, Range.ofLayers(new Bench().grid, 1, 2));
        box(bench, Spools.BURGUNDY, 17, 6, Range.ofLayers(bench.grid, 1, 1));
        int before = bench.ledger().swaps().size();
        mend(bench, "better-numbering");
        assertThat(bench.ledger().swaps()).hasSizeLessThan(before);
    }

    @Test
    void so_it_is_where_there_are_too_many_colours_to_try_every_numbering() {
        // Layer 1 holds all eight, layer 2 the first two, the rest the first: seven swaps, two and one by number; with
        // the second printed last on layer 1 and the first last on layer 2 seven and one.
        Bench bench = box(new Bench(), Spools.CHALK, 3, 2, Range.ofLayers(new Bench().grid, 1, 2));
        for (int i = 2; i < 8; i++) {
            Spool spool = Spools.spool(10 + i, "Tint " + i, "#" + i * 11 + "60A0");
            bench.shelf.put(spool.id(), spool);
            box(bench, spool, 2 * i + 1, 2, Range.ofLayers(bench.grid, 1, 1));
        }
        assertThat(bench.ledger().swaps().size()).isEqualTo(10);
        mend(bench, "better-numbering");
        assertThat(bench.ledger().swaps().size()).isEqualTo(8);
    }

    @Test
    void a_tower_without_need_is_said_to_be_none() {
        Bench bench = new Bench().start(1, Spools.CHALK);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        assertThat(bench.found("tower-not-needed").sentence()).contains("saves");
        double waste = bench.ledger().wasteGrams().value();
        Fix fix = bench.found("tower-not-needed").fix().orElseThrow();
        bench.purge = fix.purge().apply(bench.purge);
        assertThat(bench.ledger().wasteGrams().value()).isLessThan(waste);
    }

    @Test
    void purge_that_nobody_pushes_needs_a_tower() {
        Bench bench = halves().swapping(new Step.SelectExtruder());
        mend(bench, "tower-needed");
        assertThat(bench.ledger().tower()).isPresent();
    }

    @Test
    void a_routine_that_pushes_too_little_is_told_how_much() {
        Bench bench = new Bench().start(1, Spools.CHALK);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.Routine(60));
        // Soot to chalk: 456 mm³ are 190 mm of 1.75 mm filament.
        assertThat(bench.found("routine-too-short").sentence()).contains("190 mm");
        mend(bench, "routine-too-short");
    }

    @Test
    void more_copies_than_the_bed_holds_are_stopped_at_the_desk() {
        Bench bench = new Bench();
        // Tiles of 20 × 20 mm, 2 mm apart: a bed of 220 × 220 holds ten times ten of them.
        bench.terms = new Terms(100, Optional.empty());
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("too-many-copies");
        bench.terms = new Terms(101, Optional.empty());
        assertThat(bench.found("too-many-copies").sentence()).contains("room for 100 of 101 copies");
        // Edge to edge, eleven times eleven.
        bench.plate = Optional.of(new Plate(121, 0, List.of()));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("too-many-copies", "copies-too-near");
    }

    @Test
    void copies_over_the_rim_or_in_one_another_are_stopped_and_a_sliced_file_knows_better() {
        Bench bench = new Bench();
        bench.terms = new Terms(2, Optional.empty());
        bench.plate = Optional.of(new Plate(2, 2, List.of(new Spot(5, 100, 0), new Spot(100, 100, 0))));
        assertThat(bench.found("copies-beyond").sentence()).startsWith("Copy 1 reaches beyond the bed");
        bench.plate = Optional.of(new Plate(2, 2, List.of(new Spot(100, 100, 0), new Spot(121, 100, 0))));
        assertThat(bench.found("copies-too-near").sentence()).startsWith("Copies 1 and 2 are 1.0 mm apart");
        bench.plate = Optional.of(new Plate(2, 2, List.of(new Spot(100, 100, 0), new Spot(110, 100, 30))));
        assertThat(bench.found("copies-too-near").sentence()).startsWith("Copies 1 and 2 stand in one another");
        bench.sliced(new SmallGcode().grid(0.2, 0.2, 15));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("copies-too-near");
    }

    @Test
    void tools_without_a_spool_and_colours_elsewhere_than_planned_are_found() {
        SmallGcode gcode = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            gcode.layers(0.2 * layer);
            if (layer == 8) {
                gcode.line("T1");
            }
        }
        assertThat(new Bench().sliced(gcode).found("tool-without-spool").sentence())
                .contains("T1");
        Finding differ = halves().sliced(gcode).found("file-colours-differ");
        assertThat(differ.layer()).hasValue(1);
        assertThat(differ.sentence()).contains("prints A Soot and the plan has A Soot and B Chalk");
        Bench agrees = new Bench().start(1.6, Spools.CHALK).sliced(gcode);
        assertThat(agrees.found("tools-are-swaps").sentence()).contains("T1 is B Chalk");
        assertThat(agrees.ledger().swaps()).hasSize(1);
    }
}
