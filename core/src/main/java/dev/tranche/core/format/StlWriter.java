package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;

/** Writes a mesh as binary STL. */
public final class StlWriter {
    private StlWriter() {}

    /** The whole file; normals are left zero, which readers take from the order of corners. */
    public static byte[] binary(Mesh mesh) {
        return binary(List.of(mesh));
    }

    /** Several meshes one after the other. */
    public static byte[] binary(List<Mesh> meshes) {
        int triangles = meshes.stream().mapToInt(Mesh::triangles).sum();
        ByteBuffer out = ByteBuffer.allocate(StlReader.HEADER + triangles * StlReader.RECORD)
                .order(ByteOrder.LITTLE_ENDIAN);
        out.position(80);
        out.putInt(triangles);
        for (Mesh mesh : meshes) {
            for (int t = 0; t < mesh.triangles(); t++) {
                out.putFloat(0).putFloat(0).putFloat(0);
                for (int c = 3 * t; c < 3 * t + 3; c++) {
                    out.putFloat((float) mesh.x(c)).putFloat((float) mesh.y(c)).putFloat(mesh.z(c) / 1000f);
                }
                out.putShort((short) 0);
            }
        }
        return out.array();
    }
}
