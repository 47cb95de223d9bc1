package dev.tranche.core.layer;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;

/**
 * Layer heights that put colour borders on layer borders.
 *
 * <p>Layer heights are multiples of the height of a full motor step, or of 0.05 mm, between a quarter and four fifths of
 * the nozzle; first layers are such heights from the layer height up. They are ranked by the
 * largest snap error, then by the number of layers.
 *
 * @param firstLayer h₁
 * @param layerHeight h
 * @param layers that the model takes
 * @param snaps one a border, in the order they were given
 */
public record Fit(Height firstLayer, Height layerHeight, int layers, List<Snap> snaps) {
    /** Height of a full step, with 200 steps a turn on a lead of 8 mm; from memory. */
    public static final Height FULL_STEP = Height.ofMicrometres(40);

    /** µm; slicing programs offer heights in such steps, whatever the motor's are (common practice). */
    private static final int TWENTIETH = 50;

    private static final double THINNEST = 0.25;
    private static final double THICKEST = 0.8;

    public Fit {
        snaps = List.copyOf(snaps);
    }

    /** The largest distance of a border from where it prints, µm. */
    public int worst() {
        return snaps.stream().mapToInt(s -> Math.abs(s.error())).max().orElse(0);
    }

    /**
     * The best candidates for a model.
     *
     * @param borders heights at which colours are to start; those above the last layer are left out of account
     * @param modelHeight H
     * @param nozzle diameter, mm
     * @param fullStep height of a full motor step
     * @param most how many to answer
     */
    public static List<Fit> candidates(
            List<Height> borders, Height modelHeight, double nozzle, Height fullStep, int most) {
        int step = fullStep.micrometres();
        if (step <= 0) {
            throw new Refusal("The height of a full step must be above 0 mm; 0.04 is common.");
        }
        TreeSet<Integer> heights = new TreeSet<>();
        for (int pitch : new int[] {step, TWENTIETH}) {
            int least = (int) Math.ceil(THINNEST * nozzle * 1000 / pitch - 1e-9);
            int largest = (int) Math.floor(THICKEST * nozzle * 1000 / pitch + 1e-9);
            for (int i = Math.max(1, least); i <= largest; i++) {
                heights.add(i * pitch);
            }
        }
        List<Fit> fits = new ArrayList<>();
        for (int h : heights) {
            for (int first : heights.tailSet(h)) {
                of(Height.ofMicrometres(first), Height.ofMicrometres(h), borders, modelHeight, fits);
            }
        }
        fits.sort(Comparator.comparingInt(Fit::worst).thenComparingInt(Fit::layers));
        return List.copyOf(fits.subList(0, Math.min(most, fits.size())));
    }

    /**
     * A dimension of the model along Z that has to change for its upper end to fall on a layer border.
     *
     * @param from lower end as it is, {@code to} its upper
     * @param needed how long it has to be
     */
    public record Dimension(Height from, Height to, Height needed) {
        /** µm to add, or to take away where negative. */
        public int change() {
            return needed.micrometres() - (to.micrometres() - from.micrometres());
        }
    }

    /**
     * The other way round: the smallest changes of the model's steps that put every border on the grid as it is.
     *
     * @param borders rising, above 0
     * @return the dimensions from each border to the next that have to change, lowest first
     */
    public static List<Dimension> dimensions(LayerGrid grid, List<Height> borders) {
        List<Dimension> found = new ArrayList<>();
        Height from = Height.ZERO;
        Height printedFrom = Height.ZERO;
        for (Height border : borders) {
            if (grid.firstAbove(border) > grid.count()) {
                break;
            }
            Height printed = grid.snap(border).actual();
            Height needed = Height.ofMicrometres(printed.micrometres() - printedFrom.micrometres());
            Dimension dimension = new Dimension(from, border, needed);
            if (dimension.change() != 0) {
                found.add(dimension);
            }
            from = border;
            printedFrom = printed;
        }
        return found;
    }

    /**
     * The scale of Z, within 3 % of 1, that brings the borders nearest to layers of the same heights, of all that put one of
     * them on a layer: first by the largest snap error, then by how little it changes.
     */
    public static double scale(LayerGrid grid, List<Height> borders) {
        double best = 1;
        int worst = worstAt(grid, borders, 1);
        for (Height border : borders) {
            for (int layer = 1; layer <= grid.count(); layer++) {
                double factor = grid.top(layer).micrometres() / (double) border.micrometres();
                if (Math.abs(factor - 1) <= 0.03) {
                    int error = worstAt(grid, borders, factor);
                    if (error < worst || error == worst && Math.abs(factor - 1) < Math.abs(best - 1)) {
                        worst = error;
                        best = factor;
                    }
                }
            }
        }
        return best;
    }

    private static int worstAt(LayerGrid grid, List<Height> borders, double factor) {
        LayerGrid scaled = new LayerGrid(
                grid.firstLayer(),
                grid.layerHeight(),
                Height.ofMillimetres(grid.modelHeight().millimetres() * factor));
        return borders.stream()
                .map(b -> Height.ofMillimetres(b.millimetres() * factor))
                .filter(b -> scaled.firstAbove(b) <= scaled.count())
                .mapToInt(b -> Math.abs(scaled.snap(b).error()))
                .max()
                .orElse(0);
    }

    /** The layers that a plan has, whatever they are. */
    public static Fit of(LayerGrid grid, List<Height> borders) {
        List<Fit> fit = new ArrayList<>();
        of(grid.firstLayer(), grid.layerHeight(), borders, grid.modelHeight(), fit);
        return fit.get(0);
    }

    private static void of(Height first, Height layer, List<Height> borders, Height modelHeight, List<Fit> fits) {
        LayerGrid grid;
        try {
            grid = new LayerGrid(first, layer, modelHeight);
        } catch (Refusal tooMany) {
            return;
        }
        int last = grid.count();
        int highest = grid.bottom(last).micrometres() + grid.top(last).micrometres();
        List<Snap> snaps = borders.stream()
                .filter(b -> 2 * b.micrometres() < highest)
                .map(grid::snap)
                .toList();
        fits.add(new Fit(first, layer, last, snaps));
    }
}
