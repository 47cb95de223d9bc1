package dev.tranche.core.format;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.regex.Pattern;

/** Reads any model file there is a reader for, told by its content. */
public final class ModelReader {
    /** Bytes that tell what a file is. */
    public static final int HEAD = 8192;

    /** U+FEFF in UTF-8 (RFC 3629, section 6). */
    private static final byte[] MARK = {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF};

    private static final Pattern VERTEX = Pattern.compile("(?m)^\\s*v\\s+[-+.\\d]");

    private enum Kind {
        STL,
        OBJ,
        THREE_MF,
        GLTF,
        PLY,
        AMF
    }

    private ModelReader() {}

    /**
     * @param in read to its end and left open
     * @param size bytes that {@code in} will give
     * @param progress hears bytes read of all bytes
     * @return its solids, standing on the bed
     * @throws Refusal if it is no usable model
     */
    public static PartedModel read(InputStream in, long size, Progress progress) throws IOException {
        BufferedInputStream whole = new BufferedInputStream(in, 1 << 16);
        whole.mark(HEAD);
        byte[] given = whole.readNBytes(HEAD);
        whole.reset();
        byte[] head = unmarked(given, size);
        whole.skipNBytes(given.length - head.length);
        Signature.of(head).filter(what -> !isModel(head, size)).ifPresent(what -> {
            throw Refusal.of("That is no model Tranche reads; it looks like %s.", what);
        });
        return switch (kind(head, size)) {
            case THREE_MF -> ThreeMf.read(whole, size, progress);
            case OBJ -> Obj.read(whole, size, progress);
            case GLTF -> Gltf.read(whole, size, progress);
            case PLY -> Ply.read(whole, size, progress);
            case AMF -> Amf.read(whole, size, progress);
            case STL -> Corners.model(StlReader.read(whole, size, progress), progress);
        };
    }

    /**
     * Whether a file is meant as a model.
     *
     * @param head its first {@value #HEAD} bytes, or all there are
     * @param size of the whole file
     */
    public static boolean isModel(byte[] head, long size) {
        byte[] bare = unmarked(head, size);
        return kind(bare, size) != Kind.STL || StlReader.isStl(bare, size);
    }

    /** Whether a file is an OBJ, whose colours are given beside it. */
    public static boolean isObj(byte[] head, long size) {
        return kind(unmarked(head, size), size) == Kind.OBJ;
    }

    /** Without the mark (U+FEFF) that some editors put before text; bytes that are no text keep their first three. */
    private static byte[] unmarked(byte[] head, long size) {
        return Arrays.mismatch(head, MARK) == MARK.length && !StlReader.isStl(head, size)
                ? Arrays.copyOfRange(head, MARK.length, head.length)
                : head;
    }

    private static Kind kind(byte[] head, long size) {
        if (head.length > 3 && head[0] == 'P' && head[1] == 'K' && head[2] == 3 && head[3] == 4) {
            return Kind.THREE_MF;
        }
        if (GltfFile.is(head)) {
            return Kind.GLTF;
        }
        if (Ply.is(head)) {
            return Kind.PLY;
        }
        if (Amf.is(head)) {
            return Kind.AMF;
        }
        boolean stl = StlReader.isStl(head, size);
        String text = new String(head, StandardCharsets.ISO_8859_1);
        return !stl && (text.startsWith(ObjColours.MARK) || VERTEX.matcher(text).find()) ? Kind.OBJ : Kind.STL;
    }
}
