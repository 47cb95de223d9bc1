package dev.tranche.app.plans;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.app.history.StalePage;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.Room;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

class PlansTest extends OnePlanTest {
    @Autowired
    private Room room;

    private PlanState start(PlanState plan, double height) {
        SpoolId second = shelf.all().get(1).id();
        return plans.edit(
                plan.id(),
                plan.edition(),
                "start at " + height,
                p -> p.startAt(Height.ofMillimetres(height), second, p.layers().on(Height.ofMillimetres(5))));
    }

    private static int starts(PlanState plan) {
        return plan.content().colours().starts().size();
    }

    @Test
    void undo_and_redo_go_back_and_forth_through_every_edit() {
        PlanState plan = start(start(plan("undo"), 1), 2);
        assertThat(plan.undo()).contains("start at 2.0");
        PlanState back = plans.undo(plan.id(), plan.edition());
        assertThat(starts(back)).isEqualTo(2);
        assertThat(back.redo()).contains("start at 2.0");
        assertThat(starts(plans.redo(back.id(), back.edition()))).isEqualTo(3);
    }

    @Test
    void an_edit_after_undo_forgets_what_redo_would_have_done() {
        PlanState plan = start(start(plan("branch"), 1), 2);
        PlanState back = plans.undo(plan.id(), plan.edition());
        PlanState other = start(back, 3);
        assertThat(other.redo()).isEmpty();
        assertThat(starts(other)).isEqualTo(3);
        assertThat(plans.redo(other.id(), other.edition()).edition()).isEqualTo(other.edition());
        assertThat(starts(plans.undo(other.id(), other.edition()))).isEqualTo(2);
    }

    @Test
    void printer_and_purge_are_part_of_what_is_undone() {
        PlanState plan = plan("purge");
        PlanState strict = plans.editAll(plan.id(), 0, "strict", c -> c.with(new PurgeSettings(1, 1.2)));
        assertThat(strict.content().purge().factor()).isEqualTo(1.2);
        assertThat(plans.undo(plan.id(), strict.edition()).content().purge()).isEqualTo(PurgeSettings.USUAL);
    }

    @Test
    void an_edit_that_changes_nothing_leaves_no_trace() {
        PlanState plan = plan("same");
        PlanState same = plans.edit(plan.id(), 0, "nothing", p -> p.withLayers(LayerSettings.COMMON));
        assertThat(same.edition()).isZero();
        assertThat(same.undo()).isEmpty();
    }

    @Test
    void a_page_that_fell_behind_is_told_what_happened_meanwhile() {
        PlanState plan = plan("stale");
        start(plan, 1);
        assertThatThrownBy(() -> start(plan, 2)).isInstanceOf(StalePage.class).hasMessageContaining("start at 1.0");
        assertThatThrownBy(() -> plans.undo(plan.id(), plan.edition())).isInstanceOf(StalePage.class);
    }

    @Test
    void a_refused_edit_changes_nothing() {
        PlanState plan = plan("refused");
        assertThatThrownBy(() -> plans.edit(plan.id(), 0, "merge", p -> p.merge(0)))
                .isInstanceOf(Refusal.class);
        assertThat(plans.get(plan.id()).edition()).isZero();
        assertThatThrownBy(() -> plans.rename(plan.id(), " ")).isInstanceOf(Refusal.class);
        assertThat(plans.get(plan.id()).name()).isEqualTo("refused");
    }

    @Test
    void a_spool_taken_off_the_shelf_still_serves_the_histories_that_name_it() {
        var extra = shelf.add(dev.tranche.core.plan.Spools.spool(0, "Extra", "#336699"));
        PlanState plan = plan("history");
        PlanState with = plans.edit(plan.id(), 0, "recolour", p -> p.recolour(0, extra.id()));
        plans.undo(plan.id(), with.edition());
        shelf.remove(extra.id());
        assertThat(shelf.all()).noneMatch(s -> s.id().equals(extra.id()));
        assertThat(shelf.byId()).containsKey(extra.id());
    }

    @Test
    void a_deleted_plan_comes_back_whole() {
        PlanState plan = start(plan("deleted"), 1);
        plans.delete(plan.id());
        assertThatThrownBy(() -> plans.get(plan.id())).isInstanceOf(Refusal.class);
        plans.restore(plan.id());
        assertThat(plans.get(plan.id())).isEqualTo(plan);
    }

    @Test
    void names_of_files_are_shown_on_one_line_and_made_safe() {
        assertThat(FileNames.shown("C:\\models\\a\r\nb.stl")).isEqualTo("a b.stl");
        assertThat(FileNames.shown("../../etc/passwd")).isEqualTo("passwd");
        assertThat(FileNames.shown(null)).isEqualTo("unnamed");
        assertThat(FileNames.stem("marker.v2.stl")).isEqualTo("marker.v2");
        assertThat(FileNames.safe("..\"; Zür\nich?")).isEqualTo("Zur-ich");
        assertThat(FileNames.safe("???")).isEqualTo("plan");
        assertThat(FileNames.safe("Бирка 2², プレート!")).isEqualTo("Бирка-22-プレート");
        assertThat(FileNames.safe("が".repeat(120))).isEqualTo("が".repeat(40));
    }

    @Test
    void plans_are_values_of_the_core_all_the_way_to_the_disk() {
        PlanState plan = start(plan("disk"), 2.5);
        ColourPlan colours = plans.get(plan.id()).content().colours();
        assertThat(colours).isEqualTo(plan.content().colours());
        assertThat(colours.starts().get(1).wished()).isEqualTo(Height.ofMillimetres(2.5));
    }

    @Test
    void what_was_deleted_over_a_month_ago_is_cleared_away_with_its_variants_and_its_files() throws IOException {
        Mesh mesh = new Shapes().box(0, 0, 0, 17, 11, 5).mesh();
        PlanState deleted = plan("cleared away", mesh);
        PlanState variant = plans.variant(deleted.id(), "tried", c -> c.times(2));
        PlanState kept = plan("kept");
        Path model = files.path(deleted.content().files().get(0).hash());
        Path other = files.path(kept.content().files().get(0).hash());
        plans.delete(deleted.id());

        housekeeping(Duration.ofDays(29)).clearAway();
        assertThat(model).exists();
        plans.restore(deleted.id());
        plans.delete(deleted.id());

        housekeeping(Duration.ofDays(31)).clearAway();
        assertThat(model).doesNotExist();
        assertThatThrownBy(() -> plans.restore(deleted.id())).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> plans.get(variant.id())).isInstanceOf(Refusal.class);
        assertThat(other).exists();
        assertThat(plans.get(kept.id()).name()).isEqualTo("kept");
    }

    private Housekeeping housekeeping(Duration later) {
        return new Housekeeping(plans, files, Clock.offset(Clock.systemUTC(), later), room);
    }
}
