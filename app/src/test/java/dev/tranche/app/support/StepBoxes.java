package dev.tranche.app.support;

import dev.tranche.core.speech.Words;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Boxes as a CAD program exports them: ISO 10303-21 in the schema AUTOMOTIVE_DESIGN (ISO 10303-214), a product each. */
public final class StepBoxes {
    private static final String[] CORNERS = {"000", "100", "110", "010", "001", "101", "111", "011"};
    /** Corners of each face, seen from outside against the clock, and its normal. */
    private static final int[][] FACES = {
        {0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}
    };

    private static final String[] NORMALS = {"0.,0.,-1.", "0.,0.,1.", "0.,-1.,0.", "1.,0.,0.", "0.,1.,0.", "-1.,0.,0."};
    private static final String[] ALONG = {"1.,0.,0.", "1.,0.,0.", "1.,0.,0.", "0.,1.,0.", "1.,0.,0.", "0.,1.,0."};

    private final List<String> entities = new ArrayList<>();
    private final String product;
    private final String definition;
    private final String context;
    /** Of the last box, and how it is styled. */
    private String top;

    private String item;

    public StepBoxes() {
        String application = add("APPLICATION_CONTEXT('automotive design')");
        add("APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000," + application + ")");
        product = add("PRODUCT_CONTEXT(''," + application + ",'mechanical')");
        definition = add("PRODUCT_DEFINITION_CONTEXT('part definition'," + application + ",'design')");
        String length = add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
        String angle = add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))");
        String solid = add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())");
        String exact = add(
                "UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-07)," + length + ",'distance_accuracy_value','')");
        context = add("(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((" + exact
                + "))GLOBAL_UNIT_ASSIGNED_CONTEXT((" + length + "," + angle + "," + solid
                + "))REPRESENTATION_CONTEXT('',''))");
    }

    private String add(String entity) {
        entities.add(entity);
        return "#" + entities.size();
    }

    private String point(double x, double y, double z) {
        return add(Words.format("CARTESIAN_POINT('',(%.4f,%.4f,%.4f))", x, y, z));
    }

    private String direction(String of) {
        return add("DIRECTION('',(" + of + "))");
    }

    /** A box with a name and a colour of its own, 0…1. */
    public StepBoxes box(
            String name,
            double red,
            double green,
            double blue,
            double x,
            double y,
            double z,
            double wide,
            double deep,
            double high) {
        double[][] at = new double[8][];
        String[] vertices = new String[8];
        for (int i = 0; i < 8; i++) {
            at[i] = new double[] {
                x + wide * (CORNERS[i].charAt(0) - '0'),
                y + deep * (CORNERS[i].charAt(1) - '0'),
                z + high * (CORNERS[i].charAt(2) - '0')
            };
            vertices[i] = add("VERTEX_POINT(''," + point(at[i][0], at[i][1], at[i][2]) + ")");
        }
        Map<String, String> edges = new LinkedHashMap<>();
        List<String> faces = new ArrayList<>();
        for (int f = 0; f < FACES.length; f++) {
            List<String> loop = new ArrayList<>();
            for (int c = 0; c < 4; c++) {
                int from = FACES[f][c];
                int to = FACES[f][(c + 1) % 4];
                String key = Math.min(from, to) + "-" + Math.max(from, to);
                String edge =
                        edges.computeIfAbsent(key, k -> edge(at, vertices, Math.min(from, to), Math.max(from, to)));
                loop.add(add("ORIENTED_EDGE('',*,*," + edge + (from < to ? ",.T.)" : ",.F.)")));
            }
            double[] origin = at[FACES[f][0]];
            String placed = add("AXIS2_PLACEMENT_3D(''," + point(origin[0], origin[1], origin[2]) + ","
                    + direction(NORMALS[f]) + "," + direction(ALONG[f]) + ")");
            String bound =
                    add("FACE_OUTER_BOUND(''," + add("EDGE_LOOP('',(" + String.join(",", loop) + "))") + ",.T.)");
            faces.add(add("ADVANCED_FACE('',(" + bound + ")," + add("PLANE(''," + placed + ")") + ",.T.)"));
        }
        String brep = add("MANIFOLD_SOLID_BREP('" + name + "',"
                + add("CLOSED_SHELL('',(" + String.join(",", faces) + "))") + ")");
        String axes = add("AXIS2_PLACEMENT_3D(''," + point(0, 0, 0) + "," + direction("0.,0.,1.") + ","
                + direction("1.,0.,0.") + ")");
        String shape =
                add("ADVANCED_BREP_SHAPE_REPRESENTATION('" + name + "',(" + axes + "," + brep + ")," + context + ")");
        String made = add("PRODUCT('" + name + "','" + name + "','',(" + product + "))");
        String formed = add("PRODUCT_DEFINITION_FORMATION('',''," + made + ")");
        String defined = add("PRODUCT_DEFINITION('design',''," + formed + "," + definition + ")");
        add("SHAPE_DEFINITION_REPRESENTATION(" + add("PRODUCT_DEFINITION_SHAPE('',''," + defined + ")") + "," + shape
                + ")");
        top = faces.get(1);
        styled("STYLED_ITEM('color',(" + style(red, green, blue) + ")," + brep + ")");
        return this;
    }

    /** The last box has a top of another colour, 0…1. */
    public StepBoxes topped(double red, double green, double blue) {
        styled("OVER_RIDING_STYLED_ITEM('overriding color',(" + style(red, green, blue) + ")," + top + "," + item
                + ")");
        return this;
    }

    private void styled(String as) {
        item = add(as);
        add("MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',(" + item + ")," + context + ")");
    }

    private String style(double red, double green, double blue) {
        String colour = add(Words.format("COLOUR_RGB('',%.4f,%.4f,%.4f)", red, green, blue));
        String area = add("SURFACE_STYLE_FILL_AREA("
                + add("FILL_AREA_STYLE('',(" + add("FILL_AREA_STYLE_COLOUR(''," + colour + ")") + "))") + ")");
        return add("PRESENTATION_STYLE_ASSIGNMENT(("
                + add("SURFACE_STYLE_USAGE(.BOTH.," + add("SURFACE_SIDE_STYLE('',(" + area + "))") + ")") + "))");
    }

    private String edge(double[][] at, String[] vertices, int from, int to) {
        double[] d = {at[to][0] - at[from][0], at[to][1] - at[from][1], at[to][2] - at[from][2]};
        double length = Math.sqrt(d[0] * d[0] + d[1] * d[1] + d[2] * d[2]);
        String along = direction(Words.format("%.6f,%.6f,%.6f", d[0] / length, d[1] / length, d[2] / length));
        String line = add("LINE(''," + point(at[from][0], at[from][1], at[from][2]) + ","
                + add("VECTOR(''," + along + ",1.)") + ")");
        return add("EDGE_CURVE(''," + vertices[from] + "," + vertices[to] + "," + line + ",.T.)");
    }

    public byte[] bytes() {
        StringBuilder text = new StringBuilder(
                "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\n"
                        + "FILE_NAME('boxes.step','2026-11-27T00:00:00',(''),(''),'','','');\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\nENDSEC;\nDATA;\n");
        for (int i = 0; i < entities.size(); i++) {
            text.append('#').append(i + 1).append('=').append(entities.get(i)).append(";\n");
        }
        return text.append("ENDSEC;\nEND-ISO-10303-21;\n").toString().getBytes(StandardCharsets.US_ASCII);
    }
}
