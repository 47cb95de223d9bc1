package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/**
 * Writes 3MF: one object a thing, all in one frame, each with a base material that has a name and a colour.
 *
 * <p>Source: 3MF Consortium, "3D Manufacturing Format Core Specification", version 1.3 (2021).
 */
public final class ThreeMfWriter {
    private static final String CORE = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02";
    private static final String TYPES =
            """
            <?xml version="1.0" encoding="UTF-8"?>
            <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">\
            <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>\
            <Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>""";
    private static final String RELATIONS =
            """
            <?xml version="1.0" encoding="UTF-8"?>
            <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">\
            <Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/>\
            </Relationships>""";

    /** Of zlib's nine levels one that takes half the time of its default, for a twentieth more bytes (measured). */
    private static final int PACKING = 4;

    /**
     * What is written as one object.
     *
     * @param material name of what it is printed in
     * @param meshes closed surfaces; corners are shared within each, not between them. They are gone through once
     */
    public record Thing(String name, String material, Srgb colour, Iterable<Mesh> meshes) {}

    private record Material(String name, Srgb colour) {}

    private final XMLStreamWriter xml;
    private final boolean assembled;

    private ThreeMfWriter(XMLStreamWriter xml, boolean assembled) {
        this.xml = xml;
        this.assembled = assembled;
    }

    /**
     * Each thing is built by itself.
     *
     * @param out left open
     */
    public static void write(String title, List<Thing> things, OutputStream out) throws IOException {
        write(title, things, false, out);
    }

    /**
     * The things are components of one object, so that none of them is moved without the others.
     *
     * @param out left open
     */
    public static void writeAssembled(String title, List<Thing> things, OutputStream out) throws IOException {
        write(title, things, true, out);
    }

    private static void write(String title, List<Thing> things, boolean assembled, OutputStream out)
            throws IOException {
        ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
        zip.setLevel(PACKING);
        entry(zip, "[Content_Types].xml", TYPES);
        entry(zip, "_rels/.rels", RELATIONS);
        zip.putNextEntry(new ZipEntry("3D/3dmodel.model"));
        try {
            XMLStreamWriter xml = XMLOutputFactory.newFactory()
                    .createXMLStreamWriter(new Gathering(zip), StandardCharsets.UTF_8.name());
            new ThreeMfWriter(xml, assembled).model(title, things);
            xml.flush();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
        zip.closeEntry();
        zip.finish();
    }

    private static void entry(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    private void model(String title, List<Thing> things) throws XMLStreamException {
        Map<Material, Integer> materials = new LinkedHashMap<>();
        things.forEach(t -> materials.putIfAbsent(new Material(t.material(), t.colour()), materials.size()));
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeStartElement("model");
        xml.writeAttribute("unit", "millimeter");
        xml.writeAttribute("xml:lang", "en");
        xml.writeDefaultNamespace(CORE);
        metadata("Title", title);
        metadata("Application", "Tranche");
        xml.writeStartElement("resources");
        xml.writeStartElement("basematerials");
        xml.writeAttribute("id", "1");
        for (Material material : materials.keySet()) {
            xml.writeEmptyElement("base");
            xml.writeAttribute("name", material.name());
            xml.writeAttribute("displaycolor", material.colour().hex());
        }
        xml.writeEndElement();
        for (int i = 0; i < things.size(); i++) {
            Thing thing = things.get(i);
            object(i + 2, thing, materials.get(new Material(thing.material(), thing.colour())));
        }
        int first = 2;
        int built = things.size();
        if (assembled && built > 1) {
            xml.writeStartElement("object");
            xml.writeAttribute("id", Integer.toString(first + built));
            xml.writeAttribute("type", "model");
            xml.writeAttribute("name", title);
            xml.writeStartElement("components");
            naming("component", first, built);
            xml.writeEndElement();
            xml.writeEndElement();
            first += built;
            built = 1;
        }
        xml.writeEndElement();
        xml.writeStartElement("build");
        naming("item", first, built);
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndDocument();
    }

    /** Elements that name objects, by the numbers from {@code first} on. */
    private void naming(String element, int first, int count) throws XMLStreamException {
        for (int id = first; id < first + count; id++) {
            xml.writeEmptyElement(element);
            xml.writeAttribute("objectid", Integer.toString(id));
        }
    }

    private void metadata(String name, String value) throws XMLStreamException {
        xml.writeStartElement("metadata");
        xml.writeAttribute("name", name);
        xml.writeCharacters(value);
        xml.writeEndElement();
    }

    private void object(int id, Thing thing, int material) throws XMLStreamException {
        xml.writeStartElement("object");
        xml.writeAttribute("id", Integer.toString(id));
        xml.writeAttribute("type", "model");
        xml.writeAttribute("name", thing.name());
        xml.writeAttribute("pid", "1");
        xml.writeAttribute("pindex", Integer.toString(material));
        xml.writeStartElement("mesh");
        xml.writeStartElement("vertices");
        int count = 0;
        List<int[]> corners = new ArrayList<>();
        for (Mesh mesh : thing.meshes()) {
            int[] welded = mesh.welded(Progress.UNHEARD);
            count = vertices(mesh, welded, count);
            corners.add(welded);
        }
        xml.writeEndElement();
        xml.writeStartElement("triangles");
        for (int[] mesh : corners) {
            for (int c = 0; c < mesh.length; c += 3) {
                if (mesh[c] != mesh[c + 1] && mesh[c + 1] != mesh[c + 2] && mesh[c + 2] != mesh[c]) {
                    xml.writeEmptyElement("triangle");
                    xml.writeAttribute("v1", Integer.toString(mesh[c]));
                    xml.writeAttribute("v2", Integer.toString(mesh[c + 1]));
                    xml.writeAttribute("v3", Integer.toString(mesh[c + 2]));
                }
            }
        }
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndElement();
    }

    /**
     * Writes each place of a mesh once.
     *
     * @param corners the first corner at the place of each, and its number afterwards
     * @return how many places are written, with those {@code before}
     */
    private int vertices(Mesh mesh, int[] corners, int before) throws XMLStreamException {
        int count = before;
        for (int c = 0; c < corners.length; c++) {
            if (corners[c] < c) {
                corners[c] = corners[corners[c]];
                continue;
            }
            corners[c] = count++;
            xml.writeEmptyElement("vertex");
            xml.writeAttribute("x", Float.toString((float) mesh.x(c) + 0f));
            xml.writeAttribute("y", Float.toString((float) mesh.y(c) + 0f));
            xml.writeAttribute("z", BigDecimal.valueOf(mesh.z(c), 3).toPlainString());
        }
        return count;
    }

    /** Gathers what comes in single bytes, as XML does: the archive would pack each by itself, and the platform's buffer locks for each. */
    private static final class Gathering extends OutputStream {
        private final OutputStream out;
        private final byte[] gathered = new byte[1 << 16];
        private int count;

        Gathering(OutputStream out) {
            this.out = out;
        }

        @Override
        public void write(int letter) throws IOException {
            if (count == gathered.length) {
                flush();
            }
            gathered[count++] = (byte) letter;
        }

        @Override
        public void flush() throws IOException {
            out.write(gathered, 0, count);
            count = 0;
        }
    }
}
