package dev.tranche.core.layer;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/** A block of ten layers, followed from above. */
class ShaftTest {
    private static Shaft block() {
        LayerGrid grid = new LayerGrid(Height.ofMillimetres(0.2), Height.ofMillimetres(0.2), Height.ofMillimetres(2));
        CutModel model =
                CutModel.of(Body.of(new Shapes().box(0, 0, 0, 20, 20, 2).mesh()), grid, Progress.UNHEARD);
        return new Outlooks(model).from(true, Progress.UNHEARD).shaft(0);
    }

    /** Divides at an X: what is to the left of it is taken by 0, the rest by 1. */
    private static Divider at(double x) {
        MultiPolygon left = Areas.of(Areas.NOTHING.getFactory().toGeometry(new Envelope(-1, x, -1, 21)));
        return area -> List.of(
                new Divider.Taken(0, Areas.intersection(area, left)),
                new Divider.Taken(1, Areas.difference(area, left)));
    }

    @Test
    void whoever_divides_a_share_hears_who_divided_before_and_whose_it_was() {
        List<String> heard = new ArrayList<>();
        Divider first = at(5);
        Divider second = new Divider() {
            @Override
            public List<Taken> divide(MultiPolygon area) {
                heard.add("anew");
                return List.of(new Taken(7, area));
            }

            @Override
            public List<Taken> divide(MultiPolygon area, Divider before, int taker) {
                heard.add(before == first ? "after the first, of " + taker : "after another");
                return List.of(new Taken(7, area));
            }
        };
        Shaft whole = block();
        whole.divided(second);
        whole.divided(first).forEach(share -> share.shaft().divided(second));
        whole.divided(first).forEach(share -> share.shaft().divided(second));
        assertThat(heard).containsExactly("anew", "after the first, of 0", "after the first, of 1");
    }

    /** Each edit that moves a region divides anew, and a model is edited for hours. */
    @Test
    void who_is_no_longer_there_is_not_kept_by_what_he_divided() throws InterruptedException {
        Shaft whole = block();
        WeakReference<Divider> gone = divided(whole);
        for (int i = 0; i < 100 && gone.get() != null; i++) {
            System.gc();
            Thread.sleep(20);
        }
        assertThat(gone.get()).isNull();
        assertThat(whole.area().getArea()).isEqualTo(400);
    }

    private static WeakReference<Divider> divided(Shaft whole) {
        Divider passing = at(8);
        whole.divided(passing).forEach(share -> share.shaft().divided(passing));
        return new WeakReference<>(passing);
    }
}
