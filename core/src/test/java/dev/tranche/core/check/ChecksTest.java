package dev.tranche.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;

class ChecksTest {
    private static Bench twoColours() {
        return new Bench().start(2, Spools.CHALK);
    }

    private static Finding only(Bench bench, String key) {
        List<Finding> found =
                bench.findings().stream().filter(f -> f.key().startsWith(key)).toList();
        assertThat(found).as(key + " in " + bench.findings()).hasSize(1);
        return found.get(0);
    }

    private static void none(Bench bench, String key) {
        assertThat(bench.findings()).noneMatch(f -> f.key().startsWith(key));
    }

    private static Finding fault(Bench bench, String words) {
        List<Finding> found = bench.findings().stream()
                .filter(f -> f.key().startsWith("macro-fault") && f.sentence().contains(words))
                .toList();
        assertThat(found).as(words + " in " + bench.findings()).hasSize(1);
        return found.get(0);
    }

    @Test
    void a_finding_put_aside_comes_back_when_it_reads_otherwise_and_what_stops_cannot_be_put_aside() {
        Bench bench = twoColours();
        Finding first = only(bench, "first-spool");
        Asides asides = Asides.NONE.with(first, "it is always in there\n");
        assertThat(asides.hold(first)).isTrue();
        assertThat(asides.reasons()).containsValue("it is always in there");
        bench.plan = bench.plan.recolour(0, Spools.CHALK.id());
        assertThat(asides.hold(only(bench, "first-spool"))).isFalse();
        assertThat(asides.without(first.word())).isEqualTo(Asides.NONE);
        assertThatThrownBy(() -> asides.with(first, " ")).hasMessageContaining("why");
        Finding stop = new Finding(
                Severity.STOP,
                "a",
                Concern.FILE,
                "No.",
                OptionalInt.empty(),
                Optional.empty(),
                Optional.empty(),
                false,
                false);
        assertThatThrownBy(() -> asides.with(stop, "never mind")).hasMessageContaining("cannot be put aside");
        assertThatThrownBy(() -> new Asides(Map.of("<b>", "no"))).hasMessageContaining("not a finding");
    }

    @Test
    void what_is_said_on_almost_every_plan_is_known_and_what_warns_never_is() {
        Bench bench = twoColours();
        assertThat(only(bench, "first-spool").known()).isTrue();
        assertThat(bench.findings().stream().filter(Finding::known))
                .allMatch(f -> f.severity() == Severity.NOTE && f.fix().isEmpty());
    }

    @Test
    void a_halt_that_falls_on_a_swap_is_said_to_and_one_above_the_print_can_be_removed() {
        Bench bench = twoColours().halt(2, "lay the magnet in").halt(1, "lay the nut in");
        assertThat(only(bench, "halt-at-swap").sentence())
                .contains("lay the magnet in")
                .contains("stops once for both");
        assertThat(only(bench, "halt-at-swap").layer()).hasValue(11);
        bench.mesh = new Shapes().box(0, 0, 0, 20, 20, 1.6).mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        Finding nowhere = only(bench, "halt-nowhere");
        bench.plan = nowhere.fix().orElseThrow().colours().apply(bench.plan);
        none(bench, "halt-nowhere");
        assertThat(bench.plan.halts().list()).hasSize(1);
    }

    @Test
    void what_does_not_fit_together_on_the_printer_stops_the_plan() {
        Bench bench = twoColours();
        bench.macros = bench.macros.add(Macro.of(Event.SWAP, new Step.Dwell(10)));
        assertThat(only(bench, "rig").severity()).isEqualTo(Severity.STOP);
        none(new Bench(), "rig");
    }

    @Test
    void what_a_rehearsal_saw_is_a_finding_that_leads_to_its_report() {
        Bench bench = twoColours();
        bench.rehearsed = Optional.of("5 layers are not as planned, the first layer 11.");
        Finding finding = only(bench, "rehearsed");
        assertThat(finding.severity()).isEqualTo(Severity.WARN);
        assertThat(finding.concern()).isEqualTo(Concern.REHEARSAL);
        assertThat(finding.sentence()).contains("the first layer 11");
        none(twoColours(), "rehearsed");
    }

    @Test
    void a_sound_plan_has_nothing_but_notes() {
        assertThat(twoColours().findings())
                .extracting(Finding::key)
                .containsExactlyInAnyOrder("first-spool", "return-paths", "bond-after-wait", "tower-not-needed");
        assertThat(only(twoColours(), "first-spool").sentence()).contains("Load A Soot before you start");
    }

    @Test
    void a_file_that_stops_at_the_start_is_said_to() {
        Bench bench = twoColours().sliced(new SmallGcode().line("M0").grid(0.2, 0.2, 15));
        assertThat(only(bench, "first-spool").sentence()).contains("the file stops for it");
        none(bench, "stops-in-file");
    }

    @Test
    void a_first_load_macro_asks_for_the_first_spool_and_not_twice() {
        Bench bench = twoColours();
        bench.macros = bench.macros.replace(1, bench.macros.macro(1).turned(true));
        assertThat(only(bench, "first-spool").sentence()).contains("first-load macro asks for A Soot");
        bench.sliced(new SmallGcode().line("M0").grid(0.2, 0.2, 15));
        assertThat(only(bench, "first-spool").severity()).isEqualTo(Severity.WARN);
    }

    @Test
    void a_border_off_the_grid_by_more_than_a_quarter_layer_is_mended_by_its_button() {
        Bench bench = new Bench().start(1.33, Spools.CHALK);
        Finding finding = only(bench, "off-grid");
        assertThat(finding.severity()).isEqualTo(Severity.WARN);
        assertThat(finding.sentence()).contains("1.33 mm").contains("1.40 mm").contains("0.07 mm higher");
        assertThat(finding.layer()).hasValue(8);
        bench.plan = finding.fix().orElseThrow().colours().apply(bench.plan);
        none(bench, "off-grid");
        none(new Bench().start(1.44, Spools.CHALK), "off-grid");
    }

    @Test
    void the_same_spool_on_both_sides_of_a_border_can_be_merged() {
        Bench bench = twoColours().start(1, Spools.SOOT);
        bench.plan = only(bench, "same-spool").fix().orElseThrow().colours().apply(bench.plan);
        none(bench, "same-spool");
        assertThat(bench.plan.starts().list()).hasSize(2);
    }

    @Test
    void a_colour_that_gets_no_layer_is_said_and_can_be_removed() {
        Bench bench = twoColours().start(2.02, Spools.BURGUNDY);
        assertThat(only(bench, "no-layer").sentence()).contains("B Chalk").contains("same layer");
        Bench lower = twoColours();
        lower.mesh = new Shapes().box(0, 0, 0, 20, 20, 1).mesh();
        lower.grid = LayerSettings.COMMON.on(lower.mesh.height());
        Finding finding = only(lower, "no-layer");
        assertThat(finding.sentence()).contains("model ends at 1.00 mm");
        lower.plan = finding.fix().orElseThrow().colours().apply(lower.plan);
        none(lower, "no-layer");
    }

    @Test
    void a_colour_that_starts_in_the_last_of_a_model_that_coarse_layers_leave_out_is_said_to() {
        Bench coarse = twoColours();
        coarse.grid = LayerSettings.COMMON
                .withLayers(Height.ofMillimetres(0.2), Height.ofMillimetres(2))
                .on(coarse.mesh.height());
        assertThat(only(coarse, "no-layer").sentence()).contains("print ends at 2.20 mm, of a model of 3.00 mm");
    }

    @Test
    void a_spool_with_too_little_left_stops_the_plan() {
        Bench bench = twoColours();
        bench.shelf.put(Spools.CHALK.id(), Spools.spool(2, "Chalk", "#F4F1E8", Material.PLA, 0.5));
        Finding finding = only(bench, "not-enough-B");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence()).contains("has 0.5 g left");
        assertThat(bench.findings().get(0)).isEqualTo(finding);
    }

    @Test
    void the_park_spot_must_be_there_on_the_bed_and_beside_the_part() {
        Bench missing = twoColours();
        missing.printer = Printers.parkingAt(missing.printer, Optional.empty());
        only(missing, "no-park-spot");
        Bench over = twoColours();
        over.printer = Printers.parkingAt(over.printer, Optional.of(new Point(110, 105)));
        assertThat(only(over, "park-over-part").sentence()).contains("X 110 Y 105");
        Bench off = twoColours();
        off.printer = Printers.parkingAt(off.printer, Optional.of(new Point(400, 5)));
        assertThat(only(off, "macro-fault").severity()).isEqualTo(Severity.STOP);
        assertThat(only(off, "macro-fault").sentence())
                .contains("Swap macro, step 3")
                .contains("leaves its travel");
        Bench oneColour = new Bench();
        oneColour.printer = missing.printer;
        none(oneColour, "no-park-spot");
    }

    @Test
    void a_file_sliced_for_a_larger_printer_is_told_once_and_not_as_a_fault_of_the_macros() {
        Bench bench = twoColours().sliced(new SmallGcode().centredAt(213, 100).grid(0.2, 0.2, 15));
        Finding finding = only(bench, "beyond-travel");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence())
                .contains("from X 203.0 Y 90.0 to X 223.0 Y 110.0")
                .contains("from X 0.0 Y 0.0 to X 220.0 Y 220.0");
        none(bench, "macro-fault");
        none(twoColours().sliced(new SmallGcode().centredAt(210, 100).grid(0.2, 0.2, 15)), "beyond-travel");
    }

    @Test
    void a_file_with_a_tower_of_its_own_is_not_purged_beside_it_unheard() {
        for (boolean tower : new boolean[] {true, false}) {
            SmallGcode gcode = new SmallGcode().line("T0");
            for (int layer = 1; layer <= 15; layer++) {
                gcode.line("T" + (layer + 1) % 2).layers(0.2 * layer).line("T" + layer % 2);
                (tower ? gcode.dab(130, 100) : gcode).layers(0.2 * layer);
            }
            Bench bench = new Bench()
                    .region(new Region(
                            "half",
                            new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false),
                            Spools.CHALK.id(),
                            Range.ALL))
                    .sliced(gcode);
            if (tower) {
                double pushed = bench.ledger().purgeLength().value() / 15;
                assertThat(only(bench, "tower-in-file").sentence())
                        .contains("At 15 of 15 swaps", "near X 130 Y 100", "%.0f mm are pushed".formatted(pushed));
                MacroBook pushing = bench.macros;
                bench.swapping(new Step.SelectExtruder());
                none(bench, "tower-in-file");
                bench.macros = pushing;
                bench.purge =
                        only(bench, "tower-in-file").fix().orElseThrow().purge().apply(bench.purge);
                assertThat(bench.ledger().swaps()).allMatch(s -> s.moment().purge() == 0);
            }
            none(bench, "tower-in-file");
        }
    }

    @Test
    void faults_that_differ_in_their_numbers_alone_are_one() {
        Bench bench = twoColours()
                .start(2.4, Spools.SOOT)
                .swapping(new Step.Raw("G1 X3{{layer}} F6000"), new Step.WaitForPerson(Command.M0), new Step.Return());
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        assertThat(fault(bench, "leaves its travel").sentence())
                .endsWith("So it is 1 time more, in other places or at other heights.");
    }

    @Test
    void a_missing_ability_stops_the_plan_if_it_is_the_one_that_waits() {
        Bench bench = twoColours();
        bench.printer = bench.printer.with(Abilities.of("M117", "M109 S"));
        assertThat(fault(bench, "understand M0").severity()).isEqualTo(Severity.STOP);
        assertThat(fault(bench, "understand M300").severity()).isEqualTo(Severity.WARN);
    }

    @Test
    void a_macro_that_never_stops_and_a_heater_that_gives_up_are_seen() {
        Bench bench = twoColours();
        bench.swapping(new Step.Lift(5));
        assertThat(fault(bench, "never stops the machine").severity()).isEqualTo(Severity.STOP);
        Bench cold = twoColours();
        cold.printer = Printers.waiting(cold.printer, Duration.ofSeconds(60));
        assertThat(fault(cold, "cools after 60 s").severity()).isEqualTo(Severity.WARN);
    }

    @Test
    void a_model_of_which_no_layer_prints_is_seen_and_says_what_to_do() {
        Bench sheet = new Bench();
        sheet.mesh = new Shapes()
                .triangle(new double[] {0, 0, 0}, new double[] {10, 0, 0}, new double[] {5, 0, 3})
                .mesh();
        Bench leaf = new Bench();
        leaf.mesh = new Shapes().box(0, 0, 0, 20, 20, 0.08).mesh();
        leaf.grid = LayerSettings.COMMON.on(leaf.mesh.height());
        assertThat(only(sheet, "nothing-prints").sentence()).contains("without thickness");
        assertThat(only(leaf, "nothing-prints").sentence())
                .contains("0.08 mm high", "a first layer of less than 0.16 mm");
        assertThat(only(leaf, "nothing-prints").severity()).isEqualTo(Severity.STOP);
    }

    @Test
    void a_model_that_is_open_or_too_large_is_seen() {
        Bench open = new Bench();
        open.mesh = new Shapes().box(0, 0, 0, 20, 20, 3).dropLastTriangle().mesh();
        assertThat(only(open, "open-mesh").layer()).hasValue(1);
        Bench high = new Bench();
        high.mesh = new Shapes().box(0, 0, 0, 20, 20, 300).mesh();
        high.grid = LayerSettings.COMMON.on(high.mesh.height());
        only(high, "too-high");
    }

    @Test
    void a_file_on_other_layers_is_refused_and_stops_in_it_are_named() {
        Bench bench = twoColours().sliced(new SmallGcode().grid(0.3, 0.2, 15));
        assertThat(only(bench, "other-layers").severity()).isEqualTo(Severity.STOP);
        Bench stops =
                twoColours().sliced(new SmallGcode().layers(0.2).line("M600").grid(0.4, 0.2, 14));
        assertThat(only(stops, "stops-in-file").sentence()).contains("1 stop").contains("M600");
    }

    @Test
    void a_file_older_than_the_plan_is_seen() throws IOException {
        Bench bench = twoColours();
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        bench.sliced(original);
        byte[] written = bench.reckoning().patch().applyTo(original);
        bench.sliced(written);
        none(bench, "older-than-plan");
        bench.written = Optional.of(bench.facts().state());
        none(bench, "written-before-change");
        bench.plan = bench.plan.recolour(1, Spools.BURGUNDY.id());
        only(bench, "older-than-plan");
        only(bench, "written-before-change");
    }

    @Test
    void where_every_layer_has_one_colour_a_tower_is_said_to_be_a_waste() {
        assertThat(only(twoColours(), "tower-not-needed").sentence())
                .contains("leave the slicing program's purge tower off");
        none(new Bench(), "tower-not-needed");
    }

    @Test
    void heights_are_those_of_the_grid() {
        assertThat(twoColours().facts().tranches().get(1).start().actual()).isEqualTo(Height.ofMillimetres(2));
    }

    @Test
    void a_tower_larger_than_the_bed_is_said_with_a_width_that_has_room() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.purge = PurgeSettings.USUAL.into(new PurgePlace.OnTower(30));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("tower-without-room");
        bench.purge = new PurgeSettings(2, 4, new PurgePlace.OnTower(5));
        Finding finding = only(bench, "tower-without-room");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        bench.purge = finding.fix().orElseThrow().purge().apply(bench.purge);
        none(bench, "tower-without-room");
        assertThat(bench.facts().returns().tower())
                .hasValueSatisfying(t -> assertThat(t.stands()).isTrue());
        // By hand: 4560 mm³ on a layer of 0.2 mm are 151 mm each way, and beside the tile there are 98.
        bench.purge = new PurgeSettings(2, 10, new PurgePlace.OnTower(5));
        assertThat(only(bench, "tower-without-room").fix()).isEmpty();
    }

    @Test
    void other_layers_are_taken_over_from_the_file_in_one_action() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(new SmallGcode().grid(0.3, 0.3, 10));
        Fix fix = bench.found("other-layers").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Take the file's layers");
        bench.plan = fix.colours().apply(bench.plan);
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        assertThat(bench.match()).isPresent();
        assertThat(bench.findings()).noneMatch(f -> f.key().equals("other-layers"));
    }

    @Test
    void a_raft_that_only_the_file_knows_of_stops_the_hand_off_until_it_is_said_to_be_one() {
        double[] tops = new double[17];
        tops[0] = 0.4;
        tops[1] = 0.9;
        for (int i = 0; i < 15; i++) {
            tops[2 + i] = 1.3 + 0.2 * i;
        }
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.sliced(new SmallGcode().layers(tops));
        Finding raft = bench.found("raft-differs");
        assertThat(raft.severity()).isEqualTo(Severity.STOP);
        assertThat(raft.sentence()).contains("2 layers, 1.10 mm together");
        bench.plan = raft.fix().orElseThrow().colours().apply(bench.plan);
        assertThat(bench.findings()).noneMatch(f -> f.key().equals("raft-differs"));
        bench.sliced(new SmallGcode().grid(0.2, 0.2, 15));
        assertThat(bench.found("raft-differs").fix().orElseThrow().label()).isEqualTo("Plan without a raft");
    }

    @Test
    void a_raft_comes_out_in_the_first_spool_and_what_the_file_prints_it_with_needs_none_of_its_own() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.plan = bench.plan.withLayers(bench.plan.layers().withRaft(Height.parse("1.1")));
        for (int tool : new int[] {0, 1, 5}) {
            SmallGcode file = new SmallGcode()
                    .line("T" + tool)
                    .layers(0.4, 0.9)
                    .line("T0")
                    .grid(1.3, 0.2, 10);
            for (int layer = 10; layer < 15; layer++) {
                file.line(layer == 10 ? "T1" : ";").layers(1.3 + 0.2 * layer);
            }
            bench.sliced(file);
            assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
            List<Finding> raft = bench.findings().stream()
                    .filter(f -> f.key().equals("raft-otherwise"))
                    .toList();
            assertThat(raft).hasSize(tool == 0 ? 0 : 1).allSatisfy(f -> assertThat(f.sentence())
                    .startsWith(
                            "The raft comes out in A Soot, with which the print begins, and the G-code prints it with T"
                                    + tool + (tool == 1 ? ", which is B Chalk" : "")));
        }
    }
}
