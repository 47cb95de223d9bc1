package dev.tranche.app.desk;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.pictures.ScoreDrawing;
import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.locationtech.jts.geom.MultiPolygon;
import org.springframework.stereotype.Component;

/** The desk's drawings, each drawn once for a state of a plan; layers that may be asked for next are drawn ahead. */
@Component
class Drawings {
    private static final int MOST_PLANS = 40;
    private static final int MOST_LAYERS = 400;

    private final Figures figures;
    private final Jobs jobs;
    private final Cache<Workpiece, Drawn> drawn =
            Caffeine.newBuilder().weakKeys().maximumSize(MOST_PLANS).build();

    private final Cache<List<MultiPolygon>, Map<Double, List<Thin>>> thin =
            Caffeine.newBuilder().weakKeys().maximumSize(MOST_LAYERS).build();

    Drawings(Figures figures, Jobs jobs) {
        this.figures = figures;
        this.jobs = jobs;
    }

    /** What of a colour's areas is too thin, as much of it as is drawn; areas that an edit does not touch are the very same afterwards. */
    private List<Thin> thin(Tint tint, double width) {
        Map<Double, List<Thin>> known = thin.get(tint.cells(), cells -> new ConcurrentHashMap<>());
        return known.computeIfAbsent(width, w -> Thin.of(tint.area(), w, LayerDrawing.MOST_THIN));
    }

    /** What has been drawn of one state of a plan. */
    private record Drawn(Map<Boolean, SectionDrawing> sections, ScoreDrawing score, Map<Layer, LayerDrawing> layers) {}

    private record Layer(int number, int region, boolean drawnIn, boolean pair) {}

    private Drawn of(Workpiece work) {
        return drawn.get(
                work, w -> new Drawn(new ConcurrentHashMap<>(), score(w, 1, 1, figures), new ConcurrentHashMap<>()));
    }

    /** @param even whether heights are drawn as large as widths */
    SectionDrawing section(Workpiece work, boolean even) {
        return of(work).sections().computeIfAbsent(even, e -> SectionDrawing.of(work, 234, 470, e));
    }

    /** All of the print, which is the same wherever the cursor is; or a part of it round {@code layer}. */
    ScoreDrawing score(Workpiece work, int layer, int zoom) {
        return zoom <= 1 ? of(work).score() : score(work, layer, zoom, figures);
    }

    private static ScoreDrawing score(Workpiece work, int layer, int zoom, Figures figures) {
        return ScoreDrawing.of(work, figures, layer, zoom, 1240, 150);
    }

    LayerDrawing layer(Workpiece work, int number, int region, boolean drawnIn, boolean pair) {
        Map<Layer, LayerDrawing> layers = of(work).layers();
        if (layers.size() > MOST_LAYERS) {
            layers.clear();
        }
        return layers.computeIfAbsent(
                new Layer(number, region, drawnIn, pair),
                l -> LayerDrawing.of(work, number, region, drawnIn, this::thin, pair ? 226 : 460, pair ? 400 : 440));
    }

    /** Draws the neighbours of {@code layer} while nobody waits. */
    void ahead(Workpiece work, int layer, int... next) {
        Map<Layer, LayerDrawing> layers = of(work).layers();
        for (int number : next) {
            if (number != layer && !layers.containsKey(new Layer(number, -1, false, false))) {
                try {
                    jobs.start("Drawing layer " + number, progress -> {
                        layer(work, number, -1, false, false);
                        return "";
                    });
                } catch (Refusal busy) {
                    return;
                }
            }
        }
    }
}
