package dev.tranche.core.colour;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** The 148 names that every browser knows, such as red and teal; W3C, CSS Color Module Level 4, section 6.1. */
final class ColourNames {
    private static final Map<String, String> HEX = read();

    private ColourNames() {}

    /** The six digits of a name, in whatever letters and however spaced: “Dark Green” is darkgreen. */
    static Optional<String> hex(String name) {
        return Optional.ofNullable(HEX.get(name.toLowerCase(Locale.ROOT).replaceAll("[\\s_-]+", "")));
    }

    /** The name that is nearest to a colour, if one is near enough to be called by it; CIEDE2000. */
    static Optional<String> nearest(Srgb colour, double within) {
        Lab lab = colour.lab();
        return HEX.keySet().stream()
                .sorted()
                .min(Comparator.comparingDouble(name -> difference(name, lab)))
                .filter(name -> difference(name, lab) <= within);
    }

    private static double difference(String name, Lab lab) {
        return Srgb.parse("#" + HEX.get(name)).lab().differenceTo(lab);
    }

    private static Map<String, String> read() {
        try (InputStream in = ColourNames.class.getResourceAsStream("names.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.US_ASCII)
                    .lines()
                    .map(line -> line.split(" #"))
                    .collect(Collectors.toUnmodifiableMap(pair -> pair[0], pair -> pair[1]));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
