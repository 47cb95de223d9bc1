package dev.tranche.core.format;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.Srgb;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Colours that a picture has only where two others meet, since it was made small, or packed in blocks: thin bands of a colour
 * between those of its neighbours. They are the one of the two that they differ from less.
 */
final class Halos {
    /** A band is this wide at most, pixels. */
    private static final double WIDTH = 12;
    /** Of a band's border, the share that a neighbour of it has at least. */
    private static final double BESIDE = 0.05;
    /** By way of a colour between two others it is hardly farther from one to the other than straight. */
    private static final double DETOUR = 1.3;

    private final List<Srgb> palette;
    private final Lab[] labs;
    private final int[] stands;
    /** Pixels of each colour, and sides of pixels at which two meet. */
    private final double[] areas;

    private final double[][] borders;

    /**
     * @param pixels places in the palette, row by row; below 0 where there is none
     */
    Halos(List<Srgb> palette, int[] pixels, int width) {
        int count = palette.size();
        this.palette = palette;
        this.labs = palette.stream().map(Srgb::lab).toArray(Lab[]::new);
        this.stands = IntStream.range(0, count).toArray();
        this.areas = new double[count];
        this.borders = new double[count][count];
        for (int i = 0; i < pixels.length; i++) {
            if (pixels[i] >= 0) {
                areas[pixels[i]]++;
                meet(pixels, i, (i + 1) % width == 0 ? i : i + 1);
                meet(pixels, i, i + width < pixels.length ? i + width : i);
            }
        }
    }

    private void meet(int[] pixels, int one, int other) {
        int a = pixels[one];
        int b = pixels[other];
        if (a != b && b >= 0) {
            borders[a][b]++;
            borders[b][a]++;
        }
    }

    /** What each colour of the palette is meant as. */
    Srgb[] meant() {
        IntStream.range(0, areas.length)
                .boxed()
                .sorted((a, b) -> Double.compare(areas[a], areas[b]))
                .toList()
                .forEach(this::join);
        return IntStream.range(0, areas.length)
                .mapToObj(c -> palette.get(stand(c)))
                .toArray(Srgb[]::new);
    }

    private int stand(int colour) {
        int at = colour;
        while (stands[at] != at) {
            at = stands[at];
        }
        return at;
    }

    private void join(int colour) {
        double border = IntStream.range(0, areas.length)
                .mapToDouble(c -> borders[colour][c])
                .sum();
        if (2 * areas[colour] > WIDTH * border) {
            return;
        }
        int[] beside = IntStream.range(0, areas.length)
                .filter(c -> stands[c] == c && areas[c] > areas[colour] && borders[colour][c] >= BESIDE * border)
                .toArray();
        for (int one : beside) {
            for (int other : beside) {
                double near = labs[one].differenceTo(labs[colour]);
                double far = labs[colour].differenceTo(labs[other]);
                if (near <= far && near + far <= DETOUR * labs[one].differenceTo(labs[other])) {
                    stands[colour] = one;
                    areas[one] += areas[colour];
                    for (int c = 0; c < areas.length; c++) {
                        if (c != one) {
                            borders[one][c] += borders[colour][c];
                            borders[c][one] += borders[c][colour];
                        }
                        borders[c][colour] = 0;
                    }
                    return;
                }
            }
        }
    }
}
