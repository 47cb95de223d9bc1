package dev.tranche.core.returns;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Course;
import dev.tranche.core.layer.Outlook;
import dev.tranche.core.layer.Outlooks;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Room;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.returns.ReturnPath.Stain;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Thing;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/**
 * The return paths of a plan, one a swap at which the nozzle leaves the print.
 *
 * @param paths in the order of the swaps, the first {@value #MOST_PATHS} of them
 * @param tower where it stands, if the plan prints one
 * @param waits every place at which the nozzle waits or purges at a swap, once
 */
public record ReturnPaths(List<ReturnPath> paths, Optional<TowerStand> tower, List<Point> waits) {
    /** A shorter stretch over another colour is rounding, mm. */
    private static final double LEAST = 0.1;
    /** Of more swaps only so many are looked at: nobody stands by for more. */
    private static final int MOST_PATHS = 2000;
    /** Widths of a tower are tried so far apart, mm. */
    private static final double EACH_WIDTH = 10;

    private static final double EACH_PLACE = 6;

    public ReturnPaths {
        paths = List.copyOf(paths);
        waits = List.copyOf(waits);
    }

    /**
     * Without a tower.
     *
     * <p>Where a sliced file is at hand, a path ends where the file begins with the new colour. Without one that is up to the
     * slicing program; taken is the nearest place of the colour in the copy that is printed first.
     *
     * @param things that {@code order} prints one after another, if it does
     * @param footprint of the model, whose copies are {@code layout}'s
     */
    public static ReturnPaths of(
            PrintOrder order,
            Ledger ledger,
            Colouring colouring,
            Supplier<List<Thing>> things,
            Footprint footprint,
            Layout layout) {
        boolean apart = order.passes().get(0).thing().isPresent();
        Walk walk = new Walk(colouring, things, apart, footprint, layout);
        List<Leaving> leavings = new ArrayList<>();
        int swap = 0;
        for (int moment = 0; moment < order.passes().size(); moment++) {
            Pass pass = order.passes().get(moment);
            if (swap < ledger.swaps().size() && ledger.swaps().get(swap).next() == pass) {
                leavings.add(new Leaving(ledger.swaps().get(swap++), pass, moment));
            }
            walk.print(pass, moment);
        }
        List<ReturnPath> paths = leavings.stream()
                .filter(l -> !l.swap().dryRun().wayBack().isEmpty())
                .limit(MOST_PATHS)
                .toList()
                .parallelStream()
                .flatMap(l -> walk.back(l).stream())
                .toList();
        // Most swaps go alike, and share what was found out by running them dry.
        Set<DryRun> runs = Collections.newSetFromMap(new IdentityHashMap<>());
        List<Point> waits = Stream.concat(
                        ledger.firstLoad().stream().map(f -> f.dryRun()),
                        ledger.swaps().stream().map(Swap::dryRun))
                .filter(runs::add)
                .map(DryRun::wayBack)
                .filter(way -> !way.isEmpty())
                .map(way -> way.get(0))
                .distinct()
                .toList();
        return new ReturnPaths(paths, Optional.empty(), waits);
    }

    /**
     * The same with a tower: where the plate has it, or else where it helps most.
     *
     * @param rectangle it covers
     */
    public ReturnPaths past(Footprint rectangle, Plate plate, Layout layout, Bed bed) {
        Envelope size = rectangle.outline().getEnvelopeInternal();
        Spot spot = plate.tower().orElseGet(() -> new TowerSearch(this, layout, plate.room(), bed)
                .bestOrNearest(size.getWidth(), size.getHeight()));
        return past(TowerStand.at(spot, rectangle, plate.tower().isPresent(), layout, plate.room(), bed));
    }

    /** A width, mm, at which the tower would have room somewhere, nearest to the one it has. */
    public OptionalDouble widthWithRoom(Layout layout, double gap, Bed bed) {
        TowerStand stand = tower.orElseThrow();
        Room room = new Room(layout, gap, bed);
        double area = stand.width() * stand.depth();
        return IntStream.rangeClosed(1, (int) (bed.bounds().getDiameter() / EACH_WIDTH))
                .mapToDouble(i -> EACH_WIDTH * i)
                .boxed()
                .sorted(Comparator.comparingDouble(w -> Math.abs(w - stand.width())))
                .mapToDouble(Double::doubleValue)
                .filter(w -> room.hasAnywhere(Footprint.rectangle(w, area / w), EACH_PLACE))
                .findFirst();
    }

    /** The same with a tower that stands there. */
    public ReturnPaths past(TowerStand stand) {
        return new ReturnPaths(paths.stream().map(p -> p.past(stand.outline())).toList(), Optional.of(stand), waits);
    }

    public List<ReturnPath> unclean() {
        return paths.stream().filter(p -> !p.isClean()).toList();
    }

    /** What stands somewhere, and how places on the bed become places in the model there, and back. */
    private record Stand(
            int copy,
            Standing standing,
            List<LayerColours> layers,
            AffineTransformation into,
            AffineTransformation from) {}

    /** A swap, and the pass that follows it, by its place among all. */
    private record Leaving(Swap swap, Pass next, int moment) {}

    /** The nearest place of a colour, where several layers are alike in the lowest of them, from 0. */
    private record Sought(Coordinate from, int copy, int lowest, SpoolId spool) {}

    private static final class Walk {
        private final Map<Sought, Optional<Coordinate>> nearest = new ConcurrentHashMap<>();
        private final Layout layout;
        private final boolean apart;
        private final List<Stand> stands = new ArrayList<>();

        Walk(Colouring colouring, Supplier<List<Thing>> things, boolean apart, Footprint footprint, Layout layout) {
            this.layout = layout;
            this.apart = apart;
            MultiPolygon model = footprint.inModel();
            Outlooks outlooks = colouring.outlooks();
            Optional<Outlook> fromBeneath = outlooks.corners() <= Outlooks.QUICK || outlooks.known()
                    ? Optional.of(outlooks.from(false, Progress.UNHEARD))
                    : Optional.empty();
            if (apart) {
                for (Thing t : things.get()) {
                    if (t.copy() < layout.copies().size()) {
                        MultiPolygon island = Areas.of(model.getGeometryN(t.island()));
                        add(t.copy(), new Standing(t.layers(), island, fromBeneath), t.layers(), footprint);
                    }
                }
            } else {
                // All copies are as far as one another.
                Standing standing = new Standing(colouring.layers(), model, fromBeneath);
                for (int copy = 0; copy < layout.copies().size(); copy++) {
                    add(copy, standing, colouring.layers(), footprint);
                }
            }
        }

        private void add(int copy, Standing standing, List<LayerColours> layers, Footprint footprint) {
            Spot spot = layout.copies().get(copy).spot();
            stands.add(new Stand(copy, standing, layers, footprint.into(spot), footprint.from(spot)));
        }

        /** Where the next pass is printed first, if its place is known. */
        private Optional<Stand> standOf(Pass pass) {
            int at = apart ? pass.thing().orElse(-1) : 0;
            return at >= 0 && at < stands.size() ? Optional.of(stands.get(at)) : Optional.empty();
        }

        void print(Pass pass, int moment) {
            standOf(pass).ifPresent(s -> s.standing().print(pass, moment));
        }

        Optional<ReturnPath> back(Leaving leaving) {
            Swap swap = leaving.swap();
            Pass next = leaving.next();
            List<Coordinate> places = new ArrayList<>(swap.dryRun().wayBack().stream()
                    .map(p -> new Coordinate(p.x(), p.y()))
                    .toList());
            if (swap.door().isPresent()) {
                places.addAll(swap.door().get().way());
            } else {
                // Nobody knows where the print was left.
                places.remove(places.size() - 1);
                Coordinate from = places.get(places.size() - 1);
                Optional<Coordinate> nearest = standOf(next).flatMap(s -> nearest(from, next, s));
                if (nearest.isEmpty()) {
                    return Optional.empty();
                }
                places.add(nearest.get());
            }
            return Optional.of(new ReturnPath(
                    swap.moment().number(),
                    swap.turns(),
                    next.layer(),
                    next.spool(),
                    places,
                    OptionalDouble.empty(),
                    stains(places, leaving)));
        }

        private Optional<Coordinate> nearest(Coordinate from, Pass next, Stand stand) {
            List<LayerColours> layers = stand.layers();
            int lowest = next.layer() - 1;
            while (lowest > 0 && layers.get(lowest - 1) == layers.get(next.layer() - 1)) {
                lowest--;
            }
            return nearest.computeIfAbsent(new Sought(from, stand.copy(), lowest, next.spool()), s -> stand.standing()
                            .nearest(s.lowest(), s.spool(), stand.into().transform(from, new Coordinate())))
                    .map(c -> stand.from().transform(c, new Coordinate()));
        }

        private List<Stain> stains(List<Coordinate> places, Leaving leaving) {
            List<Stain> stains = new ArrayList<>();
            double done = 0;
            for (int i = 1; i < places.size(); i++) {
                double length = places.get(i - 1).distance(places.get(i));
                if (length > LEAST) {
                    leg(places.get(i - 1), places.get(i), done, leaving, stains);
                }
                done += length;
            }
            stains.sort(Comparator.comparingDouble(Stain::from));
            return stains;
        }

        private void leg(Coordinate from, Coordinate to, double done, Leaving leaving, List<Stain> stains) {
            Envelope box = new Envelope(from, to);
            for (Stand stand : stands) {
                if (!layout.copies()
                        .get(stand.copy())
                        .outline()
                        .getEnvelopeInternal()
                        .intersects(box)) {
                    continue;
                }
                Course course = Course.between(
                        stand.into().transform(from, new Coordinate()),
                        stand.into().transform(to, new Coordinate()));
                boolean covers = !apart
                        || standOf(leaving.next()).filter(s -> s == stand).isPresent();
                stand.standing().otherThan(leaving.next(), leaving.moment(), course, covers).stream()
                        .map(s -> new Stain(
                                stand.copy(),
                                s.spool(),
                                done + s.span().from() * course.length(),
                                done + s.span().to() * course.length()))
                        .filter(s -> s.length() >= LEAST)
                        .forEach(stains::add);
            }
        }
    }
}
