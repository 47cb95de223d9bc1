package dev.tranche.core.format;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** One model part of a 3MF archive: its objects, and what of them and of other parts' is built. */
final class ThreeMfPart {
    private static final int NONE = -1;
    /** Of the 3MF Consortium, by the word in its name. */
    private static final Pattern EXTENSION =
            Pattern.compile("^http://schemas\\.[a-z0-9]+\\.[a-z]+/3dmanufacturing/(\\w+)");

    private static final Set<String> READ = Set.of("core", "material", "production", "trianglesets");

    private final Map<Integer, ObjectMesh> meshes = new HashMap<>();
    private final Map<Integer, Said> said = new HashMap<>();
    private final ThreeMfMaterials materials = new ThreeMfMaterials();
    private final ThreeMfPictures pictures = new ThreeMfPictures();

    private final Map<Integer, List<Placed>> components = new HashMap<>();
    private final List<Placed> items = new ArrayList<>();
    private double unit = 1;

    /**
     * An object put somewhere.
     *
     * @param path of the model part that holds the object, if that is another (Production Extension)
     */
    record Placed(Optional<String> path, int object, Affine place) {}

    /** A mesh, or objects inside, or both. */
    record Thing(Optional<ObjectMesh> mesh, List<Placed> inside, Said said) {}

    /** What the file says of an object as a whole; {@code group} and {@code index} name its material. */
    record Said(String name, int group, int index, boolean support) {
        static final Said NOTHING = new Said("", NONE, NONE, false);
    }

    /** Corners and triangles of one object, in the file's unit. */
    static final class ObjectMesh {
        private static final int EACH = 4;
        private final Places vertices = new Places();
        private final Triangles triangles = new Triangles();
        /** Each triangle's group of materials and what of it its corners have, where it has its own. */
        private int[] properties = new int[0];

        void paint(int... groupAndCorners) {
            int at = EACH * (triangles.count() - 1);
            if (properties.length < at + EACH) {
                int from = properties.length;
                properties = Arrays.copyOf(properties, Math.max(2 * (at + EACH), 1024));
                Arrays.fill(properties, from, properties.length, NONE);
            }
            System.arraycopy(groupAndCorners, 0, properties, at, EACH);
        }

        private int property(int triangle, int which) {
            int at = EACH * triangle + which;
            return at < properties.length ? properties[at] : NONE;
        }

        int group(int triangle) {
            return property(triangle, 0);
        }

        /** What of its group a corner has; what the first has where nothing is said. */
        int index(int triangle, int corner) {
            int own = property(triangle, 1 + corner);
            return own == NONE ? property(triangle, 1) : own;
        }

        int triangles() {
            return triangles.count();
        }

        /** Coordinate {@code axis} of a triangle's corner, in the part's unit. */
        double at(int triangle, int corner, int axis) {
            return vertices.at(triangles.corner(triangle, corner), axis);
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
        String core = null;
        while (xml.hasNext()) {
            if (xml.next() != XMLStreamReader.START_ELEMENT) {
                continue;
            }
            core = core == null ? space(xml) : core;
            switch (space(xml).equals(core) ? xml.getLocalName() : "") {
                case "model" -> {
                    requireKnown(xml);
                    unit = unit(xml.getAttributeValue(null, "unit"));
                }
                case "object" -> {
                    object = whole(xml, "id");
                    said.put(object, said(xml));
                }
                case "mesh" -> {
                    mesh = new ObjectMesh();
                    meshes.put(object, mesh);
                }
                case "vertex" -> require(mesh, xml).vertices.add(number(xml, "x"), number(xml, "y"), number(xml, "z"));
                case "triangle" -> triangle(require(mesh, xml), object, xml);
                case "component" -> components
                        .computeIfAbsent(object, o -> new ArrayList<>())
                        .add(placed(xml));
                case "item" -> items.add(placed(xml));
                default -> {
                    materials.read(xml);
                    pictures.read(xml);
                }
            }
        }
    }

    private static String space(XMLStreamReader xml) {
        return Objects.toString(xml.getNamespaceURI(), "");
    }

    /** What programs require of their own is about how to print it; what the Consortium has specified is about its shape. */
    private static void requireKnown(XMLStreamReader xml) {
        String required = Objects.toString(xml.getAttributeValue(null, "requiredextensions"), "");
        for (String prefix : required.strip().split("\\s+")) {
            Matcher extension = EXTENSION.matcher(Objects.toString(xml.getNamespaceURI(prefix), ""));
            if (extension.find() && !READ.contains(extension.group(1))) {
                throw Refusal.of(
                        "The 3MF file requires “%s”, an extension of the format that Tranche does not read; export it as plain triangles.",
                        Words.quoted(extension.group(1)));
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
            if (corner < 0 || corner >= mesh.vertices.count()) {
                throw Refusal.of(
                        "A triangle of object %d, on line %d, names corner %d, and there are %d; export the 3MF file again.",
                        object, xml.getLocation().getLineNumber(), corner, mesh.vertices.count());
            }
        }
        mesh.triangles.add(corners[0], corners[1], corners[2]);
        int group = wholeOr(xml, "pid");
        int first = wholeOr(xml, "p1");
        if (group != NONE || first != NONE) {
            mesh.paint(group, first, wholeOr(xml, "p2"), wholeOr(xml, "p3"));
        }
    }

    /** Of the properties of a triangle's corners: what two of them have, else the first. */
    private static int most(int first, int second, int third) {
        return second == third ? second : first;
    }

    private Placed placed(XMLStreamReader xml) {
        Optional<String> path = Optional.ofNullable(xml.getAttributeValue(null, "path"));
        String matrix = xml.getAttributeValue(null, "transform");
        if (matrix == null) {
            return new Placed(path, whole(xml, "objectid"), Affine.UNMOVED);
        }
        String[] words = matrix.strip().split("\\s+");
        if (words.length != 12) {
            throw Refusal.of(
                    "A transform on line %d has %d numbers and must have 12; export the 3MF file again.",
                    xml.getLocation().getLineNumber(), words.length);
        }
        double[] m = new double[12];
        for (int i = 0; i < 12; i++) {
            m[i] = parse(words[i], xml) * (i < 9 ? 1 : unit);
        }
        return new Placed(path, whole(xml, "objectid"), new Affine(m));
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

    /** What is built of this part, each where it says. */
    List<Placed> items() {
        return items;
    }

    /** The object of that number, if it is in this part. */
    Optional<Thing> object(int number) {
        ObjectMesh mesh = meshes.get(number);
        List<Placed> inside = components.get(number);
        return mesh == null && inside == null
                ? Optional.empty()
                : Optional.of(new Thing(
                        Optional.ofNullable(mesh),
                        inside == null ? List.of() : inside,
                        said.getOrDefault(number, Said.NOTHING)));
    }

    /** What most corners of a triangle are made of. */
    ThreeMfMaterials.Material material(ObjectMesh mesh, int triangle, Said of) {
        int index = most(mesh.index(triangle, 0), mesh.index(triangle, 1), mesh.index(triangle, 2));
        return materials.of(group(mesh, triangle, of), index == NONE ? of.index() : index);
    }

    /** The picture that a triangle shows a piece of. */
    Optional<ThreeMfPictures.Group> picture(ObjectMesh mesh, int triangle, Said of) {
        return pictures.group(group(mesh, triangle, of));
    }

    /** Which place of its picture a corner of a triangle lies on. */
    int place(ObjectMesh mesh, int triangle, int corner, Said of) {
        int index = mesh.index(triangle, corner);
        return index == NONE ? of.index() : index;
    }

    private static int group(ObjectMesh mesh, int triangle, Said of) {
        int group = mesh.group(triangle);
        return group == NONE ? of.group() : group;
    }

    /** mm in which its numbers count. */
    double unit() {
        return unit;
    }
}
