package dev.tranche.core.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
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

    private static final int MOST_LINES = 4_000;
    private static final Pattern MATERIAL = Pattern.compile("(?m)^\\s*newmtl\\s+\\S");
    private static final Pattern COLOUR = Pattern.compile("(newmtl|Kd|map_Kd)\\s+\\S.*");

    /** Lines of materials and colours, by the names of their files. */
    private final Map<String, List<String>> libraries = new LinkedHashMap<>();
    /** By the names of their files. */
    private final Map<String, byte[]> pictures = new LinkedHashMap<>();

    private int pictured;

    /** Whether a file that begins like this is such a library. */
    public static boolean is(byte[] head) {
        return MATERIAL.matcher(new String(head, StandardCharsets.ISO_8859_1)).find();
    }

    /** Whether a file that begins like this is a picture that a library may name: PNG or JPEG. */
    public static boolean isPicture(byte[] head) {
        return Signature.PNG.begins(head) || Signature.JPEG.begins(head);
    }

    /** Takes in a library of that file name. */
    public void add(String name, InputStream library) throws IOException {
        List<String> lines = libraries.computeIfAbsent(name, n -> new ArrayList<>());
        new String(library.readNBytes(MOST), StandardCharsets.ISO_8859_1)
                .lines()
                .map(l -> l.strip().replaceFirst("\\s+", " "))
                .filter(l -> COLOUR.matcher(l).matches())
                .limit(MOST_LINES)
                .forEach(lines::add);
    }

    /** Takes in a picture, if the libraries name it and there is room. */
    public void addPicture(String name, InputStream picture) throws IOException {
        if (libraries.values().stream().flatMap(List::stream).anyMatch(l -> shows(l, name))) {
            byte[] bytes = picture.readNBytes(Picture.MOST - pictured);
            pictured += bytes.length;
            pictures.put(name, bytes);
        }
    }

    /**
     * What is said of an OBJ that begins like this: by the libraries that it names, or by all where it names none of them, since
     * several models may call different things alike.
     */
    public ObjColours colours(byte[] head) {
        List<String> named = new String(head, StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> l.startsWith("mtllib"))
                .toList();
        List<String> own = libraries.keySet().stream()
                .filter(name -> named.stream().anyMatch(l -> endsIn(l, name) || l.contains(" " + name + " ")))
                .toList();
        List<String> lines = (own.isEmpty() ? libraries.keySet() : own)
                .stream().flatMap(name -> libraries.get(name).stream()).toList();
        List<String> names = pictures.keySet().stream()
                .filter(name -> lines.stream().anyMatch(l -> shows(l, name)))
                .toList();
        List<String> said = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            said.add(ObjColours.PICTURE + i + " " + Base64.getEncoder().encodeToString(pictures.get(names.get(i))));
        }
        for (String line : lines) {
            if (line.startsWith(ObjColours.SHOWS)) {
                shown(line, names).ifPresent(number -> said.add(ObjColours.SHOWS + number));
            } else {
                said.add(line);
            }
        }
        return new ObjColours(said);
    }

    /** Of names that one ends like another, the longest is meant. */
    private static Optional<Integer> shown(String line, List<String> names) {
        Integer best = null;
        for (int i = 0; i < names.size(); i++) {
            boolean better =
                    best == null || names.get(i).length() > names.get(best).length();
            best = better && shows(line, names.get(i)) ? Integer.valueOf(i) : best;
        }
        return Optional.ofNullable(best);
    }

    private static boolean shows(String line, String picture) {
        return line.startsWith(ObjColours.SHOWS) && endsIn(line, picture);
    }

    /** A file is named by its path on the machine where the line was written, so that is how it ends. */
    private static boolean endsIn(String line, String file) {
        String path = line.strip().replace('\\', '/').replace("\"", "").toLowerCase(Locale.ROOT);
        String name = file.toLowerCase(Locale.ROOT);
        return path.length() > name.length()
                && path.endsWith(name)
                && " \t/".indexOf(path.charAt(path.length() - name.length() - 1)) >= 0;
    }
}
