package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The colours that an OBJ's material library gives. A library is a file of its own, and a model is kept as one: what it says of
 * colours goes before the model's own lines, where {@link Obj} reads it.
 *
 * <p>Source: Wavefront Technologies, "Advanced Visualizer Manual", Appendix B3, MTL: {@code newmtl} names a material, and
 * {@code Kd} gives the colour it shows in diffuse light, 0…1, green and blue as red where they are not said; from memory. The
 * numbers are taken as a screen shows them (common practice).
 *
 * @param lines {@code newmtl} and {@code Kd}, and nothing else
 */
public record ObjColours(List<String> lines) {
    /** Bytes that a library may have. */
    public static final int MOST = 1 << 20;

    static final String MARK = "# colours of its material library";
    private static final Pattern MATERIAL = Pattern.compile("(?m)^\\s*newmtl\\s+\\S");
    private static final Pattern COLOUR = Pattern.compile("(newmtl|Kd)\\s+\\S.*");
    private static final int MOST_LINES = 4_000;

    public ObjColours {
        lines = List.copyOf(lines);
    }

    /** Whether a file that begins like this is such a library. */
    public static boolean isLibrary(byte[] head) {
        return MATERIAL.matcher(new String(head, StandardCharsets.ISO_8859_1)).find();
    }

    /** What all of several libraries say. */
    public static ObjColours of(List<byte[]> libraries) {
        return new ObjColours(libraries.stream()
                .flatMap(l -> new String(l, StandardCharsets.ISO_8859_1).lines())
                .map(String::strip)
                .filter(l -> COLOUR.matcher(l).matches())
                .limit(MOST_LINES)
                .toList());
    }

    /** An OBJ with the colours before it. */
    public InputStream before(InputStream obj) {
        String text = lines.stream().map(l -> l + "\n").collect(Collectors.joining("", MARK + "\n", ""));
        return lines.isEmpty()
                ? obj
                : new SequenceInputStream(new ByteArrayInputStream(text.getBytes(StandardCharsets.ISO_8859_1)), obj);
    }

    /** The colour of a line {@code Kd}; nothing where it is none in numbers. */
    static Optional<Srgb> colour(String line) {
        String[] words = line.strip().split("\\s+");
        return words.length < 2
                ? Optional.empty()
                : words.length < 4 ? rgb(words[1], words[1], words[1]) : rgb(words[1], words[2], words[3]);
    }

    /** Shares 0…1; nothing where they are no numbers. */
    static Optional<Srgb> rgb(String red, String green, String blue) {
        try {
            return Optional.of(new Srgb(share(red), share(green), share(blue)));
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    private static int share(String number) {
        return (int) Math.rint(255 * Math.max(0, Math.min(1, Double.parseDouble(number))));
    }
}
