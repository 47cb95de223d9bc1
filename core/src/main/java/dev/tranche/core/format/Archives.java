package dev.tranche.core.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;

/** Archives from anywhere. Names that matter are plain; others may be in any encoding. */
public final class Archives {
    private Archives() {}

    public static ZipInputStream open(InputStream packed) {
        return new ZipInputStream(packed, StandardCharsets.ISO_8859_1);
    }

    /**
     * The next entry; null after the last.
     *
     * @throws ZipException if the archive is damaged
     */
    public static ZipEntry next(ZipInputStream zip) throws IOException {
        try {
            return zip.getNextEntry();
        } catch (IllegalArgumentException e) {
            // An entry that says its name is UTF-8, and is not.
            throw new ZipException(e.getMessage());
        }
    }
}
