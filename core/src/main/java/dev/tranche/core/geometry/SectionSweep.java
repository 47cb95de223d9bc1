package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.ObjIntConsumer;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Cuts a mesh at many heights in one sweep from below.
 *
 * <p>Triangles are sorted by the first plane they cross; each stretch of planes then carries a list of the
 * triangles alive at its plane, so work is proportional to crossings, and stretches run side by side.
 *
 * <p><b>Corners in the plane.</b> A corner at the plane's height counts as above it. A plane in which a flat
 * face, an edge or a corner lies therefore gives the section just <em>below</em>, whichever side the plastic is
 * on, and every outline is closed. That is the rule of the layer grid too: a height equal to a layer's middle
 * is not above it.
 *
 * <p>Not for meshes whose corners differ by rounding where they should meet: those leave open ends, which are
 * counted, not mended.
 */
public final class SectionSweep {
    private static final int STRETCHES_PER_CORE = 8;
    private static final long MOST_CROSSINGS = 1_000_000;

    private final Mesh mesh;
    private final int[] planes;
    /** Triangles that cross at least one plane, by first plane crossed. */
    private final int[] byFirst;
    /** Where in {@link #byFirst} the triangles of each first plane begin. */
    private final int[] start;

    private final short[] first;
    private final short[] last;

    private SectionSweep(Mesh mesh, int[] planes) {
        this.mesh = mesh;
        this.planes = planes;
        int triangles = mesh.triangles();
        first = new short[triangles];
        last = new short[triangles];
        start = new int[planes.length + 1];
        for (int t = 0; t < triangles; t++) {
            int a = 2 * mesh.z(3 * t);
            int b = 2 * mesh.z(3 * t + 1);
            int c = 2 * mesh.z(3 * t + 2);
            int from = firstAbove(Math.min(a, Math.min(b, c)));
            int to = firstAbove(Math.max(a, Math.max(b, c))) - 1;
            first[t] = (short) from;
            last[t] = (short) to;
            if (from <= to) {
                start[from + 1]++;
            }
        }
        for (int p = 0; p < planes.length; p++) {
            start[p + 1] += start[p];
        }
        byFirst = new int[start[planes.length]];
        int[] next = Arrays.copyOf(start, planes.length);
        for (int t = 0; t < triangles; t++) {
            if (first[t] <= last[t]) {
                byFirst[next[first[t]]++] = t;
            }
        }
    }

    /**
     * @param planes heights to cut at, in <em>half</em> micrometres above the bed (a layer's middle may lie
     *     between two micrometres), strictly ascending, at most 32 000
     * @param progress hears planes done of all planes
     * @return one section a plane, in the same order; where the model goes straight up it is one for all of them, so that what is
     *     worked out of them need be only once
     * @throws Refusal if outlines cross one another over {@value #MOST_CROSSINGS} times in all
     * @throws CancellationException if {@code progress} throws it
     */
    public static List<Section> cut(Mesh mesh, int[] planes, Progress progress) {
        if (planes.length > 32_000) {
            throw new IllegalArgumentException("at most 32 000 planes in one sweep");
        }
        for (int i = 1; i < planes.length; i++) {
            if (planes[i] <= planes[i - 1]) {
                throw new IllegalArgumentException("planes must ascend");
            }
        }
        return new SectionSweep(mesh, planes).run(progress);
    }

    private List<Section> run(Progress progress) {
        Section[] sections = new Section[planes.length];
        OutlineTracer.Traced[] tangled = new OutlineTracer.Traced[planes.length];
        AtomicInteger done = new AtomicInteger();
        Effort foreseen = effort(progress);
        trace(foreseen, (traced, plane) -> {
            Optional<MultiPolygon> outline = traced.nest().nested(foreseen);
            if (outline.isPresent()) {
                sections[plane] = Section.of(outline.get(), traced.closings());
                progress.at(done.incrementAndGet(), planes.length);
            } else {
                // Whether all that crosses is too much is told before any of it is filled.
                traced.nest().foresee(foreseen);
                tangled[plane] = traced;
            }
        });
        Effort effort = effort(progress);
        IntStream.range(0, planes.length)
                .parallel()
                .filter(plane -> tangled[plane] != null)
                .forEach(plane -> {
                    sections[plane] = Section.of(tangled[plane].nest().arranged(effort), tangled[plane].closings());
                    tangled[plane] = null;
                    progress.at(done.incrementAndGet(), planes.length);
                });
        for (int plane = 1; plane < sections.length; plane++) {
            if (sections[plane].equals(sections[plane - 1])) {
                sections[plane] = sections[plane - 1];
            }
        }
        return List.of(sections);
    }

    private static Effort effort(Progress progress) {
        return new Effort(
                MOST_CROSSINGS,
                "The model runs into itself in over a million places on its layers; repair it in the program that made it.",
                progress);
    }

    private void trace(Effort effort, ObjIntConsumer<OutlineTracer.Traced> each) {
        boolean insideOut = mesh.volume() < 0;
        int stretches = Math.max(
                1,
                Math.min(
                        planes.length, STRETCHES_PER_CORE * Runtime.getRuntime().availableProcessors()));
        IntStream.range(0, stretches).parallel().forEach(s -> {
            int from = (int) ((long) planes.length * s / stretches);
            int to = (int) ((long) planes.length * (s + 1) / stretches);
            Alive alive = new Alive();
            for (int i = 0; i < start[from]; i++) {
                alive.add(byFirst[i], from);
            }
            OutlineTracer tracer = new OutlineTracer(insideOut, effort);
            for (int p = from; p < to; p++) {
                alive.advance(p);
                each.accept(alive.traced(p, tracer), p);
            }
        });
    }

    /** Index of the lowest plane above {@code height}, both in half micrometres. */
    private int firstAbove(int height) {
        int at = Arrays.binarySearch(planes, height);
        return at >= 0 ? at + 1 : -at - 1;
    }

    /** The triangles that reach the plane of the moment. */
    private final class Alive {
        private int[] list = new int[256];
        private int size;

        void add(int triangle, int plane) {
            if (last[triangle] >= plane) {
                if (size == list.length) {
                    list = Arrays.copyOf(list, 2 * size);
                }
                list[size++] = triangle;
            }
        }

        void advance(int plane) {
            int kept = 0;
            for (int i = 0; i < size; i++) {
                if (last[list[i]] >= plane) {
                    list[kept++] = list[i];
                }
            }
            size = kept;
            for (int i = start[plane]; i < start[plane + 1]; i++) {
                add(byFirst[i], plane);
            }
        }

        OutlineTracer.Traced traced(int plane, OutlineTracer tracer) {
            tracer.begin(size);
            for (int i = 0; i < size; i++) {
                mesh.cross(3 * list[i], planes[plane], tracer);
            }
            return tracer.finish();
        }
    }
}
