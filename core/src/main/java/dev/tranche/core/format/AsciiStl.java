package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.StringTokenizer;

/** The text kind of STL: words, of which any number may stand on a line. */
final class AsciiStl {
    private float[] x = new float[3072];
    private float[] y = new float[3072];
    private int[] z = new int[3072];
    private int corners;
    private int cornersOfFacet;
    private int line;
    private Origin origin;
    private boolean closed;

    private AsciiStl() {}

    static Mesh read(byte[] head, InputStream rest, long size, Progress progress) throws IOException {
        InputStream whole = new Counting(new SequenceInputStream(new ByteArrayInputStream(head), rest)) {
            @Override
            void counted() {
                progress.at(Math.min(count, size), size);
            }
        };
        BufferedReader reader = new BufferedReader(new InputStreamReader(whole, StandardCharsets.ISO_8859_1), 1 << 16);
        AsciiStl stl = new AsciiStl();
        for (String text = reader.readLine(); text != null; text = reader.readLine()) {
            stl.line++;
            StringTokenizer words = new StringTokenizer(text);
            while (words.hasMoreTokens()) {
                String word = words.nextToken();
                boolean isHalf = word.equalsIgnoreCase("end") && words.hasMoreTokens();
                stl.accept((isHalf ? word + words.nextToken() : word).toLowerCase(Locale.ROOT), words, text);
            }
        }
        return stl.finish();
    }

    private void accept(String word, StringTokenizer words, String text) {
        switch (word) {
            case "vertex" -> vertex(words, text);
            case "facet" -> {
                cornersOfFacet = 0;
                skipTo("outer", words);
            }
            case "endfacet" -> {
                if (cornersOfFacet != 3) {
                    throw Refusal.of(
                            "Line %d ends a facet of %d corners; STL facets have three. Export the model again.",
                            line, cornersOfFacet);
                }
                cornersOfFacet = 0;
            }
            case "solid", "endsolid" -> {
                closed = word.equals("endsolid");
                skipTo("normal", words);
                skipTo("outer", words);
            }
            case "outer", "loop", "endloop" -> {}
            default -> throw Refusal.of(
                    "Line %d, “%s”, is not a line of an STL file; drop the model as it was exported.",
                    line, Words.quoted(text));
        }
    }

    /** Passes over what stands before {@code key}, or before the line's end: names, of any words, and normals. */
    private static void skipTo(String key, StringTokenizer words) {
        while (words.hasMoreTokens() && !words.nextToken().equalsIgnoreCase(key)) {}
    }

    private void vertex(StringTokenizer words, String text) {
        if (corners == x.length) {
            x = Arrays.copyOf(x, 2 * corners);
            y = Arrays.copyOf(y, 2 * corners);
            z = Arrays.copyOf(z, 2 * corners);
        }
        double px = Places.coordinate(words, line, text);
        double py = Places.coordinate(words, line, text);
        float pz = (float) Places.coordinate(words, line, text);
        origin = origin == null ? Origin.near(px, py) : origin;
        x[corners] = origin.x(px);
        y[corners] = origin.y(py);
        z[corners] = StlReader.micrometres(pz);
        if (!Origin.reaches(x[corners], y[corners], pz)) {
            throw Origin.beyond("Line " + line + " gives", px, py, pz);
        }
        corners++;
        closed = false;
        if (++cornersOfFacet > 3) {
            throw Refusal.of("Line %d is a fourth corner; STL facets have three. Export the model again.", line);
        }
    }

    private Mesh finish() {
        if (corners == 0) {
            throw new Refusal("The file begins like an STL model but holds no facets; export the model again.");
        }
        if (!closed || corners % 3 != 0) {
            throw Refusal.of("The file ends on line %d before “endsolid”; copy or export it again.", line);
        }
        return Mesh.of(Arrays.copyOf(x, corners), Arrays.copyOf(y, corners), Arrays.copyOf(z, corners));
    }
}
