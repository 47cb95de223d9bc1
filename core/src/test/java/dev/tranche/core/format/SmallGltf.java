package dev.tranche.core.format;

import dev.tranche.core.speech.Progress;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;

/** Small glTF scenes for tests: lists of numbers, and what is said of them. */
final class SmallGltf {
    /** Of a box: each side's corners against the clock, seen from outside, in (x, y, z) of 0 or 1. */
    private static final String[] SIDES = {"023 031", "457 476", "015 054", "137 175", "326 367", "204 246"};

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final List<String> views = new ArrayList<>();
    private final List<String> accessors = new ArrayList<>();
    private final List<String> meshes = new ArrayList<>();
    private final List<String> nodes = new ArrayList<>();
    private String more = "";

    /** Puts floats in and gives the number of their list. */
    int floats(String type, float... numbers) {
        int each = type.equals("SCALAR") ? 1 : type.charAt(3) - '0';
        ByteBuffer buffer = ByteBuffer.allocate(4 * numbers.length).order(ByteOrder.LITTLE_ENDIAN);
        for (float number : numbers) {
            buffer.putFloat(number);
        }
        return list(view(buffer.array()), 5126, numbers.length / each, type);
    }

    int shorts(int... numbers) {
        ByteBuffer buffer = ByteBuffer.allocate(2 * numbers.length).order(ByteOrder.LITTLE_ENDIAN);
        for (int number : numbers) {
            buffer.putShort((short) number);
        }
        return list(view(buffer.array()), 5123, numbers.length, "SCALAR");
    }

    int view(byte[] of) {
        views.add("{\"buffer\":0,\"byteOffset\":%d,\"byteLength\":%d}".formatted(bytes.size(), of.length));
        bytes.writeBytes(of);
        bytes.writeBytes(new byte[(4 - of.length % 4) % 4]);
        return views.size() - 1;
    }

    private int list(int view, int kind, int count, String type) {
        return accessor("{\"bufferView\":%d,\"componentType\":%d,\"count\":%d,\"type\":\"%s\"}"
                .formatted(view, kind, count, type));
    }

    int accessor(String said) {
        accessors.add(said);
        return accessors.size() - 1;
    }

    /** The corners of all triangles of a box from the origin, m. */
    static float[] box(double width, double height, double depth) {
        float[] corners = new float[108];
        int at = 0;
        for (String side : SIDES) {
            for (char corner : side.replace(" ", "").toCharArray()) {
                int bits = corner - '0';
                corners[at++] = (float) (width * (bits & 1));
                corners[at++] = (float) (height * (bits >> 1 & 1));
                corners[at++] = (float) (depth * (bits >> 2));
            }
        }
        return corners;
    }

    /** A mesh of one piece with a list of positions, and what else is said of it. */
    int mesh(int positions, String attributes, String others) {
        return mesh("{\"attributes\":{\"POSITION\":%d%s}%s}".formatted(positions, attributes, others));
    }

    int mesh(String... pieces) {
        meshes.add("{\"primitives\":[" + String.join(",", pieces) + "]}");
        return meshes.size() - 1;
    }

    SmallGltf node(String said) {
        nodes.add("{" + said + "}");
        return this;
    }

    /** What the scene says besides, from a comma on. */
    SmallGltf also(String said) {
        more += said;
        return this;
    }

    private String said(String buffer) {
        return "{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[0]}],\"nodes\":["
                + String.join(",", nodes)
                + "],\"meshes\":[" + String.join(",", meshes) + "],\"accessors\":[" + String.join(",", accessors)
                + "],\"bufferViews\":[" + String.join(",", views) + "],\"buffers\":[{" + buffer + "\"byteLength\":"
                + bytes.size() + "}]" + more + "}";
    }

    byte[] text() {
        return said("\"uri\":\"data:application/octet-stream;base64,"
                        + Base64.getEncoder().encodeToString(bytes.toByteArray()) + "\",")
                .getBytes(StandardCharsets.UTF_8);
    }

    byte[] glb() {
        return glb(said(""), bytes.toByteArray());
    }

    static byte[] glb(String said, byte[] behind) {
        byte[] json = (said + " ".repeat((4 - said.length() % 4) % 4)).getBytes(StandardCharsets.UTF_8);
        ByteBuffer file = ByteBuffer.allocate(28 + json.length + behind.length).order(ByteOrder.LITTLE_ENDIAN);
        file.put("glTF".getBytes(StandardCharsets.US_ASCII)).putInt(2).putInt(file.capacity());
        file.putInt(json.length).put("JSON".getBytes(StandardCharsets.US_ASCII)).put(json);
        file.putInt(behind.length)
                .put("BIN\0".getBytes(StandardCharsets.US_ASCII))
                .put(behind);
        return file.array();
    }

    static PartedModel read(byte[] file) throws IOException {
        return ModelReader.read(new ByteArrayInputStream(file), file.length, Progress.UNHEARD);
    }
}
