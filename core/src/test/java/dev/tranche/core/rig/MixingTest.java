package dev.tranche.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Recipe.Portion;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.units.Height;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

class MixingTest {
    private static final SpoolId SKY = Spools.SKY.id();
    private static final SpoolId MUSTARD = Spools.MUSTARD.id();
    private static final SpoolId FADE = new SpoolId(-1);
    private static final SpoolId BLEND = new SpoolId(-2);
    private static final LayerGrid GRID = new LayerGrid(h(0.2), h(0.2), h(10));
    private static final Rig SMOOTH = Beginning.BLENDING.rig("Blender");
    private static final Rig STEPS =
            SMOOTH.with(SMOOTH.printer().with(Abilities.of("T", "M163 SP", "M164 S", "M0", "M104 S", "M109 S")));

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    private static final Mixture TWILIGHT = new Mixture.Fade(FADE, Recipe.of(SKY), Recipe.of(MUSTARD), h(2), h(8));

    private static Mixture moss(double sky) {
        return new Mixture.Blend(BLEND, new Recipe(List.of(new Portion(SKY, sky), new Portion(MUSTARD, 1 - sky))));
    }

    private static ColourPlan plan(Mixture... mixtures) {
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, SKY);
        double at = 1;
        for (Mixture m : mixtures) {
            plan = plan.with(m, GRID).startAt(h(at++), m.id(), GRID);
        }
        return plan;
    }

    private static Mixing of(Rig rig, Mixture... mixtures) {
        return Mixing.of(rig, plan(mixtures)).orElseThrow();
    }

    @Test
    void spools_feed_the_inputs_the_rack_says_and_else_those_that_are_left() {
        assertThat(of(SMOOTH, TWILIGHT).feeds()).containsExactlyInAnyOrderEntriesOf(Map.of(SKY, 0, MUSTARD, 1));
        Rig settled = SMOOTH.with(SMOOTH.rack().feeding(0, Optional.of(MUSTARD)));
        assertThat(of(settled, TWILIGHT).feeds()).containsExactlyInAnyOrderEntriesOf(Map.of(MUSTARD, 0, SKY, 1));
        Rig another = SMOOTH.with(SMOOTH.rack().feeding(1, Optional.of(Spools.SOOT.id())));
        assertThat(of(another, TWILIGHT).feeds()).containsExactlyInAnyOrderEntriesOf(Map.of(SKY, 0, MUSTARD, 1));
    }

    @Test
    void spools_that_never_run_together_share_an_input() {
        ColourPlan plan = plan(TWILIGHT).startAt(h(9), Spools.SOOT.id(), GRID);
        Mixing mixing = Mixing.of(SMOOTH, plan).orElseThrow();
        assertThat(mixing.feeds()).hasSize(3);
        assertThat(mixing.feeds().get(SKY)).isNotEqualTo(mixing.feeds().get(MUSTARD));
        assertThat(mixing.swaps(plan.mixtures(), FADE, Spools.SOOT.id())).isTrue();
        assertThat(mixing.swaps(plan.mixtures(), SKY, FADE)).isFalse();
        // The rack's word gives way where two of one blend would have to share an input.
        Rig both = SMOOTH.with(SMOOTH.rack().feeding(0, Optional.of(SKY)).feeding(1, Optional.of(Spools.SOOT.id())));
        assertThat(Mixing.of(both, plan).orElseThrow().feeds())
                .containsExactlyInAnyOrderEntriesOf(Map.of(SKY, 0, Spools.SOOT.id(), 1, MUSTARD, 1));
    }

    @Test
    void a_fade_is_one_line_where_the_firmware_honours_all_of_it() {
        Mixing mixing = of(SMOOTH, TWILIGHT);
        assertThat(mixing.begins(TWILIGHT, Height.ZERO)).containsExactly("M166 A2.00 Z8.00 I0 J1 S1");
        assertThat(mixing.begins(TWILIGHT, h(0.9))).containsExactly("M166 A2.90 Z8.90 I0 J1 S1");
        assertThat(mixing.ends(TWILIGHT)).containsExactly("M166 S0");
        assertThat(mixing.step(TWILIGHT, GRID, 20)).isEmpty();
        // It begins as the spool does, with whose extruder it is printed.
        assertThat(mixing.extruder(FADE)).isEqualTo(mixing.extruder(SKY));
    }

    @Test
    void a_fade_is_steps_of_an_extruder_of_its_own_where_the_firmware_does_not() {
        Mixing mixing = of(STEPS, TWILIGHT);
        int own = mixing.extruder(FADE);
        assertThat(own).isNotIn(mixing.extruder(SKY));
        assertThat(mixing.begins(TWILIGHT, Height.ZERO)).isEmpty();
        // Layer 26 has its middle at 5.1 mm, where 51.7 % are the other one.
        assertThat(mixing.step(TWILIGHT, GRID, 26)).containsExactly("M163 S0 P0.483", "M163 S1 P0.517", "M164 S" + own);
        assertThat(mixing.step(TWILIGHT, GRID, 1)).containsExactly("M163 S0 P1", "M163 S1 P0", "M164 S" + own);
        assertThat(mixing.step(TWILIGHT, GRID, 50)).containsExactly("M163 S0 P0", "M163 S1 P1", "M164 S" + own);
    }

    @Test
    void what_the_rack_keeps_already_is_used_where_it_is() {
        // The rack of such a machine keeps 0.33 and 0.67 as T3.
        Mixing mixing = of(SMOOTH, moss(0.33));
        assertThat(mixing.extruder(BLEND)).isEqualTo(3);
        assertThat(of(SMOOTH, moss(0.5)).extruder(BLEND)).isNotIn(0, 1);
        assertThat(of(SMOOTH, moss(0.5)).needed())
                .isLessThanOrEqualTo(SMOOTH.rack().size());
    }

    @Test
    void extruders_are_defined_once_each_whatever_is_printed_with_them() {
        Mixing mixing = of(SMOOTH, TWILIGHT, moss(0.5));
        assertThat(mixing.startLines().stream().filter(l -> l.startsWith("M164")))
                .doesNotHaveDuplicates();
        assertThat(mixing.startLines())
                .containsSubsequence("M163 S0 P1", "M163 S1 P0", "M164 S0")
                .containsSubsequence("M163 S0 P0.5", "M163 S1 P0.5", "M164 S" + mixing.extruder(BLEND));
    }

    @Test
    @Timeout(value = 20, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void blends_that_fit_no_nozzle_are_not_tried_for_ever() {
        Printer plain = SMOOTH.printer();
        Hotend six = new Hotend(0.4, 6, 260, Duration.ofMinutes(10), Hotend.COMMON.deadVolume(), 3);
        Rig rig = new Rig(
                new Printer(
                        plain.name(),
                        plain.bed(),
                        plain.travel(),
                        plain.maxHeight(),
                        plain.home(),
                        six,
                        plain.filament(),
                        plain.drive(),
                        plain.parkSpot(),
                        plain.selector(),
                        plain.motion(),
                        plain.abilities()),
                SMOOTH.rack(),
                SMOOTH.macros());
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, new SpoolId(1));
        List<List<Integer>> together = new ArrayList<>();
        // Eight spools in four pairs, which any six inputs hold in 7 560 ways: each meets all but its fellow.
        for (String row : List.of("0000", "0111", "1011", "1101", "1110")) {
            together.add(List.of(
                    1 + row.charAt(0) - '0',
                    3 + row.charAt(1) - '0',
                    5 + row.charAt(2) - '0',
                    7 + row.charAt(3) - '0'));
        }
        // And seven of which each meets all others, for which there are too few.
        together.add(List.of(9, 10, 11, 12, 13, 14));
        together.add(List.of(10, 11, 12, 13, 14, 15));
        together.add(List.of(9, 15));
        for (List<Integer> spools : together) {
            double share = 1.0 / spools.size();
            Mixture m = new Mixture.Blend(
                    plan.mixtures().next(),
                    new Recipe(spools.stream()
                            .map(i -> new Portion(new SpoolId(i), share))
                            .toList()));
            plan = plan.with(m, GRID).startAt(h(0.4 * plan.mixtures().list().size() + 0.4), m.id(), GRID);
        }
        ColourPlan tangled = plan;
        assertThat(tangled.mixed()).hasSize(8);
        assertThat(Mixing.lacking(rig, tangled).orElseThrow()).contains("the 6 inputs of this nozzle");
    }

    @Test
    void what_a_printer_lacks_for_it_is_said_in_a_sentence() {
        assertThat(Mixing.lacking(SMOOTH, plan(TWILIGHT))).isEmpty();
        assertThat(Mixing.lacking(Beginning.FEEDER.rig("Feeder"), ColourPlan.of(LayerSettings.COMMON, SKY)))
                .isEmpty();
        assertThat(Mixing.lacking(Beginning.FEEDER.rig("Feeder"), plan(TWILIGHT))
                        .orElseThrow())
                .contains("has one input");
        Mixture night = new Mixture.Fade(new SpoolId(-3), Recipe.of(MUSTARD), Recipe.of(Spools.SOOT.id()), h(8), h(9));
        Mixture dawn = new Mixture.Fade(new SpoolId(-4), Recipe.of(Spools.SOOT.id()), Recipe.of(SKY), h(9), h(10));
        assertThat(Mixing.lacking(SMOOTH, plan(TWILIGHT, night))).isEmpty();
        // Each of three with each of the others: no two can share one of two inputs.
        assertThat(Mixing.lacking(SMOOTH, plan(TWILIGHT, night, dawn)).orElseThrow())
                .contains("blends more spools with one another", "the 2 inputs of this nozzle");
        Rig deaf = SMOOTH.with(SMOOTH.printer().with(Abilities.of("T", "M0")));
        assertThat(Mixing.lacking(deaf, plan(TWILIGHT)).orElseThrow()).contains("M163 and M164");
        assertThat(Mixing.of(deaf, plan(TWILIGHT))).isEmpty();
        // It fades by itself between what it keeps, and need not be told what that is.
        Rig keeps = SMOOTH.with(SMOOTH.printer().with(Abilities.of("T", "M166 AZIJS")));
        assertThat(Mixing.lacking(keeps, plan(TWILIGHT))).isEmpty();
        assertThat(of(keeps, TWILIGHT).startLines()).isEmpty();
        assertThat(Mixing.lacking(keeps, plan(moss(0.5)))).isPresent();
    }
}
