package dev.tranche.core.plan;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * The mixtures of a plan.
 *
 * @param list in the order in which they were made, no two by one number
 */
public record Mixtures(List<Mixture> list) {
    public static final Mixtures NONE = new Mixtures(List.of());

    public Mixtures {
        list = List.copyOf(list);
        if (list.stream().map(Mixture::id).distinct().count() < list.size()) {
            throw new IllegalArgumentException("two mixtures by one number: " + list);
        }
    }

    /** A number that none has. */
    public SpoolId next() {
        return new SpoolId(list.stream().mapToLong(m -> m.id().value()).min().orElse(0) - 1);
    }

    public Optional<Mixture> find(SpoolId id) {
        return id.isMixture() ? list.stream().filter(m -> m.id().equals(id)).findFirst() : Optional.empty();
    }

    /** @throws Refusal if there is none by that number */
    public Mixture get(SpoolId id) {
        return find(id).orElseThrow(() -> new Refusal("That paint is not in this plan any more; reload the page."));
    }

    /** With {@code mixture}, in the place of the one by its number if there is one. */
    Mixtures with(Mixture mixture) {
        List<Mixture> changed = new ArrayList<>(list);
        int at = list.stream().map(Mixture::id).toList().indexOf(mixture.id());
        if (at < 0) {
            changed.add(mixture);
        } else {
            changed.set(at, mixture);
        }
        return new Mixtures(changed);
    }

    Mixtures without(SpoolId id) {
        return new Mixtures(list.stream().filter(m -> !m.id().equals(id)).toList());
    }

    /** The spools that are printed where {@code id} is; a spool is itself. */
    public Set<SpoolId> spools(SpoolId id) {
        return find(id).map(Mixture::spools).orElse(Set.of(id));
    }

    /** The spool that {@code id} begins with most of; a spool is itself. */
    public SpoolId mainly(SpoolId id) {
        return find(id).map(m -> m.recipe(0).most()).orElse(id);
    }

    /** The spool that {@code id} ends with most of; a spool is itself. */
    public SpoolId endingIn(SpoolId id) {
        return find(id).map(m -> m.recipe(Mixture.TURNED).most()).orElse(id);
    }

    /** Fades that begin or end at {@code border} go with it, as far as they still rise. */
    Mixtures moved(Height border, Height to) {
        return fading(f -> {
            Height begins = f.begins().equals(border) ? to : f.begins();
            Height ends = f.ends().equals(border) ? to : f.ends();
            return ends.isAbove(begins) ? f.over(begins, ends) : f;
        });
    }

    Mixtures scaledBy(double factor) {
        return fading(f -> {
            Height begins = f.begins().times(factor);
            Height ends = f.ends().times(factor);
            return ends.isAbove(begins) ? f.over(begins, ends) : f;
        });
    }

    private Mixtures fading(UnaryOperator<Mixture.Fade> other) {
        return new Mixtures(list.stream()
                .map(m -> m instanceof Mixture.Fade f ? other.apply(f) : m)
                .toList());
    }

    Mixtures renumbered(UnaryOperator<SpoolId> other) {
        return new Mixtures(list.stream().map(m -> m.renumbered(other)).toList());
    }

    /**
     * A shelf on which each mixture stands as the spool it would be, fades half turned; those of spools that are not there
     * are left out.
     */
    public Map<SpoolId, Spool> onto(Map<SpoolId, Spool> shelf) {
        Map<SpoolId, Spool> all = new HashMap<>(shelf);
        for (Mixture m : list) {
            if (shelf.keySet().containsAll(m.spools())) {
                String name = m.name(s -> shelf.get(s).name());
                all.put(m.id(), m.recipe(Mixture.TURNED / 2).mixed(m.id(), name, shelf::get));
            }
        }
        return Map.copyOf(all);
    }

    /** Those that are among {@code used}. */
    public List<Mixture> among(Set<SpoolId> used) {
        return list.stream().filter(m -> used.contains(m.id())).toList();
    }
}
