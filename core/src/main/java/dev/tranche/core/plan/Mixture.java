package dev.tranche.core.plan;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * A paint that no spool holds: plastics that a nozzle with several inputs runs together. A plan names it as it names a spool.
 */
public sealed interface Mixture {
    /** As which it has its letter in the plan, below 0. */
    SpoolId id();

    /** The spools that are in it anywhere. */
    Set<SpoolId> spools();

    /** How far it has turned from what it begins with into what it ends with at {@code height}, 0…{@value #TURNED}. */
    int shade(Height height);

    /** What it is made of in one of its shades. */
    Recipe recipe(int shade);

    /** What it is called where spools are called by {@code names}. */
    String name(Function<SpoolId, String> names);

    /** The same of spools known by other numbers. */
    Mixture renumbered(UnaryOperator<SpoolId> other);

    /** Of a fade that has turned; so fine because a thousandth of a dark spool shows in a light one. */
    int TURNED = 1_000_000;

    /** One recipe at all heights. */
    record Blend(SpoolId id, Recipe recipe) implements Mixture {
        public Blend {
            requireOwn(id);
            if (recipe.portions().size() < 2) {
                throw new Refusal("A blend of one spool is that spool; give a second one a share.");
            }
        }

        @Override
        public Set<SpoolId> spools() {
            return recipe.spools();
        }

        @Override
        public int shade(Height height) {
            return 0;
        }

        @Override
        public Recipe recipe(int shade) {
            return recipe;
        }

        @Override
        public String name(Function<SpoolId, String> names) {
            return recipe.name(names);
        }

        @Override
        public Blend renumbered(UnaryOperator<SpoolId> other) {
            return new Blend(id, recipe.renumbered(other));
        }
    }

    /**
     * One recipe turning into another, evenly over height; outside the range the ends hold.
     *
     * @param begins height at and below which it is {@code from}
     * @param ends height at and above which it is {@code to}
     */
    record Fade(SpoolId id, Recipe from, Recipe to, Height begins, Height ends) implements Mixture {
        public Fade {
            requireOwn(id);
            if (!ends.isAbove(begins)) {
                throw Refusal.of(
                        "A fade from %s to %s mm does not rise; its end must be above its beginning.", begins, ends);
            }
            if (from.equals(to)) {
                throw new Refusal("A fade into itself changes nothing; choose two different ends.");
            }
        }

        @Override
        public Set<SpoolId> spools() {
            Set<SpoolId> all = new LinkedHashSet<>(from.spools());
            all.addAll(to.spools());
            return all;
        }

        @Override
        public int shade(Height height) {
            double way = (height.micrometres() - begins.micrometres())
                    / (double) (ends.micrometres() - begins.micrometres());
            return (int) Math.rint(TURNED * Math.max(0, Math.min(1, way)));
        }

        @Override
        public Recipe recipe(int shade) {
            return from.towards(to, shade / (double) TURNED);
        }

        @Override
        public String name(Function<SpoolId, String> names) {
            return from.name(names) + " to " + to.name(names);
        }

        @Override
        public Fade renumbered(UnaryOperator<SpoolId> other) {
            return new Fade(id, from.renumbered(other), to.renumbered(other), begins, ends);
        }

        public Fade over(Height lower, Height upper) {
            return new Fade(id, from, to, lower, upper);
        }
    }

    private static void requireOwn(SpoolId id) {
        if (!id.isMixture()) {
            throw new IllegalArgumentException("a mixture has a number below 0, not " + id);
        }
    }
}
