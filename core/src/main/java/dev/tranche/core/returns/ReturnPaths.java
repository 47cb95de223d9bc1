package dev.tranche.core.returns;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.geometry.Course;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Room;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.returns.ReturnPath.Stain;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.distance.DistanceOp;

/**
 * The return paths of a plan, one a swap at which the nozzle leaves the print.
 *
 * @param paths in the order of the swaps
 * @param tower where it stands, if the plan prints one
 * @param waits every place at which the nozzle waits or purges at a swap, once
 */
public record ReturnPaths(List<ReturnPath> paths, Optional<TowerStand> tower, List<Point> waits) {
    /** A shorter stretch over another colour is rounding, mm. */
    private static final double LEAST = 0.1;
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
     * @param footprint of the model, whose copies are {@code layout}'s
     */
    public static ReturnPaths of(
            PrintOrder order, Ledger ledger, Colouring colouring, Footprint footprint, Layout layout) {
        Walk walk = new Walk(colouring, footprint, layout);
        int swap = 0;
        SpoolId loaded = order.passes().get(0).spool();
        for (Pass pass : order.passes()) {
            if (!pass.spool().equals(loaded)) {
                walk.swap(ledger.swaps().get(swap++), pass);
                loaded = pass.spool();
            }
            walk.standing.print(pass);
        }
        List<Point> waits = Stream.concat(
                        ledger.firstLoad().stream().map(f -> f.dryRun()),
                        ledger.swaps().stream().map(Swap::dryRun))
                .distinct()
                .map(run -> run.wayBack())
                .filter(way -> !way.isEmpty())
                .map(way -> way.get(0))
                .distinct()
                .toList();
        return new ReturnPaths(walk.paths, Optional.empty(), waits);
    }

    /**
     * The same with a tower: where the plate has it, or else where it helps most.
     *
     * @param rectangle it covers
     */
    public ReturnPaths past(Footprint rectangle, Plate plate, Layout layout, Bed bed) {
        Envelope size = rectangle.outline().getEnvelopeInternal();
        Spot spot = plate.tower().orElseGet(() -> new TowerSearch(this, layout, plate.gap(), bed)
                .bestOrNearest(size.getWidth(), size.getHeight()));
        return past(TowerStand.at(spot, rectangle, plate.tower().isPresent(), layout, plate.gap(), bed));
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

    private static final class Walk {
        final Standing standing;
        final List<ReturnPath> paths = new ArrayList<>();
        private final Colouring colouring;
        private final Layout layout;
        private final List<AffineTransformation> into;

        Walk(Colouring colouring, Footprint footprint, Layout layout) {
            this.colouring = colouring;
            this.layout = layout;
            this.standing = new Standing(colouring, footprint.inModel());
            this.into =
                    layout.copies().stream().map(c -> footprint.into(c.spot())).toList();
        }

        void swap(Swap swap, Pass next) {
            List<Coordinate> places = new ArrayList<>(swap.dryRun().wayBack().stream()
                    .map(p -> new Coordinate(p.x(), p.y()))
                    .toList());
            if (places.isEmpty()) {
                return;
            }
            if (swap.door().isPresent()) {
                places.addAll(swap.door().get().way());
            } else {
                // Nobody knows where the print was left.
                places.remove(places.size() - 1);
                Optional<Coordinate> nearest = nearest(places.get(places.size() - 1), next);
                if (nearest.isEmpty()) {
                    return;
                }
                places.add(nearest.get());
            }
            paths.add(new ReturnPath(
                    swap.number(), next.layer(), next.spool(), places, OptionalDouble.empty(), stains(places, next)));
        }

        /** Of the colour in the first copy. */
        private Optional<Coordinate> nearest(Coordinate from, Pass next) {
            if (into.isEmpty()) {
                return Optional.empty();
            }
            AffineTransformation move = into.get(0);
            Geometry there = colouring
                    .model()
                    .section(next.layer())
                    .outline()
                    .getFactory()
                    .createPoint(move.transform(from, new Coordinate()));
            Optional<Tint> tint = colouring.layer(next.layer()).tint(next.spool());
            return tint.flatMap(t -> t.cells().stream()
                            .map(cell -> DistanceOp.nearestPoints(cell, there)[0])
                            .min(Comparator.comparingDouble(c -> c.distance(there.getCoordinate()))))
                    .map(c -> inverse(move).transform(c, new Coordinate()));
        }

        private static AffineTransformation inverse(AffineTransformation move) {
            try {
                return move.getInverse();
            } catch (org.locationtech.jts.geom.util.NoninvertibleTransformationException never) {
                throw new IllegalStateException(never);
            }
        }

        private List<Stain> stains(List<Coordinate> places, Pass next) {
            List<Stain> stains = new ArrayList<>();
            double done = 0;
            for (int i = 1; i < places.size(); i++) {
                double length = places.get(i - 1).distance(places.get(i));
                if (length > LEAST) {
                    leg(places.get(i - 1), places.get(i), done, next, stains);
                }
                done += length;
            }
            stains.sort(Comparator.comparingDouble(Stain::from));
            return stains;
        }

        private void leg(Coordinate from, Coordinate to, double done, Pass next, List<Stain> stains) {
            Envelope box = new Envelope(from, to);
            for (int copy = 0; copy < into.size(); copy++) {
                int number = copy;
                if (!layout.copies().get(copy).outline().getEnvelopeInternal().intersects(box)) {
                    continue;
                }
                Course course = Course.between(
                        into.get(copy).transform(from, new Coordinate()),
                        into.get(copy).transform(to, new Coordinate()));
                standing.otherThan(next, course).stream()
                        .map(s -> new Stain(
                                number,
                                s.spool(),
                                done + s.span().from() * course.length(),
                                done + s.span().to() * course.length()))
                        .filter(s -> s.length() >= LEAST)
                        .forEach(stains::add);
            }
        }
    }
}
