package dev.tranche.app.piece;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.look.Looks;
import dev.tranche.core.look.Skin;
import dev.tranche.core.look.View;
import dev.tranche.core.speech.Progress;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Component;

/**
 * The outside of pieces as bytes for a browser, little-endian: how many corners and how many triangles (4 bytes each); the
 * lowest X, Y and Z and the mm of a step (4 floats); for each corner X, Y and Z in steps (2 bytes each); for each corner red,
 * green and blue (1 byte each); nothing until the count divides by four; for each triangle its three corners (4 bytes each).
 */
@Component
class Bodies {
    private static final int SECONDS = 60;
    private static final int MOST_KEPT = 12;
    private static final double STEPS = 65_535;

    private final Jobs jobs;
    private final Cache<What, byte[]> kept =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).softValues().build();

    Bodies(Jobs jobs) {
        this.jobs = jobs;
    }

    private record What(Looks looks, boolean own) {}

    /** @param own whether in the plan's own colours, whatever shines through */
    byte[] of(Workpiece work, boolean own) {
        What what = new What(work.looks(), own || !work.looks().isQuick());
        byte[] known = kept.getIfPresent(what);
        if (known == null) {
            known = jobs.await("The body of " + work.plan().name(), SECONDS, p -> bytes(skin(work, what.own(), p)));
            kept.put(what, known);
        }
        return known;
    }

    /** The colours of {@code layer}, where it is cut above it. */
    byte[] cut(Workpiece work, int layer) {
        return bytes(Skin.cut(work.colouring(), layer, work.paints()));
    }

    private static Skin skin(Workpiece work, boolean own, Progress progress) {
        Skin skin = Skin.of(work.colouring(), work.paints(), progress);
        if (!own) {
            skin.with(work.looks().from(View.ABOVE, progress), View.ABOVE);
            skin.with(work.looks().from(View.BELOW, progress), View.BELOW);
        }
        return skin;
    }

    private static byte[] bytes(Skin skin) {
        int n = skin.triangles();
        float[] low = {Float.MAX_VALUE, Float.MAX_VALUE, Float.MAX_VALUE};
        float most = 0;
        for (int axis = 0; axis < 3; axis++) {
            float high = -Float.MAX_VALUE;
            for (int i = 0; i < 3 * n; i++) {
                low[axis] = Math.min(low[axis], skin.corner(i / 3, i % 3, axis));
                high = Math.max(high, skin.corner(i / 3, i % 3, axis));
            }
            most = Math.max(most, high - low[axis]);
        }
        double step = Math.max(1e-6, most / STEPS);
        Map<Corner, Integer> corners = new LinkedHashMap<>();
        int[] of = new int[3 * n];
        for (int i = 0; i < 3 * n; i++) {
            of[i] = corners.computeIfAbsent(corner(skin, i / 3, i % 3, low, step), c -> corners.size());
        }
        int filled = 24 + 9 * corners.size();
        int padding = -filled & 3;
        ByteBuffer bytes = ByteBuffer.allocate(filled + padding + 12 * n).order(ByteOrder.LITTLE_ENDIAN);
        bytes.putInt(corners.size()).putInt(n);
        bytes.putFloat(low[0]).putFloat(low[1]).putFloat(low[2]).putFloat((float) step);
        corners.keySet()
                .forEach(c -> bytes.putShort((short) c.x).putShort((short) c.y).putShort((short) c.z));
        corners.keySet().forEach(c -> bytes.put((byte) (c.colour >> 16))
                .put((byte) (c.colour >> 8))
                .put((byte) c.colour));
        bytes.position(filled + padding);
        for (int corner : of) {
            bytes.putInt(corner);
        }
        return bytes.array();
    }

    /** A corner in steps, in one colour: corners that are equal are one. */
    private record Corner(int x, int y, int z, int colour) {}

    private static Corner corner(Skin skin, int triangle, int corner, float[] low, double step) {
        return new Corner(
                (int) Math.round((skin.corner(triangle, corner, 0) - low[0]) / step),
                (int) Math.round((skin.corner(triangle, corner, 1) - low[1]) / step),
                (int) Math.round((skin.corner(triangle, corner, 2) - low[2]) / step),
                skin.colour(triangle, 0) << 16 | skin.colour(triangle, 1) << 8 | skin.colour(triangle, 2));
    }
}
