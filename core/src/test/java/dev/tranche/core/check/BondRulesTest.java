package dev.tranche.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.estimate.Swap;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What a stop does to the print: whether the next layer holds, at which temperature, and who pushes the purge. */
class BondRulesTest {
    private static Optional<Finding> found(Bench bench, String key) {
        return bench.findings().stream().filter(f -> f.key().startsWith(key)).findFirst();
    }

    private static Bench over(Spool upper) {
        Bench bench = new Bench();
        bench.shelf.put(upper.id(), upper);
        return bench.start(2, upper);
    }

    @Test
    void a_layer_after_a_wait_of_more_than_a_minute_is_named_with_the_degrees_that_help() {
        Finding finding = found(over(Spools.CHALK), "bond-after-wait").orElseThrow();
        assertThat(finding.sentence())
                .startsWith("Layer 11 is printed on one that has cooled for ")
                // 5 to 10 °C more, common practice (domain §21).
                .contains("print it at 210 to 215 °C");
        assertThat(finding.layer()).hasValue(11);
        Bench cannot = over(Spools.CHALK);
        cannot.printer = Printers.plain().with(Abilities.of("M0", "M117"));
        assertThat(found(cannot, "bond-after-wait").orElseThrow().sentence()).contains("print it slowly");
        Bench quick = over(Spools.CHALK);
        Rig feeder = Beginning.FEEDER.rig("Feeder");
        quick.printer = feeder.printer();
        quick.macros = feeder.macros();
        quick.rack = Optional.of(feeder.rack());
        assertThat(quick.facts().ledger().swaps().get(0).seconds()).isGreaterThan(60);
        assertThat(found(quick, "bond-after-wait")).isPresent();
        assertThat(found(new Bench(), "bond-after-wait")).isEmpty();
    }

    @Test
    void plastics_that_hardly_hold_on_each_other_are_named() {
        Spool petg = Spools.spool(8, "Reed", "#557755", Material.PETG, 500);
        Finding finding = found(over(petg), "bond-across").orElseThrow();
        assertThat(finding.sentence())
                .contains("B Reed (PETG) hardly holds on A Soot (PLA)")
                .contains("under layer 11");
        assertThat(found(over(Spools.CHALK), "bond-across")).isEmpty();
        // PLA and TPU hold on each other well enough: common practice names three pairs that do not.
        assertThat(found(over(Spools.spool(9, "Band", "#222222", Material.TPU, 500)), "bond-across"))
                .isEmpty();
    }

    @Test
    void a_spool_with_the_temperature_of_another_material_is_named() {
        // 210 and 205 °C are too cool for what is said to be ABS.
        Spool wrong = Spools.spool(8, "Tin", "#999999", Material.ABS_ASA, 500);
        assertThat(found(over(wrong), "unusual-temperature").orElseThrow().sentence())
                .contains("B Tin prints at 205 °C, where ABS or ASA usually takes 230 to 270 °C");
        assertThat(found(over(Spools.CHALK), "unusual-temperature")).isEmpty();
        for (Material material : Material.values()) {
            assertThat(material.isUsual(material.usualTemperature())).isTrue();
            assertThat(material.isUsual(material.usualFirstLayer())).isTrue();
        }
    }

    /** The purge that is in the ledger is the one that a macro, a routine or a hand pushes in the dry run. */
    @ParameterizedTest
    @EnumSource(Beginning.class)
    void ledger_and_dry_run_agree_on_what_is_pushed_wherever_it_goes(Beginning beginning) {
        Rig rig = beginning.rig("Any");
        for (PurgePlace place : List.of(
                new PurgePlace.Bin(),
                new PurgePlace.Bin().with(new PurgePlace.SmallTower(15, new Volume(15))),
                new PurgePlace.Routine(100),
                new PurgePlace.OnTower(20))) {
            Bench bench = over(Spools.CHALK);
            bench.printer = rig.printer();
            bench.macros = rig.macros();
            bench.rack = Optional.of(rig.rack());
            bench.purge = PurgeSettings.USUAL.into(place);
            for (Swap swap : bench.facts().ledger().swaps()) {
                Purging purging = swap.dryRun().purging();
                double beside = rig.printer().filament().length(swap.pushed().less(swap.ontoTower()));
                assertThat(purging.length()).as("%s %s", beginning, place).isCloseTo(beside, within(1e-6));
                assertThat(purging.by() == Purging.By.NOBODY)
                        .as("%s %s", beginning, place)
                        .isEqualTo(beside == 0);
            }
        }
    }

    @Test
    void what_goes_in_on_layer_1_stays_as_hot_as_the_first_layer_unless_something_cools_it() {
        Bench bench = over(Spools.CHALK)
                .region(new Region(
                        "dot", new Shape.Zone(new Outline.Disc(6), 10, 10, 0, false), Spools.MUSTARD.id(), Range.ALL));
        Finding finding = found(bench, "first-layer-temperature").orElseThrow();
        assertThat(finding.sentence())
                .contains("at its 210 °C for the first layer")
                .contains("205 °C from layer 2 on");
        assertThat(found(over(Spools.CHALK), "first-layer-temperature")).isEmpty();
    }
}
