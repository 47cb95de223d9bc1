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

    /** Of materials and colours. */
    private final List<String> lines = new ArrayList<>();
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

    /** Takes in a library. */
    public void add(InputStream library) throws IOException {
        new String(library.readNBytes(MOST), StandardCharsets.ISO_8859_1)
                .lines()
                .map(l -> l.strip().replaceFirst("\\s+", " "))
                .filter(l -> COLOUR.matcher(l).matches())
                .limit(MOST_LINES - lines.size())
                .forEach(lines::add);
    }

    /** Takes in a picture, if the libraries name it and there is room. */
    public void add(String name, InputStream picture) throws IOException {
        if (lines.stream().anyMatch(l -> shows(l, name))) {
            byte[] bytes = picture.readNBytes(Picture.MOST - pictured);
            pictured += bytes.length;
            pictures.put(name, bytes);
        }
    }

    /** What all of it says. */
    public ObjColours colours() {
        List<String> names = List.copyOf(pictures.keySet());
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

    /** A picture is named by its path on the machine where the library was made, so that is how its line ends. */
    private static boolean shows(String line, String picture) {
        String path = line.replace('\\', '/').replace("\"", "").toLowerCase(Locale.ROOT);
        String name = picture.toLowerCase(Locale.ROOT);
        return line.startsWith(ObjColours.SHOWS)
                && path.endsWith(name)
                && " \t/".indexOf(path.charAt(path.length() - name.length() - 1)) >= 0;
    }
}
