package dev.tranche.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Recipe.Portion;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** What a nozzle that blends prints of a file with a plan's blends in it. */
class BlendingRehearsalTest {
    private static final SpoolId SKY = Spools.SKY.id();
    private static final SpoolId BURGUNDY = Spools.BURGUNDY.id();
    private static final List<SpoolId> FILAMENTS = List.of(SKY, BURGUNDY);
    private static final SpoolId PAINT = new SpoolId(-1);

    private static final Rehearsal.Watcher NOBODY = new Rehearsal.Watcher() {
        @Override
        public void at(long bytes, String line, int layer, Controller at) {}

        @Override
        public void meets(Encounter stop) {}
    };

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    /** A nozzle so small that what it holds is no more than a tenth of a layer of the tile. */
    private static Bench bench() {
        Rig rig = Beginning.BLENDING.rig("Blender");
        Bench bench = new Bench();
        bench.printer = rig.printer().with(new Volume(1));
        bench.macros = rig.macros();
        bench.rack = Optional.of(rig.rack());
        bench.plan = bench.plan.recolour(0, SKY);
        bench.sliced(new SmallGcode()
                .centredAt(
                        rig.printer().bed().bounds().centre().x,
                        rig.printer().bed().bounds().centre().y)
                .sized(19.5, 19.5)
                .grid(0.2, 0.2, 10)
                .sized(9.5, 9.5)
                .grid(2.2, 0.2, 5));
        return bench;
    }

    private static Bench fading() {
        Bench bench = bench();
        bench.plan = bench.plan.fading(
                new Mixture.Fade(PAINT, Recipe.of(SKY), Recipe.of(BURGUNDY), h(0.6), h(2.4)), BURGUNDY, bench.grid);
        return bench;
    }

    private static Report rehearse(Bench bench, UnaryOperator<String> otherwise) throws IOException {
        return rehearse(bench, FILAMENTS, otherwise);
    }

    private static Report rehearse(Bench bench, List<SpoolId> filaments, UnaryOperator<String> otherwise)
            throws IOException {
        PlanFacts facts = bench.facts();
        String file = otherwise.apply(new String(bench.written(), StandardCharsets.US_ASCII));
        StandIn printer = new StandIn(facts.rig().printer(), filaments.size(), Rehearsal.first(facts, filaments));
        try (Loopback device = new Loopback(printer)) {
            return new Rehearsal(facts, filaments, 2, device, Deed::asPlanned, NOBODY)
                    .run(new ByteArrayInputStream(file.getBytes(StandardCharsets.US_ASCII)));
        }
    }

    private static void steps(Bench bench) {
        bench.printer = bench.printer.with(
                Abilities.of("T", "M163 SP", "M164 S", "M0", "M117", "G4 SP", "M104 S", "M109 S", "M400"));
    }

    @Test
    void a_third_spool_comes_out_as_planned_where_it_is_put_in_for_another() throws IOException {
        Bench bench = bench();
        bench.plan = bench.plan.startAt(h(1), BURGUNDY, bench.grid).startAt(h(2), Spools.SOOT.id(), bench.grid);
        bench.mendPrinter("nobody-stops");
        Report report = rehearse(bench, List.of(SKY, BURGUNDY, Spools.SOOT.id()), f -> f);
        assertThat(report.troubles()).isEmpty();
        assertThat(report.stops()).hasSize(1);
        assertThat(report.layers()).allMatch(l -> l.right() > 0 && l.wrong() == 0);
        // Were it called as the rack's third extruder, which is the first input again, the first spool would come out.
        Report third = rehearse(
                bench, List.of(SKY, BURGUNDY, Spools.SOOT.id()), f -> f.replaceAll("(?m)^M0.*$", "; nobody stops"));
        assertThat(third.layers()).anyMatch(l -> l.wrong() > 0);
    }

    @Test
    void a_fade_comes_out_as_planned_whether_the_firmware_turns_it_or_the_file() throws IOException {
        for (boolean smooth : new boolean[] {true, false}) {
            Bench bench = fading();
            if (!smooth) {
                steps(bench);
            }
            Report report = rehearse(bench, f -> f);
            assertThat(report.troubles()).as("smooth: %s", smooth).isEmpty();
            assertThat(report.unclean()).as("smooth: %s", smooth).isEmpty();
            assertThat(report.stops()).isEmpty();
            assertThat(report.layers()).allMatch(l -> l.right() > 0);
        }
    }

    @Test
    void a_fade_that_is_not_told_to_the_nozzle_is_seen() throws IOException {
        Report report = rehearse(fading(), f -> f.replaceAll("M166 A.*\n", ""));
        assertThat(report.unclean()).isNotEmpty();
        assertThat(report.unclean().get(0).layer()).isBetween(5, 8);
        Bench stepped = fading();
        steps(stepped);
        assertThat(rehearse(stepped, f -> f.replaceAll("M164 S2\n", "")).unclean())
                .isNotEmpty();
    }

    @Test
    void a_blend_that_begins_at_once_is_clean_after_its_purge_and_not_without() throws IOException {
        Bench bench = bench();
        bench.printer = bench.printer.with(new Volume(40));
        bench.plan = bench.plan
                .with(
                        new Mixture.Blend(
                                PAINT, new Recipe(List.of(new Portion(SKY, 0.5), new Portion(BURGUNDY, 0.5)))),
                        bench.grid)
                .startAt(h(1), PAINT, bench.grid);
        assertThat(rehearse(bench, f -> f).isClean()).isTrue();
        String purge = "G1 E[0-9.]+ F240\n";
        assertThat(new String(bench.written(), StandardCharsets.US_ASCII)).containsPattern(purge);
        assertThat(rehearse(bench, f -> f.replaceAll(purge, "")).unclean()).isNotEmpty();
    }

    @Test
    void a_spool_that_is_put_in_at_an_input_prints_from_there() throws IOException {
        Bench bench = bench();
        SpoolId soot = Spools.SOOT.id();
        bench.plan = bench.plan
                .recolour(0, soot)
                .fading(
                        new Mixture.Fade(PAINT, Recipe.of(SKY), Recipe.of(BURGUNDY), h(1), h(2.4)),
                        BURGUNDY,
                        bench.grid);
        bench.macros = bench.macros.replace(
                0, bench.macros.macro(0).insert(4, MacroStep.always(new Step.WaitForPerson(Command.M0))));
        List<SpoolId> filaments = List.of(SKY, BURGUNDY, soot);
        for (boolean right : new boolean[] {true, false}) {
            PlanFacts facts = bench.facts();
            StandIn printer = new StandIn(facts.rig().printer(), 3, Rehearsal.first(facts, filaments));
            try (Loopback device = new Loopback(printer)) {
                Report report = new Rehearsal(
                                facts,
                                filaments,
                                2,
                                device,
                                stop -> right
                                        ? Deed.asPlanned(stop)
                                        : Deed.asPlanned(stop).putting(soot),
                                NOBODY)
                        .run(new ByteArrayInputStream(bench.written()));
                assertThat(report.stops()).hasSize(1);
                assertThat(report.isClean())
                        .as("%s %s %s", right, report.unclean(), report.troubles())
                        .isEqualTo(right);
            }
        }
    }

    @Test
    void a_zone_in_a_fade_is_turned_to_and_from_inside_each_layer_of_a_file_with_tools() throws IOException {
        for (boolean smooth : new boolean[] {true, false}) {
            Bench bench = bench();
            if (!smooth) {
                steps(bench);
            }
            bench.mesh = new Shapes().box(0, 0, 0, 40, 10, 2.4).mesh();
            bench.grid = bench.plan.layers().on(bench.mesh.height());
            bench.plan = bench.plan.with(
                    new Mixture.Fade(PAINT, Recipe.of(SKY), Recipe.of(BURGUNDY), h(0), h(2.4)), bench.grid);
            bench.region(new Region(
                    "right half", new Shape.Zone(new Outline.Box(20, 10), 30, 5, 0, false), PAINT, Range.ALL));
            SmallGcode gcode = new SmallGcode();
            for (int layer = 1; layer <= 12; layer++) {
                gcode.rise(0.2 * layer).line("T0").outline(80.3, 95.3, 19, 9.4, 0.033);
                gcode.line("T1").outline(100.7, 95.3, 19, 9.4, 0.033);
            }
            bench.sliced(gcode);
            Report report = rehearse(bench, f -> f);
            assertThat(bench.ledger().spoolSwaps()).isZero();
            assertThat(report.troubles()).as("smooth: %s", smooth).isEmpty();
            assertThat(report.unclean()).as("smooth: %s", smooth).isEmpty();
            assertThat(report.layers()).allMatch(l -> l.right() > 0);
        }
    }

    // --- The mixer, beside what the commands mean (common practice in open firmware)

    private static double[] obeyed(double z, String... lines) throws IOException {
        Mixer mixer = new Mixer(2, 2);
        mixer.feeds(0, 0);
        mixer.feeds(1, 1);
        GcodeScanner scanner = new GcodeScanner(
                new ByteArrayInputStream((String.join("\n", lines) + "\n").getBytes(StandardCharsets.US_ASCII)));
        while (scanner.next()) {
            if (scanner.letter() == 'T') {
                mixer.choose((int) scanner.number());
            } else {
                mixer.obey(scanner);
            }
        }
        return mixer.shares(z);
    }

    @Test
    void weights_are_collected_kept_and_chosen() throws IOException {
        assertThat(obeyed(1)).containsExactly(1, 0);
        assertThat(obeyed(1, "T1")).containsExactly(0, 1);
        assertThat(obeyed(1, "M163 S0 P0.3", "M163 S1 P0.7", "M164 S4")).containsExactly(1, 0);
        assertThat(obeyed(1, "M163 S0 P0.3", "M163 S1 P0.7", "M164 S4", "T4")).containsExactly(0.3, 0.7);
        // Weights count by what they are of their sum.
        assertThat(obeyed(1, "M163 S0 P3", "M163 S1 P1", "M164 S0")).containsExactly(0.75, 0.25);
        assertThat(obeyed(1, "M163 S7 P3", "M164 S99", "T88")).containsExactly(1, 0);
    }

    @Test
    void a_gradient_turns_between_its_heights_until_it_is_switched_off() throws IOException {
        String on = "M166 A2 Z6 I0 J1 S1";
        assertThat(obeyed(1, on)).containsExactly(1, 0);
        assertThat(obeyed(3, on)).containsExactly(0.75, 0.25);
        assertThat(obeyed(7, on)).containsExactly(0, 1);
        assertThat(obeyed(7, on, "M166 S0")).containsExactly(1, 0);
        assertThat(obeyed(3, on)[0] + obeyed(3, on)[1]).isCloseTo(1, within(1e-12));
    }
}
