package dev.tranche.app.desk;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.pictures.Outlines;
import dev.tranche.app.pictures.ScoreDrawing;
import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.pictures.ThinDrawing;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.springframework.stereotype.Component;

/** The desk's drawings, each drawn once for a state of a plan; layers that may be asked for next are drawn ahead. */
@Component
class Drawings {
    private static final int MOST_PLANS = 40;
    private static final int MOST_LAYERS = 400;
    /** So many corners of a layer are looked at as soon as they are drawn. */
    private static final int SOON = 500;

    /** What is drawn ahead is one piece of work: while it is under way no more of it is begun. */
    private static final Object AHEAD = new Object();

    private final Figures figures;
    private final Jobs jobs;
    private final Cache<Workpiece, Drawn> drawn =
            Caffeine.newBuilder().weakKeys().maximumSize(MOST_PLANS).build();

    private final Outlines outlines = new Outlines();

    private final Cache<List<MultiPolygon>, Map<Double, List<Thin>>> thin =
            Caffeine.newBuilder().weakKeys().maximumSize(MOST_LAYERS).build();

    Drawings(Figures figures, Jobs jobs) {
        this.figures = figures;
        this.jobs = jobs;
    }

    /** What has been drawn of one state of a plan. */
    private record Drawn(
            Map<Boolean, SectionDrawing> sections,
            ScoreDrawing score,
            Map<Layer, LayerDrawing> layers,
            Map<Layer, ThinDrawing> thin) {}

    private record Layer(int number, int region, boolean drawnIn, boolean pair) {
        /** Of a layer as it is, whatever is being worked on. */
        static Layer of(int number, boolean pair) {
            return new Layer(number, -1, false, pair);
        }

        int width() {
            return pair ? 226 : 460;
        }

        int height() {
            return pair ? 400 : 440;
        }
    }

    private Drawn of(Workpiece work) {
        return drawn.get(
                work,
                w -> new Drawn(
                        new ConcurrentHashMap<>(),
                        score(w, 1, 1, figures),
                        new ConcurrentHashMap<>(),
                        new ConcurrentHashMap<>()));
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
        return drawn(
                of(work).layers(),
                new Layer(number, region, drawnIn, pair),
                l -> LayerDrawing.of(work, number, region, drawnIn, outlines, l.width(), l.height()));
    }

    /** Where a layer is too thin; empty if that takes longer than drawing it, and {@link #thinNow} is due. */
    Optional<ThinDrawing> thin(Workpiece work, int number, boolean pair) {
        double width = work.machine().printer().lineWidth();
        boolean soon = of(work).thin().containsKey(Layer.of(number, pair))
                || work.colouring().layer(number).tints().stream()
                                .filter(tint -> !isKnown(tint, width))
                                .mapToInt(Tint::corners)
                                .sum()
                        <= SOON;
        return soon ? Optional.of(thinNow(work, number, pair)) : Optional.empty();
    }

    ThinDrawing thinNow(Workpiece work, int number, boolean pair) {
        return drawn(
                of(work).thin(),
                Layer.of(number, pair),
                l -> ThinDrawing.of(work, number, this::thin, l.width(), l.height()));
    }

    /** What of a colour's areas is too thin; areas that an edit does not touch are the very same afterwards. */
    private List<Thin> thin(Tint tint, double width) {
        return thin.get(tint.cells(), cells -> new ConcurrentHashMap<>())
                .computeIfAbsent(width, w -> Thin.of(tint.area(), w, ThinDrawing.TOLD));
    }

    private boolean isKnown(Tint tint, double width) {
        Map<Double, List<Thin>> known = thin.getIfPresent(tint.cells());
        return known != null && known.containsKey(width);
    }

    private static <T> T drawn(Map<Layer, T> drawn, Layer layer, Function<Layer, T> drawing) {
        if (drawn.size() > MOST_LAYERS) {
            drawn.clear();
        }
        return drawn.computeIfAbsent(layer, drawing);
    }

    /** Draws the neighbours of {@code layer} while nobody waits, by one worker: the others are for what somebody waits for. */
    void ahead(Workpiece work, int layer, int... next) {
        int[] undrawn = IntStream.of(next)
                .filter(n -> n != layer && !of(work).thin().containsKey(Layer.of(n, false)))
                .toArray();
        if (undrawn.length == 0) {
            return;
        }
        try {
            jobs.start(AHEAD, "Drawing the layers beside layer " + layer, progress -> {
                for (int number : undrawn) {
                    layer(work, number, -1, false, false);
                    thinNow(work, number, false);
                }
                return Job.Work.HERE;
            });
        } catch (Refusal busy) {
            // They are drawn when they are asked for.
        }
    }
}
