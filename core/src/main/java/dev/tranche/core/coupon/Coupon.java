package dev.tranche.core.coupon;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * A small test print that measures something.
 *
 * @param layers it is printed in
 * @param spools in the order in which they first print
 * @param blocks it is made of; on a layer those of one spool are printed in this order
 * @param scale what its marks measure
 */
public record Coupon(Kind kind, LayerSettings layers, List<SpoolId> spools, List<Block> blocks, Scale scale) {
    /** Apart from one another, blocks do not touch, mm. */
    private static final double GAP = 1;
    /** Between the rungs of a ladder, so that each is told from the next, mm. */
    private static final double RUNG = 2;
    /** What stays free at the rim of a bed, mm. */
    private static final double RIM = 10;

    /** A bead of one stroke, mm wide. */
    private static final double BEAD = 1.5;

    private static final int LENGTHS = 12;
    private static final int BARS = 10;
    private static final int MOST_LAYERS = 8;
    private static final int BASE = 2;

    public Coupon {
        spools = List.copyOf(spools);
        blocks = List.copyOf(blocks);
    }

    /** What can be tried. */
    public enum Kind {
        EARLY_SWAP("Early swap", "A small tile, swapped after three layers: does the macro work, is the seam clean?"),
        PURGE_LADDER("Purge ladder", "Ten bars after equal steps of purge: how much does this pair of colours need?"),
        STACK("Stack", "One, two, three … layers over dark and light: how thick does a spool hide what lies beneath?"),
        GEARS("Gears to nozzle", "Bars laid while filament goes in from the gears: how long is the way to the nozzle?");

        private final String title;
        private final String asks;

        Kind(String title, String asks) {
            this.title = title;
            this.asks = asks;
        }

        public String title() {
            return title;
        }

        /** What it is for. */
        public String asks() {
            return asks;
        }
    }

    /**
     * What mark k, from 1, of a coupon measures: {@code first + (k − 1) · step}.
     *
     * @param first mm³ or mm
     * @param marks how many there are; 0 where nothing is read off
     */
    public record Scale(double first, double step, int marks) {
        public static final Scale NONE = new Scale(0, 0, 0);

        /**
         * @param mark whole, or with tenths where it lies between two
         * @throws Refusal if there is no such mark
         */
        public double at(double mark) {
            if (!(mark >= 1 && mark < marks + 1)) {
                throw Refusal.of("This coupon has the marks 1 to %d; give the first that is as it should be.", marks);
            }
            return first + (mark - 1) * step;
        }
    }

    private static LayerSettings layers(Printer printer) {
        Height height = Height.ofMillimetres(Math.min(0.2, Math.round(printer.nozzle() * 50) / 100.0));
        return new LayerSettings(height, height);
    }

    /** The tile: 20 × 20 mm, three layers of one spool and three of another (common practice). */
    public static Coupon earlySwap(Printer printer, SpoolId first, SpoolId second) {
        requireOther(first, second);
        double w = printer.lineWidth();
        double side = Math.round(20 / w) * w;
        return fitting(
                printer,
                new Coupon(
                        Kind.EARLY_SWAP,
                        layers(printer),
                        List.of(first, second),
                        List.of(
                                priming(first, w, 30),
                                new Block(first, 0, 4 * w + 3, side, side, 1, 3),
                                new Block(second, 0, 4 * w + 3, side, side, 4, 6)),
                        Scale.NONE));
    }

    /**
     * A ladder of ten bars. Before each a strip takes what is missing to the next step, so that when bar k begins, so many steps
     * have been pushed since the swap, its own purge included.
     *
     * @param swapped what the swap itself pushes through
     * @param estimate of the pair; the last bar has twice that behind it
     */
    public static Coupon purgeLadder(Printer printer, SpoolId out, SpoolId in, Volume swapped, Volume estimate) {
        requireOther(out, in);
        double w = printer.lineWidth();
        LayerSettings layers = layers(printer);
        double section = w * layers.firstLayer().millimetres();
        double width = Math.min(usable(printer.bed()), 120);
        double bar = zigzag(width / 2, 4, w) * section;
        double least = bar + zigzag(width, 2, w) * section;
        double step = Math.max(least, (2 * estimate.cubicMillimetres() - swapped.cubicMillimetres()) / BARS);
        double length = (step - bar) / section;
        int lines = (int) Math.max(1, Math.ceil((length + w) / width));
        double strip = (length + w) / lines;
        List<Block> blocks = new ArrayList<>(List.of(new Block(out, 0, 0, width / 2, 4 * w, 1, 1)));
        double y = 4 * w + RUNG;
        for (int k = 1; k <= BARS; k++) {
            blocks.add(new Block(in, 0, y, strip, lines * w, 1, 1));
            y += lines * w + GAP;
            blocks.add(new Block(in, 0, y, width / 2, 4 * w, 1, 1));
            y += 4 * w + RUNG;
        }
        double first = swapped.cubicMillimetres() + step - bar;
        return fitting(
                printer, new Coupon(Kind.PURGE_LADDER, layers, List.of(out, in), blocks, new Scale(first, step, BARS)));
    }

    /** Strips of one to eight layers of a spool, half of each over a dark spool and half over a light one. */
    public static Coupon stack(Printer printer, SpoolId spool, SpoolId dark, SpoolId light) {
        requireOther(spool, dark);
        requireOther(spool, light);
        requireOther(dark, light);
        double w = printer.lineWidth();
        LayerSettings layers = layers(printer);
        double half = Math.round(15 / w) * w;
        double strip = Math.round(5 / w) * w;
        double deep = MOST_LAYERS * (strip + GAP) - GAP;
        double base = Math.ceil(deep / w) * w;
        double y = 4 * w + 3;
        List<Block> blocks = new ArrayList<>(List.of(
                priming(dark, w, 30),
                new Block(dark, 0, y, half, base, 1, BASE),
                new Block(light, half, y, half, base, 1, BASE)));
        IntStream.rangeClosed(1, MOST_LAYERS)
                .forEach(n -> blocks.add(
                        new Block(spool, 0, y + (n - 1) * (strip + GAP), 2 * half, strip, BASE + 1, BASE + n)));
        double height = layers.layerHeight().millimetres();
        return fitting(
                printer,
                new Coupon(
                        Kind.STACK,
                        layers,
                        List.of(dark, light, spool),
                        blocks,
                        new Scale(height, height, MOST_LAYERS)));
    }

    /**
     * Bars laid while filament is pushed in, whose tip begins at the gears: bar k takes one step, and the way to the nozzle is as
     * long as what had gone in where plastic begins. From 85 % to 115 % of what the printer's measure says.
     */
    public static Coupon gears(Printer printer, SpoolId spool) {
        double believed = printer.drive().gearsToNozzle();
        double first = 0.85 * believed;
        double step = Math.max(2, 0.3 * believed / LENGTHS);
        Height height = Height.ofMillimetres(Math.min(0.3, Math.round(printer.nozzle() * 75) / 100.0));
        double each = printer.filament().volume(step).cubicMillimetres() / (BEAD * height.millimetres());
        List<Block> blocks = IntStream.range(0, LENGTHS)
                .mapToObj(i -> new Block(spool, 0, i * (BEAD + 3), each, BEAD, 1, 1))
                .toList();
        return fitting(
                printer,
                new Coupon(
                        Kind.GEARS,
                        new LayerSettings(height, height),
                        List.of(spool),
                        blocks,
                        new Scale(first, step, LENGTHS)));
    }

    private static Block priming(SpoolId spool, double w, double width) {
        return new Block(spool, 0, 0, width, 4 * w, 1, 1);
    }

    private static void requireOther(SpoolId one, SpoolId other) {
        if (one.equals(other)) {
            throw new Refusal("A coupon compares spools; choose another for one of them.");
        }
    }

    /** The side of a square that lies on a bed with a rim round it, mm. */
    private static double usable(Bed bed) {
        double side = bed instanceof Bed.Round round
                ? round.diameter() / Math.sqrt(2)
                : Math.min(bed.bounds().getWidth(), bed.bounds().getHeight());
        return side - 2 * RIM;
    }

    private static Coupon fitting(Printer printer, Coupon coupon) {
        Envelope extent = coupon.extent();
        double room = usable(printer.bed());
        if (extent.getWidth() > room || extent.getHeight() > room) {
            throw new Refusal(Words.format(
                    "A %s needs %.0f × %.0f mm, and the bed of %s has room for %.0f × %.0f.",
                    coupon.kind.title.toLowerCase(Locale.ROOT),
                    extent.getWidth(),
                    extent.getHeight(),
                    printer.name(),
                    room,
                    room));
        }
        return coupon;
    }

    /** How long a stroke is that fills a block with so many lines, mm. */
    static double zigzag(double width, int lines, double lineWidth) {
        return lines * (width - lineWidth) + (lines - 1) * lineWidth;
    }

    public Envelope extent() {
        Envelope extent = new Envelope();
        blocks.forEach(b -> {
            extent.expandToInclude(b.x(), b.y());
            extent.expandToInclude(b.x() + b.width(), b.y() + b.depth());
        });
        return extent;
    }

    public int layerCount() {
        return blocks.stream().mapToInt(Block::to).max().orElse(0);
    }

    private double top(int layer) {
        return layers.firstLayer().millimetres()
                + (layer - 1) * layers.layerHeight().millimetres();
    }

    /** What a mark measured as the first that is clean says of the pair. */
    public static MeasuredPurge measured(SpoolId out, SpoolId in, Scale scale, double mark) {
        return new MeasuredPurge(out, in, new Volume(scale.at(mark)));
    }

    /** What is printed with a spool, as a solid model. */
    public Mesh mesh(SpoolId spool) {
        List<double[]> corners = new ArrayList<>();
        blocks.stream().filter(b -> b.spool().equals(spool)).forEach(b -> box(b, corners));
        float[] x = new float[corners.size()];
        float[] y = new float[corners.size()];
        int[] z = new int[corners.size()];
        for (int i = 0; i < corners.size(); i++) {
            x[i] = (float) corners.get(i)[0];
            y[i] = (float) corners.get(i)[1];
            z[i] = (int) Math.rint(corners.get(i)[2] * 1000);
        }
        return Mesh.standing(x, y, z, 0);
    }

    private void box(Block b, List<double[]> corners) {
        double low = b.from() == 1 ? 0 : top(b.from() - 1);
        double high = top(b.to());
        double[][] p = new double[8][];
        for (int i = 0; i < 8; i++) {
            p[i] = new double[] {
                b.x() + (i & 1) * b.width(), b.y() + (i >> 1 & 1) * b.depth(), (i >> 2 & 1) == 0 ? low : high
            };
        }
        int[] sides = {0, 2, 3, 1, 4, 5, 7, 6, 0, 1, 5, 4, 2, 6, 7, 3, 0, 4, 6, 2, 1, 3, 7, 5};
        for (int side = 0; side < sides.length; side += 4) {
            for (int corner : new int[] {0, 1, 2, 0, 2, 3}) {
                corners.add(p[sides[side + corner]]);
            }
        }
    }
}
