package dev.tranche.core.returns;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgePlace.SmallTower;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.units.Volume;
import java.time.ZonedDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;

/** The tile of the bench stands in the middle of 220 × 220 mm with its raised step in another colour, and the nozzle waits at 5, 5. */
class ReturnPathsTest {
    private static Bench lettered() {
        return new Bench().start(2, Spools.CHALK);
    }

    private static Bench copies(int copies) {
        Bench bench = lettered();
        bench.terms = new Terms(copies, Optional.empty());
        return bench;
    }

    private static ReturnPaths paths(Bench bench) {
        return bench.facts().returns();
    }

    private static void mend(Bench bench, Finding finding) {
        Fix fix = finding.fix().orElseThrow();
        bench.purge = fix.purge().apply(bench.purge);
        bench.plate =
                Optional.of(fix.plate().apply(bench.plate.orElseGet(() -> Plate.ONE.times(bench.terms.copies()))));
    }

    @Test
    void the_way_back_is_as_long_as_measured_by_hand_and_leads_over_the_tile() {
        ReturnPath path = paths(lettered()).paths().get(0);
        // From 5, 5 to the corner of the step at 105, 105; the tile begins at 100, 100.
        assertThat(path.start().distance(new Coordinate(5, 5))).isCloseTo(0, within(1e-9));
        assertThat(path.length()).isCloseTo(100 * Math.sqrt(2), within(1e-6));
        assertThat(path.stains()).singleElement().satisfies(s -> {
            assertThat(s.spool()).isEqualTo(Spools.SOOT.id());
            assertThat(s.from()).isCloseTo(95 * Math.sqrt(2), within(1e-6));
            assertThat(s.length()).isCloseTo(5 * Math.sqrt(2), within(1e-6));
        });
        Finding finding = lettered().found("return-paths");
        assertThat(finding.severity()).isEqualTo(Severity.NOTE);
        assertThat(finding.sentence()).contains("swap 1 over 7 mm of A Soot");
    }

    @Test
    void plastic_that_the_new_colour_will_cover_and_its_own_colour_are_no_harm() {
        // The whole of the tile changes at 1 mm: what is led over is covered at once.
        assertThat(paths(new Bench().start(1, Spools.CHALK)).unclean()).isEmpty();
        // Back to soot above a chalk stripe: the soot tile beneath is its own colour.
        Bench back = new Bench().start(2, Spools.CHALK).start(2.4, Spools.SOOT);
        assertThat(paths(back).paths()).hasSize(2);
        assertThat(paths(back).unclean()).extracting(ReturnPath::swap).containsExactly(1);
    }

    @Test
    void a_start_at_another_hour_leaves_the_ways_as_they_were_and_another_height_does_not() {
        Bench bench = lettered();
        ReturnPaths before = paths(bench);
        bench.start = Optional.of(ZonedDateTime.parse("2026-05-01T08:00:00Z"));
        assertThat(paths(bench)).isSameAs(before);
        bench.start(2.4, Spools.BURGUNDY);
        assertThat(paths(bench).paths()).hasSize(2);
    }

    @Test
    void nobody_comes_back_who_never_left() {
        Bench bench = lettered();
        bench.printer = Printers.parkingAt(Printers.plain(), Optional.empty());
        bench.swapping(new Step.WaitForPerson(Command.M0));
        assertThat(paths(bench).paths()).isEmpty();
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("return-paths");
    }

    @Test
    void a_tower_is_put_where_the_nozzle_comes_past() {
        Bench bench = copies(12);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        TowerStand tower = paths(bench).tower().orElseThrow();
        assertThat(tower.stands()).isTrue();
        assertThat(tower.byHand()).isFalse();
        assertThat(paths(bench).unclean()).isEmpty();
        assertThat(paths(bench).paths().get(0).tower()).isPresent();
        bench.facts().layout().copies().forEach(c -> assertThat(c.outline().distance(tower.outline()))
                .isGreaterThanOrEqualTo(2 - 1e-6));
    }

    /** The same tower at another place. */
    private static TowerStand at(Bench bench, TowerStand tower, Spot spot) {
        return TowerStand.at(
                spot,
                Footprint.rectangle(tower.width(), tower.depth()),
                true,
                bench.facts().layout(),
                2,
                bench.printer.bed());
    }

    @Test
    void on_the_way_a_tower_stands_as_near_to_the_print_as_there_is_room() {
        // The way leads along the diagonal, from 5, 5 to the step at 105, 105.
        Bench bench = lettered();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        TowerStand tower = paths(bench).tower().orElseThrow();
        assertThat(tower.spot().x()).isCloseTo(tower.spot().y(), within(0.5));
        for (double nearer = tower.spot().x() + 3; nearer <= 105; nearer += 0.5) {
            for (double turn : new double[] {0, 90, 135}) {
                assertThat(at(bench, tower, new Spot(nearer, nearer, turn)).stands())
                        .as("%s, turned by %s", nearer, turn)
                        .isFalse();
            }
        }
    }

    @Test
    void a_tower_that_is_found_a_place_lies_beside_nobody_who_waits() {
        // The nearer the print, the less room between it and the nozzle that waits at 5, 5.
        for (double middle = 24; middle <= 48; middle += 4) {
            Bench bench = lettered();
            bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
            bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(middle, middle, 0)), Optional.empty()));
            TowerStand tower = paths(bench).tower().orElseThrow();
            assertThat(tower.stands()).isTrue();
            assertThat(tower.outline().distance(new GeometryFactory().createPoint(new Coordinate(5, 5))))
                    .as("print at %s", middle)
                    .isGreaterThan(3);
        }
    }

    @Test
    void what_would_help_is_offered_the_best_first_and_nothing_that_would_not() {
        Bench bench = copies(12);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        List<Spot> spots = bench.facts().layout().spots();
        for (Spot far : List.of(new Spot(180, 180, 0), new Spot(180, 30, 0), new Spot(30, 180, 0))) {
            bench.plate = Optional.of(new Plate(12, 2, spots, Optional.of(far)));
            int bad = paths(bench).unclean().size();
            List<Cure> cures = bench.facts().cures();
            assertThat(cures).isNotEmpty().allMatch(c -> c.left() < bad);
            assertThat(cures).isSortedAccordingTo(Comparator.comparingInt(Cure::left));
            Spot moved = cures.stream()
                    .filter(c -> c.label().startsWith("Move the tower"))
                    .findFirst()
                    .orElseThrow()
                    .plate()
                    .apply(bench.plate.get())
                    .tower()
                    .orElseThrow();
            assertThat(cures)
                    .extracting(c -> c.label().replace(".5", "½"))
                    .contains("Move the tower to X %s Y %s%s"
                            .formatted(
                                    halves(moved.x()),
                                    halves(moved.y()),
                                    moved.turn() == 0 ? "" : ", turned by %.0f°".formatted(moved.turn())));
        }
    }

    private static String halves(double mm) {
        return (int) mm + (mm == Math.rint(mm) ? "" : "½");
    }

    @Test
    void a_tower_out_of_the_way_is_named_and_one_press_after_another_leaves_no_path() {
        Bench bench = copies(12);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        bench.plate = Optional.of(new Plate(12, 2, bench.facts().layout().spots(), Optional.of(new Spot(180, 180, 0))));
        Finding finding = bench.found("return-paths");
        assertThat(finding.severity()).isEqualTo(Severity.WARN);
        assertThat(finding.sentence()).contains("before it meets the tower");
        mend(bench, finding);
        assertThat(paths(bench).unclean()).isEmpty();
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("return-paths", "tower-stands-badly");
    }

    @Test
    void a_tower_that_is_too_narrow_is_widened_or_turned_where_it_stands() {
        Bench bench = lettered();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.Bin(Optional.of(new SmallTower(20, new Volume(40)))));
        // 20 × 10 mm, a little beside the diagonal from the park spot.
        Spot beside = new Spot(50, 30, 0);
        bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 110, 0)), Optional.of(beside)));
        assertThat(paths(bench).unclean()).hasSize(1);
        List<Cure> cures = bench.facts().cures();
        assertThat(cures).extracting(Cure::label).anyMatch(l -> l.matches("Make the tower \\d+ mm wide"));
        for (Cure cure : cures) {
            Bench cured = lettered();
            cured.purge = cure.purge().apply(bench.purge);
            cured.plate = Optional.of(cure.plate().apply(bench.plate.get()));
            assertThat(paths(cured).unclean()).as(cure.label()).hasSize(cure.left());
        }
    }

    @Test
    void a_tower_beside_the_way_is_turned_until_a_corner_of_it_is_met() {
        // 20 × 10 mm and 10.18 mm beside the diagonal. As it stands its corner reaches 10.61 mm towards it: crossed for
        // 0.9 mm, which wipes nothing; so it is when turned by 90°. Turned by 105° it reaches 11.16 mm, crossed for
        // 2.3.
        Bench bench = lettered();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.Bin(Optional.of(new SmallTower(20, new Volume(40)))));
        bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 110, 0)), Optional.of(new Spot(50, 35.6, 0))));
        Cure turned = bench.facts().cures().stream()
                .filter(c -> c.label().startsWith("Turn"))
                .findFirst()
                .orElseThrow();
        assertThat(turned.label()).isEqualTo("Turn the tower to 105°");
        assertThat(turned.plate().apply(bench.plate.get()).tower()).contains(new Spot(50, 35.6, 105));
    }

    @Test
    void another_copy_is_printed_first_where_that_keeps_the_way_clean() {
        // Copy 1 stands behind copy 2, seen from where the nozzle waits; both are inlaid, so that the way leads over
        // both.
        Bench bench = new Bench()
                .region(new Region(
                        "half",
                        new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false),
                        Spools.CHALK.id(),
                        Range.ALL));
        bench.terms = new Terms(2, Optional.empty());
        bench.plate = Optional.of(new Plate(2, 2, List.of(new Spot(150, 110, 0), new Spot(60, 60, 0))));
        int before = paths(bench).unclean().size();
        Cure first = bench.facts().cures().stream()
                .filter(c -> c.label().equals("Print copy 2 first"))
                .findFirst()
                .orElseThrow();
        assertThat(first.left()).isLessThan(before);
        bench.plate = Optional.of(first.plate().apply(bench.plate.get()));
        assertThat(bench.plate.get().byHand().get(0)).isEqualTo(new Spot(60, 60, 0));
        assertThat(paths(bench).unclean()).hasSize(first.left());
    }

    @Test
    void a_small_tower_beside_a_bin_takes_the_last_of_each_purge_and_the_two_add_up() {
        Bench bench = lettered();
        double purge = bench.ledger().swaps().get(0).pushed().cubicMillimetres();
        double macro = bench.ledger().swaps().get(0).moment().purge();
        mend(bench, bench.found("return-paths"));
        assertThat(bench.purge.place()).isEqualTo(new PurgePlace.Bin(Optional.of(SmallTower.USUAL)));
        var swap = bench.ledger().swaps().get(0);
        assertThat(swap.pushed().cubicMillimetres()).isCloseTo(purge, within(1e-9));
        assertThat(swap.ontoTower().cubicMillimetres()).isEqualTo(15);
        // 15 mm³ are 6.24 mm of 1.75 mm filament.
        assertThat(macro - swap.moment().purge()).isCloseTo(15 / (Math.PI * 1.75 * 1.75 / 4), within(1e-9));
        // 15 mm wide and 0.2 mm high, 15 mm³ are 5 mm deep.
        assertThat(bench.ledger().tower().orElseThrow().depth()).isCloseTo(5, within(1e-9));
        assertThat(paths(bench).unclean()).isEmpty();
        // A routine pushes what it pushes, and the tower comes on top.
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.Routine(80, Optional.of(SmallTower.USUAL)));
        assertThat(bench.ledger().swaps().get(0).pushed().cubicMillimetres())
                .isCloseTo(bench.printer.filament().volume(80).cubicMillimetres() + 15, within(1e-9));
        assertThat(bench.ledger().purgeLength().value())
                .isCloseTo(80 + bench.printer.filament().length(swap.ontoTower()), within(1e-9));
    }

    @Test
    void a_small_tower_stands_where_ways_that_part_are_still_together() {
        // A bar with an inlay at each end: seen from the park spot they lie some 20 degrees apart.
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 100, 20, 3).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        for (double x : new double[] {10, 90}) {
            bench.region(new Region(
                    "inlay at " + x,
                    new Shape.Zone(new Outline.Box(4, 4), x, 10, 0, false),
                    x < 50 ? Spools.CHALK.id() : Spools.BURGUNDY.id(),
                    Range.ofLayers(bench.grid, 15, 15)));
        }
        assertThat(paths(bench).unclean()).hasSize(2);
        mend(bench, bench.found("return-paths"));
        assertThat(paths(bench).unclean()).isEmpty();
        assertThat(paths(bench).paths()).allMatch(p -> p.tower().isPresent());
    }

    @Test
    void a_tower_on_a_copy_or_over_the_rim_is_a_stop_and_finds_its_place() {
        Bench bench = lettered();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        for (Spot bad : List.of(new Spot(110, 125, 0), new Spot(210, 3, 0))) {
            bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 110, 0)), Optional.of(bad)));
            Finding finding = bench.found("tower-stands-badly");
            assertThat(finding.severity()).isEqualTo(Severity.STOP);
            mend(bench, finding);
            assertThat(bench.findings()).extracting(Finding::key).doesNotContain("tower-stands-badly");
        }
    }

    @Test
    void nobody_waits_over_a_tower_that_is_there() {
        Bench bench = lettered();
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("park-over-part");
        bench.plate = Optional.of(new Plate(1, 2, List.of(new Spot(110, 110, 0)), Optional.of(new Spot(16, 40, 0))));
        assertThat(bench.found("park-over-part").sentence()).contains("lies over the tower");
    }

    @Test
    void copies_that_are_arranged_leave_the_tower_room() {
        // A hundred tiles of 20 mm fill the bed, and a tower takes the place of some.
        Bench bench = copies(90);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        assertThat(bench.facts().layout().copies()).hasSize(90);
        assertThat(paths(bench).tower().orElseThrow().stands()).isTrue();
        bench.terms = new Terms(100, Optional.empty());
        assertThat(bench.found("tower-without-room").sentence()).contains("beside 100 copies");
    }

    @Test
    void with_a_sliced_file_the_way_is_the_files_and_its_copies_are_where_they_are() {
        Bench bench = lettered();
        // Tiles round 60, 60 and 160, 120, and the nozzle goes to the second first.
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            double half = (layer > 10 ? 10 : 20) / 2.0 - 0.225;
            gcode.rise(0.2 * layer);
            gcode.outline(160 - half, 120 - half, 2 * half, 2 * half, 0.033);
            gcode.outline(60 - half, 60 - half, 2 * half, 2 * half, 0.033);
        }
        bench.sliced(gcode);
        assertThat(bench.facts().layout().spots()).containsExactly(new Spot(60, 60, 0), new Spot(160, 120, 0));
        ReturnPath path = paths(bench).paths().get(0);
        assertThat(path.start().x).isEqualTo(5);
        assertThat(path.end().distance(new Coordinate(160 - 4.775, 120 - 4.775)))
                .isLessThan(0.01);
        assertThat(path.stains()).isNotEmpty();
        // Where things stand is the file's to say, so that only the macro can help.
        assertThat(bench.found("return-paths").sentence()).endsWith("wipe it in the swap macro before it returns.");
        // A second copy is no tower.
        assertThat(bench.ledger().base().holdsTower()).isFalse();
        // What is beside all copies is beside the print, though it lies between them.
        bench.printer = Printers.parkingAt(Printers.plain(), Optional.of(new Point(110, 60)));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("park-over-part");
        bench.printer = Printers.parkingAt(Printers.plain(), Optional.of(new Point(155, 115)));
        assertThat(bench.findings()).extracting(Finding::key).contains("park-over-part");
    }
}
