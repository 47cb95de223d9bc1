package dev.tranche.benchmarks;

import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** Files to measure with, made the same at every run. */
final class Inputs {
    private Inputs() {}

    /** A bumpy ball of a million triangles, 60 mm high, as binary STL. */
    static Path ball(int triangles) throws IOException {
        int around = 1000;
        int rings = triangles / (2 * around) + 1;
        Path file = Files.createTempFile("tranche-ball", ".stl");
        file.toFile().deleteOnExit();
        int count = 2 * around * (rings - 1);
        ByteBuffer record = ByteBuffer.allocate(50).order(ByteOrder.LITTLE_ENDIAN);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
            out.write(ByteBuffer.allocate(84)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .putInt(80, count)
                    .array());
            for (int i = 0; i < rings; i++) {
                for (int j = 0; j < around; j++) {
                    float[] a = point(i, rings, j, around);
                    float[] b = point(i, rings, j + 1, around);
                    float[] c = point(i + 1, rings, j + 1, around);
                    float[] d = point(i + 1, rings, j, around);
                    if (i > 0) {
                        write(out, record, a, b, c);
                    }
                    if (i < rings - 1) {
                        write(out, record, a, c, d);
                    }
                }
            }
        }
        return file;
    }

    /** So many balls of so many triangles each, in rows, every one reaching into its neighbours. */
    static Path balls(int parts, int triangles) throws IOException {
        int around = 160;
        int rings = triangles / (2 * around) + 1;
        Path file = Files.createTempFile("tranche-balls", ".stl");
        file.toFile().deleteOnExit();
        int count = parts * 2 * around * (rings - 1);
        ByteBuffer record = ByteBuffer.allocate(50).order(ByteOrder.LITTLE_ENDIAN);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
            out.write(ByteBuffer.allocate(84)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .putInt(80, count)
                    .array());
            for (int part = 0; part < parts; part++) {
                float dx = 57 * (part % 8);
                float dy = 57 * (part / 8);
                for (int i = 0; i < rings; i++) {
                    for (int j = 0; j < around; j++) {
                        float[] a = moved(point(i, rings, j, around), dx, dy);
                        float[] b = moved(point(i, rings, j + 1, around), dx, dy);
                        float[] c = moved(point(i + 1, rings, j + 1, around), dx, dy);
                        float[] d = moved(point(i + 1, rings, j, around), dx, dy);
                        if (i > 0) {
                            write(out, record, a, b, c);
                        }
                        if (i < rings - 1) {
                            write(out, record, a, c, d);
                        }
                    }
                }
            }
        }
        return file;
    }

    private static float[] moved(float[] point, float dx, float dy) {
        return new float[] {point[0] + dx, point[1] + dy, point[2]};
    }

    private static float[] point(int ring, int rings, int j, int around) {
        double polar = Math.PI * ring / rings;
        double turn = 2 * Math.PI * (j % around) / around;
        double flat =
                ring == 0 || ring == rings ? 0 : (30 + Math.sin(9 * turn) * Math.sin(7 * polar)) * Math.sin(polar);
        return new float[] {
            (float) (flat * Math.cos(turn)), (float) (flat * Math.sin(turn)), (float) (30 - 30 * Math.cos(polar))
        };
    }

    private static void write(OutputStream out, ByteBuffer record, float[]... corners) throws IOException {
        record.position(12);
        for (float[] corner : corners) {
            record.putFloat(corner[0]).putFloat(corner[1]).putFloat(corner[2]);
        }
        out.write(record.array());
    }

    /** G-code of many short lines on round outlines, as programs write them, in memory. */
    static byte[] gcode(int megabytes) throws IOException {
        java.io.ByteArrayOutputStream bytes = new java.io.ByteArrayOutputStream(megabytes << 20);
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            out.write("M109 S210\nG28\nG90\nM82\n".getBytes(StandardCharsets.US_ASCII));
            double e = 0;
            for (int layer = 1; bytes.size() < megabytes << 20; layer++) {
                StringBuilder text = new StringBuilder();
                text.append("; layer ").append(layer).append('\n');
                text.append(String.format(Locale.ROOT, "G1 Z%.2f F600%n", layer * 0.2));
                for (int ring = 0; ring < 20; ring++) {
                    double r = 40 - ring * 0.45;
                    text.append(String.format(Locale.ROOT, "G1 X%.3f Y%.3f F7200%n", 110 + r, 110.0));
                    for (int i = 1; i <= 180; i++) {
                        double turn = Math.PI * i / 90;
                        e += 0.05;
                        text.append(String.format(
                                Locale.ROOT,
                                "G1 X%.3f Y%.3f E%.5f%n",
                                110 + r * Math.cos(turn),
                                110 + r * Math.sin(turn),
                                e));
                    }
                }
                out.write(text.toString().replace("\r\n", "\n").getBytes(StandardCharsets.US_ASCII));
            }
        }
        return bytes.toByteArray();
    }

    /** G-code of two tools that take turns on each layer, round outlines side by side. */
    static Path twoTools(int megabytes) throws IOException {
        Path file = Files.createTempFile("tranche-two-tools", ".gcode");
        file.toFile().deleteOnExit();
        long size = 0;
        int loaded = 0;
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
            out.write("M109 S210\nG28\nG90\nM83\nT0\n".getBytes(StandardCharsets.US_ASCII));
            for (int layer = 1; size < (long) megabytes << 20; layer++) {
                StringBuilder text = new StringBuilder("; layer " + layer + "\n");
                text.append(String.format(Locale.ROOT, "G1 Z%.2f F600\n", layer * 0.2));
                for (int nth = 0; nth < 2; nth++) {
                    if (nth == 1) {
                        loaded = 1 - loaded;
                        text.append("T").append(loaded).append('\n');
                    }
                    rings(text, 80 + 60 * loaded);
                }
                byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
                out.write(bytes);
                size += bytes.length;
            }
            out.write("M104 S0\n".getBytes(StandardCharsets.US_ASCII));
        }
        return file;
    }

    private static void rings(StringBuilder text, double x) {
        for (int ring = 0; ring < 40; ring++) {
            double r = 28 - ring * 0.45;
            text.append(String.format(Locale.ROOT, "G1 E-1 F1800\nG1 X%.3f Y110 F7200\nG1 E1 F1800\n", x + r));
            for (int i = 1; i <= 180; i++) {
                double turn = Math.PI * i / 90;
                text.append("G1 X")
                        .append(thousandths(x + r * Math.cos(turn)))
                        .append(" Y")
                        .append(thousandths(110 + r * Math.sin(turn)))
                        .append(" E0.05321\n");
            }
        }
    }

    private static String thousandths(double value) {
        long whole = Math.round(value * 1000);
        return whole / 1000 + "." + String.format("%03d", whole % 1000);
    }
}
