package dev.tranche.core.format;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** One model part of a 3MF archive: its objects, and what of them is built. */
final class ThreeMfPart {
    private static final int DEEPEST = 64;
    private static final int MOST_PLACED = 100_000;
    private static final int NONE = -1;
    private static final double[] IDENTITY = {1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0};

    private final Map<Integer, ObjectMesh> meshes = new HashMap<>();
    private final Map<Integer, Said> said = new HashMap<>();
    private final ThreeMfMaterials materials = new ThreeMfMaterials();

    private int things;
    private final Map<Integer, List<Placed>> components = new HashMap<>();
    private final List<Placed> items = new ArrayList<>();
    private double unit = 1;
    private int placed;

    /** An object put somewhere by a 4 × 3 matrix, row by row, that multiplies from the right. */
    private record Placed(int object, double[] matrix) {}

    /** What the file says of an object as a whole; {@code group} and {@code index} name its material. */
    private record Said(String name, int group, int index, boolean support) {
        static final Said NOTHING = new Said("", NONE, NONE, false);
    }

    /** Corners and triangles of one object, in the file's unit. */
    private static final class ObjectMesh {
        /** Group and index of each triangle's material, where it has its own. */
        private int[] properties = new int[0];

        void paint(int group, int index) {
            int at = 2 * (triangleCount - 1);
            if (properties.length < at + 2) {
                int from = properties.length;
                properties = Arrays.copyOf(properties, Math.max(2 * at + 2, 1024));
                Arrays.fill(properties, from, properties.length, NONE);
            }
            properties[at] = group;
            properties[at + 1] = index;
        }

        int property(int triangle, int which) {
            int at = 2 * triangle + which;
            return at < properties.length ? properties[at] : NONE;
        }

        private double[] vertices = new double[1536];
        private int vertexCount;
        private int[] triangles = new int[1536];
        private int triangleCount;

        void vertex(double x, double y, double z) {
            if (3 * vertexCount + 3 > vertices.length) {
                vertices = Arrays.copyOf(vertices, 2 * vertices.length);
            }
            vertices[3 * vertexCount] = x;
            vertices[3 * vertexCount + 1] = y;
            vertices[3 * vertexCount + 2] = z;
            vertexCount++;
        }

        void triangle(int a, int b, int c) {
            if (3 * triangleCount + 3 > triangles.length) {
                triangles = Arrays.copyOf(triangles, 2 * triangles.length);
            }
            triangles[3 * triangleCount] = a;
            triangles[3 * triangleCount + 1] = b;
            triangles[3 * triangleCount + 2] = c;
            triangleCount++;
        }
    }

    private ThreeMfPart() {}

    static ThreeMfPart read(InputStream in) {
        ThreeMfPart part = new ThreeMfPart();
        try {
            part.elements(ThreeMf.xml(in));
        } catch (XMLStreamException e) {
            throw Refusal.of(
                    "The model in the archive is damaged or cut short, on line %d; copy or export the 3MF file again.",
                    e.getLocation() == null ? 0 : e.getLocation().getLineNumber());
        }
        return part;
    }

    private void elements(XMLStreamReader xml) throws XMLStreamException {
        int object = -1;
        ObjectMesh mesh = null;
        while (xml.hasNext()) {
            if (xml.next() != XMLStreamReader.START_ELEMENT) {
                continue;
            }
            switch (xml.getLocalName()) {
                case "model" -> unit = unit(xml.getAttributeValue(null, "unit"));
                case "object" -> {
                    object = whole(xml, "id");
                    said.put(object, said(xml));
                }
                case "mesh" -> {
                    mesh = new ObjectMesh();
                    meshes.put(object, mesh);
                }
                case "vertex" -> require(mesh, xml).vertex(number(xml, "x"), number(xml, "y"), number(xml, "z"));
                case "triangle" -> triangle(require(mesh, xml), object, xml);
                case "component" -> components
                        .computeIfAbsent(object, o -> new ArrayList<>())
                        .add(placed(xml));
                case "item" -> items.add(placed(xml));
                default -> materials.read(xml);
            }
        }
    }

    private static Said said(XMLStreamReader xml) {
        String type = xml.getAttributeValue(null, "type");
        return new Said(
                ThreeMfMaterials.oneLine(xml.getAttributeValue(null, "name")),
                wholeOr(xml, "pid"),
                wholeOr(xml, "pindex"),
                "support".equals(type) || "solidsupport".equals(type));
    }

    private static int wholeOr(XMLStreamReader xml, String attribute) {
        return xml.getAttributeValue(null, attribute) == null ? NONE : whole(xml, attribute);
    }

    private static ObjectMesh require(ObjectMesh mesh, XMLStreamReader xml) {
        if (mesh == null) {
            throw Refusal.of(
                    "Line %d of the model lies outside a mesh; export the 3MF file again.",
                    xml.getLocation().getLineNumber());
        }
        return mesh;
    }

    private static void triangle(ObjectMesh mesh, int object, XMLStreamReader xml) {
        int[] corners = {whole(xml, "v1"), whole(xml, "v2"), whole(xml, "v3")};
        for (int corner : corners) {
            if (corner < 0 || corner >= mesh.vertexCount) {
                throw Refusal.of(
                        "A triangle of object %d, on line %d, names corner %d, and there are %d; export the 3MF file again.",
                        object, xml.getLocation().getLineNumber(), corner, mesh.vertexCount);
            }
        }
        mesh.triangle(corners[0], corners[1], corners[2]);
        int group = wholeOr(xml, "pid");
        int index = wholeOr(xml, "p1");
        if (group != NONE || index != NONE) {
            mesh.paint(group, index);
        }
    }

    private static Placed placed(XMLStreamReader xml) {
        String matrix = xml.getAttributeValue(null, "transform");
        if (matrix == null) {
            return new Placed(whole(xml, "objectid"), IDENTITY);
        }
        String[] words = matrix.strip().split("\\s+");
        if (words.length != 12) {
            throw Refusal.of(
                    "A transform on line %d has %d numbers and must have 12; export the 3MF file again.",
                    xml.getLocation().getLineNumber(), words.length);
        }
        double[] m = new double[12];
        for (int i = 0; i < 12; i++) {
            m[i] = parse(words[i], xml);
        }
        return new Placed(whole(xml, "objectid"), m);
    }

    /** Millimetres in the file's unit. */
    private static double unit(String name) {
        return switch (name == null ? "millimeter" : name) {
            case "micron" -> 0.001;
            case "millimeter" -> 1;
            case "centimeter" -> 10;
            case "inch" -> 25.4;
            case "foot" -> 304.8;
            case "meter" -> 1000;
            default -> throw Refusal.of(
                    "The 3MF file measures in “%s”, which is none of its units; export it in millimetres.",
                    Words.quoted(name));
        };
    }

    static int whole(XMLStreamReader xml, String attribute) {
        double value = number(xml, attribute);
        if (value != Math.rint(value) || Math.abs(value) > Integer.MAX_VALUE) {
            throw Refusal.of(
                    "“%s” on line %d is no whole number; export the 3MF file again.",
                    attribute, xml.getLocation().getLineNumber());
        }
        return (int) value;
    }

    private static double number(XMLStreamReader xml, String attribute) {
        return parse(xml.getAttributeValue(null, attribute), xml);
    }

    static double parse(String text, XMLStreamReader xml) {
        try {
            return Double.parseDouble(text == null ? "" : text);
        } catch (NumberFormatException e) {
            throw Refusal.of(
                    "“%s” on line %d is no number; export the 3MF file again.",
                    Words.quoted(text), xml.getLocation().getLineNumber());
        }
    }

    /** Everything the part says to build, each where it says. */
    PartedModel built(Progress progress) {
        if (items.isEmpty()) {
            throw new Refusal("The 3MF file lists nothing to build; export it with the model on its plate.");
        }
        Corners corners = new Corners();
        for (int i = 0; i < items.size(); i++) {
            Placed item = items.get(i);
            progress.beat();
            corners.item(i);
            place(item.object(), item.matrix(), 0, "", corners);
        }
        if (corners.isEmpty()) {
            throw new Refusal("What the 3MF file builds holds no triangles; export the model again.");
        }
        return corners.model(progress);
    }

    /** @param called what the object that holds this one is called */
    private void place(int object, double[] matrix, int depth, String called, Corners corners) {
        if (depth > DEEPEST) {
            throw Refusal.of(
                    "Object %d of the 3MF file is nested over %d deep, or holds itself; export it again.",
                    object, DEEPEST);
        }
        if (++placed > MOST_PLACED) {
            throw Refusal.of("The 3MF file places over %d objects; export it with fewer.", MOST_PLACED);
        }
        ObjectMesh mesh = meshes.get(object);
        List<Placed> inside = components.get(object);
        if (mesh == null && inside == null) {
            throw Refusal.of("The 3MF file builds object %d, which is not in it; export it again.", object);
        }
        Said of = said.getOrDefault(object, Said.NOTHING);
        if (of.support()) {
            return;
        }
        String name = of.name().isEmpty() ? called : of.name();
        if (mesh != null) {
            build(mesh, of, name, matrix, "Object " + object, corners);
        }
        if (inside != null) {
            for (Placed component : inside) {
                place(component.object(), times(component.matrix(), matrix), depth + 1, name, corners);
            }
        }
    }

    private void build(ObjectMesh mesh, Said of, String name, double[] matrix, String place, Corners corners) {
        int thing = ++things;
        for (int t = 0; t < mesh.triangleCount; t++) {
            int group = mesh.property(t, 0);
            int index = mesh.property(t, 1);
            ThreeMfMaterials.Material material =
                    materials.of(group == NONE ? of.group() : group, index == NONE ? of.index() : index);
            corners.labelled(name.isEmpty() ? material.name() : name, material.colour(), material.name(), thing);
            for (int c = 0; c < 3; c++) {
                int v = 3 * mesh.triangles[3 * t + c];
                corner(mesh.vertices[v], mesh.vertices[v + 1], mesh.vertices[v + 2], matrix, place, corners);
            }
        }
    }

    private void corner(double x, double y, double z, double[] m, String place, Corners corners) {
        corners.add(
                unit * (x * m[0] + y * m[3] + z * m[6] + m[9]),
                unit * (x * m[1] + y * m[4] + z * m[7] + m[10]),
                unit * (x * m[2] + y * m[5] + z * m[8] + m[11]),
                place);
    }

    /** First {@code a}, then {@code b}: row vectors multiply from the left. */
    private static double[] times(double[] a, double[] b) {
        double[] product = new double[12];
        for (int row = 0; row < 4; row++) {
            for (int column = 0; column < 3; column++) {
                product[3 * row + column] = a[3 * row] * b[column]
                        + a[3 * row + 1] * b[3 + column]
                        + a[3 * row + 2] * b[6 + column]
                        + (row == 3 ? b[9 + column] : 0);
            }
        }
        return product;
    }
}
