package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** The binary kind of STL. */
final class BinaryStl {
    private static final VarHandle FLOAT = MethodHandles.byteArrayViewVarHandle(float[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle INT = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
    private static final int BLOCK = 4096;

    /** Bytes of a triangle before its first corner: its normal. */
    private static final int FIRST = 12;

    private BinaryStl() {}

    /** The count in the header, as the unsigned number it is. */
    static long count(byte[] head) {
        return Integer.toUnsignedLong((int) INT.get(head, 80));
    }

    static Mesh read(byte[] head, InputStream in, long size, Progress progress) throws IOException {
        long count = count(head);
        long room = (size - StlReader.HEADER) / StlReader.RECORD;
        if (count > room) {
            throw Refusal.of(
                    "The file says it holds %d triangles but has room for %d; it is cut short or no STL model.",
                    count, room);
        }
        if (count == 0) {
            throw new Refusal("The file says it holds no triangles; export the model again and drop that file.");
        }
        if (count < room) {
            throw Refusal.of(
                    "The file says it holds %d triangles but goes on for %d more; export the model again.",
                    count, room - count);
        }
        int triangles = Math.toIntExact(count);
        float[] x = new float[3 * triangles];
        float[] y = new float[3 * triangles];
        int[] z = new int[3 * triangles];
        byte[] block = new byte[BLOCK * StlReader.RECORD];
        Origin origin = new Origin(0, 0);
        for (int t = 0; t < triangles; t += BLOCK) {
            int here = Math.min(BLOCK, triangles - t);
            if (in.readNBytes(block, 0, here * StlReader.RECORD) < here * StlReader.RECORD) {
                throw Refusal.of("The file ends inside triangle %d of %d; copy or export it again.", t + 1, triangles);
            }
            if (t == 0) {
                origin = Origin.nearInFloats((float) FLOAT.get(block, FIRST), (float) FLOAT.get(block, FIRST + 4));
            }
            decode(block, here, t, origin, x, y, z);
            progress.at(StlReader.HEADER + (long) (t + here) * StlReader.RECORD, size);
        }
        return Mesh.of(x, y, z);
    }

    private static void decode(byte[] block, int here, int first, Origin origin, float[] x, float[] y, int[] z) {
        int corner = 3 * first;
        for (int i = 0; i < here; i++) {
            int at = i * StlReader.RECORD + FIRST;
            for (int c = 0; c < 3; c++, at += 12, corner++) {
                float px = (float) FLOAT.get(block, at);
                float py = (float) FLOAT.get(block, at + 4);
                float pz = (float) FLOAT.get(block, at + 8);
                x[corner] = origin.x(px);
                y[corner] = origin.y(py);
                if (!Origin.reaches(x[corner], y[corner], pz)) {
                    throw Origin.beyond("Triangle " + (first + i + 1) + " has", px, py, pz);
                }
                z[corner] = StlReader.micrometres(pz);
            }
        }
    }
}
