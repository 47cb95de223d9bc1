package dev.tranche.app.pictures;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.locationtech.jts.geom.MultiPolygon;

/** Areas as paths of a drawing, kept as long as the area is: most edits change colours and no area. */
public final class Outlines {
    /** Fewer corners are drawn as they are. */
    private static final int FEW = 400;
    /** Finer than anyone sees, coarser than a scanned model, px. */
    private static final double FINE = 0.33;

    private static final int MOST = 2_000;

    private final Cache<MultiPolygon, Map<Frame, String>> drawn =
            Caffeine.newBuilder().weakKeys().maximumSize(MOST).build();

    String of(MultiPolygon area, Frame frame) {
        return drawn.get(area, a -> new ConcurrentHashMap<>()).computeIfAbsent(frame, f -> path(area, f));
    }

    private static String path(MultiPolygon area, Frame frame) {
        SvgPath path = SvgPath.coarse();
        return (area.getNumPoints() < FEW ? path.polygons(area, frame) : path.polygons(area, frame, FINE)).toString();
    }
}
