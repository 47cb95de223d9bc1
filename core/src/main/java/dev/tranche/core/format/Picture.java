package dev.tranche.core.format;

import dev.tranche.core.colour.Fewer;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.event.IIOReadProgressListener;
import javax.imageio.stream.MemoryCacheImageInputStream;

/**
 * A picture that a model shows on its outside, PNG or JPEG, as far as it tells colours to be printed in. Places on it run from 0 to
 * 1, from the left and from below.
 */
final class Picture {
    /** Bytes that all of a file may have together. */
    static final int MOST = 64 << 20;

    /** Pictures of a file; others are passed over. */
    static final int MOST_OF_A_FILE = 32;

    /** Where there is no colour. */
    static final int PLAIN = -1;
    /** A picture of more pixels, or of more to a side, is none to be read. */
    private static final long MOST_PIXELS = 1L << 26;

    private static final int LONGEST = 1 << 14;
    /** Pixels to a side; of more, every so-and-so-many-th is read. */
    private static final int WIDEST = 1024;
    /** Smaller ones are swatches, each pixel of which is meant. */
    private static final int FEWEST_OF_SOFT = 64;
    /** So many pixels a soft border is wide at each side. */
    private static final int SOFT = 2;
    /** Neighbours within an area differ by no more, of 255. */
    private static final int SMOOTH = 24;

    private static final int[] NONE = {};
    /** Of no more colours than this each is meant. */
    private static final int MOST_EXACT = 256;
    /** What differs by no more is noise in a picture of more, CIEDE2000; and how many colours that is told in. */
    private static final double NOISE = 12;

    private static final int MOST_COLOURS = 32;
    /** Bits of a channel that tell shades of a noisy picture apart. */
    private static final int BITS = 4;

    private static final int CLEAR = 0;

    /** What is beyond a picture's borders. */
    enum Tiling {
        WRAP,
        MIRROR,
        CLAMP,
        NONE;

        /** Of a place on the line, the one on the picture; none if that is not there. */
        private double on(double place) {
            double part = place - Math.floor(place);
            return switch (this) {
                case WRAP -> part;
                case MIRROR -> Math.floorMod((long) Math.floor(place), 2L) == 0 ? part : 1 - part;
                case CLAMP -> Math.max(0, Math.min(1, place));
                case NONE -> place < 0 || place > 1 ? Double.NaN : place;
            };
        }
    }

    private final int width;
    /** Row by row from above, 0xAARRGGBB. */
    private final int[] pixels;

    private final Tiling across;
    private final Tiling up;

    private Picture(int width, int[] pixels, Tiling across, Tiling up) {
        this.width = width;
        this.pixels = pixels;
        this.across = across;
        this.up = up;
    }

    /** Empty if it is none that can be read. */
    static Optional<Picture> read(byte[] bytes, Progress progress) {
        try (MemoryCacheImageInputStream in = new MemoryCacheImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            ImageReader reader = readers.hasNext() ? readers.next() : null;
            if (reader == null || !reader.getFormatName().matches("(?i)png|jpe?g")) {
                return Optional.empty();
            }
            try {
                reader.setInput(in, true, true);
                reader.addIIOReadProgressListener(new Beating(progress));
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if (Math.max(width, height) > LONGEST || (long) width * height > MOST_PIXELS) {
                    return Optional.empty();
                }
                int step = (Math.max(width, height) + WIDEST - 1) / WIDEST;
                ImageReadParam every = reader.getDefaultReadParam();
                every.setSourceSubsampling(step, step, 0, 0);
                BufferedImage image = reader.read(0, every);
                int[] pixels = crisp(few(pixels(image), image.getWidth()), image.getWidth());
                return Optional.of(new Picture(image.getWidth(), pixels, Tiling.WRAP, Tiling.WRAP));
            } finally {
                reader.dispose();
            }
        } catch (CancellationException stopped) {
            throw stopped;
        } catch (IOException | RuntimeException broken) {
            // A reader given nonsense fails in many ways, and none of them says more than that.
            return Optional.empty();
        }
    }

    /** Says that reading goes on. */
    private record Beating(Progress progress) implements IIOReadProgressListener {
        @Override
        public void imageProgress(ImageReader source, float percentageDone) {
            progress.beat();
        }

        @Override
        public void sequenceStarted(ImageReader source, int minIndex) {}

        @Override
        public void sequenceComplete(ImageReader source) {}

        @Override
        public void imageStarted(ImageReader source, int imageIndex) {}

        @Override
        public void imageComplete(ImageReader source) {}

        @Override
        public void thumbnailStarted(ImageReader source, int imageIndex, int thumbnailIndex) {}

        @Override
        public void thumbnailProgress(ImageReader source, float percentageDone) {}

        @Override
        public void thumbnailComplete(ImageReader source) {}

        @Override
        public void readAborted(ImageReader source) {}
    }

    private static int[] pixels(BufferedImage image) {
        int width = image.getWidth();
        int[] pixels = image.getRGB(0, 0, width, image.getHeight(), null, 0, width);
        if (image.getColorModel().getColorSpace().getType() == ColorSpace.TYPE_GRAY) {
            // The library takes greys for light, and makes them lighter than they are written.
            int most = (1 << image.getSampleModel().getSampleSize(0)) - 1;
            for (int i = 0; i < pixels.length; i++) {
                int grey = 255 * image.getRaster().getSample(i % width, i / width, 0) / most;
                pixels[i] = pixels[i] & 0xFF000000 | 0x010101 * grey;
            }
        }
        return pixels;
    }

    /** Borders between colours, which a picture makes soft, belong to one side or the other. */
    private static int[] crisp(int[] pixels, int width) {
        int height = pixels.length / width;
        if (Math.min(width, height) < FEWEST_OF_SOFT) {
            return pixels;
        }
        int[] from = pixels;
        boolean[] firm = new boolean[pixels.length];
        for (int i = 0; i < pixels.length; i++) {
            firm[i] = true;
            for (int n : beside(i, width, height)) {
                firm[i] &= difference(pixels[i], pixels[n]) <= SMOOTH;
            }
        }
        for (int round = 0; round < SOFT; round++) {
            int[] next = from.clone();
            boolean[] become = firm.clone();
            for (int i = 0; i < from.length; i++) {
                int least = Integer.MAX_VALUE;
                for (int n : firm[i] ? NONE : beside(i, width, height)) {
                    if (firm[n] && difference(pixels[i], from[n]) < least) {
                        least = difference(pixels[i], from[n]);
                        next[i] = from[n];
                        become[i] = true;
                    }
                }
            }
            from = next;
            firm = become;
        }
        return from;
    }

    private static int[] beside(int pixel, int width, int height) {
        int x = pixel % width;
        int y = pixel / width;
        return new int[] {
            y * width + Math.max(0, x - 1),
            y * width + Math.min(width - 1, x + 1),
            Math.max(0, y - 1) * width + x,
            Math.min(height - 1, y + 1) * width + x
        };
    }

    /** The largest of any channel. */
    private static int difference(int a, int b) {
        int largest = 0;
        for (int shift = 0; shift <= 24; shift += 8) {
            largest = Math.max(largest, Math.abs((a >>> shift & 0xFF) - (b >>> shift & 0xFF)));
        }
        return largest;
    }

    /** Photographs, and what was packed like them, in the few colours there is most of. */
    private static int[] few(int[] pixels, int width) {
        Set<Integer> exact = new HashSet<>();
        for (int i = 0; i < pixels.length && exact.size() <= MOST_EXACT; i++) {
            exact.add(pixels[i]);
        }
        if (exact.size() <= MOST_EXACT) {
            return pixels;
        }
        Map<Integer, Shade> shades = new TreeMap<>();
        for (int pixel : pixels) {
            if (!isClear(pixel)) {
                shades.computeIfAbsent(shade(pixel), s -> new Shade()).add(pixel);
            }
        }
        Map<Srgb, Double> amounts = new LinkedHashMap<>();
        shades.values().forEach(s -> amounts.merge(s.mean(), (double) s.count, Double::sum));
        Map<Srgb, Srgb> fewer = Fewer.of(amounts, MOST_COLOURS, NOISE);
        List<Srgb> palette = List.copyOf(new LinkedHashSet<>(fewer.values()));
        int[] colours = new int[1 << 3 * BITS];
        shades.forEach((number, s) -> colours[number] = palette.indexOf(fewer.get(s.mean())));
        int[] told = Arrays.stream(pixels)
                .map(pixel -> isClear(pixel) ? PLAIN : colours[shade(pixel)])
                .toArray();
        Srgb[] meant = new Halos(palette, told, width).meant();
        return Arrays.stream(told)
                .map(c -> c == PLAIN ? CLEAR : 0xFF << 24 | rgb(meant[c]))
                .toArray();
    }

    /** Pixels that hardly differ. */
    private static final class Shade {
        private long red;
        private long green;
        private long blue;
        private long count;

        void add(int pixel) {
            red += pixel >> 16 & 0xFF;
            green += pixel >> 8 & 0xFF;
            blue += pixel & 0xFF;
            count++;
        }

        Srgb mean() {
            return new Srgb((int) (red / count), (int) (green / count), (int) (blue / count));
        }
    }

    private static int shade(int argb) {
        int shade = 0;
        for (int shift = 24 - BITS; shift > 0; shift -= 8) {
            shade = shade << BITS | argb >> shift & (1 << BITS) - 1;
        }
        return shade;
    }

    private static boolean isClear(int argb) {
        return argb >>> 24 < 0x80;
    }

    static int rgb(Srgb colour) {
        return colour.red() << 16 | colour.green() << 8 | colour.blue();
    }

    Picture tiled(Tiling u, Tiling v) {
        return new Picture(width, pixels, u, v);
    }

    /** What it shows there, 0xRRGGBB, or {@link #PLAIN} where it is clear or there is nothing of it. */
    int at(double u, double v) {
        double x = across.on(u);
        double y = up.on(v);
        if (!Double.isFinite(x) || !Double.isFinite(y)) {
            return PLAIN;
        }
        int argb = pixels[pixel(1 - y, pixels.length / width) * width + pixel(x, width)];
        return isClear(argb) ? PLAIN : argb & 0xFFFFFF;
    }

    private static int pixel(double share, int of) {
        return Math.min(of - 1, (int) (share * of));
    }
}
