package dev.tranche.core.hostile;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.function.IntFunction;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Files that once hung a reader or broke it, made by code. */
public final class Hostile {
    private Hostile() {}

    /** A binary STL of triangles of nine numbers each. */
    public static byte[] stl(int triangles, IntFunction<float[]> corners) {
        ByteBuffer file = ByteBuffer.allocate(84 + 50 * triangles).order(ByteOrder.LITTLE_ENDIAN);
        file.putInt(80, triangles).position(84);
        for (int t = 0; t < triangles; t++) {
            file.position(file.position() + 12);
            for (float coordinate : corners.apply(t)) {
                file.putFloat(coordinate);
            }
            file.putShort((short) 0);
        }
        return file.array();
    }

    public static byte[] equalTriangles(int count) {
        return stl(count, t -> new float[] {0, 0, 0, 10, 0, 5, 0, 10, 10});
    }

    /** The same tetrahedron again and again. */
    public static byte[] equalSolids(int count) {
        float[][] faces = {
            {0, 0, 0, 0, 10, 0, 10, 0, 0},
            {0, 0, 0, 10, 0, 0, 0, 0, 10},
            {0, 0, 0, 0, 0, 10, 0, 10, 0},
            {10, 0, 0, 0, 10, 0, 0, 0, 10}
        };
        return stl(4 * count, t -> faces[t % 4]);
    }

    /** Triangles that all stand on one edge, facing one way and the other in turn. */
    public static byte[] fan(int count) {
        return stl(count, t -> {
            float x = (float) (20 * Math.cos(2 * Math.PI * t / count));
            float y = (float) (20 * Math.sin(2 * Math.PI * t / count));
            return t % 2 == 0 ? new float[] {0, 0, 0, 0, 0, 20, x, y, 10} : new float[] {0, 0, 20, 0, 0, 0, x, y, 10};
        });
    }

    public static byte[] randomTriangles(int count, float high) {
        Random random = new Random(1);
        return stl(count, t -> {
            float[] corners = new float[9];
            for (int i = 0; i < 9; i++) {
                corners[i] = random.nextFloat() * (i % 3 == 2 ? high : 200);
            }
            return corners;
        });
    }

    /** One face of very many corners, anywhere. */
    public static byte[] endlessFace(int corners) {
        Random random = new Random(2);
        StringBuilder obj = new StringBuilder();
        for (int i = 0; i < corners; i++) {
            obj.append("v ").append(random.nextInt(100)).append(' ').append(random.nextInt(100));
            obj.append(' ').append(random.nextInt(100)).append('\n');
        }
        obj.append('f');
        for (int i = 1; i <= corners; i++) {
            obj.append(' ').append(i);
        }
        return obj.append('\n').toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** Groups of one face each, of a tetrahedron. */
    public static byte[] groupsOfOneFace(int groups) {
        String[] faces = {"f 1 3 2", "f 1 2 4", "f 1 4 3", "f 2 3 4"};
        StringBuilder obj = new StringBuilder("v 0 0 0\nv 10 0 0\nv 0 10 0\nv 0 0 10\n");
        for (int i = 0; i < groups; i++) {
            obj.append("g part").append(i).append('\n').append(faces[i % 4]).append('\n');
        }
        return obj.toString().getBytes(StandardCharsets.US_ASCII);
    }

    private static String mesh(int triangles) {
        StringBuilder xml = new StringBuilder("<mesh><vertices><vertex x='0' y='0' z='0'/>");
        xml.append("<vertex x='9' y='0' z='0'/><vertex x='0' y='9' z='0'/><vertex x='0' y='0' z='9'/></vertices>");
        xml.append("<triangles>");
        String[] faces = {"v1='0' v2='2' v3='1'", "v1='0' v2='1' v3='3'", "v1='0' v2='3' v3='2'", "v1='1' v2='2' v3='3'"
        };
        for (int t = 0; t < triangles; t++) {
            xml.append("<triangle ").append(faces[t % 4]).append("/>");
        }
        return xml.append("</triangles></mesh>").toString();
    }

    /** One object placed very often. */
    public static byte[] placed(int triangles, int times) {
        return placed(triangles, times, 10);
    }

    public static byte[] placed(int triangles, int times, long apart) {
        StringBuilder xml = new StringBuilder("<model><resources><object id='1'>").append(mesh(triangles));
        xml.append("</object></resources><build>");
        for (int i = 0; i < times; i++) {
            xml.append("<item objectid='1' transform='1 0 0 0 1 0 0 0 1 ")
                    .append(apart * i)
                    .append(" 0 0'/>");
        }
        return threeMf(xml.append("</build></model>").toString());
    }

    /** Very many objects. */
    public static byte[] objects(int count) {
        StringBuilder xml = new StringBuilder("<model><resources>");
        for (int i = 1; i <= count; i++) {
            xml.append("<object id='").append(i).append("'>").append(mesh(4)).append("</object>");
        }
        xml.append("</resources><build>");
        for (int i = 1; i <= count; i++) {
            xml.append("<item objectid='").append(i).append("' transform='1 0 0 0 1 0 0 0 1 ");
            xml.append(10 * (i % 200)).append(' ').append(10 * (i / 200)).append(" 0'/>");
        }
        return threeMf(xml.append("</build></model>").toString());
    }

    public static final String RELATION =
            "<Relationships><Relationship Target='/3D/model.model' Type='http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel'/></Relationships>";

    public static byte[] threeMf(String model) {
        return zip("_rels/.rels", RELATION, "3D/model.model", model);
    }

    /** Names and texts in turn. */
    public static byte[] zip(String... entries) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.ISO_8859_1)) {
            for (int i = 0; i < entries.length; i += 2) {
                zip.putNextEntry(new ZipEntry(entries[i]));
                zip.write(entries[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    /** A small 3MF with names, materials, colours and a component. */
    public static byte[] ordinary3mf() {
        return threeMf("<model unit='millimeter'><resources><basematerials id='5'><base name='Chalk' "
                + "displaycolor='#F4F1E8'/></basematerials><object id='1' name='tag' pid='5' pindex='0'>" + mesh(4)
                + "</object><object id='2'><components><component objectid='1' transform='1 0 0 0 1 0 0 0 1 20 0 0'/>"
                + "</components></object></resources><build><item objectid='1'/><item objectid='2'/></build></model>");
    }

    public static byte[] svg(String content) {
        return ("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 1000 1000'>" + content + "</svg>")
                .getBytes(StandardCharsets.UTF_8);
    }

    public static byte[] randomPath(int corners) {
        Random random = new Random(3);
        StringBuilder path = new StringBuilder("<path d='M");
        for (int i = 0; i < corners; i++) {
            path.append(' ').append(random.nextFloat() * 1000).append(',').append(random.nextFloat() * 1000);
        }
        return svg(path.append("z'/>").toString());
    }

    public static byte[] comb(int corners) {
        StringBuilder path = new StringBuilder("<path d='M0,0");
        for (int i = 0; i < corners / 2; i++) {
            path.append(' ').append(i).append(",1000 ").append(i + 0.5).append(",0");
        }
        return svg(path.append(" 1000,0 1000,1 0,1z'/>").toString());
    }

    public static byte[] crossingBars(int bars) {
        StringBuilder path = new StringBuilder("<path d='");
        for (int i = 0; i < bars / 2; i++) {
            path.append("M")
                    .append(2 * i)
                    .append(",0h1v800h-1z M0,")
                    .append(2 * i)
                    .append("h800v1h-800z");
        }
        return svg(path.append("'/>").toString());
    }

    public static byte[] separateSquares(int count) {
        StringBuilder path = new StringBuilder("<path d='");
        for (int i = 0; i < count; i++) {
            path.append("M").append(i % 30 * 3).append(',').append(i / 30 * 3).append("h1v1h-1z");
        }
        return svg(path.append("'/>").toString());
    }
}
