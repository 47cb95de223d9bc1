package dev.tranche.core.returns;

import dev.tranche.core.machine.Bed;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;

/**
 * A change that leaves fewer return paths unclean.
 *
 * @param label what the button says will happen
 * @param plate what becomes of the plate whose copies stand where they stand now, and {@code purge} of where purge goes
 * @param left how many paths are still unclean
 */
public record Cure(String label, UnaryOperator<Plate> plate, UnaryOperator<PurgeSettings> purge, int left) {
    /** Widths are tried so far apart, mm, and turns so many degrees. */
    private static final int EACH_WIDTH = 5;

    private static final int EACH_TURN = 15;
    private static final double WIDEST = 120;
    /** For more copies or swaps it is not tried who could be first. */
    private static final int MOST_TRIALS = 600;

    /**
     * All that is known, the best first.
     *
     * @param now the paths with the tower where it stands
     * @param bare the same without a tower
     * @param startingWith the same again, if the copy of that number, from 0, were printed first
     * @param place where purge goes; nothing where no tower can grow
     * @param height of a layer, mm
     */
    public static List<Cure> of(
            ReturnPaths now,
            ReturnPaths bare,
            Function<Integer, ReturnPaths> startingWith,
            Layout layout,
            double gap,
            Bed bed,
            Optional<PurgePlace> place,
            double height) {
        int bad = now.unclean().size();
        if (bad == 0) {
            return List.of();
        }
        TowerSearch search = new TowerSearch(bare, layout, gap, bed);
        List<Cure> cures = new ArrayList<>();
        if (now.tower().isPresent()) {
            TowerStand stand = now.tower().get();
            Trial trial = new Trial(bare, stand, layout, gap, bed);
            trial.turned().ifPresent(cures::add);
            place.flatMap(trial::wider).ifPresent(cures::add);
            search.best(stand.width(), stand.depth()).flatMap(trial::moved).ifPresent(cures::add);
        } else {
            place.filter(p -> p.towerWidth().isEmpty())
                    .flatMap(p -> small(bare, search, layout, gap, bed, p, height))
                    .ifPresent(cures::add);
        }
        if (layout.copies().size() > 1 && layout.copies().size() * now.paths().size() <= MOST_TRIALS) {
            first(now, startingWith, layout).ifPresent(cures::add);
        }
        return cures.stream()
                .filter(c -> c.left < bad)
                .sorted(Comparator.comparingInt(Cure::left))
                .toList();
    }

    private static int left(ReturnPaths bare, TowerStand stand) {
        return bare.past(stand).unclean().size();
    }

    /** What could become of a tower that stands. */
    private record Trial(ReturnPaths bare, TowerStand stand, Layout layout, double gap, Bed bed) {

        private Optional<TowerStand> at(Spot spot, double width) {
            double depth = stand.width() * stand.depth() / width;
            TowerStand other = TowerStand.at(spot, Footprint.rectangle(width, depth), true, layout, gap, bed);
            return other.stands() ? Optional.of(other) : Optional.empty();
        }

        Optional<Cure> moved(Spot to) {
            return at(to, stand.width())
                    .map(s -> new Cure(
                            Words.format(
                                    "Move the tower to X %s Y %s%s",
                                    mm(to.x()),
                                    mm(to.y()),
                                    to.turn() == 0 ? "" : Words.format(", turned by %.0f°", to.turn())),
                            p -> p.withTower(to),
                            UnaryOperator.identity(),
                            left(bare, s)));
        }

        Optional<Cure> turned() {
            return IntStream.iterate(EACH_TURN, t -> t < 180, t -> t + EACH_TURN)
                    .mapToObj(turn -> at(stand.spot().by(0, 0, turn), stand.width()))
                    .flatMap(Optional::stream)
                    .min(Comparator.comparingInt(s -> left(bare, s)))
                    .map(s -> new Cure(
                            Words.format("Turn the tower to %.0f°", s.spot().turn()),
                            p -> p.withTower(s.spot()),
                            UnaryOperator.identity(),
                            left(bare, s)));
        }

        Optional<Cure> wider(PurgePlace place) {
            return IntStream.iterate(
                            EACH_WIDTH * (int) Math.floor(stand.width() / EACH_WIDTH + 1),
                            w -> w <= WIDEST,
                            w -> w + EACH_WIDTH)
                    .mapToObj(width -> at(stand.spot(), width))
                    .flatMap(Optional::stream)
                    .min(Comparator.comparingInt(s -> left(bare, s)))
                    .map(s -> new Cure(
                            Words.format("Make the tower %s mm wide", mm(s.width())),
                            p -> p.withTower(s.spot()),
                            purge -> purge.into(place.wide(s.width())),
                            left(bare, s)));
        }
    }

    /** Beside a purge that goes elsewhere. */
    private static Optional<Cure> small(
            ReturnPaths bare, TowerSearch search, Layout layout, double gap, Bed bed, PurgePlace place, double height) {
        PurgePlace.SmallTower tower = PurgePlace.SmallTower.USUAL;
        double depth = tower.volume().cubicMillimetres() / tower.width() / height;
        return search.best(tower.width(), depth)
                .map(spot -> TowerStand.at(spot, Footprint.rectangle(tower.width(), depth), true, layout, gap, bed))
                .map(s -> new Cure(
                        "Put a small tower between",
                        p -> p.withTower(s.spot()),
                        purge -> purge.into(place.with(tower)),
                        left(bare, s)));
    }

    private static Optional<Cure> first(ReturnPaths now, Function<Integer, ReturnPaths> startingWith, Layout layout) {
        int best = 0;
        int least = now.unclean().size();
        for (int copy = 1; copy < layout.copies().size(); copy++) {
            ReturnPaths other = startingWith.apply(copy);
            int left = now.tower().map(other::past).orElse(other).unclean().size();
            if (left < least) {
                best = copy;
                least = left;
            }
        }
        int copy = best;
        return best == 0
                ? Optional.empty()
                : Optional.of(new Cure(
                        Words.format("Print copy %d first", copy + 1),
                        p -> p.startingWith(copy),
                        UnaryOperator.identity(),
                        least));
    }

    private static String mm(double value) {
        return value == Math.rint(value) ? Words.format("%.0f", value) : Words.format("%.1f", value);
    }
}
