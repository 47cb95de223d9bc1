package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Chords;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** Bands in a block of 30 × 20 × 8 mm: 40 layers of 0.2 mm. */
class BandsTest {
    private static final SpoolId A = Spools.SOOT.id();
    private static final SpoolId B = Spools.CHALK.id();
    private static final SpoolId C = Spools.BURGUNDY.id();
    private static final LayerGrid GRID = LayerSettings.COMMON.on(Height.ofMillimetres(8));
    private static final CutModel BLOCK =
            CutModel.of(new Shapes().box(0, 0, 0, 30, 20, 8).body(), GRID, Progress.UNHEARD);

    private final List<Region> regions = new ArrayList<>();
    private final List<Halt> halts = new ArrayList<>();

    /** A box of the block over its whole depth. */
    private BandsTest box(SpoolId spool, double middle, double width, Range range) {
        regions.add(new Region(
                "box " + regions.size(),
                new Shape.Zone(new Outline.Box(width, 20), middle, 10, 0, false),
                spool,
                range));
        return this;
    }

    private Orders orders(double reach) {
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, A).with(new Regions(regions));
        for (Halt halt : halts) {
            plan = plan.haltAt(halt, GRID);
        }
        return new Orders(
                Colouring.of(plan, BLOCK, 0.45, Progress.UNHEARD),
                (out, in) -> new Toll(100, 0.01),
                0.45,
                Height.ofMillimetres(reach),
                List::of);
    }

    private static Rests rests(Colouring colouring) {
        return Rests.of(
                Ground.of(colouring, 0.45, Height.ofMillimetres(0.8), Set.of()), layer -> true, Progress.UNHEARD);
    }

    private static Range layers(int first, int last) {
        return Range.ofLayers(GRID, first, last);
    }

    /** 40 swaps layer by layer, 10 in bands of 0.8 mm: common practice. */
    @Test
    void bands_of_four_layers_need_a_quarter_of_the_swaps() {
        Orders orders = box(B, 7.5, 15, Range.ALL).orders(0.8);
        assertThat(orders.numbered().swaps()).hasSize(40);
        assertThat(orders.banded().swaps()).hasSize(10);
        assertThat(orders.bands().list()).hasSize(10).allMatch(b -> b.layers() == 4);
        assertThat(orders.bands().list().get(0).end()).isEqualTo(new Band.End.Reach());
        assertThat(orders.bands().list().get(9).end()).isEqualTo(new Band.End.Top());
    }

    @Test
    void bands_cover_every_layer_and_print_every_colour_of_it_once() {
        Orders orders = box(B, 7.5, 15, Range.ALL).box(C, 20, 4, layers(9, 23)).orders(1.7);
        PrintOrder banded = orders.banded();
        for (int layer = 1; layer <= 40; layer++) {
            int at = layer;
            List<Pass> here =
                    banded.passes().stream().filter(p -> p.layer() == at).toList();
            assertThat(here)
                    .extracting(Pass::spool)
                    .containsExactlyInAnyOrderElementsOf(
                            orders.colouring().layer(layer).spools());
            assertThat(here.stream().mapToDouble(Pass::share).sum())
                    .isEqualTo(1, org.assertj.core.api.Assertions.within(1e-9));
        }
    }

    @Test
    void finding_bands_can_be_cancelled_and_begun_again() {
        Orders orders = box(B, 7.5, 15, Range.ALL).orders(0.8);
        assertThatThrownBy(() -> orders.bands((done, of) -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(orders.knowsBands()).isFalse();
        List<Long> heard = Collections.synchronizedList(new ArrayList<>());
        assertThat(orders.bands((done, of) -> heard.add(of - done)).list()).hasSize(10);
        assertThat(orders.knowsBands()).isTrue();
        assertThat(heard).allMatch(left -> left > 0 && left < 80).endsWith(1L);
    }

    /** Where two layers of ten are recoloured, the rest of forty is not looked at again; what comes of it is the same as ever. */
    @Test
    void an_edit_finds_anew_only_the_bands_that_it_touches() {
        box(B, 7.5, 15, Range.ALL).box(B, 20, 4, layers(21, 22)).box(C, 26, 4, layers(33, 34));
        Orders before = orders(0.8);
        Bands found = before.bands();
        Orders same = new Orders(before.colouring(), (out, in) -> new Toll(7, 0.5), 0.45, before.reach(), List::of);
        same.knowing(before);
        assertThat(same.knowsBands()).isTrue();
        assertThat(same.bands()).isSameAs(found);

        regions.set(1, regions.get(1).in(C));
        Orders after = new Orders(
                before.colouring().with(orders(0.8).colouring().plan(), 0.45),
                (out, in) -> new Toll(100, 0.01),
                0.45,
                before.reach(),
                List::of);
        after.knowing(before);
        assertThat(after.knowsBands()).isFalse();
        List<Long> looked = Collections.synchronizedList(new ArrayList<>());
        Bands anew = after.bands((done, of) -> looked.add(done));
        assertThat(looked).hasSizeLessThan(20);
        assertThat(anew.list()).isEqualTo(orders(0.8).bands().list());
        assertThat(anew.stages())
                .usingRecursiveComparison()
                .isEqualTo(orders(0.8).bands().stages());
    }

    @Test
    void a_nozzle_that_cannot_dip_prints_layer_by_layer() {
        Orders orders = box(B, 7.5, 15, Range.ALL).orders(0.1);
        assertThat(orders.bands().list()).hasSize(40);
        assertThat(orders.banded().swaps()).hasSize(40);
    }

    @Test
    void what_rests_on_another_colour_comes_after_it() {
        // B on layers 1 to 5, and over it A goes on: within a band up to layer 10 B has to come first.
        Orders orders = box(B, 7.5, 15, layers(1, 5)).orders(2);
        Band band = orders.bands().list().get(0);
        assertThat(band.last()).isEqualTo(10);
        assertThat(Bands.spoolsOf(band, orders.banded())).containsExactly(B, A);
        int[][] below = rests(orders.colouring()).below();
        for (int layer = 1; layer <= 40; layer++) {
            assertThat(below[layer - 1]).as("layer " + layer).containsExactly(layer == 6 ? 0b10 : 0, 0);
        }
    }

    /** Two pieces of B side by side, and over the border between them a piece of A, 0.3 mm over each. */
    @Test
    void slivers_over_two_pieces_of_a_colour_hold_as_one() {
        LayerGrid grid = LayerSettings.COMMON.on(Height.ofMillimetres(0.4));
        for (double gap : new double[] {0, 0.2}) {
            CutModel pieces = CutModel.of(
                    new Body(
                            List.of(
                                    new Shapes().box(0, 0, 0, 10, 10, 0.2).mesh(),
                                    new Shapes()
                                            .box(10 + gap, 0, 0, 10, 10, 0.2)
                                            .mesh(),
                                    Prism.of(box(9.7, 10.3 + gap), Height.ofMillimetres(0.2), Height.ofMillimetres(0.4))
                                            .get(0)),
                            0),
                    grid,
                    Progress.UNHEARD);
            ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, A)
                    .with(new Regions(List.of(new Region("both", new Shape.Parts(List.of(0, 1)), B, Range.ALL))));
            Colouring colouring = Colouring.of(plan, pieces, 0.45, Progress.UNHEARD);
            assertThat(rests(colouring).under(2, 1, new int[2]))
                    .as("gap of " + gap)
                    .containsExactly(gap == 0 ? 0b10 : 0, 0);
        }
    }

    private static MultiPolygon box(double from, double to) {
        GeometryFactory factory = new GeometryFactory();
        return factory.createMultiPolygon(new Polygon[] {(Polygon) factory.toGeometry(new Envelope(from, to, 0, 10))});
    }

    @Test
    void a_band_is_cut_where_each_of_two_colours_rests_on_the_other() {
        // B under A on the left from layer 5, A under B on the right from layer 8.
        Orders orders =
                box(B, 7.5, 15, layers(1, 4)).box(B, 22.5, 15, layers(8, 40)).orders(3);
        Band band = orders.bands().list().get(0);
        assertThat(band.last()).isEqualTo(7);
        assertThat(band.end()).isEqualTo(new Band.End.Circle(B, A));
    }

    /** A floor patch of B on layers 1 and 2, a void, a roof of A on layers 7 and 8: the nozzle cannot get under A. */
    @Test
    void nothing_is_printed_under_a_roof_however_far_above() {
        LayerGrid grid = LayerSettings.COMMON.on(Height.ofMillimetres(1.6));
        CutModel hollow = CutModel.of(
                new Shapes()
                        .box(0, 0, 0, 30, 20, 0.4)
                        .box(0, 0, 0.4, 5, 20, 0.8)
                        .box(25, 0, 0.4, 5, 20, 0.8)
                        .box(0, 0, 1.2, 30, 20, 0.4)
                        .body(),
                grid,
                Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, A)
                .with(new Regions(List.of(new Region(
                        "patch",
                        new Shape.Zone(new Outline.Box(10, 10), 15, 10, 0, false),
                        B,
                        Range.ofLayers(grid, 1, 2)))));
        Orders orders = new Orders(
                Colouring.of(plan, hollow, 0.45, Progress.UNHEARD),
                (out, in) -> new Toll(100, 0.01),
                0.45,
                Height.ofMillimetres(3),
                List::of);

        assertThat(orders.bands().list()).hasSize(1);
        assertThat(Bands.spoolsOf(orders.bands().list().get(0), orders.banded()))
                .containsExactly(B, A);
        Rests rests = rests(orders.colouring());
        assertThat(rests.under(7, 1, new int[2])).containsExactly(0b10, 0);
        assertThat(rests.under(7, 3, new int[2])).as("from above the patch").containsOnly(0);
        assertThat(rests.under(7, 1, new int[] {0b10, 0})).as("known already").containsOnly(0);
    }

    @Test
    void less_than_half_a_line_holds_on_to_its_own() {
        // The border between A and B moves by 0.3 mm at layer 6: narrower than a line.
        Orders orders =
                box(B, 7.5, 15, layers(1, 5)).box(B, 7.65, 15.3, layers(6, 40)).orders(3);
        assertThat(rests(orders.colouring()).under(6, 1, new int[3])).containsOnly(0);
    }

    /** As above, with rims of so many corners that they are told by their chords. */
    @Test
    void what_stands_over_less_than_a_line_is_told_of_round_colours_as_of_straight_ones() {
        for (double wider : new double[] {0.4, 0.5}) {
            regions.clear();
            disc(B, 12, layers(1, 5)).disc(B, 12 + 2 * wider, layers(6, 10)).disc(B, 12, layers(11, 40));
            int[][] below = rests(orders(3).colouring()).below();
            // Round the disc B reaches over A by a ring of that width, and A over B again above it.
            assertThat(below[5]).as("%s mm", wider).containsExactly(0, wider > 0.45 ? 0b1 : 0);
            assertThat(below[10]).as("%s mm", wider).containsExactly(wider > 0.45 ? 0b10 : 0, 0);
        }
    }

    @Test
    void however_many_layers_are_looked_at_not_more_is_kept_of_them_than_there_is_room_for() {
        disc(B, 12, Range.ALL);
        Colouring colouring = orders(3).colouring();
        RecentChords recent = new RecentChords(Ground.of(colouring, 0.002, Height.ofMillimetres(0.8), Set.of()));
        long most = 0;
        for (int layer = 1; layer <= 40; layer++) {
            Optional<Chords> chords =
                    recent.of(layer, colouring.layer(layer).tint(B).orElseThrow());
            assertThat(recent.of(layer, colouring.layer(layer).tint(B).orElseThrow()))
                    .isSameAs(chords);
            most = Math.max(most, recent.size());
        }
        assertThat(most).isBetween(RecentChords.MOST * 9 / 10, RecentChords.MOST);
    }

    private BandsTest disc(SpoolId spool, double diameter, Range range) {
        regions.add(new Region(
                "disc " + regions.size(), new Shape.Zone(new Outline.Disc(diameter), 15, 10, 0, false), spool, range));
        return this;
    }

    @Test
    void a_halt_cuts_a_band() {
        halts.add(new Halt(Height.ofMillimetres(1.2), "lay the nut in"));
        List<Band> bands = box(B, 7.5, 15, Range.ALL).orders(3).bands().list();
        assertThat(bands.get(0).last()).isEqualTo(6);
        assertThat(bands.get(0).end()).isEqualTo(new Band.End.Halt());
    }

    @Test
    void the_best_numbering_turns_the_numbered_order_into_the_best() {
        // C, B and A side by side on layer 1, then C and A: numbered A B C it begins with A and ends with C.
        Orders orders =
                box(B, 7.5, 10, layers(1, 1)).box(C, 22.5, 10, layers(1, 2)).orders(0);
        assertThat(orders.best().swaps()).hasSize(3);
        Orders.Numbering numbering = orders.bestNumbering();
        assertThat(numbering.proven()).isTrue();
        ColourPlan plan = orders.colouring().plan();
        assertThat(PrintOrder.numbered(orders.colouring(), numbering.spools()).swaps())
                .hasSize(3);
        assertThat(plan.with(plan.ordering().numbered(numbering.spools())).numbering())
                .isEqualTo(numbering.spools());
    }
}
