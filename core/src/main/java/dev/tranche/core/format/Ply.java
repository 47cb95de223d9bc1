package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.IntToDoubleFunction;

/**
 * Reads PLY: corners and faces, with the colours of faces, else those of corners. Faces of more than three corners are cut into a
 * fan. Units are taken as millimetres.
 */
final class Ply {
    /** Between two words on how far it is. */
    private static final int OFTEN = 0x3FFF;

    private final PlyFile file;
    private final Corners corners = new Corners();
    private final Tints tints = new Tints();
    private final Places places = new Places();
    private int faces;

    private Ply(PlyFile file) {
        this.file = file;
    }

    static boolean is(byte[] head) {
        return new String(head, StandardCharsets.ISO_8859_1).matches("(?s)ply[ \t]*[\r\n].*");
    }

    static PartedModel read(BufferedInputStream in, long size, Progress progress) throws IOException {
        Ply ply = new Ply(new PlyFile(in, size, progress));
        ply.accept();
        if (ply.corners.isEmpty()) {
            throw Refusal.of(
                    "The PLY file gives %s and no faces; export it as a mesh, with its faces.",
                    Words.count(ply.places.count(), "corner"));
        }
        return ply.corners.model(progress);
    }

    private void accept() throws IOException {
        boolean coloured = false;
        for (PlyFile.Element element : file.elements()) {
            coloured |= element.place("red", "diffuse_red") >= 0;
            Taker taker = taker(element);
            double[] numbers = new double[element.properties().size()];
            // What has nothing to be told of takes no place in the file, however often it comes.
            for (long i = 0; i < element.count() && numbers.length > 0; i++) {
                if ((i & OFTEN) == 0) {
                    file.progress();
                }
                taker.take(numbers, list(element, numbers));
            }
        }
        if (!coloured) {
            file.pictures().forEach(name -> corners.unseen(Words.oneLine(name)));
        }
    }

    private interface Taker {
        /** @param list the numbers of the corners of a face; empty where there are none */
        void take(double[] numbers, int[] list);
    }

    private Taker taker(PlyFile.Element element) {
        IntToDoubleFunction full =
                i -> i < 0 ? 1 : element.properties().get(i).type().full();
        int red = element.place("red", "diffuse_red", "r");
        int green = element.place("green", "diffuse_green", "g");
        int blue = element.place("blue", "diffuse_blue", "b");
        boolean coloured = red >= 0 && green >= 0 && blue >= 0;
        if (element.name().equals("vertex")) {
            int x = element.place("x");
            int y = element.place("y");
            int z = element.place("z");
            if (x < 0 || y < 0 || z < 0) {
                throw new Refusal("The corners of the PLY file have no X, Y and Z; export it again.");
            }
            return (numbers, list) -> {
                if (coloured) {
                    tints.put(places.count(), colour(numbers, red, green, blue, full));
                }
                places.add(numbers[x], numbers[y], numbers[z]);
            };
        }
        if (element.name().equals("face")) {
            return (numbers, list) -> face(
                    list, coloured ? Optional.of(tints.of(colour(numbers, red, green, blue, full))) : Optional.empty());
        }
        return (numbers, list) -> {};
    }

    private static Srgb colour(double[] numbers, int red, int green, int blue, IntToDoubleFunction full) {
        return new Srgb(
                level(numbers[red], full, red), level(numbers[green], full, green), level(numbers[blue], full, blue));
    }

    private static int level(double number, IntToDoubleFunction full, int place) {
        return (int) Math.rint(255 * Math.max(0, Math.min(1, number / full.applyAsDouble(place))));
    }

    /** Reads what is told of one element, and the list of corners among it. */
    private int[] list(PlyFile.Element element, double[] numbers) throws IOException {
        int[] list = {};
        for (int i = 0; i < numbers.length; i++) {
            PlyFile.Property property = element.properties().get(i);
            if (property.counts().isEmpty()) {
                numbers[i] = file.next(property.type());
                continue;
            }
            boolean wanted =
                    property.name().equals("vertex_indices") || property.name().equals("vertex_index");
            double count = file.next(property.counts().get());
            int[] read = new int[wanted ? 4 : 0];
            for (int k = 0; k < count; k++) {
                double next = file.next(property.type());
                if (wanted) {
                    read = k < read.length ? read : Arrays.copyOf(read, 2 * k);
                    read[k] = (int) next;
                }
            }
            list = wanted ? Arrays.copyOf(read, (int) Math.max(0, count)) : list;
        }
        return list;
    }

    private void face(int[] list, Optional<Srgb> colour) {
        faces++;
        for (int corner : list) {
            if (corner < 0 || corner >= places.count()) {
                throw Refusal.of(
                        "Face %d of the PLY file names corner %d, and there are %d by then; repair or export the model again.",
                        faces, corner, places.count());
            }
        }
        for (int i = 2; i < list.length; i++) {
            if (colour.isPresent() || !tints.isEmpty()) {
                corners.labelled("", colour.isPresent() ? colour : tints.of(list[0], list[i - 1], list[i]), 0);
            }
            add(list[0]);
            add(list[i - 1]);
            add(list[i]);
        }
    }

    private void add(int corner) {
        corners.add(places.at(corner, 0), places.at(corner, 1), places.at(corner, 2), "Face " + faces);
    }
}
