package dev.tranche.app.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.pictures.FileDrawing;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.PlanState.Gcode;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.springframework.util.unit.DataSize;

class HandOffPageTest extends OnePlanTest {
    @Test
    void only_of_a_file_that_stops_wherever_the_plan_swaps_is_it_said_that_nothing_is_put_in() throws Exception {
        SmallGcode stopping = new SmallGcode()
                .sized(30, 20)
                .grid(0.2, 0.2, 12)
                .line("M600")
                .sized(24, 14)
                .grid(2.6, 0.2, 8)
                .sized(14, 8)
                .grid(4.2, 0.2, 5);
        SpoolId chalk = shelf.all().get(1).id();
        assertThat(pageOf("stops", stopping, plan -> plan.within(Height.parse("2.4"), Height.parse("5"), chalk)))
                .contains("each is a stop that the file has already");
        Region strip = new Region("strip", new Shape.Zone(new Outline.Box(2, 20), 15, 10, 0, false), chalk, Range.ALL);
        assertThat(pageOf(
                        "no place",
                        sliced(new SmallGcode()),
                        plan -> plan.with(plan.regions().plus(strip))))
                .contains("a file sliced in one colour has no place for that")
                .contains("Give a file with a place for each swap and the lines of the first swap appear here")
                .doesNotContain("a stop that the file has already");
    }

    @Test
    void the_colours_of_a_file_are_offered_to_be_drawn_only_where_the_model_is_found_in_it() throws Exception {
        String draw = "Draw the file's colours on the model";
        assertThat(pageOf("layers", inTwoTools(0), colours -> colours))
                .contains("say at the hand-off which spool T1 stands for")
                .contains(draw);
        assertThat(pageOf("another model", inTwoTools(7), colours -> colours))
                .contains("say at the hand-off which spool T1 stands for")
                .doesNotContain(draw);
    }

    /** The nameplate, or one that is deeper by so much, with a second tool within each layer. */
    private static SmallGcode inTwoTools(double deeper) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion().line("T0");
        for (int i = 0; i < 25; i++) {
            double step = i < 12 ? 0 : i < 20 ? 3 : 8;
            gcode.sized(30 - 2 * step, deeper + (i < 12 ? 20 : i < 20 ? 14 : 8))
                    .layers(0.2 * (i + 1))
                    .line("T1")
                    .outline(108, 108, 4, 4, 0.03)
                    .line("T0");
        }
        return gcode;
    }

    @Test
    void a_first_layer_is_drawn_no_thicker_for_the_air_over_a_raft() {
        SmallGcode file = new SmallGcode()
                .line("T0")
                .sized(30, 20)
                .layers(0.3, 0.6)
                .line("T1")
                .grid(1.0, 0.2, 12)
                .sized(24, 14)
                .grid(3.4, 0.2, 8)
                .sized(14, 8)
                .grid(5.0, 0.2, 5);
        PlanState plan = plan("over air");
        give(plan, file, Said.NOTHING);
        FileDrawing drawing = FileDrawing.of(workbench.openNow(plans.get(plan.id())), 300, 500);
        assertThat(drawing.file()).hasSize(2);
        // The columns are as wide, and stand apart.
        assertThat(drawing.file().get(1).path().replaceFirst("M\\d+", "M"))
                .isEqualTo(drawing.plan().get(0).path().replaceFirst("M\\d+", "M"));
    }

    @Test
    void a_swap_has_the_same_number_on_each_page_though_a_blend_turns_between_them() throws Exception {
        long printer = workshop.add(Beginning.BLENDING.rig("Numbering")).id();
        try {
            PlanState plan = plan("turning");
            SpoolId blend = new SpoolId(-1);
            SpoolId light = shelf.all().get(1).id();
            Recipe halves = new Recipe(List.of(new Recipe.Portion(light, 0.5), new Recipe.Portion(zinc().id(), 0.5)));
            LayerGrid grid = workbench.openNow(plan).grid();
            plans.editAll(plan.id(), plan.edition(), "Blend", content -> content.on(printer)
                    .with(content.colours()
                            .startAt(Height.parse("1"), light, grid)
                            .with(new Mixture.Blend(blend, halves), grid)
                            .startAt(Height.parse("2"), blend, grid)
                            .startAt(Height.parse("3"), shelf.all().get(0).id(), grid)));
            give(plan, sliced(new SmallGcode()), Said.NOTHING);
            assertThat(page(plan, "swap-list"))
                    .contains("Swap 1 before layer 6 is done", "Blend before layer 11 is done")
                    .contains("Swap 2 before layer 16 is done")
                    .doesNotContain("Swap 3");
            assertThat(page(plan, "swap-list.csv").lines().skip(1))
                    .extracting(row -> row.substring(0, row.indexOf(',')))
                    .containsExactly("1", "blend", "2");
            assertThat(page(plan, "gcode/changes"))
                    .contains("2 swaps, 1 change of blend")
                    .contains("Swap 1")
                    .contains("Swap 2")
                    .doesNotContain("Swap 3");
        } finally {
            workshop.remove(printer);
        }
    }

    private void give(PlanState plan, SmallGcode gcode, Said said) {
        try {
            FileStore.Kept kept = files.keep(new ByteArrayInputStream(gcode.bytes()), DataSize.ofMegabytes(1));
            plans.giveGcode(plan.id(), new Gcode(kept.hash(), "plate.gcode").with(said));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String pageOf(String name, SmallGcode gcode, UnaryOperator<ColourPlan> colours) throws Exception {
        PlanState plan = plan(name);
        plans.edit(plan.id(), plan.edition(), "Colours", colours);
        give(plan, gcode, Said.NOTHING.stops(List.of(0), Optional.of(StopTable.Choice.ADOPT)));
        return page(plan, "hand-off");
    }
}
