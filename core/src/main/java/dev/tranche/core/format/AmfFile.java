package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** What an AMF file says, element by element; an archive of one is opened before. */
final class AmfFile {
    /** Between two words on how far it is. */
    private static final int OFTEN = 0x3FFF;

    private final Map<String, Thing> objects = new LinkedHashMap<>();
    private final Map<String, List<Instance>> constellations = new LinkedHashMap<>();
    private final Map<String, Material> materials = new HashMap<>();
    /** Of corners and of triangles, both counted through the file. */
    private final Tints cornerTints = new Tints();

    private final Tints faceTints = new Tints();
    private int cornersSoFar;
    private int facesSoFar;
    private final Deque<String> within = new ArrayDeque<>();
    private final XMLStreamReader xml;
    private final double[] place = new double[3];
    private final double[] corners = new double[3];
    private final double[] light = new double[3];
    private final double[] moved = new double[6];
    private double unit = 1;
    private Thing thing;
    private Volume volume;
    private Material material;
    private List<Instance> instances;
    private String instanced;
    private Optional<Srgb> own = Optional.empty();

    /** An object or a constellation, put somewhere. */
    record Instance(String what, Affine place) {}

    /** What has a name and may have a colour. */
    private static class Named {
        private String name = "";
        private Optional<Srgb> colour = Optional.empty();

        String name() {
            return name;
        }

        Optional<Srgb> colour() {
            return colour;
        }
    }

    static final class Material extends Named {}

    /** An object: corners, and volumes between them. */
    static final class Thing extends Named {
        private final List<Volume> volumes = new ArrayList<>();
        private final int first;
        private final Places places = new Places();

        private Thing(int first) {
            this.first = first;
        }

        List<Volume> volumes() {
            return volumes;
        }

        /** Coordinate {@code axis} of a corner, mm. */
        double at(int corner, int axis) {
            return places.at(corner, axis);
        }
    }

    /** A solid, or a piece of one. */
    static final class Volume extends Named {
        private final Thing of;
        private final String material;
        private final int first;
        private final Triangles triangles = new Triangles();

        private Volume(Thing of, String material, int first) {
            this.of = of;
            this.first = first;
            this.material = material;
        }

        int triangles() {
            return triangles.count();
        }

        int corner(int triangle, int which) {
            return triangles.corner(triangle, which);
        }
    }

    private AmfFile(XMLStreamReader xml) {
        this.xml = xml;
    }

    static AmfFile read(InputStream in, long size, Progress progress) {
        try {
            AmfFile file = new AmfFile(ThreeMf.xml(in));
            file.elements(size, progress);
            return file;
        } catch (XMLStreamException e) {
            throw Refusal.of(
                    "The AMF file is damaged or cut short, on line %d; copy or export it again.",
                    e.getLocation() == null ? 0 : e.getLocation().getLineNumber());
        }
    }

    /** By their names, as they come. */
    Map<String, Thing> objects() {
        return objects;
    }

    /** By their names, as they come. */
    Map<String, List<Instance>> constellations() {
        return constellations;
    }

    /** That a volume is made of, if the file describes it. */
    Optional<Material> material(Volume volume) {
        return Optional.ofNullable(materials.get(volume.material));
    }

    /** What a triangle has itself, or most of its corners, or its volume, its object, its material. */
    Optional<Srgb> colour(Volume of, int triangle) {
        int face = of.first + triangle;
        int corner = of.of.first;
        return faceTints
                .of(face, face, face)
                .or(() -> cornerTints.of(
                        corner + of.corner(triangle, 0),
                        corner + of.corner(triangle, 1),
                        corner + of.corner(triangle, 2)))
                .or(of::colour)
                .or(of.of::colour)
                .or(() -> material(of).flatMap(Material::colour));
    }

    private void elements(long size, Progress progress) throws XMLStreamException {
        for (long events = 0; xml.hasNext(); events++) {
            if ((events & OFTEN) == 0) {
                progress.at(Math.min(Math.max(0, xml.getLocation().getCharacterOffset()), size), size);
            }
            int event = xml.next();
            if (event == XMLStreamReader.START_ELEMENT) {
                begin(xml.getLocalName());
            } else if (event == XMLStreamReader.END_ELEMENT) {
                within.pop();
                end(xml.getLocalName());
            }
        }
    }

    private void begin(String element) throws XMLStreamException {
        String parent = within.isEmpty() ? "" : within.peek();
        if (isLeaf(parent, element)) {
            return;
        }
        within.push(element);
        switch (element) {
            case "amf" -> unit = unit(xml.getAttributeValue(null, "unit"));
            case "object" -> {
                thing = new Thing(cornersSoFar);
                objects.put(id("id"), thing);
            }
            case "volume" -> {
                volume = new Volume(object(), id("materialid"), facesSoFar);
                if (!"support".equals(xml.getAttributeValue(null, "type"))) {
                    thing.volumes.add(volume);
                }
            }
            case "material" -> {
                material = new Material();
                materials.put(id("id"), material);
            }
            case "constellation" -> {
                instances = new ArrayList<>();
                constellations.put(id("id"), instances);
            }
            case "instance" -> {
                instanced = id("objectid");
                Arrays.fill(moved, 0);
            }
            case "vertex" -> Arrays.fill(place, Double.NaN);
            case "triangle" -> Arrays.fill(corners, Double.NaN);
            case "color" -> Arrays.fill(light, Double.NaN);
            default -> {}
        }
    }

    /** Reads what holds text alone. */
    private boolean isLeaf(String parent, String element) throws XMLStreamException {
        switch (parent + " " + element) {
            case "coordinates x" -> place[0] = number();
            case "coordinates y" -> place[1] = number();
            case "coordinates z" -> place[2] = number();
            case "triangle v1" -> corners[0] = number();
            case "triangle v2" -> corners[1] = number();
            case "triangle v3" -> corners[2] = number();
            case "color r" -> light[0] = level();
            case "color g" -> light[1] = level();
            case "color b" -> light[2] = level();
            case "instance deltax" -> moved[0] = number();
            case "instance deltay" -> moved[1] = number();
            case "instance deltaz" -> moved[2] = number();
            case "instance rx" -> moved[3] = number();
            case "instance ry" -> moved[4] = number();
            case "instance rz" -> moved[5] = number();
            default -> {
                return isName(parent, element);
            }
        }
        return true;
    }

    private boolean isName(String parent, String element) throws XMLStreamException {
        Optional<Named> named = named(parent);
        if (!element.equals("metadata") || named.isEmpty() || !"name".equals(xml.getAttributeValue(null, "type"))) {
            return false;
        }
        named.get().name = ThreeMfMaterials.oneLine(xml.getElementText());
        return true;
    }

    private Optional<Named> named(String element) {
        return Optional.ofNullable(
                switch (element) {
                    case "object" -> thing;
                    case "volume" -> volume;
                    case "material" -> material;
                    default -> null;
                });
    }

    private void end(String element) {
        switch (element) {
            case "vertex" -> vertex();
            case "triangle" -> triangle();
            case "color" -> colour(within.isEmpty() ? "" : within.peek());
            case "instance" -> {
                if (instances != null) {
                    instances.add(new Instance(instanced, moved()));
                }
            }
            default -> {}
        }
    }

    private void vertex() {
        for (double coordinate : place) {
            if (Double.isNaN(coordinate)) {
                throw Refusal.of(
                        "The corner that ends on line %d of the AMF file has no X, Y and Z; export it again.", line());
            }
        }
        own.ifPresent(colour -> cornerTints.put(cornersSoFar, colour));
        own = Optional.empty();
        object().places.add(unit * place[0], unit * place[1], unit * place[2]);
        cornersSoFar++;
    }

    private void triangle() {
        for (double corner : corners) {
            if (volume == null || !(corner >= 0 && corner < volume.of.places.count() && corner == Math.rint(corner))) {
                throw Refusal.of(
                        "The triangle that ends on line %d of the AMF file names a corner that is not there; export it again.",
                        line());
            }
        }
        own.ifPresent(colour -> faceTints.put(facesSoFar, colour));
        own = Optional.empty();
        volume.triangles.add((int) corners[0], (int) corners[1], (int) corners[2]);
        facesSoFar++;
    }

    private void colour(String of) {
        Optional<Srgb> colour = Arrays.stream(light).anyMatch(Double::isNaN)
                ? Optional.empty()
                : Optional.of(new Srgb((int) light[0], (int) light[1], (int) light[2]));
        if (of.equals("vertex") || of.equals("triangle")) {
            own = colour;
        } else {
            named(of).ifPresent(named -> named.colour = colour);
        }
    }

    /** Turned about X, then Y, then Z, and moved. */
    private Affine moved() {
        return turned(3, 1, 2)
                .then(turned(4, 2, 0))
                .then(turned(5, 0, 1))
                .then(new Affine(1, 0, 0, 0, 1, 0, 0, 0, 1, unit * moved[0], unit * moved[1], unit * moved[2]));
    }

    /** By the angle in {@code moved[angle]}, from one axis towards the other. */
    private Affine turned(int angle, int from, int to) {
        double[] rows = {1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0};
        double turn = Math.toRadians(moved[angle]);
        rows[3 * from + from] = Math.cos(turn);
        rows[3 * from + to] = Math.sin(turn);
        rows[3 * to + from] = -Math.sin(turn);
        rows[3 * to + to] = Math.cos(turn);
        return new Affine(rows);
    }

    private Thing object() {
        if (thing == null) {
            throw Refusal.of("Line %d of the AMF file lies outside an object; export it again.", line());
        }
        return thing;
    }

    private String id(String attribute) {
        return Objects.toString(xml.getAttributeValue(null, attribute), "");
    }

    private int line() {
        return xml.getLocation().getLineNumber();
    }

    /** A share of the brightest, 0 to 255; no number where the file has a formula. */
    private double level() throws XMLStreamException {
        try {
            return Math.rint(255 * Math.max(0, Math.min(1, Double.parseDouble(xml.getElementText()))));
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    private double number() throws XMLStreamException {
        String text = xml.getElementText();
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            throw Refusal.of(
                    "“%s” on line %d of the AMF file is no number; export it again.", Words.quoted(text), line());
        }
    }

    /** Millimetres in the file's unit. */
    private static double unit(String name) {
        return switch (name == null ? "millimeter" : name) {
            case "micron" -> 0.001;
            case "millimeter" -> 1;
            case "inch" -> 25.4;
            case "feet", "foot" -> 304.8;
            case "meter" -> 1000;
            default -> throw Refusal.of(
                    "The AMF file measures in “%s”, which is none of its units; export it in millimetres.",
                    Words.quoted(name));
        };
    }
}
