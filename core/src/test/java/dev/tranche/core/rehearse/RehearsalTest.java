package dev.tranche.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rehearse.Report.LayerSeen;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Volume;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A print is rehearsed on a printer that is only simulated, and the report says what came out of it. */
class RehearsalTest {
    private static final List<SpoolId> FILAMENTS = List.of(Spools.SOOT.id(), Spools.CHALK.id(), Spools.BURGUNDY.id());

    private static final Rehearsal.Watcher NOBODY = new Rehearsal.Watcher() {
        @Override
        public void at(long bytes, String line, int layer, Controller at) {}

        @Override
        public void meets(Encounter stop) {}
    };

    /** Walls of the bench's tile and of the step on it. */
    private static SmallGcode tile() {
        return new SmallGcode()
                .sized(19.5, 19.5)
                .grid(0.2, 0.2, 10)
                .sized(9.5, 9.5)
                .grid(2.2, 0.2, 5);
    }

    /** Soot to 2 mm, Chalk above it. */
    private static Bench bench() {
        return new Bench().start(2, Spools.CHALK).sliced(tile());
    }

    private static Report rehearse(Bench bench, Function<Encounter, Deed> person, String... faults) throws IOException {
        return rehearse(bench.facts(), bench.written(), person, faults);
    }

    private static Report rehearse(PlanFacts facts, byte[] file, Function<Encounter, Deed> person, String... faults)
            throws IOException {
        StandIn printer = new StandIn(facts.rig().printer(), FILAMENTS.size(), Rehearsal.first(facts, FILAMENTS));
        try (Loopback device = new Loopback(printer)) {
            for (String fault : faults) {
                assertThat(device.hand(fault)).isEqualTo("done");
            }
            return new Rehearsal(facts, FILAMENTS, 2, device, person, NOBODY).run(new ByteArrayInputStream(file));
        }
    }

    private static double sum(Report report, java.util.function.ToDoubleFunction<LayerSeen> of) {
        return report.layers().stream().mapToDouble(of).sum();
    }

    @ParameterizedTest
    @ValueSource(ints = {205, 240})
    void a_print_lasts_as_long_as_planned_though_the_file_heats_at_its_changes_of_tools(int chalk) throws IOException {
        SmallGcode gcode = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            int first = (layer + 1) % 2;
            gcode.line("T" + first).layers(0.2 * layer).line("M104 S170").line("T" + (1 - first));
            gcode.line("M109 S" + (first == 0 ? 240 : 205)).layers(0.2 * layer);
        }
        Bench bench = new Bench()
                .region(new Region(
                        "half", new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false), Spools.CHALK.id(), Range.ALL))
                .sliced(gcode);
        Spool s = Spools.CHALK;
        bench.shelf.put(
                s.id(),
                new Spool(
                        s.id(),
                        s.name(),
                        s.material(),
                        s.colour(),
                        s.density(),
                        s.pricePerKilogram(),
                        chalk,
                        chalk,
                        800));
        Report report = rehearse(bench, Deed::asPlanned);
        // A nozzle that is told to cool begins while the last moves are still under way, which the plan does not
        // reckon.
        assertThat(report.seconds()).isCloseTo(bench.ledger().totalSeconds(), within(0.02 * report.seconds()));
        assertThat(bench.ledger().swaps().get(0).spared() > 20).isEqualTo(chalk == 240);
    }

    @Test
    void a_print_lasts_as_long_as_planned_though_its_file_draws_filament_out_at_its_changes_of_tools()
            throws IOException {
        SmallGcode gcode = new SmallGcode().relativeExtrusion().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).outline(90.5, 90.5, 19, 19, 0.0374);
            int tool = layer % 2;
            gcode.line("G1 E-20 F1200").line("G1 E-60").line("T" + tool).line("G1 E80");
            gcode.outline(91, 91, 8, 18, 0.0374);
        }
        Bench bench = new Bench()
                .region(new Region(
                        "half", new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false), Spools.CHALK.id(), Range.ALL))
                .sliced(gcode);
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.troubles()).isEmpty();
        assertThat(report.stops()).hasSizeGreaterThan(10);
        assertThat(report.seconds()).isCloseTo(bench.ledger().totalSeconds(), within(0.02 * report.seconds()));
    }

    /** A brim is printed with one tool, and lies against the walls of all; common practice. */
    @Test
    void a_brim_round_a_model_of_two_colours_is_none_of_its_plastic_in_a_wrong_one() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.line("T0").rise(0.2 * layer);
            for (int ring = layer == 1 ? 3 : 0; ring > 0; ring--) {
                double out = (ring - 0.5) * 0.45;
                gcode.outline(90 - out, 90 - out, 20 + 2 * out, 20 + 2 * out, 0.03);
            }
            gcode.outline(100.2, 90.2, 9.6, 19.6, 0.03).line("T1").outline(90.2, 90.2, 9.6, 19.6, 0.03);
        }
        Bench bench = new Bench()
                .region(new Region(
                        "half",
                        new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false),
                        Spools.CHALK.id(),
                        Range.ALL));
        bench.mesh = new Shapes().box(0, 0, 0, 20, 20, 3).mesh();
        Report report = rehearse(bench.sliced(gcode), Deed::asPlanned);
        assertThat(report.layers()).allSatisfy(l -> {
            assertThat(l.wrong()).isZero();
            assertThat(l.right()).isPositive();
        });
    }

    @Test
    void the_plastic_of_a_wall_that_climbs_is_of_the_layer_it_climbs_to() throws IOException {
        SmallGcode gcode = new SmallGcode().rise(0.2).outline(90.5, 90.5, 19, 19, 0.0374);
        for (int layer = 2; layer <= 15; layer++) {
            double in = layer > 10 ? 5.5 : 0.5;
            gcode.scarf(90 + in, 90 + in, 20 - 2 * in, 20 - 2 * in, 0.0374, 0.2 * layer - 0.2, 0.2 * layer);
        }
        Report report = rehearse(new Bench().start(2, Spools.CHALK).sliced(gcode), Deed::asPlanned);
        assertThat(sum(report, LayerSeen::right)).isCloseTo((10 * 4 * 19 + 5 * 4 * 9) * 0.0374, within(0.01));
    }

    // --- The melt

    @Test
    void what_is_pushed_through_a_nozzle_washes_out_as_the_closed_form_has_it() {
        NozzleMelt melt = new NozzleMelt(60, 2, 0);
        assertThat(melt.push(200, 1)).isTrue();
        // domain §16: after V = 200, V₀ = 60 the old share is 0.0357.
        assertThat(melt.share(0)).isCloseTo(0.0357, within(5e-5));
        assertThat(melt.share(0) + melt.share(1)).isCloseTo(1, within(1e-12));
        assertThat(new NozzleMelt(60, 2, 0).push(200, 0)).isFalse();
    }

    /** A well-stirred volume, dc/dV = (n − c)/V₀, stepped through by the classical method of Runge and Kutta. */
    @Test
    void mixing_agrees_with_stepwise_integration() {
        Random random = new Random(1);
        for (int run = 0; run < 50; run++) {
            double dead = 20 + 100 * random.nextDouble();
            NozzleMelt melt = new NozzleMelt(dead, 3, 0);
            double[] c = {1, 0, 0};
            for (int push = 0; push < 4; push++) {
                int filament = random.nextInt(3);
                double volume = 100 * random.nextDouble();
                melt.push(volume, filament);
                double h = volume / 2000;
                for (int step = 0; step < 2000; step++) {
                    for (int i = 0; i < 3; i++) {
                        double n = i == filament ? 1 : 0;
                        double k1 = (n - c[i]) / dead;
                        double k2 = (n - c[i] - h / 2 * k1) / dead;
                        double k3 = (n - c[i] - h / 2 * k2) / dead;
                        double k4 = (n - c[i] - h * k3) / dead;
                        c[i] += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
                    }
                }
            }
            for (int i = 0; i < 3; i++) {
                assertThat(melt.share(i)).isCloseTo(c[i], within(1e-6));
            }
        }
    }

    @Test
    void the_first_plastic_after_the_computed_purge_is_clean_in_every_one_of_500_random_pairs() {
        Random random = new Random(2);
        PurgeModel purges = PurgeModel.usual(new Volume(60));
        for (int i = 0; i < 500; i++) {
            Spool out = spool(1, random);
            Spool in = spool(2, random);
            NozzleMelt melt = new NozzleMelt(60, 2, 0);
            melt.push(purges.between(out, in).volume().cubicMillimetres(), 1);
            List<LinearRgb> colours = List.of(out.colour().linear(), in.colour().linear());
            LinearRgb comes = Melt.mix(colours, List.of(melt.share(0), melt.share(1)));
            LinearRgb wanted = Melt.mix(colours, List.of(0.0, 1.0));
            assertThat(comes.lab().differenceTo(wanted.lab())).isLessThanOrEqualTo(2 + 1e-6);
        }
    }

    private static Spool spool(long id, Random random) {
        return Spools.spool(id, "S" + id, "#%06X".formatted(random.nextInt(1 << 24)), Material.PLA, 500);
    }

    // --- A print

    @Test
    void a_plan_that_is_right_comes_out_clean_and_stops_where_it_should() throws IOException {
        Bench bench = bench();
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.troubles()).isEmpty();
        assertThat(report.isClean()).isTrue();
        assertThat(report.stops()).hasSize(1);
        Report.Stopped stop = report.stops().get(0);
        assertThat(stop.at().title()).isEqualTo("swap 1");
        assertThat(stop.at().layer()).isEqualTo(11);
        assertThat(stop.put()).contains(Spools.CHALK.id());
        assertThat(stop.at().acts()).anyMatch(a -> a.contains("Cut the end of B Chalk"));
        // The usual 90 s.
        assertThat(stop.seconds()).isCloseTo(90, within(0.5));
        assertThat(report.seconds()).isCloseTo(bench.ledger().totalSeconds(), within(0.001 * report.seconds()));
        assertThat(report.layers()).hasSize(15).allMatch(l -> l.right() > 0);
    }

    @ParameterizedTest
    @EnumSource(Beginning.class)
    void every_kind_of_machine_prints_a_right_plan_clean(Beginning kind) throws IOException {
        Rig rig = kind.rig("Any");
        Bench bench = new Bench().start(2, Spools.CHALK).start(2.6, Spools.BURGUNDY);
        bench.printer = rig.printer();
        bench.macros = rig.macros();
        bench.rack = Optional.of(rig.rack());
        bench.sliced(new SmallGcode()
                .centredAt(
                        rig.printer().bed().bounds().centre().x,
                        rig.printer().bed().bounds().centre().y)
                .grid(0.2, 0.2, 15));
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.troubles()).isEmpty();
        assertThat(report.unclean()).isEmpty();
        assertThat(report.isClean()).isTrue();
        long attended = bench.ledger().visits();
        assertThat(report.stops()).hasSize((int) attended);
    }

    /** What the machine's own routine pushes through is pushed by nobody else. */
    @ParameterizedTest
    @EnumSource(
            value = Beginning.class,
            names = {"FEEDER", "TUBE_ROUTINE"})
    void a_routine_that_purges_enough_prints_clean_and_one_that_does_not_is_seen(Beginning kind) throws IOException {
        Rig rig = kind.rig("Any");
        for (double length : new double[] {400, 20}) {
            Bench bench = new Bench().start(2, Spools.CHALK);
            bench.printer = rig.printer();
            bench.macros = rig.macros();
            bench.rack = Optional.of(rig.rack());
            bench.purge = PurgeSettings.USUAL.into(new PurgePlace.Routine(length));
            bench.sliced(new SmallGcode()
                    .centredAt(
                            rig.printer().bed().bounds().centre().x,
                            rig.printer().bed().bounds().centre().y)
                    .sized(19.5, 19.5)
                    .grid(0.2, 0.2, 10)
                    .sized(9.5, 9.5)
                    .grid(2.2, 0.2, 5));
            assertThat(rehearse(bench, Deed::asPlanned).unclean().isEmpty())
                    .as("%s, %s mm", kind, length)
                    .isEqualTo(length == 400);
        }
    }

    @Test
    void a_swap_that_asks_whether_it_is_clean_stops_twice_and_changes_the_spool_once() throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        Macro ready = bench.macros.macro(0);
        bench.macros = bench.macros.replace(
                0,
                new Macro(
                        ready.name(),
                        Event.SWAP,
                        true,
                        ready.person(),
                        ready.steps().stream().map(step -> step.turned(true)).toList()));
        bench.sliced(tile());
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.isClean()).isTrue();
        assertThat(report.stops()).hasSize(2);
        assertThat(report.stops().get(0).put()).contains(Spools.CHALK.id());
        assertThat(report.stops().get(1).put()).isEmpty();
        assertThat(report.stops().get(1).at().acts()).contains("Clear away the strand");
    }

    @Test
    void a_pause_of_the_owners_own_stops_there_if_the_printer_is_said_to_stop_at_it() throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.printer = bench.printer.with(bench.printer
                .abilities()
                .reading(new Dialect(Dialect.Counting.NOT_SAID, List.of(new OwnLine("HOLD_HERE")), List.of())));
        bench.macros = bench.macros.replace(
                0,
                Macro.of(
                        Event.SWAP,
                        new Step.Lift(5),
                        new Step.Park(),
                        new Step.OwnPause("HOLD_HERE TIME=5"),
                        new Step.Purge(4),
                        Step.Wipe.USUAL,
                        new Step.Return()));
        bench.sliced(tile());
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.stops()).hasSize(1);
        assertThat(report.isClean()).isTrue();
    }

    /** So dark a plastic is not seen as dark as it is told once it has run together: what is clean is as the melt shows it. */
    @Test
    void a_dark_spool_after_the_computed_purge_is_clean_too() throws IOException {
        Bench bench = new Bench();
        bench.plan = ColourPlan.of(LayerSettings.COMMON, Spools.BURGUNDY.id());
        bench.start(2, Spools.SOOT).sliced(tile());
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.unclean()).isEmpty();
    }

    @Test
    void a_wrong_spool_at_a_swap_is_wrong_in_every_layer_from_there() throws IOException {
        Report report = rehearse(bench(), stop -> Deed.asPlanned(stop).putting(Spools.BURGUNDY.id()));
        assertThat(report.isClean()).isFalse();
        assertThat(report.stops().get(0).isWrong()).isTrue();
        assertThat(report.layers().subList(0, 10)).allMatch(LayerSeen::isClean);
        assertThat(report.layers().subList(10, 15)).allMatch(l -> l.wrong() > 0 && l.right() == 0);
        assertThat(report.layers().get(10).marks())
                .isNotEmpty()
                .allMatch(m -> m.kind() == Report.Kind.WRONG)
                .allMatch(m -> m.x0() >= -0.5 && m.x0() <= 20.5 && m.y0() >= -0.5 && m.y0() <= 20.5);
    }

    @Test
    void too_little_purge_leaves_a_mix_that_is_measured() throws IOException {
        Bench bench = bench();
        bench.purge = new PurgeSettings(2, 0.1);
        Report report = rehearse(bench, Deed::asPlanned);
        LayerSeen first = report.layers().get(10);
        assertThat(first.mixed()).isGreaterThan(0);
        assertThat(first.difference()).isGreaterThan(2);
        assertThat(first.marks())
                .anyMatch(m -> m.kind() == Report.Kind.MIXED && !m.colour().equals(Srgb.parse("#F4F1E8")));
        assertThat(report.layers().subList(0, 10)).allMatch(LayerSeen::isClean);
        assertThat(report.isClean()).isFalse();
    }

    /** A thousandth of soot is seen in chalk. */
    @Test
    void the_last_traces_wash_out_as_it_prints() throws IOException {
        Bench bench = bench();
        bench.purge = new PurgeSettings(2, 0.8);
        Report report = rehearse(bench, Deed::asPlanned);
        assertThat(report.layers().get(10).difference()).isGreaterThan(2);
        assertThat(report.layers().get(14).difference())
                .isLessThan(report.layers().get(10).difference() - 0.05);
    }

    @Test
    void a_hand_that_does_not_push_leaves_a_mix_where_the_purge_is_left_to_it() throws IOException {
        Bench bench = bench();
        bench.printer = Printers.plain().with(Abilities.of("M600 XYZUL", "M0", "M117", "M104 S", "M109 S"));
        bench.macros = SwapMethod.FIRMWARE_ROUTINE.ready();
        bench.sliced(tile());
        assertThat(rehearse(bench, Deed::asPlanned).isClean()).isTrue();
        Report lazy = rehearse(bench, stop -> new Deed(stop.wanted(), Duration.ZERO, false));
        assertThat(lazy.layers().get(10).mixed() + lazy.layers().get(10).wrong())
                .isGreaterThan(0);
    }

    // --- Faults that it can be dealt

    @Test
    void a_filament_that_ends_prints_nothing_from_there() throws IOException {
        Report report = rehearse(bench(), Deed::asPlanned, "ends 0 20");
        assertThat(report.troubles()).anyMatch(t -> t.sentence().contains("filament ends"));
        assertThat(sum(report, LayerSeen::missing)).isGreaterThan(3);
        assertThat(report.isClean()).isFalse();
    }

    @Test
    void an_ignored_stop_prints_on_with_the_old_colour() throws IOException {
        Report report = rehearse(bench(), Deed::asPlanned, "ignore 1");
        assertThat(report.stops()).isEmpty();
        assertThat(report.troubles()).anyMatch(t -> t.sentence().contains("does not stop"));
        assertThat(report.layers().subList(10, 15)).allMatch(l -> l.wrong() > 0);
    }

    @Test
    void a_person_who_is_very_late_finds_the_heater_off_and_the_macro_heats_again() throws IOException {
        Report report = rehearse(bench(), stop -> Deed.asPlanned(stop).late(Duration.ofHours(1)));
        assertThat(report.troubles()).anyMatch(t -> t.sentence().contains("heater gives up"));
        assertThat(report.stops().get(0).seconds()).isCloseTo(90 + 3600, within(1.0));
        assertThat(report.seams()).hasSize(1);
        // M109 after the stop, so what is printed is right all the same.
        assertThat(report.unclean()).isEmpty();
    }

    @Test
    void a_heater_that_gives_up_before_a_macro_that_does_not_heat_prints_nothing() throws IOException {
        Bench bench = bench();
        bench.printer = Printers.plain().with(Abilities.of("M0", "M117"));
        bench.sliced(tile());
        Report report = rehearse(bench, Deed::asPlanned, "gives-up 1");
        assertThat(report.troubles())
                .anyMatch(t -> t.sentence().contains("heater gives up"))
                .anyMatch(t -> t.sentence().contains("too cold"));
    }

    @Test
    void a_power_cut_ends_it_and_says_when() throws IOException {
        Report report = rehearse(bench(), Deed::asPlanned, "power 300");
        assertThat(report.whole()).isFalse();
        assertThat(report.isClean()).isFalse();
        assertThat(report.seconds()).isGreaterThan(299);
        assertThat(report.troubles()).anyMatch(t -> t.sentence().contains("power fails after"));
    }

    @Test
    void a_stop_that_the_plan_does_not_know_is_met_and_named() throws IOException {
        Bench bench = bench();
        String text = new String(bench.written(), StandardCharsets.ISO_8859_1);
        byte[] file = text.replaceFirst("\nG1 ", "\nM226\nG1 ").getBytes(StandardCharsets.ISO_8859_1);
        Report report = rehearse(bench.facts(), file, Deed::asPlanned);
        assertThat(report.stops()).hasSize(2);
        assertThat(report.troubles()).anyMatch(t -> t.sentence().contains("where the plan has no stop"));
    }

    @Test
    void what_the_firmware_does_not_understand_it_passes_over_and_says_so_once_and_comments_are_not_sent()
            throws IOException {
        Bench bench = bench();
        String text = "START_PRINT BED=60\nSTART_PRINT BED=55\n(layer 1/15)\nM163 S0 P1\n"
                + new String(bench.written(), StandardCharsets.ISO_8859_1);
        Report report = rehearse(bench.facts(), text.getBytes(StandardCharsets.ISO_8859_1), Deed::asPlanned);
        assertThat(report.troubles())
                .containsExactly(new Report.Trouble("The firmware does not understand “M163” and passes over it.", 1));
        assertThat(report.passedOver()).isEqualTo("What only the printer knows was passed over: START_PRINT 2 times.");
        assertThat(report.unclean()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "START_PRINT TOOL_TEMP=215, true",
        "M104 S215|TEMPERATURE_WAIT SENSOR=extruder MINIMUM=214, true",
        "M104 S215, false"
    })
    void a_nozzle_that_the_printers_own_command_heats_is_hot(String start, boolean hot) throws IOException {
        Bench bench = bench();
        String text = new String(bench.written(), StandardCharsets.ISO_8859_1)
                .replaceFirst("M109 S\\d+", start.replace('|', '\n'));
        Report report = rehearse(bench.facts(), text.getBytes(StandardCharsets.ISO_8859_1), Deed::asPlanned);
        assertThat(report.isClean()).as("%s", report.troubles()).isEqualTo(hot);
        assertThat(report.troubles().stream().anyMatch(t -> t.sentence().contains("too cold")))
                .isEqualTo(!hot);
    }

    // --- The wire

    private static List<String> said(String... lines) throws IOException, InterruptedException {
        ByteArrayOutputStream answers = new ByteArrayOutputStream();
        StandIn printer = new StandIn(Printers.plain(), 2, 0);
        new StandInAtWire(
                        printer,
                        new ByteArrayInputStream(String.join("\n", lines).getBytes(StandardCharsets.US_ASCII)),
                        answers)
                .run();
        return answers.toString(StandardCharsets.US_ASCII).lines().toList();
    }

    @Test
    void every_line_is_answered_and_one_with_a_wrong_sum_or_number_is_asked_for_again() throws Exception {
        // The sum is the exclusive or of all bytes before the asterisk: common practice in open firmware.
        assertThat(said("N1 G28*18", "G90")).containsExactly("ok", "ok");
        assertThat(said("N1 G28*19")).containsExactly("Error:checksum mismatch, Last Line: 0", "Resend: 1", "ok");
        assertThat(said("N1 G28*18", "N3 G90*" + xor("N3 G90")))
                .containsExactly("ok", "Error:Line Number is not Last Line Number+1, Last Line: 1", "Resend: 2", "ok");
        assertThat(said("M999")).containsExactly("ok");
        assertThat(said("T1", "NONSENSE"))
                .containsExactly("echo:Unknown command: \"T1\"", "ok", "echo:Unknown command: \"NONSENSE\"", "ok");
        assertThat(said("M0_PARK", "T1_PARK"))
                .containsExactly("echo:Unknown command: \"M0_PARK\"", "ok", "echo:Unknown command: \"T1_PARK\"", "ok");
        assertThat(said("START_PRINT", "N1 START_PRINT*" + xor("N1 START_PRINT")))
                .containsExactly(
                        "echo:Unknown command: \"START_PRINT\"", "ok", "echo:Unknown command: \"START_PRINT\"", "ok");
        assertThat(said("M105").get(0)).startsWith("T:20.0 /0.0");
    }

    private static int xor(String line) {
        return line.chars().reduce(0, (a, b) -> a ^ b);
    }

    @Test
    void a_nozzle_heats_as_a_first_order_system_does() throws Exception {
        // From 20 to 210 °C at a limit of 400 °C with τ = 150 s: 150·ln(380/190) = 104.0 s.
        StandIn printer = new StandIn(Printers.plain(), 1, 0);
        new StandInAtWire(
                        printer,
                        new ByteArrayInputStream("M109 S210\n".getBytes(StandardCharsets.US_ASCII)),
                        new ByteArrayOutputStream())
                .run();
        assertThat(printer.seconds()).isCloseTo(150 * Math.log(2), within(1e-6));
    }

    /** A wire that damages every 50th line on its way. */
    private record Noisy(Device device, int[] count) implements Device {
        @Override
        public OutputStream lines() {
            OutputStream out = device.lines();
            return new OutputStream() {
                private final ByteArrayOutputStream line = new ByteArrayOutputStream();

                @Override
                public void write(int b) throws IOException {
                    line.write(b);
                    if (b == '\n') {
                        byte[] bytes = line.toByteArray();
                        if (++count[0] % 50 == 0) {
                            bytes[bytes.length / 2] ^= 1;
                        }
                        out.write(bytes);
                        line.reset();
                    }
                }
            };
        }

        @Override
        public InputStream answers() {
            return device.answers();
        }

        @Override
        public String hand(String does) throws IOException {
            return device.hand(does);
        }
    }

    @Test
    void lines_that_are_damaged_on_the_wire_are_sent_again_and_the_print_comes_out_the_same() throws IOException {
        Bench bench = bench();
        StandIn printer = new StandIn(bench.printer, FILAMENTS.size(), 0);
        int[] count = {0};
        try (Loopback device = new Loopback(printer)) {
            Report report = new Rehearsal(
                            bench.facts(), FILAMENTS, 2, new Noisy(device, count), Deed::asPlanned, NOBODY)
                    .run(new ByteArrayInputStream(bench.written()));
            assertThat(count[0]).isGreaterThan(100);
            assertThat(report.troubles())
                    .extracting(Report.Trouble::sentence)
                    .containsExactly("A line did not arrive as it was sent, and was sent again.");
            assertThat(report.unclean()).isEmpty();
            assertThat(report.layers())
                    .isEqualTo(rehearse(bench, Deed::asPlanned).layers());
        }
    }

    @Test
    void a_socket_that_talks_nonsense_or_nothing_is_refused_with_a_sentence() {
        for (String answers : List.of(
                "hello, who is there?\n",
                "",
                "Resend: 900\n",
                "Resend: soon\n",
                "// stop\n",
                "// mix x\n",
                "// wait 1 2\n",
                "echo:Unknown command\n",
                "x".repeat(100_000))) {
            Device nonsense = new Device() {
                @Override
                public OutputStream lines() {
                    return OutputStream.nullOutputStream();
                }

                @Override
                public InputStream answers() {
                    return new ByteArrayInputStream(answers.getBytes(StandardCharsets.US_ASCII));
                }

                @Override
                public String hand(String does) {
                    return "clock 0";
                }
            };
            Bench bench = bench();
            Rehearsal rehearsal = new Rehearsal(bench.facts(), FILAMENTS, 2, nonsense, Deed::asPlanned, NOBODY);
            assertThatThrownBy(() -> rehearsal.run(new ByteArrayInputStream(bench.written())))
                    .isInstanceOf(Refusal.class);
        }
    }

    @Test
    void hands_that_do_what_cannot_be_done_are_told() throws IOException {
        StandIn printer = new StandIn(Printers.plain(), 2, 0);
        StandIn.Wire wire = new StandIn.Wire() {
            @Override
            public void ok() {}

            @Override
            public void say(String line) {}
        };
        List<String> answers = new ArrayList<>();
        for (String does : List.of("go", "in 1 gears", "out", "push -1", "in 7 nozzle", "dance", "ends", "wait x")) {
            answers.add(printer.hand(does, wire));
        }
        assertThat(answers).allMatch(a -> a.startsWith("cannot: "));
    }

    @Test
    void a_person_is_not_late_by_less_than_nothing() {
        assertThatThrownBy(() -> new Deed(Optional.empty(), Duration.ofSeconds(-1), true))
                .isInstanceOf(Refusal.class);
    }
}
