package dev.tranche.core.rehearse;

import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.util.AffineTransformation;

/**
 * Compares each line of plastic with what the plan wants where it lies. Lines are told when they are sent and judged when the
 * printer has done them, with what is in the nozzle by then. What lies beside the model, such as towers and skirts, is not
 * judged. Not for two threads.
 */
final class Witness {
    /** Nearer than this to a layer's top, mm, a line belongs to it (domain §14). */
    private static final double NEAR = 0.02;

    /** Of what there is more than this, it is. */
    private static final double MOST = 0.5;

    private static final int MOST_MARKS = 2_000;
    private static final int MOST_MARKS_IN_ALL = 20_000;
    private static final int FIELDS = 7;

    private final PlanFacts facts;
    private final List<SpoolId> filaments;
    private final double tolerance;
    private final double raft;
    private final LayerGrid grid;
    private final List<AffineTransformation> intoModel;
    private final Paints paints;
    private final List<LinearRgb> colours;
    /** What each looks like by itself, as the melt shows it. */
    private final List<Lab> wanted;

    private final Sums[] sums;
    private final double[] waiting;
    private final int room;
    private long sent;
    private long done;
    private int marks;

    private double[] shares;
    private int pure;
    private double lastZ = Double.NaN;
    private int layer;
    private Seen seen;

    private static final class Sums {
        double right;
        double mixed;
        double wrong;
        double missing;
        double difference;
        final List<Report.Mark> marks = new ArrayList<>();
    }

    /**
     * The colours of a layer, each a little wider than it is: plastic lies up to its line's width over a border.
     *
     * @param piece outside of which no line of its plastic has its middle, as a brim has
     */
    private record Seen(
            int layer, List<SpoolId> spools, List<IndexedPointInAreaLocator> areas, IndexedPointInAreaLocator piece) {}

    /** @param room how many lines may be sent and not done at a time */
    Witness(PlanFacts facts, List<SpoolId> filaments, int first, double tolerance, int room) {
        this.facts = facts;
        this.filaments = filaments;
        this.tolerance = tolerance;
        this.grid = facts.grid();
        this.raft = facts.match()
                .map(GridMatch::raft)
                .orElse(facts.plan().layers().raft())
                .millimetres();
        this.intoModel = facts.layout().copies().stream()
                .map(Layout.Copy::spot)
                .map(facts.modelFootprint()::into)
                .toList();
        this.paints = facts.looks().paints();
        this.colours = filaments.stream()
                .map(s -> facts.shelf().get(s).colour().linear())
                .toList();
        this.wanted = colours.stream().map(c -> Melt.mix(c, c, 0).lab()).toList();
        this.sums = new Sums[grid.count() + 1];
        for (int i = 0; i < sums.length; i++) {
            sums[i] = new Sums();
        }
        this.room = room;
        this.waiting = new double[room * FIELDS];
        this.shares = new double[filaments.size()];
        this.shares[first] = 1;
        this.pure = first;
    }

    /** The line that {@code controller} has just obeyed is on its way. */
    void sent(Controller controller, boolean moves) {
        int at = (int) (sent++ % room) * FIELDS;
        boolean prints = moves && controller.de() > 0 && controller.length() > 0;
        waiting[at] = prints ? controller.de() : 0;
        if (prints) {
            waiting[at + 1] = controller.x() - controller.dx();
            waiting[at + 2] = controller.y() - controller.dy();
            waiting[at + 3] = controller.x();
            waiting[at + 4] = controller.y();
            waiting[at + 5] = controller.z();
            waiting[at + 6] = 0;
        }
    }

    /** The printer says what is in its nozzle. */
    void mix(double[] other) {
        shares = other;
        pure = -1;
        for (int i = 0; i < other.length; i++) {
            pure = other[i] == 1 ? i : pure;
        }
    }

    /** Of the line that is being done, so many mm of filament did not come out. */
    void missing(double mm) {
        waiting[(int) (done % room) * FIELDS + 6] = mm;
    }

    /** The oldest line on its way is done. */
    void done() {
        int at = (int) (done++ % room) * FIELDS;
        if (waiting[at] > 0) {
            judge(at);
        }
    }

    private void judge(int at) {
        double z = waiting[at + 5];
        if (z != lastZ) {
            lastZ = z;
            layer = layerAt(z - raft);
        }
        if (layer == 0) {
            return;
        }
        Sums sum = sums[layer];
        double mm = waiting[at];
        double missing = Math.min(mm, waiting[at + 6]);
        if (seen == null || seen.layer() != layer) {
            seen = see(layer);
        }
        if (missing == 0
                && pure >= 0
                && seen.spools().size() == 1
                && seen.spools().get(0).equals(filaments.get(pure))) {
            sum.right += mm;
            return;
        }
        for (AffineTransformation into : intoModel) {
            Coordinate middle = into.transform(
                    new Coordinate((waiting[at + 1] + waiting[at + 3]) / 2, (waiting[at + 2] + waiting[at + 4]) / 2),
                    new Coordinate());
            if (judge(sum, at, middle, into, mm, missing)) {
                return;
            }
        }
    }

    private boolean judge(Sums sum, int at, Coordinate middle, AffineTransformation into, double mm, double missing) {
        if (seen.piece().locate(middle) == Location.EXTERIOR) {
            return false;
        }
        int nearest = -1;
        double best = Double.POSITIVE_INFINITY;
        boolean inside = false;
        Lab comes = null;
        for (int i = 0; i < seen.spools().size(); i++) {
            if (seen.areas().get(i).locate(middle) == Location.EXTERIOR) {
                continue;
            }
            inside = true;
            if (seen.spools().get(i).isMixture()) {
                comes = comes == null ? Melt.mix(colours, boxed()).lab() : comes;
                double difference = fromBlend(seen.spools().get(i), comes);
                if (difference < best) {
                    best = difference;
                    nearest = i;
                }
                continue;
            }
            int filament = filaments.indexOf(seen.spools().get(i));
            if (filament == pure) {
                best = 0;
                nearest = filament;
            } else if (filament >= 0 && shares[filament] > MOST) {
                comes = comes == null ? Melt.mix(colours, boxed()).lab() : comes;
                double difference = Math.min(
                        comes.differenceTo(wanted.get(filament)),
                        fromFadeBeneath(seen.spools().get(i), comes));
                if (difference < best) {
                    best = difference;
                    nearest = filament;
                }
            }
        }
        if (!inside) {
            return false;
        }
        double came = mm - missing;
        if (missing > 0) {
            sum.missing += missing;
            mark(sum, at, into, Report.Kind.MISSING);
        }
        if (nearest < 0) {
            sum.wrong += came;
            mark(sum, at, into, Report.Kind.WRONG);
        } else if (best > tolerance) {
            sum.mixed += came;
            sum.difference = Math.max(sum.difference, best);
            mark(sum, at, into, Report.Kind.MIXED);
        } else {
            sum.right += came;
        }
        return true;
    }

    /**
     * How far what comes is from a mixture as it may be here: a fade turns while a layer is printed, and lags behind by what is in
     * the nozzle. Where most of it is something else, it is not that mixture at all.
     */
    private double fromBlend(SpoolId paint, Lab comes) {
        Mixture mixture = paints.mixtures().get(paint);
        int shade =
                nearest(mixture, mixture.shade(grid.bottom(Math.max(1, layer - 1))), mixture.shade(grid.top(layer)));
        return fromBlend(mixture, shade, comes);
    }

    private double fromBlend(Mixture mixture, int shade, Lab comes) {
        Recipe recipe = mixture.recipe(shade);
        double common = 0;
        for (int i = 0; i < shares.length; i++) {
            common += Math.min(shares[i], recipe.share(filaments.get(i)));
        }
        if (common <= MOST) {
            return Double.POSITIVE_INFINITY;
        }
        LinearRgb own =
                paints.of(new Paints.Shaded(mixture.id(), shade)).colour().linear();
        return comes.differenceTo(Melt.mix(own, own, 0).lab());
    }

    /** A fade that has just ended in a spool goes on a little, by what is still in the nozzle. */
    private double fromFadeBeneath(SpoolId spool, Lab comes) {
        Height foot = grid.bottom(Math.max(1, layer - 2));
        return facts.plan().mixed().stream()
                .filter(m -> m instanceof Mixture.Fade f
                        && f.to().equals(Recipe.of(spool))
                        && f.ends().isAbove(foot)
                        && !f.ends().isAbove(grid.top(layer)))
                .mapToDouble(m -> fromBlend(m, nearest(m, m.shade(foot), Mixture.TURNED), comes))
                .min()
                .orElse(Double.POSITIVE_INFINITY);
    }

    /** The shade from {@code least} to {@code most} that is made most like what comes. */
    private int nearest(Mixture mixture, int least, int most) {
        double along = 0;
        double length = 0;
        for (int i = 0; i < shares.length; i++) {
            double from = mixture.recipe(least).share(filaments.get(i));
            double way = mixture.recipe(most).share(filaments.get(i)) - from;
            along += (shares[i] - from) * way;
            length += way * way;
        }
        return length == 0 ? least : least + (int) Math.rint((most - least) * Math.max(0, Math.min(1, along / length)));
    }

    private List<Double> boxed() {
        List<Double> all = new ArrayList<>(shares.length);
        for (double share : shares) {
            all.add(share);
        }
        return all;
    }

    private void mark(Sums sum, int at, AffineTransformation into, Report.Kind kind) {
        if (sum.marks.size() >= MOST_MARKS || marks >= MOST_MARKS_IN_ALL) {
            return;
        }
        marks++;
        Coordinate from = into.transform(new Coordinate(waiting[at + 1], waiting[at + 2]), new Coordinate());
        Coordinate to = into.transform(new Coordinate(waiting[at + 3], waiting[at + 4]), new Coordinate());
        sum.marks.add(new Report.Mark(from.x, from.y, to.x, to.y, kind, Srgb.of(Melt.mix(colours, boxed()))));
    }

    /** The layer that plastic is of which is laid with the nozzle at {@code z}, mm over the raft; 0 if it is of none. */
    private int layerAt(double z) {
        if (z <= 0) {
            return 0;
        }
        int near = grid.layerAt(Height.ofMillimetres(Math.max(0, z - NEAR)));
        return z <= grid.top(near).millimetres() + NEAR ? near : 0;
    }

    private Seen see(int number) {
        LayerColours planned = facts.colouring().layer(number);
        List<SpoolId> spools = new ArrayList<>();
        List<IndexedPointInAreaLocator> areas = new ArrayList<>();
        for (Tint tint : planned.tints()) {
            if (tint.prints()) {
                Geometry wide = Areas.union(tint.cells()).buffer(facts.printer().lineWidth());
                spools.add(tint.spool());
                areas.add(new IndexedPointInAreaLocator(wide));
            }
        }
        Geometry piece = facts.colouring().model().section(number).outline();
        return new Seen(number, spools, areas, new IndexedPointInAreaLocator(piece));
    }

    /** The layer at which the last line lay; 0 where none did. */
    int layer() {
        return layer;
    }

    List<Report.LayerSeen> layers() {
        List<Report.LayerSeen> all = new ArrayList<>();
        for (int i = 1; i < sums.length; i++) {
            Sums s = sums[i];
            all.add(new Report.LayerSeen(i, s.right, s.mixed, s.wrong, s.missing, s.difference, s.marks));
        }
        return all;
    }
}
