package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * Reads STL, binary or ASCII: 80 bytes of header, a little-endian count, then 50 bytes a triangle; or {@code
 * solid … facet normal … vertex … endsolid} as text. Normals are ignored, since the order of corners says the
 * same. Units are taken as millimetres.
 *
 * <p>Source: 3D Systems, "StereoLithography Interface Specification" (1989), from memory.
 */
public final class StlReader {
    static final int HEADER = 84;
    static final int RECORD = 50;

    private StlReader() {}

    /**
     * @param in read to its end and left open
     * @param size bytes that {@code in} will give
     * @param progress hears bytes read of all bytes
     * @return a mesh that stands on the bed
     * @throws Refusal if it is not a usable STL file
     * @throws IOException if reading fails
     */
    public static Mesh read(InputStream in, long size, Progress progress) throws IOException {
        if (size == 0) {
            throw new Refusal("The file is empty; export the model again and drop that file.");
        }
        byte[] head = in.readNBytes((int) Math.min(size, HEADER));
        if (head.length == HEADER && isBinary(head, size)) {
            return BinaryStl.read(head, in, size, progress);
        }
        if (saysSolid(head)) {
            return AsciiStl.read(head, in, size, progress);
        }
        if (head.length < HEADER) {
            throw Refusal.of("The file has %d bytes and no “solid” line; it is no STL model.", size);
        }
        if (isText(head)) {
            throw new Refusal(
                    "The file is text in which no model begins: an STL begins with “solid”, a PLY with “ply”, "
                            + "and an OBJ has its corners in lines “v 0 0 0”. Export the model again.");
        }
        return BinaryStl.read(head, in, size, progress);
    }

    /** A count of triangles has a byte that no text has, unless there are millions of them. */
    private static boolean isText(byte[] head) {
        for (byte letter : head) {
            if (letter >= 0 && letter < ' ' && !Character.isWhitespace(letter)) {
                return false;
            }
        }
        return true;
    }

    /**
     * Whether a file is meant as STL.
     *
     * @param head its first {@value #HEADER} bytes, or all there are
     * @param size of the whole file
     */
    public static boolean isStl(byte[] head, long size) {
        return saysSolid(head) || head.length >= HEADER && isBinary(head, size);
    }

    private static boolean saysSolid(byte[] head) {
        return new String(head, StandardCharsets.ISO_8859_1)
                .stripLeading()
                .toLowerCase(Locale.ROOT)
                .startsWith("solid");
    }

    /** A count that fits the size settles it, even if the header begins with “solid”, as some exporters write. */
    private static boolean isBinary(byte[] head, long size) {
        return BinaryStl.count(head) * RECORD + HEADER == size;
    }

    /** Z in whole micrometres; heights beyond two kilometres, which no printer has, are refused. */
    static int micrometres(float millimetres) {
        return (int) Math.rint(millimetres * 1000.0);
    }
}
