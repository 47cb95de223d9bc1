package dev.tranche.core.coupon;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.coupon.Coupon.Kind;
import dev.tranche.core.coupon.Coupon.Scale;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.handoff.PlainMachine;
import dev.tranche.core.handoff.PlainMachine.Move;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rearrange.Proof;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.units.Volume;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Envelope;

class CouponTest {
    private static final SpoolId SOOT = Spools.SOOT.id();
    private static final SpoolId CHALK = Spools.CHALK.id();

    private static PurgeModel least(Printer printer) {
        return new PurgeModel(printer.deadVolume(), new PurgeSettings(2, 0.1), List.of(), true);
    }

    private static Coupon coupon(Kind kind, Printer printer) {
        return switch (kind) {
            case EARLY_SWAP -> Coupon.earlySwap(printer, SOOT, CHALK);
            case PURGE_LADDER -> Coupon.purgeLadder(
                    printer,
                    SOOT,
                    CHALK,
                    least(printer).between(Spools.SOOT, Spools.CHALK).volume(),
                    PurgeModel.usual(printer.deadVolume())
                            .between(Spools.SOOT, Spools.CHALK)
                            .volume());
            case STACK -> Coupon.stack(printer, Spools.SKY.id(), SOOT, CHALK);
            case GEARS -> Coupon.gears(printer, SOOT);
        };
    }

    /** The coupon as a plan with its sliced file. */
    private static Bench bench(Coupon coupon, Printer printer) {
        Bench bench = new Bench();
        bench.printer = printer;
        bench.purge = new PurgeSettings(2, 0.1);
        Body body = null;
        for (SpoolId spool : coupon.spools()) {
            Body one = Body.of(coupon.mesh(spool));
            body = body == null ? one : body.with(one);
        }
        bench.plan = ColourPlan.of(coupon.layers(), coupon.spools().get(0));
        int part = Body.of(coupon.mesh(coupon.spools().get(0))).solids().size();
        for (SpoolId spool : coupon.spools().subList(1, coupon.spools().size())) {
            int solids = Body.of(coupon.mesh(spool)).solids().size();
            List<Integer> numbers = new ArrayList<>();
            for (int i = 0; i < solids; i++) {
                numbers.add(part++);
            }
            bench.region(new Region("in " + spool.value(), new Shape.Parts(numbers), spool, Range.ALL));
        }
        bench.body = Optional.of(body);
        bench.grid = bench.plan.layers().on(body.height());
        return bench.sliced(Toolpaths.of(coupon, printer, bench.shelf).getBytes(StandardCharsets.US_ASCII));
    }

    @ParameterizedTest
    @EnumSource(Kind.class)
    void its_toolpaths_stay_on_the_bed_lead_through_no_plastic_and_hold_the_volume_of_their_blocks(Kind kind) {
        for (Printer printer : List.of(Printers.plain(), Printers.withTube())) {
            Coupon coupon = coupon(kind, printer);
            byte[] gcode = Toolpaths.of(coupon, printer, Spools.SHELF).getBytes(StandardCharsets.US_ASCII);
            List<Move> moves = PlainMachine.moves(gcode, false);
            Bed bed = printer.bed();
            assertThat(moves.stream().filter(m -> m.lowest() < 50 && m.fromZ() > 0))
                    .allMatch(m -> bed.contains(new Point(m.toX(), m.toY())));
            Proof.standsFree(gcode);
            double laid = moves.stream()
                    .filter(Move::lays)
                    .mapToDouble(m -> printer.filament().volume(m.filament()).cubicMillimetres())
                    .sum();
            // By geometry: what the lines of a block cover, but for the half widths beside their ends and corners.
            double blocks = coupon.blocks().stream()
                    .mapToDouble(b -> b.width()
                            * b.depth()
                            * (b.to() - b.from() + 1)
                            * coupon.layers().layerHeight().millimetres())
                    .sum();
            assertThat(laid).isCloseTo(blocks, within(0.06 * blocks));
        }
    }

    @ParameterizedTest
    @EnumSource(Kind.class)
    void it_is_a_plan_like_any_other_whose_swaps_are_written_between(Kind kind) throws IOException {
        Printer printer = Printers.plain();
        Coupon coupon = coupon(kind, printer);
        Bench bench = bench(coupon, printer);
        assertThat(bench.match()).isPresent();
        // In the middle of the bed, and nowhere else.
        assertThat(bench.facts().layout().copies()).singleElement().satisfies(copy -> {
            Envelope at = copy.outline().getEnvelopeInternal();
            assertThat(at.centre().distance(printer.bed().bounds().centre())).isLessThan(0.5);
        });
        int swaps = kind == Kind.STACK ? 3 : kind == Kind.GEARS ? 0 : 1;
        assertThat(bench.ledger().swaps()).hasSize(swaps);
        assertThat(bench.findings()).extracting(Finding::severity).doesNotContain(Severity.STOP);
        byte[] written = bench.written();
        Proof.standsFree(written);
        assertThat(new String(written, StandardCharsets.US_ASCII).lines())
                .filteredOn(l -> l.startsWith("; tranche begin") && l.contains(" swap="))
                .hasSize(swaps);
    }

    @Test
    void a_tile_is_swapped_after_three_layers() {
        Bench bench = bench(coupon(Kind.EARLY_SWAP, Printers.plain()), Printers.plain());
        assertThat(bench.ledger().swaps()).extracting(s -> s.layer()).containsExactly(4);
        // Done in minutes (common practice).
        assertThat(bench.ledger().totalSeconds()).isLessThan(20 * 60);
    }

    @Test
    void before_bar_k_of_a_ladder_k_steps_have_been_pushed_and_before_the_last_twice_the_estimate() {
        Printer printer = Printers.plain();
        Coupon ladder = coupon(Kind.PURGE_LADDER, printer);
        Volume swapped = least(printer).between(Spools.SOOT, Spools.CHALK).volume();
        double estimate = PurgeModel.usual(printer.deadVolume())
                .between(Spools.SOOT, Spools.CHALK)
                .volume()
                .cubicMillimetres();
        List<Move> moves = PlainMachine.moves(
                Toolpaths.of(ladder, printer, Spools.SHELF).getBytes(StandardCharsets.US_ASCII), false);
        double pushed = swapped.cubicMillimetres();
        List<Double> before = new ArrayList<>();
        // Bars are the blocks of four lines; strips and bars take turns.
        int block = 0;
        boolean travelled = true;
        for (Move m : moves) {
            if (!m.tool().equals("T1")) {
                continue;
            }
            if (m.lays()) {
                if (travelled) {
                    block++;
                    if (block % 2 == 0) {
                        before.add(pushed);
                    }
                }
                pushed += printer.filament().volume(m.filament()).cubicMillimetres();
            }
            travelled = !m.lays();
        }
        Scale scale = ladder.scale();
        assertThat(before).hasSize(10);
        for (int k = 1; k <= 10; k++) {
            assertThat(scale.at(k)).isCloseTo(before.get(k - 1), within(0.5));
        }
        assertThat(scale.at(10) + scale.step() - (scale.at(1) - swapped.cubicMillimetres()))
                .isCloseTo(2 * estimate, within(0.05 * estimate));
        assertThat(Coupon.measured(SOOT, CHALK, scale, 4).volume().cubicMillimetres())
                .isCloseTo(scale.at(4), within(1e-9));
    }

    @Test
    void when_a_bar_begins_as_much_filament_has_gone_in_as_its_mark_says() {
        for (Printer printer : List.of(Printers.plain(), Printers.withTube())) {
            Coupon gears = coupon(Kind.GEARS, printer);
            double believed = printer.drive().gearsToNozzle();
            double in = 0;
            int bar = 0;
            for (Move m : PlainMachine.moves(
                    Toolpaths.of(gears, printer, Spools.SHELF).getBytes(StandardCharsets.US_ASCII), false)) {
                assertThat(m.filament()).isNotNegative();
                if (m.lays()) {
                    bar++;
                    assertThat(gears.scale().at(bar)).isCloseTo(in, within(0.01));
                }
                in += m.filament();
            }
            assertThat(bar).isEqualTo(12);
            assertThat(gears.scale().at(1)).isLessThan(believed);
            assertThat(in).isGreaterThan(believed * 1.1);
            assertThat(gears.scale().at(4.5))
                    .isCloseTo(gears.scale().first() + 3.5 * gears.scale().step(), within(1e-9));
        }
    }

    @Test
    void a_strip_of_a_stack_is_as_many_layers_thick_as_its_place() {
        Scale scale = coupon(Kind.STACK, Printers.plain()).scale();
        assertThat(scale.at(1)).isEqualTo(0.2);
        assertThat(scale.at(8)).isCloseTo(1.6, within(1e-9));
        assertThatThrownBy(() -> scale.at(9)).isInstanceOf(Refusal.class).hasMessageContaining("marks 1 to 8");
        assertThatThrownBy(() -> Scale.NONE.at(1)).isInstanceOf(Refusal.class);
    }

    @Test
    void a_pair_of_one_spool_is_refused() {
        assertThatThrownBy(() -> Coupon.earlySwap(Printers.plain(), SOOT, SOOT)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Coupon.stack(Printers.plain(), SOOT, CHALK, SOOT))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void a_ladder_that_does_not_fit_the_bed_is_refused_with_what_it_needs() {
        assertThatThrownBy(() -> Coupon.purgeLadder(Printers.plain(), SOOT, CHALK, new Volume(60), new Volume(40_000)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("A purge ladder needs");
    }
}
