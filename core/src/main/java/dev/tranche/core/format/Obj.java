package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Letters;
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
 * ObjColours}, or, for faces in none of those, what most corners have behind their coordinates (three numbers 0…1: common practice,
 * in no standard), or, for faces of a material with a picture whose corners have a place on it ({@code vt}), what it shows there;
 * normals are passed over. Units are taken as millimetres.
 *
 * <p>Source: Wavefront Technologies, "Advanced Visualizer Manual", Appendix B1, Object Files (1992), from memory.
 */
final class Obj {
    /** At the end of a line. */
    private static final String GOES_ON = "\\";

    private final Places places = new Places();
    private final Tints tints = new Tints();
    private final Corners corners = new Corners();
    private int line;
    private final Map<String, Optional<Srgb>> colours = new HashMap<>();
    /** By their numbers, and by the materials that show them. */
    private final Map<String, Picture> pictures = new HashMap<>();

    private final Map<String, Picture> shown = new HashMap<>();
    /** Places on pictures, from the left and from below. */
    private float[] spots = new float[2];

    private int spotted;
    /** That is being described, among the colours. */
    private String described = "";
    /** Of the faces that come. */
    private String group = "";

    private String material = "";
    /** That the model names, where none came with it. */
    private String library = "";
    /** Pictures that are not there, by the materials that are to show them. */
    private final Map<String, String> unseen = new HashMap<>();

    private final Progress progress;

    private Obj(Progress progress) {
        this.progress = progress;
    }

    static PartedModel read(InputStream in, long size, Progress progress) throws IOException {
        Obj obj = new Obj(progress);
        BufferedReader reader = new BufferedReader(new InputStreamReader(in, StandardCharsets.ISO_8859_1), 1 << 16);
        long characters = 0;
        for (String text = reader.readLine(); text != null; text = reader.readLine()) {
            obj.accept((obj.line == 0 ? Letters.of(text) : text).stripLeading(), reader);
            characters += text.length() + 1;
            if ((obj.line & 0x3FFF) == 0) {
                progress.at(Math.min(characters, size), size);
            }
        }
        if (obj.corners.isEmpty()) {
            throw Refusal.of(
                    "The file gives %s and no faces; export the model with its faces.",
                    Words.count(obj.places.count(), "corner"));
        }
        return obj.corners.model(progress);
    }

    /** A line, and with it those on which a corner or a face goes on. */
    private void accept(String text, BufferedReader rest) throws IOException {
        if (!text.endsWith(GOES_ON) || !text.startsWith("v") && !text.startsWith("f")) {
            accept(text);
            return;
        }
        StringBuilder whole = new StringBuilder(text);
        int more = 0;
        while (whole.lastIndexOf(GOES_ON) == whole.length() - 1) {
            String next = rest.readLine();
            whole.setCharAt(whole.length() - 1, ' ');
            whole.append(next == null ? "" : next);
            more += next == null ? 0 : 1;
        }
        accept(whole.toString());
        line += more;
    }

    private void accept(String text) {
        line++;
        if (text.startsWith("v ") || text.startsWith("v\t")) {
            vertex(text);
        } else if (text.startsWith("f ") || text.startsWith("f\t")) {
            face(text);
        } else if (text.startsWith("g ") || text.startsWith("o ")) {
            group = Words.oneLine(Letters.of(text.substring(2)));
            label();
        } else if (text.startsWith("usemtl")) {
            material = named(text);
            label();
            Optional.ofNullable(library.isEmpty() ? unseen.get(material) : library)
                    .ifPresent(corners::unseen);
        } else if (text.startsWith("newmtl ")) {
            described = named(text);
        } else if (text.startsWith("Kd ")) {
            colours.put(described, ObjColours.colour(text));
        } else if (text.startsWith("vt ") || text.startsWith("vt\t")) {
            spot(text);
        } else if (text.startsWith(ObjColours.PICTURE)) {
            if (pictures.size() < Picture.MOST_OF_A_FILE) {
                ObjColours.picture(text, progress, pictures::put);
            }
        } else if (text.startsWith(ObjColours.SHOWS)) {
            Optional.ofNullable(pictures.get(text.substring(ObjColours.SHOWS.length())))
                    .ifPresentOrElse(
                            p -> shown.put(described, p), () -> unseen.put(described, "picture of " + described));
        } else if (text.startsWith(ObjColours.UNSEEN)) {
            unseen.put(described, Words.oneLine(Letters.of(text.substring(ObjColours.UNSEEN.length()))));
        } else if (text.startsWith("mtllib") && described.isEmpty()) {
            library = Words.oneLine(ObjLibrary.file(Letters.of(text.substring("mtllib".length()))));
        } else if (text.equals(ObjColours.END)) {
            line = 0;
        }
    }

    private static String named(String text) {
        return ThreeMfMaterials.oneLine(Letters.of(text.substring("newmtl".length())));
    }

    private void label() {
        label(colours.getOrDefault(material, Optional.empty()));
    }

    private void label(Optional<Srgb> colour) {
        corners.labelled(group.isEmpty() ? material : group, colour, material, 0);
    }

    private void vertex(String text) {
        StringTokenizer words = new StringTokenizer(text);
        words.nextToken();
        double x = Places.coordinate(words, line, text);
        double y = Places.coordinate(words, line, text);
        double z = Places.coordinate(words, line, text);
        if (words.countTokens() >= 3) {
            tinted(words);
        }
        places.add(x, y, z);
    }

    /** Three more numbers behind a corner's place; one more, or four, are something else. */
    private void tinted(StringTokenizer words) {
        Optional<Srgb> tint = ObjColours.rgb(words.nextToken(), words.nextToken(), words.nextToken());
        if (tint.isPresent() && !words.hasMoreTokens()) {
            tints.put(places.count(), tint.get());
        }
    }

    private void tint(int a, int b, int c) {
        if (!tints.isEmpty() && colours.getOrDefault(material, Optional.empty()).isEmpty()) {
            label(tints.of(a, b, c));
        }
    }

    private void face(String text) {
        StringTokenizer words = new StringTokenizer(text);
        words.nextToken();
        int first = -1;
        int last = -1;
        int count = 0;
        Picture picture = shown.get(material);
        int firstSpot = -1;
        int lastSpot = -1;
        while (words.hasMoreTokens()) {
            String word = words.nextToken();
            if (word.startsWith("#")) {
                break;
            }
            int corner = index(word, text);
            int spot = picture == null ? -1 : spotOf(word);
            if (count >= 2) {
                boolean pictured = picture != null && firstSpot >= 0 && lastSpot >= 0 && spot >= 0;
                if (pictured) {
                    corners.pictured(group.isEmpty() ? material : group, picture, 0);
                } else {
                    if (picture != null) {
                        label();
                    }
                    tint(first, last, corner);
                }
                add(first, pictured ? firstSpot : -1);
                add(last, pictured ? lastSpot : -1);
                add(corner, pictured ? spot : -1);
            }
            first = count == 0 ? corner : first;
            firstSpot = count == 0 ? spot : firstSpot;
            last = corner;
            lastSpot = spot;
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
            int index = number < 0 ? places.count() + number : number - 1;
            if (number != 0 && index >= 0 && index < places.count()) {
                return index;
            }
        } catch (NumberFormatException e) {
            // said below, as for numbers of no corner
        }
        throw Refusal.of(
                "Line %d, “%s”, names corner “%s”, and there are %d by then; repair or export the model again.",
                line, Words.quoted(text), Words.quoted(digits), places.count());
    }

    /** Of {@code 7/1} or {@code -1/-1/…} the second; from 0, and below where it is none there is. */
    private int spotOf(String word) {
        int slash = word.indexOf('/');
        int end = word.indexOf('/', slash + 1);
        try {
            int number = slash < 0 ? 0 : Integer.parseInt(word.substring(slash + 1, end < 0 ? word.length() : end));
            int index = number < 0 ? spotted + number : number - 1;
            return index < spotted ? index : -1;
        } catch (NumberFormatException none) {
            return -1;
        }
    }

    /** One number means a place on a strip; what is no number, none. */
    private void spot(String text) {
        if (spots.length < 2 * spotted + 2) {
            spots = Arrays.copyOf(spots, 4 * spotted + 4);
        }
        StringTokenizer words = new StringTokenizer(text);
        words.nextToken();
        for (int i = 0; i < 2; i++) {
            spots[2 * spotted + i] = words.hasMoreTokens() ? number(words.nextToken()) : 0;
        }
        spotted++;
    }

    private static float number(String word) {
        try {
            return Float.parseFloat(word);
        } catch (NumberFormatException e) {
            return Float.NaN;
        }
    }

    /** @param spot its place on a picture; below 0 where it has none */
    private void add(int vertex, int spot) {
        corners.add(places.at(vertex, 0), places.at(vertex, 1), places.at(vertex, 2), "Line " + line);
        if (spot >= 0) {
            corners.shows(spots[2 * spot], spots[2 * spot + 1]);
        }
    }
}
