package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;

/**
 * The colours that an OBJ's {@link ObjLibrary} gives. A library is a file of its own, and so is a picture; a model is kept as one:
 * what they say of colours goes before the model's own lines, where {@link Obj} reads it. Numbers are taken as a screen shows
 * them, and a picture as it is, whatever colour is said beside it (common practice).
 *
 * @param lines pictures with their numbers, names of others that were not there; {@code newmtl}, {@code Kd} and {@code map_Kd} with the number of a picture
 */
public record ObjColours(List<String> lines) {
    static final String MARK = "# colours of its material library";
    /** The model's own lines come after it. */
    static final String END = "# the model itself";

    /** Its number and its bytes in Base64 come after it. */
    static final String PICTURE = "# picture ";

    static final String SHOWS = "map_Kd ";
    /** The name of a picture that did not come with it comes after it. */
    static final String UNSEEN = "# no picture ";

    public ObjColours {
        lines = List.copyOf(lines);
    }

    /** Takes a picture of those lines. */
    static void picture(String line, Progress progress, BiConsumer<String, Picture> taker) {
        String[] words = line.substring(PICTURE.length()).split(" ", 2);
        try {
            Picture.read(Base64.getDecoder().decode(words[words.length - 1]), progress)
                    .ifPresent(p -> taker.accept(words[0], p));
        } catch (IllegalArgumentException none) {
            // As one that cannot be read.
        }
    }

    /** An OBJ with the colours before it. */
    public InputStream before(InputStream obj) {
        String text = lines.stream().map(l -> l + "\n").collect(Collectors.joining("", MARK + "\n", END + "\n"));
        return lines.isEmpty()
                ? obj
                : new SequenceInputStream(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), obj);
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
