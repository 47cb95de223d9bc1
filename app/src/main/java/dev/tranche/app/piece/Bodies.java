package dev.tranche.app.piece;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.look.Looks;
import dev.tranche.core.look.Skin;
import dev.tranche.core.look.View;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/**
 * The outside of pieces as bytes for a browser, little-endian: how many triangles (a whole number of 4 bytes); the lowest X, Y and Z
 * and the mm of a step (4 floats); for each corner of each triangle X, Y and Z in steps (2 bytes each); for each triangle
 * red, green and blue (1 byte each).
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
        return bytes(Skin.cut(work.colouring(), layer, colours(work)));
    }

    private static Skin skin(Workpiece work, boolean own, Progress progress) {
        Skin skin = Skin.of(work.colouring(), colours(work), progress);
        if (!own) {
            skin.with(work.looks().from(View.ABOVE, progress), View.ABOVE);
            skin.with(work.looks().from(View.BELOW, progress), View.BELOW);
        }
        return skin;
    }

    private static Function<SpoolId, Srgb> colours(Workpiece work) {
        return spool -> work.spool(spool).colour();
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
        ByteBuffer bytes = ByteBuffer.allocate(20 + 21 * n).order(ByteOrder.LITTLE_ENDIAN);
        bytes.putInt(n).putFloat(low[0]).putFloat(low[1]).putFloat(low[2]).putFloat((float) step);
        for (int i = 0; i < 9 * n; i++) {
            bytes.putShort((short) Math.round((skin.corner(i / 9, i / 3 % 3, i % 3) - low[i % 3]) / step));
        }
        for (int i = 0; i < 3 * n; i++) {
            bytes.put((byte) skin.colour(i / 3, i % 3));
        }
        return bytes.array();
    }
}
