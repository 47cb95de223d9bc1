package dev.tranche.app.coupons;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.run.Rehearsals;
import dev.tranche.app.run.Setup;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.coupon.Coupon.Kind;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.beans.factory.annotation.Autowired;

/** Coupons are made for a printer, printed like any plan, and what is seen on them becomes a measure. */
class CouponPageTest extends BrowserTest {
    @Autowired
    private Coupons coupons;

    @Autowired
    private Rehearsals rehearsals;

    private SpoolId dark;
    private SpoolId light;
    private SpoolId third;

    @BeforeEach
    void threeSpools() {
        dark = shelf.all().get(0).id();
        light = shelf.all().get(1).id();
        third = zinc().id();
    }

    /** What is measured here changes no other test's printer. */
    private static Long bench;

    private long printer() {
        bench = bench == null
                ? workshop.add(Beginning.DIRECT_PAUSE.rig("Coupons' bench")).id()
                : bench;
        return bench;
    }

    /** On every kind of machine every coupon fits its own file, is handed off, and rehearses to its end. */
    @ParameterizedTest
    @EnumSource(
            value = Beginning.class,
            names = {"TUBE_ROUTINE", "DIRECT_PAUSE", "HOST", "SELECTOR"})
    void a_coupon_is_a_plan_that_is_handed_off_and_rehearsed(Beginning kind) throws IOException {
        long printer = workshop.add(kind.rig(kind.name())).id();
        for (Kind coupon : Kind.values()) {
            PlanState plan =
                    coupons.make(printer, coupon, dark, coupon == Kind.STACK ? third : light, Optional.of(light));
            Workpiece work = workbench.openNow(plan);
            assertThat(work.match())
                    .as("%s on %s: %s", coupon, kind, work.findings())
                    .isPresent();
            assertThat(work.layout().copies()).hasSize(1);
            Report report = rehearsals.now(work, Setup.PLAIN);
            assertThat(report.layers().stream()
                            .mapToDouble(Report.LayerSeen::wrong)
                            .sum())
                    .as("%s on %s", coupon, kind)
                    .isZero();
            assertThat(report.whole()).as("%s on %s", coupon, kind).isTrue();
            if (coupon != Kind.PURGE_LADDER) {
                assertThat(report.unclean()).as("%s on %s", coupon, kind).isEmpty();
            }
        }
    }

    @Test
    void a_ladder_that_is_measured_changes_the_purge_of_every_plan_on_that_printer() {
        browser.open("/printers/" + printer() + "/coupons");
        browser.choose("#purge_ladder-in", shelf.all().get(1).name());
        browser.click("#make-purge_ladder");
        browser.see("#content", "What to look for");
        browser.type("#mark", "11");
        browser.click("#reckon");
        browser.see("#notice, #refused", "This coupon has the marks 1 to 10");
        browser.type("#mark", "4");
        browser.click("#reckon");
        browser.see("#seen", "every plan on this printer reckons with it");
        MeasuredPurge measured = workshop.get(printer()).purges().stream()
                .filter(p -> p.out().equals(dark) && p.in().equals(light))
                .findFirst()
                .orElseThrow();
        Workpiece plan = workbench.openNow(twoColours());
        assertThat(plan.ledger().swaps().get(0).purge().measured()).isTrue();
        assertThat(plan.ledger().swaps().get(0).purge().volume().cubicMillimetres())
                .isCloseTo(measured.volume().cubicMillimetres(), within(1e-6));
        browser.open("/printers/" + printer() + "/coupons");
        browser.see("table", "needs ");
    }

    private PlanState twoColours() {
        PlanState plan = plan("measured by a ladder");
        return plans.editAll(plan.id(), plan.edition(), "two colours", c -> c.on(printer())
                .with(ColourPlan.of(LayerSettings.COMMON, dark)
                        .startAt(Height.ofMillimetres(2.4), light, LayerSettings.COMMON.on(Height.ofMillimetres(5)))));
    }

    @Test
    void a_stack_tells_how_well_its_spool_covers() throws IOException {
        PlanState plan = coupons.make(printer(), Kind.STACK, dark, third, Optional.of(light));
        Spool before = shelf.byId().get(third);
        coupons.see(plan, 3);
        assertThat(shelf.byId().get(third).coverDepth()).isCloseTo(0.6, within(1e-9));
        shelf.change(before);
    }

    @Test
    void where_plastic_begins_tells_the_way_from_the_gears_to_the_nozzle() {
        long printer = workshop.add(Beginning.DIRECT_PAUSE.rig("measured")).id();
        double before = workshop.get(printer).printer().drive().gearsToNozzle();
        browser.open("/printers/" + printer + "/coupons");
        browser.click("#make-gears");
        browser.see("#content", "push it in up to the gears");
        browser.type("#mark", "9.5");
        browser.click("#reckon");
        browser.see("#seen", "Gears to nozzle is ");
        assertThat(workshop.get(printer).printer().drive().gearsToNozzle()).isGreaterThan(before);
    }

    @Test
    void what_has_no_marks_or_is_no_coupon_says_so() throws IOException {
        PlanState tile = coupons.make(printer(), Kind.EARLY_SWAP, dark, light, Optional.empty());
        assertThatThrownBy(() -> coupons.see(tile, 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> coupons.see(plan("no coupon"), 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> coupons.make(printer(), Kind.EARLY_SWAP, dark, dark, Optional.empty()))
                .isInstanceOf(Refusal.class);
        PlanState ladder = coupons.make(printer(), Kind.PURGE_LADDER, dark, light, Optional.empty());
        assertThatThrownBy(() -> coupons.see(ladder, 2.5)).isInstanceOf(Refusal.class);
    }
}
