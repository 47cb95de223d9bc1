package dev.tranche.app.storage;

import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Words;
import java.nio.charset.StandardCharsets;

/** Names of files that people give: shown, and used to name what they get back, never to write anywhere here. */
public final class FileNames {
    /** Bytes: most file systems take 255, of which there may be two such names and endings. */
    private static final int LONGEST = 120;

    private FileNames() {}

    /** The last part of a path, on one line, of at most 120 letters. */
    public static String shown(String given) {
        String line = Words.oneLine(given == null ? "" : given);
        String last = line.substring(Math.max(line.lastIndexOf('/'), line.lastIndexOf('\\')) + 1);
        return last.isEmpty() ? "unnamed" : last.length() <= 120 ? last : last.substring(last.length() - 120);
    }

    /** {@code name} without its ending. */
    public static String stem(String name) {
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) : name;
    }

    /** Letters of any script, digits and dashes of {@code name}, safe in any file system. */
    public static String safe(String name) {
        String safe = Letters.plainIfLatin(name)
                .replaceAll("[^\\p{L}\\p{M}\\p{N}._-]+", "-")
                .replaceAll("^[-.]+|[-.]+$", "");
        while (safe.getBytes(StandardCharsets.UTF_8).length > LONGEST) {
            safe = safe.substring(0, safe.offsetByCodePoints(safe.length(), -1));
        }
        return safe.isEmpty() ? "plan" : safe;
    }
}
