package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;

/** Writes meshes as binary STL; normals are left zero, which readers take from the order of corners. */
public final class StlWriter {
    /** Triangles that are handed on at once. */
    private static final int BLOCK = 1024;

    private StlWriter() {}

    /** The whole file. */
    public static byte[] binary(Mesh mesh) {
        ByteArrayOutputStream out = new ByteArrayOutputStream(StlReader.HEADER + mesh.triangles() * StlReader.RECORD);
        try {
            write(List.of(mesh), out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /**
     * Several meshes one after the other.
     *
     * @param out left open
     */
    public static void write(List<Mesh> meshes, OutputStream out) throws IOException {
        ByteBuffer block =
                ByteBuffer.allocate(StlReader.HEADER + BLOCK * StlReader.RECORD).order(ByteOrder.LITTLE_ENDIAN);
        block.position(StlReader.HEADER - Integer.BYTES);
        block.putInt(meshes.stream().mapToInt(Mesh::triangles).sum());
        for (Mesh mesh : meshes) {
            for (int c = 0; c < 3 * mesh.triangles(); c += 3) {
                if (block.remaining() < StlReader.RECORD) {
                    out.write(block.array(), 0, block.position());
                    block.clear();
                }
                block.putFloat(0).putFloat(0).putFloat(0);
                corner(mesh, c, block);
                corner(mesh, c + 1, block);
                corner(mesh, c + 2, block);
                block.putShort((short) 0);
            }
        }
        out.write(block.array(), 0, block.position());
    }

    private static void corner(Mesh mesh, int corner, ByteBuffer to) {
        to.putFloat((float) mesh.x(corner)).putFloat((float) mesh.y(corner)).putFloat(mesh.z(corner) / 1000f);
    }
}
