package dev.tranche.core.rearrange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Head;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Thing;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Copies and parts that are printed whole before the next. */
class OneAfterAnotherTest {
    private static final List<Spool> FOUR = List.of(Spools.SOOT, Spools.CHALK, Spools.BURGUNDY, Spools.SKY);

    /** Covers of 20 × 20 mm in a row, so far apart, each in a colour of its own. */
    private static Bench covers(double apart, double height) {
        Bench bench = new Bench();
        List<Mesh> solids = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            solids.add(new Shapes().box(i * (20 + apart), 0, 0, 20, 20, height).mesh());
        }
        bench.body = Optional.of(new Body(solids, 0));
        bench.mesh = solids.get(0);
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        for (int i = 1; i < 4; i++) {
            bench.region(new Region(
                    "cover " + i, new Shape.Parts(List.of(i)), FOUR.get(i).id(), Range.ALL));
        }
        return bench;
    }

    private static Bench by(Rule rule, Bench bench) {
        bench.plan = bench.plan.with(bench.plan.ordering().by(rule));
        return bench;
    }

    /** Each layer drawn tool by tool, as programs slice them. */
    private static SmallGcode sliced(double apart, int layers) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= layers; layer++) {
            gcode.rise(0.2 * layer);
            for (int tool = 0; tool < 4; tool++) {
                gcode.line("T" + tool);
                gcode.outline(20.225 + tool * (20 + apart), 60.225, 19.55, 19.55, 0.033);
            }
        }
        return gcode;
    }

    /** 45 swaps layer by layer, 3 one after another: common practice. */
    @Test
    void four_covers_in_four_colours_need_three_swaps_instead_of_forty_five() {
        Bench bench = covers(45, 3);
        assertThat(bench.ledger().swaps()).hasSize(45);
        assertThat(bench.orders().oneAfterAnother().orElseThrow().swaps()).hasSize(3);
        Ledger apart = by(Rule.ONE_AFTER_ANOTHER, bench).ledger();
        assertThat(apart.swaps()).hasSize(3);
        assertThat(apart.swaps()).allMatch(s -> s.layer() == 1);
    }

    @Test
    void all_of_the_work_is_done_once_and_every_second_and_gram_adds_up() {
        Ledger together = covers(45, 3).ledger();
        Ledger apart = by(Rule.ONE_AFTER_ANOTHER, covers(45, 3)).ledger();
        assertThat(apart.timePerColour().value()).isCloseTo(apart.totalSeconds(), within(1e-6));
        assertThat(apart.plainTime().value()).isCloseTo(together.plainTime().value(), within(1e-6));
        for (int i = 0; i < 4; i++) {
            assertThat(apart.uses().get(i).plastic().cubicMillimetres())
                    .isCloseTo(together.uses().get(i).plastic().cubicMillimetres(), within(1e-6));
        }
        PrintOrder order = by(Rule.ONE_AFTER_ANOTHER, covers(45, 3)).orders().chosen();
        for (int layer = 1; layer <= 15; layer++) {
            int at = layer;
            assertThat(order.passes().stream()
                            .filter(p -> p.layer() == at)
                            .mapToDouble(Pass::share)
                            .sum())
                    .isCloseTo(1, within(1e-9));
        }
        assertThat(order.passes().stream()
                        .map(p -> p.thing().getAsInt())
                        .distinct()
                        .count())
                .isEqualTo(4);
    }

    @Test
    void copies_of_two_colours_by_height_need_one_swap_together_and_five_one_after_another() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.terms = new Terms(3, Optional.empty());
        assertThat(bench.ledger().swaps()).hasSize(1);
        // Up, and back for the next, and up: 1 + 2 + 2.
        assertThat(by(Rule.ONE_AFTER_ANOTHER, bench).ledger().swaps()).hasSize(5);
        assertThat(bench.found("order-needs-slicing").severity()).isEqualTo(Severity.NOTE);
    }

    @Test
    void parts_come_in_the_order_that_goes_on_with_the_loaded_spool() {
        // Two copies of four covers: as they stand 7 swaps, both of a colour after one another 3.
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(5, 3));
        bench.terms = new Terms(2, Optional.empty());
        assertThat(bench.orders().things()).hasSize(8);
        assertThat(bench.ledger().swaps()).hasSize(3);
    }

    @Test
    void the_head_clears_what_is_far_enough_or_low_enough_and_what_comes_last_may_be_high() {
        // 45 mm apart, 12 mm high, and the head needs 40 mm.
        assertThat(by(Rule.ONE_AFTER_ANOTHER, covers(45, 12)).findings())
                .extracting(Finding::key)
                .doesNotContain("head-hits");
        Finding near = by(Rule.ONE_AFTER_ANOTHER, covers(30, 12)).found("head-hits");
        assertThat(near.severity()).isEqualTo(Severity.STOP);
        assertThat(near.sentence()).contains("12.0 mm high", "30.0 mm apart", "needs 40 mm");
        // The nozzle itself dips 3 mm beside what stands, however near.
        assertThat(by(Rule.ONE_AFTER_ANOTHER, covers(5, 3)).findings())
                .extracting(Finding::key)
                .doesNotContain("head-hits");
        Finding high = by(Rule.ONE_AFTER_ANOTHER, covers(45, 36)).found("head-hits");
        assertThat(high.sentence()).contains("36.0 mm high", "clears 30 mm");
        Bench higher = by(Rule.ONE_AFTER_ANOTHER, covers(45, 36));
        higher.printer = Printers.headed(new Head(40, 50));
        assertThat(higher.findings()).extracting(Finding::key).doesNotContain("head-hits");
        // Only one of them is high: it is printed last, and nothing is hit.
        Bench mixed = by(Rule.ONE_AFTER_ANOTHER, new Bench());
        mixed.body = Optional.of(new Body(
                List.of(
                        new Shapes().box(0, 0, 0, 20, 20, 36).mesh(),
                        new Shapes().box(70, 0, 0, 20, 20, 12).mesh()),
                0));
        mixed.mesh = mixed.body.get().solids().get(0);
        mixed.grid = mixed.plan.layers().on(mixed.mesh.height());
        assertThat(mixed.findings()).extracting(Finding::key).doesNotContain("head-hits");
        assertThat(mixed.orders().sequence()).extracting(t -> t.island()).hasSize(2);
        assertThat(mixed.orders().sequence().get(1).lastOnly()).isTrue();
    }

    @Test
    void what_is_high_comes_last_though_it_would_go_on_with_the_loaded_spool() {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(45, 12));
        List<Mesh> solids = new ArrayList<>(bench.body.orElseThrow().solids());
        solids.set(1, new Shapes().box(65, 0, 0, 20, 20, 36).mesh());
        bench.body = Optional.of(new Body(solids, 0));
        bench.mesh = solids.get(1);
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        // The high one and its low neighbour have one colour, the other two another.
        bench.plan = bench.plan.with(Regions.NONE);
        bench.region(new Region("two", new Shape.Parts(List.of(2, 3)), Spools.CHALK.id(), Range.ALL));
        assertThat(bench.orders().sequence()).extracting(Thing::lastOnly).containsExactly(false, false, false, true);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("head-hits");
        // Begun with the two it is one swap; the high one never waits for its like.
        assertThat(bench.orders().oneAfterAnother().orElseThrow().swaps()).hasSize(1);
        // Its low neighbour of another colour than all: only then a swap more is paid for being last.
        bench.region(new Region("neighbour", new Shape.Parts(List.of(0)), Spools.SKY.id(), Range.ALL))
                .region(new Region("fourth", new Shape.Parts(List.of(3)), Spools.SOOT.id(), Range.ALL));
        assertThat(bench.orders().sequence()).extracting(Thing::lastOnly).containsExactly(false, false, false, true);
    }

    @Test
    void copies_are_arranged_so_that_the_head_clears_them_and_those_by_hand_are_moved_apart() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 20, 20, 12).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        bench.terms = new Terms(4, Optional.empty());
        by(Rule.ONE_AFTER_ANOTHER, bench);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("head-hits", "copies-too-near");
        var copies = bench.facts().layout().copies();
        assertThat(copies.get(0).outline().distance(copies.get(1).outline())).isGreaterThanOrEqualTo(40 - 1e-6);
        bench.plate = Optional.of(new Plate(
                4, 2, List.of(new Spot(50, 50, 0), new Spot(75, 50, 0), new Spot(50, 150, 0), new Spot(150, 150, 0))));
        // One stop says it, not two.
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("copies-too-near");
        Fix fix = bench.found("head-hits").fix().orElseThrow();
        bench.plate = Optional.of(fix.plate().apply(bench.plate.get()));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("head-hits", "copies-too-near");
    }

    @Test
    void no_tower_is_offered_where_none_can_grow() {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(25, 3));
        bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 5 + 10, 0))));
        assertThat(bench.facts().returns().unclean()).isNotEmpty();
        assertThat(bench.facts().cures()).isEmpty();
    }

    @Test
    void a_tower_begins_anew_with_each_thing_and_is_refused() {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(45, 3));
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        Fix fix = bench.found("tower-begins-anew").fix().orElseThrow();
        bench.purge = fix.purge().apply(bench.purge);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("tower-begins-anew");
    }

    @Test
    void the_way_back_ends_at_the_thing_that_is_begun_and_leads_over_those_that_are_done() {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(25, 3));
        bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 5 + 10, 0))));
        var paths = bench.facts().returns().paths();
        assertThat(paths).hasSize(3);
        // The covers begin 32.5 mm from the left and come every 45 mm; the nozzle waits at 5, 5 below the first.
        for (int i = 0; i < 3; i++) {
            assertThat(paths.get(i).end().x).isCloseTo(32.5 + 45 * (i + 1), within(1e-6));
            // Level with the lower rim of all, it passes over each that stands: 20 mm of every one.
            assertThat(paths.get(i).stained()).isCloseTo(20.0 * (i + 1), within(1e-6));
        }
    }

    @Test
    void a_file_with_a_tool_for_each_cover_is_printed_cover_by_cover() throws IOException {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, covers(25, 3)).sliced(sliced(25, 15));
        assertThat(bench.reckoning().brief().rearranging().refusal()).isEmpty();
        assertThat(bench.ledger().swaps()).hasSize(3);
        byte[] original;
        byte[] made;
        try (Source source = bench.source()) {
            original = source.open().readAllBytes();
            made = bench.reckoning()
                    .brief()
                    .rearranging()
                    .made()
                    .orElseThrow()
                    .open(source)
                    .readAllBytes();
        }
        Proof.holds(original, made);
        Proof.standsFree(bench.written());
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("head-hits", "not-rearranged");
        // Higher than the nozzle dips, they stand too near for the head.
        Bench high = by(Rule.ONE_AFTER_ANOTHER, covers(25, 12)).sliced(sliced(25, 60));
        assertThat(high.found("head-hits").sentence()).contains("25.0 mm apart");
    }

    @Test
    void copies_that_one_tool_prints_together_cannot_be_told_apart() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.terms = new Terms(2, Optional.empty());
        by(Rule.ONE_AFTER_ANOTHER, bench);
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            double half = (layer > 10 ? 10 : 20) / 2.0 - 0.225;
            gcode.line(layer > 10 ? "T1" : "T0").rise(0.2 * layer);
            gcode.outline(60 - half, 60 - half, 2 * half, 2 * half, 0.033);
            gcode.outline(160 - half, 60 - half, 2 * half, 2 * half, 0.033);
        }
        bench.sliced(gcode);
        assertThat(bench.found("not-rearranged").sentence())
                .contains("one tool on the same layer", "one after another");
        assertThat(bench.ledger().swaps()).hasSize(1);
    }

    @Test
    void one_thing_alone_is_printed_as_ever() {
        Bench bench = by(Rule.ONE_AFTER_ANOTHER, new Bench().start(2, Spools.CHALK));
        assertThat(bench.ledger().swaps()).hasSize(1);
        assertThat(bench.found("only-one-thing").fix()).isPresent();
        // Nor are more told apart than anybody would print so.
        bench.terms = new Terms(1000, Optional.empty());
        assertThat(bench.orders().things()).hasSize(1000);
        Bench many = by(Rule.ONE_AFTER_ANOTHER, covers(5, 3));
        many.terms = new Terms(251, Optional.empty());
        assertThat(many.orders().things()).isEmpty();
        assertThat(many.findings()).extracting(Finding::key).contains("only-one-thing");
    }
}
