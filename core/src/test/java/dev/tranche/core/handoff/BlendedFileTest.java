package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.SpoolUse;
import dev.tranche.core.estimate.Stretch;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Ordering;
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
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The tile of the bench, 15 layers of 0.2 mm, on a nozzle with two inputs. */
class BlendedFileTest {
    private static final SpoolId SKY = Spools.SKY.id();
    private static final SpoolId MUSTARD = Spools.MUSTARD.id();
    private static final SpoolId FADE = new SpoolId(-1);

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    private static Bench bench() {
        Bench bench = new Bench();
        Rig rig = Beginning.BLENDING.rig("Blender");
        bench.printer = rig.printer();
        bench.rack = Optional.of(rig.rack());
        bench.macros = rig.macros();
        bench.plan = bench.plan.recolour(0, SKY);
        return bench;
    }

    /** From all sky at 1 mm to all mustard at 2.6 mm, and on as mustard. */
    private static Bench fading() {
        Bench bench = bench();
        bench.plan = bench.plan
                .with(new Mixture.Fade(FADE, Recipe.of(SKY), Recipe.of(MUSTARD), h(1), h(2.6)), bench.grid)
                .startAt(h(1), FADE, bench.grid)
                .startAt(h(2.6), MUSTARD, bench.grid);
        return bench;
    }

    private static Bench blending() {
        Bench bench = bench();
        bench.plan = bench.plan
                .with(
                        new Mixture.Blend(FADE, new Recipe(List.of(new Portion(SKY, 0.5), new Portion(MUSTARD, 0.5)))),
                        bench.grid)
                .startAt(h(1), FADE, bench.grid);
        return bench;
    }

    private static Bench inSteps(Bench bench) {
        bench.printer =
                bench.printer.with(Abilities.of("T", "M163 SP", "M164 S", "M0", "G4 SP", "M104 S", "M109 S", "M400"));
        return bench;
    }

    private static byte[] sliced() {
        return new SmallGcode().relativeExtrusion().grid(0.2, 0.2, 15).bytes();
    }

    private static List<String> added(Bench bench) throws IOException {
        bench.sliced(sliced());
        String before = new String(sliced(), StandardCharsets.US_ASCII);
        return new String(bench.written(), StandardCharsets.US_ASCII)
                .lines()
                .filter(l -> l.startsWith("; tranche") || !before.contains(l + "\n"))
                .toList();
    }

    @Test
    void a_fade_from_the_colour_beneath_it_into_the_one_above_it_needs_no_stop_at_all() {
        Ledger ledger = fading().ledger();
        assertThat(ledger.swaps()).isEmpty();
        assertThat(ledger.swapCount().value()).isZero();
        assertThat(ledger.purgeLength().value()).isZero();
        assertThat(ledger.stretches()).extracting(Stretch::spool).containsExactly(SKY, FADE, MUSTARD);
    }

    @Test
    void a_blend_that_begins_at_once_clears_the_nozzle_and_swaps_no_spool() {
        Ledger ledger = blending().ledger();
        assertThat(ledger.swaps()).hasSize(1);
        assertThat(ledger.swaps().get(0).turns()).isTrue();
        assertThat(ledger.swaps().get(0).needsPerson()).isFalse();
        assertThat(ledger.swapCount().value()).isZero();
        assertThat(ledger.purgeLength().value()).isGreaterThan(0);
        // Half of what is pushed comes from each spool.
        SpoolUse mustard = ledger.uses().stream()
                .filter(u -> u.spool().id().equals(MUSTARD))
                .findFirst()
                .orElseThrow();
        assertThat(mustard.purge().cubicMillimetres())
                .isCloseTo(ledger.swaps().get(0).pushed().cubicMillimetres() / 2, within(1e-9));
    }

    @Test
    void a_blend_that_turns_is_called_one_and_no_swap() {
        Ledger ledger = blending().ledger();
        ZonedDateTime noon = ZonedDateTime.of(2026, 12, 2, 12, 0, 0, 0, ZoneOffset.UTC);
        assertThat(Schedule.of(ledger, noon, Duration.ofMinutes(10), List.of()).stops())
                .extracting(Schedule.Stop::name)
                .containsExactly("Blend");
        Ledger swapped = new Bench().start(2, Spools.CHALK).ledger();
        assertThat(Schedule.of(swapped, noon, Duration.ofMinutes(10), List.of()).stops())
                .extracting(Schedule.Stop::name)
                .containsExactly("Swap 1");
    }

    /** By a macro made for a person who waits for the time alone. */
    @Test
    void where_a_blend_turns_nobody_is_called_or_waited_for_and_no_filament_is_drawn_out() throws IOException {
        Bench bench = blending()
                .swapping(
                        new Step.Tone(880, 800),
                        new Step.Message("load {{in}}"),
                        new Step.Park(),
                        new Step.Unload(10, 40),
                        new Step.Dwell(150),
                        new Step.Load(10, 40),
                        new Step.Purge(4),
                        new Step.Dwell(15),
                        new Step.Return());
        Swap turn = bench.ledger().swaps().get(0);
        assertThat(turn.turns()).isTrue();
        assertThat(turn.duties(bench.rig())).isEmpty();
        assertThat(turn.dryRun().attended()).isFalse();
        assertThat(added(bench))
                .noneMatch(l -> l.matches("(M300|M117|G4)\\b.*"))
                .noneMatch(l -> l.matches("G1 E-?[1-9]\\d\\d.*F2400"))
                .anyMatch(l -> l.matches("G1 E\\d.*F240"));
    }

    @Test
    void a_macro_that_stops_for_a_person_is_not_said_to_stop_nowhere_where_a_blend_turns() {
        Bench bench = blending().swapping(new Step.WaitForPerson(Command.M0), new Step.Purge(4), new Step.Return());
        assertThat(bench.ledger().swaps().get(0).turns()).isTrue();
        assertThat(bench.findings()).noneMatch(f -> f.sentence().contains("never stops"));
    }

    /** What is pushed before it is chosen is the old one, and clears nothing (common practice). */
    @Test
    void a_macro_that_chooses_no_extruder_pushes_the_blend_that_comes() throws IOException {
        List<String> added = added(blending().swapping(new Step.Park(), new Step.Purge(4), new Step.Return()));
        List<String> swap = added.subList(
                added.indexOf(added.stream()
                        .filter(l -> l.endsWith("swap=1"))
                        .findFirst()
                        .orElseThrow()),
                added.size());
        assertThat(swap.stream().filter(l -> l.matches("T\\d|G1 E\\d.*F240")))
                .first()
                .asString()
                .startsWith("T");
    }

    @Test
    void plastic_of_a_fade_is_taken_from_its_spools_as_it_turns() {
        Bench bench = fading();
        Bench plain = bench();
        double all = plain.ledger().uses().get(0).plastic().cubicMillimetres();
        List<SpoolUse> uses = bench.ledger().uses();
        assertThat(uses).extracting(u -> u.spool().id()).containsExactly(SKY, MUSTARD);
        assertThat(uses.stream()
                        .mapToDouble(u -> u.plastic().cubicMillimetres())
                        .sum())
                .isCloseTo(all, within(1e-6));
        double mustard = 0;
        var layers = plain.reckoning().base().layers();
        for (int layer = 1; layer <= 15; layer++) {
            double middle = 0.2 * layer - 0.1;
            mustard += Math.max(0, Math.min(1, (middle - 1) / 1.6))
                    * layers.get(layer - 1).plastic().cubicMillimetres();
        }
        assertThat(uses.get(1).plastic().cubicMillimetres()).isCloseTo(mustard, within(0.002 * all));
        assertThat(uses.stream().mapToDouble(SpoolUse::seconds).sum())
                .isCloseTo(bench.ledger().totalSeconds(), within(1e-6));
    }

    /** It keeps its letter, and is put in at no input. */
    @Test
    void a_spool_that_is_printed_with_no_more_troubles_no_order() {
        for (Ordering.Rule rule : Ordering.Rule.values()) {
            Bench bench = fading();
            bench.plan =
                    bench.plan.startAt(h(2.8), Spools.SOOT.id(), bench.grid).recolour(3, MUSTARD);
            assertThat(bench.plan.palette()).contains(Spools.SOOT.id());
            bench.plan = bench.plan.with(bench.plan.ordering().by(rule));
            assertThat(bench.ledger().swaps()).as(rule.toString()).isEmpty();
            assertThat(bench.orders().bestNumbering().spools()).contains(SKY, MUSTARD);
        }
    }

    /** Where it cannot be blended, what is put in is still a spool that somebody can take in hand. */
    @Test
    void whoever_stands_beside_a_nozzle_of_one_input_is_told_of_spools_and_not_of_blends() {
        for (Bench bench : List.of(fading(), blending())) {
            bench.printer = new Bench().printer;
            bench.macros = new Bench().macros;
            bench.rack = Optional.empty();
            Agenda agenda = Agenda.of(bench.ledger(), bench.rig(), bench.plan);
            assertThat(agenda.visits()).isNotEmpty();
            assertThat(agenda.visits().stream().flatMap(v -> Stream.concat(v.out().stream(), v.in().stream())))
                    .isSubsetOf(SKY, MUSTARD);
        }
    }

    /** Soot, then the fade from sky to mustard, and soot again. */
    private static Bench swapping() {
        Bench bench = bench();
        bench.plan = bench.plan
                .recolour(0, Spools.SOOT.id())
                .fading(new Mixture.Fade(FADE, Recipe.of(SKY), Recipe.of(MUSTARD), h(1), h(2)), MUSTARD, bench.grid)
                .startAt(h(2.4), Spools.SOOT.id(), bench.grid);
        return bench;
    }

    /** Soot, then sky in its place, then sky with the mustard beside it, and soot again. */
    private static Bench swappingBetweenTurns() {
        Bench bench = bench();
        bench.plan = bench.plan
                .recolour(0, Spools.SOOT.id())
                .startAt(h(0.6), SKY, bench.grid)
                .with(
                        new Mixture.Blend(FADE, new Recipe(List.of(new Portion(SKY, 0.5), new Portion(MUSTARD, 0.5)))),
                        bench.grid)
                .startAt(h(1.4), FADE, bench.grid)
                .startAt(h(2), Spools.SOOT.id(), bench.grid);
        bench.mendPrinter("nobody-stops");
        return bench;
    }

    @Test
    void swaps_are_numbered_among_themselves_and_not_with_the_blends_that_turn_between_them() throws IOException {
        Bench bench = swappingBetweenTurns();
        bench.macros = bench.macros.replace(
                0, bench.macros.macro(0).insert(0, MacroStep.always(new Step.Message("{{number}} of {{of}}"))));
        Ledger ledger = bench.ledger();
        assertThat(ledger.swaps()).extracting(Swap::name).containsExactly("Swap 1", "Blend", "Swap 2");
        assertThat(ledger.swapCount().value()).isEqualTo(2);
        assertThat(ledger.changes(3)).isEqualTo("3 changes");
        assertThat(Agenda.of(ledger, bench.rig(), bench.plan).visits())
                .extracting(Visit::title)
                .containsExactly("Swap 1", "Swap 2");
        List<String> lines = added(bench);
        assertThat(lines.stream().filter(l -> l.startsWith("M117"))).containsExactly("M117 1 of 2", "M117 2 of 2");
        // What is written keeps a number of its own for each of the three blocks.
        assertThat(lines.stream().filter(l -> l.matches("; tranche begin .* swap=\\d")))
                .extracting(l -> l.substring(l.indexOf("swap=")))
                .containsExactly("swap=1", "swap=2", "swap=3");
    }

    @Test
    void spools_are_swapped_where_an_input_holds_another_one() {
        Bench bench = swapping();
        Ledger ledger = bench.ledger();
        // Soot, sky and mustard at two inputs: soot shares one of them.
        assertThat(ledger.feeding().stream().flatMap(Optional::stream))
                .hasSize(2)
                .contains(Spools.SOOT.id());
        assertThat(ledger.spoolSwaps()).isEqualTo(2);
        Swap first = ledger.swaps().get(0);
        assertThat(first.layer()).isEqualTo(6);
        assertThat(first.turns()).isFalse();
        assertThat(first.taken()).isEqualTo(Spools.SOOT.id());
        assertThat(first.put()).isIn(SKY, MUSTARD);
        assertThat(first.moment().in()).contains(" at input ");
        assertThat(ledger.swaps().get(1).put()).isEqualTo(Spools.SOOT.id());
        // The ready macro of such a machine waits for nobody.
        assertThat(bench.found("nobody-stops").sentence())
                .contains("put in " + first.moment().in());
        Fix fix = bench.found("nobody-stops").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Wait for the person at each swap of " + bench.printer.name());
        bench.mendPrinter("nobody-stops");
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("nobody-stops");
        // It waits where the nozzle stands aside, before anything is pushed through it.
        assertThat(bench.macros.macro(0).steps())
                .extracting(MacroStep::step)
                .containsSubsequence(new Step.Park(), new Step.WaitForPerson(Command.M0), new Step.SelectExtruder());
        assertThat(bench.ledger().visits()).isEqualTo(2);
        // The macro chooses the extruder itself; one that does not is told at the swap.
        assertThat(bench.ledger().turns()).filteredOn(t -> t.swap() > 0).allMatch(t -> t.extruder()
                .isEmpty());
        Bench untold = swapping().swapping(new Step.Park(), new Step.Return());
        assertThat(untold.ledger().turns())
                .filteredOn(t -> t.swap() > 0)
                .isNotEmpty()
                .allMatch(t -> t.lines().contains("T" + t.extruder().orElseThrow()));
        assertThat(bench.ledger().swaps().get(0).duties(bench.rig()).get(0).acts())
                .anyMatch(a -> a.contains("A Soot out by hand"))
                .anyMatch(a -> a.contains(first.moment().in()));
    }

    @Test
    void more_spools_than_inputs_are_swapped_by_hand_though_nothing_is_blended() throws IOException {
        Bench bench = bench();
        bench.plan = bench.plan.startAt(h(1), MUSTARD, bench.grid);
        // Two have an input each.
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("nobody-stops");
        bench.plan = bench.plan.startAt(h(2), Spools.SOOT.id(), bench.grid);
        assertThat(bench.ledger().spoolSwaps()).isEqualTo(1);
        assertThat(bench.found("nobody-stops").sentence()).contains("Soot at input ");
        bench.mendPrinter("nobody-stops");
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("nobody-stops");
        assertThat(bench.ledger().visits()).isEqualTo(1);
        List<String> lines = added(bench);
        assertThat(lines).containsOnlyOnce("M0");
        // The nozzle never has more virtual extruders than inputs.
        assertThat(lines.stream().filter(l -> l.matches("T\\d+")).distinct()).containsExactlyInAnyOrder("T0", "T1");
    }

    @Test
    void a_macro_that_is_as_long_as_it_may_be_is_offered_no_wait() {
        Bench bench = swapping();
        Macro swap = bench.macros.macro(0);
        while (swap.steps().size() < Macro.MOST_STEPS) {
            swap = swap.insert(0, MacroStep.always(new Step.WaitForMoves()));
        }
        bench.macros = bench.macros.replace(0, swap);
        assertThat(bench.found("nobody-stops").fix()).isEmpty();
    }

    @Test
    void where_a_stop_of_the_file_is_the_swap_the_nozzle_is_told_all_the_same() throws IOException {
        Bench bench = swapping();
        bench.macros = bench.macros.replace(
                0, bench.macros.macro(0).insert(4, MacroStep.always(new Step.WaitForPerson(Command.M0))));
        bench.sliced(new SmallGcode()
                .relativeExtrusion()
                .grid(0.2, 0.2, 5)
                .line("M0")
                .grid(1.2, 0.2, 10));
        bench.said = bench.said.stops(List.of(0), Optional.of(StopTable.Choice.ADOPT));
        assertThat(new String(bench.written(), StandardCharsets.US_ASCII))
                .containsOnlyOnce("\nM166 A1.00 Z2.00")
                .contains("; tranche begin plan=plan-1 state=" + bench.facts().state() + " mix=");
    }

    @Test
    void beside_the_machine_turns_are_no_visits_and_the_nozzle_ends_with_what_it_has_become() {
        Bench bench = fading();
        Agenda agenda = Agenda.of(bench.ledger(), bench.rig(), bench.plan);
        assertThat(agenda.visits()).isEmpty();
        assertThat(agenda.first()).isEqualTo(SKY);
        assertThat(agenda.endsWith()).contains(MUSTARD);
        assertThat(Agenda.of(blending().ledger(), bench.rig(), blending().plan).visits())
                .isEmpty();
        Bench plain = new Bench().start(1, Spools.CHALK);
        assertThat(Agenda.of(plain.ledger(), plain.rig(), plain.plan).endsWith())
                .isEmpty();
    }

    @Test
    void a_macro_that_waits_for_a_person_waits_for_none_where_a_blend_turns() throws IOException {
        Bench bench = blending();
        bench.macros = bench.macros.replace(
                0, bench.macros.macro(0).insert(4, MacroStep.always(new Step.WaitForPerson(Command.M0))));
        assertThat(bench.ledger().visits()).isZero();
        assertThat(added(bench)).doesNotContain("M0");
    }

    @Test
    void the_file_is_told_of_the_blends_once_and_of_the_fade_in_one_line() throws IOException {
        List<String> lines = added(fading());
        assertThat(lines.stream().filter(l -> !l.startsWith("; tranche")))
                .containsExactly(
                        "M163 S0 P1",
                        "M163 S1 P0",
                        "M164 S0",
                        "M163 S0 P0",
                        "M163 S1 P1",
                        "M164 S1",
                        "T0",
                        "T0",
                        "M166 A1.00 Z2.60 I0 J1 S1",
                        "M166 S0",
                        "T1");
        assertThat(lines.stream().filter(l -> l.startsWith("; tranche begin"))).hasSize(3);
    }

    @Test
    void without_a_gradient_the_fade_is_steps_before_its_layers() throws IOException {
        List<String> lines = added(inSteps(fading()));
        // Layers 6 to 13 lie between 1 and 2.6 mm; the extruder is as it begins before.
        assertThat(lines.stream().filter(l -> l.startsWith("; tranche begin"))).hasSize(1 + 8 + 1);
        assertThat(lines).contains("M163 S0 P0.938", "M163 S1 P0.062", "M163 S0 P0.062", "M163 S1 P0.938");
        assertThat(lines.stream().filter(l -> l.startsWith("T"))).hasSize(3);
        assertThat(lines.stream().filter("M164 S2"::equals)).hasSize(1 + 8);
    }

    @Test
    void taking_it_out_gives_back_the_file_that_came() throws IOException {
        for (Bench bench : List.of(fading(), inSteps(fading()), blending())) {
            bench.sliced(sliced());
            byte[] written = bench.written();
            bench.sliced(written);
            assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written))
                    .isEqualTo(sliced());
            assertThat(bench.reckoning().patch().applyTo(written)).isEqualTo(written);
        }
    }

    @Test
    void a_raft_lifts_the_heights_that_the_firmware_is_told() throws IOException {
        Bench bench = fading();
        bench.plan = bench.plan.withLayers(new LayerSettings(h(0.2), h(0.2), h(0.6), 0));
        assertThat(added(bench)).anyMatch(l -> l.startsWith("M166 A"));
        assertThat(bench.ledger().turns().get(1).after().get(0))
                .isEqualTo("M166 A" + h(1).plus(bench.match().orElseThrow().raft()) + " Z"
                        + h(2.6).plus(bench.match().orElseThrow().raft()) + " I0 J1 S1");
    }

    @Test
    void a_region_in_a_fade_turns_to_it_and_back_on_each_of_its_layers() {
        Bench bench = bench();
        bench.plan =
                bench.plan.with(new Mixture.Fade(FADE, Recipe.of(SKY), Recipe.of(MUSTARD), h(0), h(3)), bench.grid);
        bench.region(new Region(
                "Half",
                new Shape.Zone(new Outline.Box(10, 20), 5, 10, 0, false),
                FADE,
                new Range(h(1), Optional.of(h(2)))));
        Ledger ledger = bench.ledger();
        // Five layers hold both; each but the first begins with what the last one ended with.
        assertThat(ledger.swaps()).isNotEmpty().allMatch(Swap::turns);
        assertThat(ledger.turns().stream().filter(t -> t.swap() > 0)).hasSameSizeAs(ledger.swaps());
        assertThat(ledger.turns().stream().flatMap(t -> t.lines().stream()).filter(l -> l.startsWith("M166 A")))
                .isNotEmpty();
    }

    @Test
    void commands_for_a_slicing_program_hold_the_same() {
        Bench bench = fading();
        Hooks hooks = Hooks.of(bench.plan, bench.rig(), bench.ledger());
        assertThat(hooks.atStart()).hasSize(1);
        assertThat(hooks.atStart().get(0).lines())
                .startsWith("M163 S0 P1\nM163 S1 P0\nM164 S0\n")
                .endsWith("T0\n");
        assertThat(hooks.beforeLayers())
                .extracting(Hooks.Text::when)
                .containsExactly("before layer 6", "before layer 14");
        assertThat(hooks.beforeLayers().get(0).lines()).isEqualTo("T0\nM166 A1.00 Z2.60 I0 J1 S1\n");
    }

    @Test
    void a_job_cut_from_it_begins_with_what_the_nozzle_has_been_told() throws IOException {
        Bench bench = fading();
        bench.sliced(sliced());
        Jobs jobs = bench.reckoning().jobs(Set.of(8));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        jobs.copy(jobs.list().get(1), new ByteArrayInputStream(sliced()), out, Progress.UNHEARD);
        assertThat(out.toString(StandardCharsets.US_ASCII).lines().map(l -> l.replace(" ; tranche added", "")))
                .containsSubsequence("M163 S0 P1", "M164 S0", "M164 S1", "M166 A1.00 Z2.60 I0 J1 S1");
    }

    @Test
    void what_was_written_is_out_of_date_once_the_fade_has_moved() {
        Bench bench = fading();
        String before = bench.facts().state();
        bench.plan = bench.plan.move(1, h(1.2), bench.grid);
        assertThat(bench.facts().state()).isNotEqualTo(before);
        assertThat(bench.ledger().turns().get(1).after()).contains("M166 A1.20 Z2.60 I0 J1 S1");
    }

    @Test
    void a_printer_that_cannot_blend_says_so_and_nothing_is_written() {
        Bench bench = fading();
        Bench plain = new Bench();
        plain.plan = bench.plan;
        plain.sliced(sliced());
        assertThat(plain.findings()).extracting(Finding::key).contains("cannot-blend");
        assertThatThrownBy(plain::written).isInstanceOf(Refusal.class).hasMessageContaining("has one input");
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("cannot-blend", "more-blends");
    }

    @Test
    void a_fade_that_the_print_does_not_reach_any_more_is_mended_at_a_press() {
        Bench bench = fading();
        bench.plan = bench.plan.scaledBy(2);
        Finding found = bench.found("fade-beyond-C");
        assertThat(found.sentence()).contains("ends at 5.20 mm and the print at 3.00 mm");
        bench.plan = found.fix().orElseThrow().colours().apply(bench.plan);
        assertThat(((Mixture.Fade) bench.plan.mixtures().get(FADE)).ends()).isEqualTo(h(3));
    }
}
