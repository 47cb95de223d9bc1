package dev.tranche.core.plan;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.math.BigDecimal;
import java.util.Comparator;
import java.util.DoubleSummaryStatistics;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import java.util.function.ToIntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * Plastics that run together in a nozzle with several inputs.
 *
 * @param portions at most {@value #MOST}, each of another spool of the shelf; together they are all of it
 */
public record Recipe(List<Portion> portions) {
    /** As many as there are nozzles with inputs for. */
    public static final int MOST = 6;
    /** How far the shares may be from 1 in all (domain §10). */
    public static final double TOLERANCE = 0.001;

    /** @param share of the volume, 0 to 1 */
    public record Portion(SpoolId spool, double share) {}

    public Recipe {
        portions = List.copyOf(portions);
        if (portions.isEmpty() || portions.size() > MOST) {
            throw Refusal.of("A blend takes 1 to %d spools, not %d.", MOST, portions.size());
        }
        if (portions.stream().map(Portion::spool).distinct().count() < portions.size()) {
            throw new Refusal("A blend names a spool twice; give each spool one share.");
        }
        if (portions.stream().anyMatch(p -> p.spool().isMixture())) {
            throw new Refusal("A blend is of spools, not of other blends; choose spools.");
        }
        check(portions.stream().map(Portion::share).toList());
    }

    /** @throws Refusal unless each of {@code shares} lies between 0 and 1, and all of them add up to 1 */
    public static void check(List<Double> shares) {
        double sum = 0;
        for (double share : shares) {
            if (!(share >= 0 && share <= 1)) {
                throw Refusal.of("A weight of %s is out of range; give 0 to 1, such as 0.7.", share);
            }
            sum += share;
        }
        if (Math.abs(sum - 1) > TOLERANCE) {
            throw Refusal.of(
                    "The weights sum to %s and must sum to 1; change one of them by %s.",
                    Words.thousandths(sum), Words.thousandths(1 - sum));
        }
    }

    public static Recipe of(SpoolId spool) {
        return new Recipe(List.of(new Portion(spool, 1)));
    }

    /** Without what there is nothing of. */
    public static Recipe of(Map<SpoolId, Double> shares) {
        check(List.copyOf(shares.values()));
        return new Recipe(shares.entrySet().stream()
                .filter(e -> e.getValue() > 0)
                .map(e -> new Portion(e.getKey(), e.getValue()))
                .toList());
    }

    public Set<SpoolId> spools() {
        return portions.stream().map(Portion::spool).collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** How much of it is of {@code spool}, 0 to 1. */
    public double share(SpoolId spool) {
        return portions.stream()
                .filter(p -> p.spool().equals(spool))
                .mapToDouble(Portion::share)
                .sum();
    }

    /** The spool there is most of; the first of those. */
    public SpoolId most() {
        return portions.stream()
                .max(Comparator.comparingDouble(Portion::share))
                .orElseThrow()
                .spool();
    }

    /**
     * Between this and {@code other}.
     *
     * @param way 0 for this one, 1 for the other
     */
    public Recipe towards(Recipe other, double way) {
        Map<SpoolId, Double> shares = new LinkedHashMap<>();
        portions.forEach(p -> shares.merge(p.spool(), (1 - way) * p.share(), Double::sum));
        other.portions.forEach(p -> shares.merge(p.spool(), way * p.share(), Double::sum));
        return of(shares);
    }

    /** What it looks like: one plastic as it is, more of them as {@link Melt} has it. */
    public Srgb colour(Function<SpoolId, Srgb> colours) {
        if (portions.size() == 1) {
            return colours.apply(portions.get(0).spool());
        }
        List<LinearRgb> linear =
                portions.stream().map(p -> colours.apply(p.spool()).linear()).toList();
        return Srgb.of(Melt.mix(linear, portions.stream().map(Portion::share).toList()));
    }

    /** “Leaf 70 + Straw 30”; one plastic by its name alone. */
    public String name(Function<SpoolId, String> names) {
        return portions.size() == 1
                ? names.apply(portions.get(0).spool())
                : portions.stream()
                        .map(p -> Words.format("%s %.0f", names.apply(p.spool()), 100 * p.share()))
                        .collect(Collectors.joining(" + "));
    }

    /**
     * The spool that it would be. Density adds up by volume, the price by mass, and what hides (1 ÷ cover depth) by volume; it is
     * printed as hot as the hottest of them wants, and lasts until the first of them ends.
     *
     * @param shelf knows every spool of it
     */
    Spool mixed(SpoolId id, String name, Function<SpoolId, Spool> shelf) {
        Spool most = shelf.apply(most());
        double density = within(shelf, Spool::density, sum(shelf, Spool::density));
        double price = sum(shelf, s -> s.density() * s.pricePerKilogram().doubleValue()) / density;
        return new Spool(
                id,
                name.length() <= Spool.LONGEST_NAME ? name : name.substring(0, Spool.LONGEST_NAME - 1) + "…",
                most.material(),
                colour(s -> shelf.apply(s).colour()),
                density,
                BigDecimal.valueOf(within(shelf, s -> s.pricePerKilogram().doubleValue(), price)),
                hottest(shelf, Spool::firstLayerTemperature),
                hottest(shelf, Spool::temperature),
                portions.stream()
                        .filter(p -> p.share() > 0)
                        .mapToDouble(p -> shelf.apply(p.spool()).gramsLeft()
                                * density
                                / (p.share() * shelf.apply(p.spool()).density()))
                        .min()
                        .stream()
                        .map(grams -> Math.min(grams, Spool.MOST_GRAMS))
                        .findFirst()
                        .orElse(0),
                within(shelf, Spool::coverDepth, 1 / sum(shelf, s -> 1 / s.coverDepth())));
    }

    private double sum(Function<SpoolId, Spool> shelf, ToDoubleFunction<Spool> of) {
        double all = portions.stream().mapToDouble(Portion::share).sum();
        return portions.stream()
                        .mapToDouble(p -> p.share() * of.applyAsDouble(shelf.apply(p.spool())))
                        .sum()
                / all;
    }

    /** A mean, which rounding may have put beyond what it is a mean of. */
    private double within(Function<SpoolId, Spool> shelf, ToDoubleFunction<Spool> of, double mean) {
        DoubleSummaryStatistics all = portions.stream()
                .mapToDouble(p -> of.applyAsDouble(shelf.apply(p.spool())))
                .summaryStatistics();
        return Math.max(all.getMin(), Math.min(all.getMax(), mean));
    }

    private int hottest(Function<SpoolId, Spool> shelf, ToIntFunction<Spool> of) {
        return portions.stream()
                .mapToInt(p -> of.applyAsInt(shelf.apply(p.spool())))
                .max()
                .orElseThrow();
    }

    Recipe renumbered(UnaryOperator<SpoolId> other) {
        return new Recipe(portions.stream()
                .map(p -> new Portion(other.apply(p.spool()), p.share()))
                .toList());
    }
}
