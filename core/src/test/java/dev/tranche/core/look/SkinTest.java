package dev.tranche.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class SkinTest {
    private static Colouring coloured(Body body, ColourPlan plan) {
        CutModel model = CutModel.of(body, LayerSettings.COMMON.on(body.height()), Progress.UNHEARD);
        return Colouring.of(plan, model, 0.45, Progress.UNHEARD);
    }

    private static ColourPlan soot() {
        return ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id());
    }

    private static Skin skin(Colouring colouring) {
        return Skin.of(colouring, new Looks(colouring, Spools.SHELF).paints(), Progress.UNHEARD);
    }

    /** By the divergence theorem, which holds only if the skin is closed and all of it faces outwards. */
    private static double volume(Skin s) {
        double six = 0;
        for (int t = 0; t < s.triangles(); t++) {
            double ax = s.corner(t, 0, 0), ay = s.corner(t, 0, 1), az = s.corner(t, 0, 2);
            double bx = s.corner(t, 1, 0), by = s.corner(t, 1, 1), bz = s.corner(t, 1, 2);
            double cx = s.corner(t, 2, 0), cy = s.corner(t, 2, 1), cz = s.corner(t, 2, 2);
            six += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
        }
        return six / 6;
    }

    @Test
    void a_box_is_twelve_triangles_that_enclose_it() {
        Skin box = skin(coloured(new Shapes().box(0, 0, 0, 30, 20, 3).body(), soot()));
        assertThat(box.triangles()).isEqualTo(12);
        assertThat(volume(box)).isCloseTo(1800, within(1e-2));
    }

    /** It would look like a plate. */
    @Test
    void a_sieve_keeps_its_holes() {
        for (int across : new int[] {20, 60}) {
            Shapes bars = new Shapes();
            for (int i = 0; i <= across; i++) {
                bars.box(1.6 * i, 0, 0, 0.72, 1.6 * across + 0.72, 1).box(0, 1.6 * i, 0, 1.6 * across + 0.72, 0.72, 1);
            }
            Body body = bars.body();
            double side = 1.6 * across + 0.72;
            for (ColourPlan plan : List.of(
                    soot(),
                    soot().with(new Regions(List.of(new Region(
                            "spot",
                            new Shape.Zone(new Outline.Disc(8), 15, 15, 0, false),
                            Spools.CHALK.id(),
                            Range.ALL)))))) {
                assertThat(volume(skin(coloured(body, plan))))
                        .isCloseTo(side * side - across * across * 0.88 * 0.88, withinPercentage(2));
            }
        }
    }

    @Test
    void colours_by_height_lie_on_one_another_without_a_face_between() {
        Body body = new Shapes().box(0, 0, 0, 30, 20, 3).body();
        ColourPlan plan =
                soot().startAt(Height.ofMillimetres(1), Spools.CHALK.id(), LayerSettings.COMMON.on(body.height()));
        Skin box = skin(coloured(body, plan));
        assertThat(box.triangles()).isEqualTo(20);
        assertThat(volume(box)).isCloseTo(1800, within(1e-2));
    }

    /** A zone's own side is no outer surface; its top is. */
    @Test
    void what_lies_inside_is_not_of_the_skin() {
        Region inlay = new Region(
                "inlay",
                new Shape.Zone(new Outline.Box(4, 4), 15, 10, 0, false),
                Spools.CHALK.id(),
                Range.between(Height.ofMillimetres(2), Height.ofMillimetres(3)));
        Body body = new Shapes().box(0, 0, 0, 30, 20, 3).body();
        Skin box = skin(coloured(body, soot().with(new Regions(List.of(inlay)))));
        for (int t = 0; t < box.triangles(); t++) {
            boolean chalk = box.colour(t, 0) > 200;
            for (int c = 0; chalk && c < 3; c++) {
                assertThat(box.corner(t, c, 2)).isEqualTo(3f);
            }
        }
        assertThat(volume(box)).isCloseTo(1800, within(1e-2));
    }

    /** 4/3 π r³, within what layers of 0.2 mm leave of it, and few triangles enough to be turned. */
    @Test
    void a_sphere_in_layers_has_a_spheres_volume_and_silhouette() {
        Skin sphere = skin(coloured(new Shapes().sphere(15, 120, 400).body(), soot()));
        assertThat(volume(sphere)).isCloseTo(4.0 / 3 * Math.PI * Math.pow(15, 3), within(60.0));
        assertThat(sphere.triangles()).isLessThan(45_000);
        float widest = 0;
        for (int t = 0; t < sphere.triangles(); t++) {
            widest = Math.max(widest, sphere.corner(t, 0, 0));
        }
        assertThat(widest).isCloseTo(15f, within(0.03f));
    }

    /** Else a hair of what lies behind is seen through the seam. */
    @Test
    void wherever_outlines_cross_every_edge_is_met_by_the_same_edge() {
        Skin crossed = skin(coloured(
                new Shapes().box(0, 0, 0, 20, 20, 1).box(-3, 5, 1, 26, 10, 1).body(), soot()));
        assertThat(open(crossed)).isZero();
    }

    /** How many edges are met by no other. */
    private static long open(Skin skin) {
        Map<String, Integer> edges = new HashMap<>();
        for (int t = 0; t < skin.triangles(); t++) {
            for (int c = 0; c < 3; c++) {
                String from = place(skin, t, c);
                String to = place(skin, t, (c + 1) % 3);
                boolean there = from.compareTo(to) < 0;
                edges.merge(there ? from + to : to + from, there ? 1 : -1, Integer::sum);
            }
        }
        return edges.values().stream().filter(met -> met != 0).count();
    }

    @Test
    void a_large_ball_of_two_colours_is_closed_however_roughly_it_is_drawn() {
        Region half = new Region(
                "half", new Shape.Zone(new Outline.Box(80, 40), 5, 20, 20, false), Spools.CHALK.id(), Range.ALL);
        Body ball = new Shapes().sphere(30, 90, 180).body();
        double volume = volume(skin(coloured(ball, soot())));
        Skin halves = skin(coloured(ball, soot().with(new Regions(List.of(half)))));
        assertThat(open(halves)).isZero();
        assertThat(volume(halves)).isCloseTo(volume, withinPercentage(2));
    }

    private static String place(Skin skin, int triangle, int corner) {
        return "(%.3f %.3f %.3f)"
                .formatted(
                        skin.corner(triangle, corner, 0),
                        skin.corner(triangle, corner, 1),
                        skin.corner(triangle, corner, 2));
    }

    @Test
    void a_tray_of_many_pegs_is_few_triangles_enough_to_be_turned() {
        Shapes pegs = new Shapes();
        for (int peg = 0; peg < 120; peg++) {
            pegs.cone(12 * (peg % 12), 12 * (peg / 12), 4, 22, 24);
        }
        Skin tray = skin(coloured(pegs.body(), soot()));
        assertThat(tray.triangles()).isLessThan(45_000);
        // 1/3 π r² h each.
        assertThat(volume(tray) / 120).isCloseTo(Math.PI * 4 * 4 * 22 / 3, withinPercentage(15));
    }

    @Test
    void cut_it_shows_the_colours_of_that_layer_and_thin_ones_as_they_are_seen() {
        Body body = new Shapes().box(0, 0, 0, 30, 20, 3).body();
        ColourPlan plan =
                soot().startAt(Height.ofMillimetres(2.8), Spools.CHALK.id(), LayerSettings.COMMON.on(body.height()));
        Colouring colouring = coloured(body, plan);
        Skin cut = Skin.cut(colouring, 3, new Looks(colouring, Spools.SHELF).paints());
        assertThat(cut.triangles()).isEqualTo(2);
        assertThat(cut.corner(0, 0, 2)).isCloseTo(0.6f, within(1e-6f));
        int before = skin(colouring).triangles();
        Looks looks = new Looks(colouring, Spools.SHELF);
        Skin seen = skin(colouring).with(looks.from(View.ABOVE, Progress.UNHEARD), View.ABOVE);
        assertThat(seen.triangles()).isEqualTo(before + 2);
        assertThat(seen.colour(before, 0)).isBetween(0x60, 0xF0);
    }
}
