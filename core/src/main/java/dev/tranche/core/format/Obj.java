package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.StringTokenizer;

/**
 * Reads OBJ: {@code v} gives a corner, {@code f} a face by the numbers of its corners, from 1, or counted back from
 * the last where negative. Faces of more than three corners are cut into a fan. Groups
 * ({@code g}) and objects ({@code o}) give parts their names, else materials ({@code usemtl}) do; colours are those of {@link
 * ObjColours}; normals and textures are passed over. Units are taken as millimetres.
 *
 * <p>Source: Wavefront Technologies, "Advanced Visualizer Manual", Appendix B1, Object Files (1992), from memory.
 */
final class Obj {
    private double[] places = new double[3072];
    private int vertices;
    private final Corners corners = new Corners();
    private int line;
    private final Map<String, Optional<Srgb>> colours = new HashMap<>();
    /** That is being described, among the colours. */
    private String described = "";
    /** Of the faces that come. */
    private String group = "";

    private String material = "";

    private Obj() {}

    static PartedModel read(InputStream in, long size, Progress progress) throws IOException {
        Obj obj = new Obj();
        BufferedReader reader = new BufferedReader(new InputStreamReader(in, StandardCharsets.ISO_8859_1), 1 << 16);
        long characters = 0;
        for (String text = reader.readLine(); text != null; text = reader.readLine()) {
            obj.accept(text);
            characters += text.length() + 1;
            if ((obj.line & 0x3FFF) == 0) {
                progress.at(Math.min(characters, size), size);
            }
        }
        if (obj.corners.isEmpty()) {
            throw Refusal.of(
                    "The file gives %s and no faces; export the model with its faces.",
                    Words.count(obj.vertices, "corner"));
        }
        return obj.corners.model(progress);
    }

    private void accept(String text) {
        line++;
        if (text.startsWith("v ") || text.startsWith("v\t")) {
            vertex(text);
        } else if (text.startsWith("f ") || text.startsWith("f\t")) {
            face(text);
        } else if (text.startsWith("g ") || text.startsWith("o ")) {
            group = Words.oneLine(text.substring(2));
            label();
        } else if (text.startsWith("usemtl")) {
            material = named(text);
            label();
        } else if (text.startsWith("newmtl ")) {
            described = named(text);
        } else if (text.startsWith("Kd ")) {
            colours.put(described, ObjColours.colour(text));
        }
    }

    private static String named(String text) {
        return ThreeMfMaterials.oneLine(text.substring("newmtl".length()));
    }

    private void label() {
        Optional<Srgb> colour = colours.getOrDefault(material, Optional.empty());
        corners.labelled(group.isEmpty() ? material : group, colour, material, 0);
    }

    private void vertex(String text) {
        StringTokenizer words = new StringTokenizer(text);
        words.nextToken();
        if (3 * vertices + 3 > places.length) {
            places = Arrays.copyOf(places, 2 * places.length);
        }
        for (int i = 0; i < 3; i++) {
            try {
                places[3 * vertices + i] = Double.parseDouble(words.hasMoreTokens() ? words.nextToken() : "");
            } catch (NumberFormatException e) {
                throw Refusal.of(
                        "Line %d, “%s”, does not give three coordinates; repair or export the model again.",
                        line, Words.quoted(text));
            }
        }
        vertices++;
    }

    private void face(String text) {
        StringTokenizer words = new StringTokenizer(text);
        words.nextToken();
        int first = -1;
        int last = -1;
        int count = 0;
        while (words.hasMoreTokens()) {
            int corner = index(words.nextToken(), text);
            if (count >= 2) {
                add(first);
                add(last);
                add(corner);
            }
            first = count == 0 ? corner : first;
            last = corner;
            count++;
        }
        if (count < 3) {
            throw Refusal.of(
                    "Line %d is a face of %s; a face has three or more. Repair or export the model again.",
                    line, Words.count(count, "corner"));
        }
    }

    /** From {@code 7}, {@code 7/1}, {@code 7//3} or {@code -1/…}; from 0. */
    private int index(String word, String text) {
        int slash = word.indexOf('/');
        String digits = slash < 0 ? word : word.substring(0, slash);
        try {
            int number = Integer.parseInt(digits);
            int index = number < 0 ? vertices + number : number - 1;
            if (number != 0 && index >= 0 && index < vertices) {
                return index;
            }
        } catch (NumberFormatException e) {
            // said below, as for numbers of no corner
        }
        throw Refusal.of(
                "Line %d, “%s”, names corner “%s”, and there are %d by then; repair or export the model again.",
                line, Words.quoted(text), Words.quoted(digits), vertices);
    }

    private void add(int vertex) {
        corners.add(places[3 * vertex], places[3 * vertex + 1], places[3 * vertex + 2], "Line " + line);
    }
}
