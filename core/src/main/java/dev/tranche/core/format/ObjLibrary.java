package dev.tranche.core.format;

import dev.tranche.core.speech.Letters;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The material libraries that come with OBJ files, and the pictures they name.
 *
 * <p>Source: Wavefront Technologies, "Advanced Visualizer Manual", Appendix B3, MTL: {@code newmtl} names a material, {@code Kd}
 * gives the colour it shows in diffuse light, and {@code map_Kd}, after options of its own, the file of a picture that it shows;
 * from memory.
 */
public final class ObjLibrary {
    /** Bytes that are read of one. */
    private static final int MOST = 1 << 20;

    private static final int MOST_LINES = 10_000;
    private static final int MOST_PICTURES = 100;
    private static final Pattern MATERIAL = Pattern.compile("(?m)^(?:\u00ef\u00bb\u00bf)?\\s*newmtl\\s+\\S");
    private static final Pattern COLOUR = Pattern.compile("(newmtl|Kd|map_Kd)\\s+\\S.*");

    /** Lines of materials and colours, by the paths of their files. */
    private final Map<String, List<String>> libraries = new LinkedHashMap<>();
    /** By the paths of their files. */
    private final Map<String, byte[]> pictures = new LinkedHashMap<>();

    private int room = MOST_LINES;
    private int pictured;

    /** Whether a file that begins like this is such a library. */
    public static boolean is(byte[] head) {
        return MATERIAL.matcher(new String(head, StandardCharsets.ISO_8859_1)).find();
    }

    /** Whether a file that begins like this is a picture that a library may name: PNG or JPEG. */
    public static boolean isPicture(byte[] head) {
        return Signature.PNG.begins(head) || Signature.JPEG.begins(head);
    }

    /** Takes in a library. */
    public void add(String path, InputStream library) throws IOException {
        List<String> lines = Letters.of(library.readNBytes(MOST))
                .lines()
                .map(l -> l.strip().replaceFirst("\\s+", " "))
                .filter(l -> COLOUR.matcher(l).matches())
                .limit(room)
                .toList();
        room -= lines.size();
        libraries.put(path, lines);
    }

    /** Takes in a picture, if the libraries name it and there is room. */
    public void addPicture(String path, InputStream picture) throws IOException {
        if (pictures.size() < MOST_PICTURES
                && libraries.values().stream().flatMap(List::stream).anyMatch(l -> shows(l, path))) {
            byte[] bytes = picture.readNBytes(Picture.MOST - pictured);
            pictured += bytes.length;
            pictures.put(path, bytes);
        }
    }

    /**
     * What is said of an OBJ: by the libraries that it names, or by all where it names none of them, since several models may call
     * different things alike. Of files of one name the nearest is meant.
     *
     * @param path of the OBJ, from where those of the libraries and pictures start
     * @param head how it begins
     */
    public ObjColours colours(String path, byte[] head) {
        List<String> named = new String(head, StandardCharsets.ISO_8859_1)
                .lines()
                .map(Letters::of)
                .filter(l -> l.startsWith("mtllib"))
                .toList();
        List<String> own = libraries.keySet().stream()
                .filter(l -> named.stream()
                        .anyMatch(n -> endsIn(n, l) || Letters.alike(n).contains(" " + Letters.alike(file(l)) + " ")))
                .toList();
        Map<String, Integer> numbers = new LinkedHashMap<>();
        List<String> materials = new ArrayList<>();
        for (String library : own.isEmpty() ? libraries.keySet() : own) {
            if (own.stream()
                    .anyMatch(o -> file(o).equalsIgnoreCase(file(library)) && near(o, path) > near(library, path))) {
                continue;
            }
            for (String line : libraries.get(library)) {
                if (line.startsWith(ObjColours.SHOWS)) {
                    shown(line, path)
                            .ifPresentOrElse(
                                    p -> materials.add(
                                            ObjColours.SHOWS + numbers.computeIfAbsent(p, n -> numbers.size())),
                                    () -> materials.add(
                                            ObjColours.UNSEEN + file(line.substring(ObjColours.SHOWS.length()))));
                } else {
                    materials.add(line);
                }
            }
        }
        List<String> said = new ArrayList<>();
        numbers.forEach((picture, number) -> said.add(
                ObjColours.PICTURE + number + " " + Base64.getEncoder().encodeToString(pictures.get(picture))));
        said.addAll(materials);
        return new ObjColours(said);
    }

    /** Of names that one ends like another, the longest is meant. */
    private Optional<String> shown(String line, String from) {
        return pictures.keySet().stream()
                .filter(p -> shows(line, p))
                .max(Comparator.<String>comparingInt(p -> file(p).length()).thenComparingInt(p -> near(p, from)));
    }

    private static boolean shows(String line, String picture) {
        return line.startsWith(ObjColours.SHOWS) && endsIn(line, picture);
    }

    /** A file is named by its path on the machine where the line was written, so that only its own name can be relied on. */
    private static boolean endsIn(String line, String path) {
        String said = Letters.alike(line.strip().replace('\\', '/').replace("\"", ""));
        String name = Letters.alike(file(path));
        return said.length() > name.length()
                && said.endsWith(name)
                && " \t/".indexOf(said.charAt(said.length() - name.length() - 1)) >= 0;
    }

    static String file(String path) {
        return path.substring(1 + Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')));
    }

    /** How far two paths go the same way. */
    private static int near(String one, String other) {
        int at = 0;
        while (at < Math.min(one.length(), other.length()) && one.charAt(at) == other.charAt(at)) {
            at++;
        }
        return at;
    }
}
