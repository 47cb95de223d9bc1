package dev.tranche.core.format;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The container of a glTF scene: what it says, in JSON, and the bytes that it says it of, which lie behind it (GLB) or in it, as
 * data URIs (RFC 2397).
 *
 * <p>Source: ISO/IEC 12113:2022, which is Khronos glTF 2.0, §3.6 and §4.4, from memory.
 */
final class GltfFile {
    // Kinds of numbers, as OpenGL numbers them.
    private static final int INT8 = 5120;
    private static final int UINT8 = 5121;
    private static final int INT16 = 5122;
    private static final int UINT16 = 5123;
    private static final int UINT32 = 5125;
    private static final int FLOAT32 = 5126;

    private static final int HEADER = 12;
    private static final int JSON = 0x4E4F534A;
    private static final int BINARY = 0x004E4942;
    /** Bytes of what a scene says of itself. */
    private static final int MOST_SAID = 16 << 20;

    private static final String DATA = "data:";
    /** The binary form, or an object that lists what scenes are made of. */
    private static final Pattern SCENE = Pattern.compile(
            "\\AglTF|\\A(?:\u00ef\u00bb\u00bf)?\\s*\\{[\\s\\S]*\"(?:asset|accessors|bufferViews|scenes)\"\\s*:");

    private final JsonNode said;
    private final List<ByteBuffer> buffers = new ArrayList<>();

    private GltfFile(JsonNode said, byte[] behind) {
        this.said = said;
        for (JsonNode buffer : said.path("buffers")) {
            Optional<byte[]> within =
                    buffer.has("uri") ? data(buffer.path("uri").asText()) : Optional.of(behind);
            buffers.add(ByteBuffer.wrap(within.orElseThrow(() -> Refusal.of(
                            "The glTF scene has its corners in “%s”, a file beside it; export it as one file (GLB).",
                            Words.quoted(buffer.path("uri").asText()))))
                    .order(ByteOrder.LITTLE_ENDIAN));
        }
    }

    /**
     * Numbers of corners, some for each.
     *
     * @param first byte of the first, and {@code stride} bytes from one corner's to the next
     * @param type their kind
     * @param whole whether integers stand for themselves, and not for shares of the largest of their kind
     * @param count of corners
     */
    record Numbers(ByteBuffer in, int first, int stride, int type, boolean whole, int count) {
        double at(int corner, int number) {
            int at = first + corner * stride + number * bytes(type);
            return switch (type) {
                case INT8 -> whole ? in.get(at) : Math.max(-1, in.get(at) / 127.0);
                case UINT8 -> (in.get(at) & 0xFF) / (whole ? 1.0 : 255);
                case INT16 -> whole ? in.getShort(at) : Math.max(-1, in.getShort(at) / 32767.0);
                case UINT16 -> (in.getShort(at) & 0xFFFF) / (whole ? 1.0 : 65535);
                case UINT32 -> in.getInt(at) & 0xFFFFFFFFL;
                default -> in.getFloat(at);
            };
        }

        private static int bytes(int type) {
            return switch (type) {
                case INT8, UINT8 -> 1;
                case INT16, UINT16 -> 2;
                case UINT32, FLOAT32 -> 4;
                default -> throw Refusal.of(
                        "The glTF file has numbers of kind %d, which is none of the format's; export it again.", type);
            };
        }
    }

    /** Whether a file is one, in either of its forms. */
    static boolean is(byte[] head) {
        return SCENE.matcher(new String(head, StandardCharsets.ISO_8859_1)).find();
    }

    static GltfFile read(InputStream in, long size) throws IOException {
        byte[] head = in.readNBytes(HEADER);
        if (head.length == HEADER && new String(head, 0, 4, StandardCharsets.US_ASCII).equals("glTF")) {
            return binary(ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN), in, size);
        }
        byte[] rest = said(in, MOST_SAID);
        byte[] all = Arrays.copyOf(head, head.length + rest.length);
        System.arraycopy(rest, 0, all, head.length, rest.length);
        return new GltfFile(json(all), new byte[0]);
    }

    private static GltfFile binary(ByteBuffer header, InputStream in, long size) throws IOException {
        int version = header.getInt(4);
        if (version != 2) {
            throw Refusal.of("The GLB file is of version %d; export it as glTF 2.0.", version);
        }
        if (Integer.toUnsignedLong(header.getInt(8)) > size) {
            throw Refusal.of(
                    "The GLB file says it is %d bytes long and is %d; it is cut short. Copy or export it again.",
                    Integer.toUnsignedLong(header.getInt(8)), size);
        }
        JsonNode said = null;
        byte[] behind = {};
        for (byte[] head = in.readNBytes(8); head.length == 8; head = in.readNBytes(8)) {
            ByteBuffer chunk = ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN);
            long length = Integer.toUnsignedLong(chunk.getInt(0));
            int kind = chunk.getInt(4);
            if (said == null && kind != JSON) {
                break;
            }
            if (said == null) {
                said = json(said(in, length));
            } else if (kind == BINARY && behind.length == 0) {
                behind = exactly(in, length);
            } else {
                pass(in, length);
            }
        }
        if (said == null) {
            throw new Refusal("The GLB file does not begin with what it holds; export it again.");
        }
        return new GltfFile(said, behind);
    }

    private static byte[] exactly(InputStream in, long length) throws IOException {
        byte[] bytes = in.readNBytes((int) Math.min(Integer.MAX_VALUE - 8, length));
        if (bytes.length < length) {
            throw ended();
        }
        return bytes;
    }

    private static void pass(InputStream in, long length) throws IOException {
        try {
            in.skipNBytes(length);
        } catch (EOFException e) {
            throw ended();
        }
    }

    private static Refusal ended() {
        return new Refusal("The GLB file ends before its data does; copy or export it again.");
    }

    private static byte[] said(InputStream in, long length) throws IOException {
        byte[] bytes = in.readNBytes((int) Math.min(length, MOST_SAID));
        if (bytes.length == MOST_SAID) {
            throw Refusal.of(
                    "What the glTF file says of itself is over %d MB long; export it as GLB, with fewer things.",
                    MOST_SAID >> 20);
        }
        return bytes;
    }

    private static JsonNode json(byte[] bytes) throws IOException {
        try {
            JsonNode said = new ObjectMapper().readTree(bytes);
            if (said == null || !said.isObject()) {
                throw new Refusal("The glTF file says nothing of what it holds; export it again.");
            }
            return said;
        } catch (JsonProcessingException wrong) {
            throw Refusal.of(
                    "What the glTF file says of itself cannot be read from line %d, column %d; export it again.",
                    wrong.getLocation() == null ? 1 : wrong.getLocation().getLineNr(),
                    wrong.getLocation() == null ? 1 : wrong.getLocation().getColumnNr());
        }
    }

    JsonNode said() {
        return said;
    }

    /** What it lists under a number, where it lists that. */
    JsonNode listed(String list, JsonNode number) {
        return number.isInt() ? said.path(list).path(number.intValue()) : MissingNode.getInstance();
    }

    /** The bytes of a data URI; nothing where it is another. */
    private static Optional<byte[]> data(String uri) {
        int comma = uri.indexOf(',');
        if (!uri.startsWith(DATA) || comma < 0) {
            return Optional.empty();
        }
        try {
            return Optional.of(Base64.getDecoder().decode(uri.substring(comma + 1)));
        } catch (IllegalArgumentException e) {
            throw new Refusal("Data in the glTF file is not in Base64; export it as GLB.");
        }
    }

    /** The bytes of a picture, nothing where they are not in the file. */
    Optional<byte[]> picture(JsonNode image) {
        if (image.has("uri")) {
            return data(image.path("uri").asText());
        }
        return view(image.path("bufferView")).map(view -> {
            byte[] bytes = new byte[view.remaining()];
            view.get(bytes);
            return bytes;
        });
    }

    private Optional<ByteBuffer> view(JsonNode number) {
        JsonNode view = listed("bufferViews", number);
        int buffer = view.path("buffer").asInt(-1);
        if (buffer < 0 || buffer >= buffers.size()) {
            return Optional.empty();
        }
        long from = view.path("byteOffset").asLong(0);
        long length = view.path("byteLength").asLong(-1);
        ByteBuffer whole = buffers.get(buffer);
        if (from < 0 || length < 0 || from > whole.capacity() || length > whole.capacity() - from) {
            return Optional.empty();
        }
        return Optional.of(whole.slice((int) from, (int) length).order(ByteOrder.LITTLE_ENDIAN));
    }

    /**
     * The numbers that an attribute names.
     *
     * @param components at least so many a corner
     * @throws Refusal if there are none, or not as many as it says
     */
    Numbers numbers(JsonNode number, int components) {
        JsonNode accessor = listed("accessors", number);
        ByteBuffer view = accessor.has("sparse")
                ? null
                : view(accessor.path("bufferView")).orElse(null);
        int type = accessor.path("componentType").asInt();
        long count = accessor.path("count").asLong(-1);
        long from = accessor.path("byteOffset").asLong(0);
        if (view == null || components(accessor.path("type").asText()) < components) {
            throw unusable(number);
        }
        long each = (long) components(accessor.path("type").asText()) * Numbers.bytes(type);
        long stride = listed("bufferViews", accessor.path("bufferView"))
                .path("byteStride")
                .asLong(each);
        boolean fits = from >= 0
                && count >= 0
                && stride >= each
                && stride <= 1 << 16
                && count <= view.capacity()
                && (count == 0 || from + stride * (count - 1) + each <= view.capacity());
        if (!fits || from > view.capacity()) {
            throw unusable(number);
        }
        return new Numbers(
                view,
                (int) from,
                (int) stride,
                type,
                !accessor.path("normalized").asBoolean(),
                (int) count);
    }

    private static Refusal unusable(JsonNode number) {
        return Refusal.of(
                "List %s of numbers in the glTF file is not there, reaches beyond its data, or tells only what differs; export the model again, without compression.",
                Words.quoted(number.asText("?")));
    }

    private static int components(String type) {
        return switch (type) {
            case "SCALAR" -> 1;
            case "VEC2" -> 2;
            case "VEC3" -> 3;
            case "VEC4" -> 4;
            default -> 0;
        };
    }
}
