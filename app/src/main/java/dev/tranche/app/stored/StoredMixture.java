package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.Optional;

/**
 * A mixture of a plan.
 *
 * @param number below 0, as the plan's starts and regions name it
 * @param of what it is made of, where it begins if it is a fade
 * @param fade what it turns into; nothing of a blend
 */
public record StoredMixture(
        long number, List<Portion> of, @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Fading> fade) {

    static StoredMixture of(Mixture m) {
        if (m instanceof Mixture.Fade f) {
            return new StoredMixture(
                    f.id().value(),
                    portions(f.from()),
                    Optional.of(new Fading(portions(f.to()), Micrometres.of(f.begins()), Micrometres.of(f.ends()))));
        }
        return new StoredMixture(m.id().value(), portions(m.recipe(0)), Optional.empty());
    }

    Mixture mixture() {
        SpoolId id = new SpoolId(number);
        return fade.<Mixture>map(f -> new Mixture.Fade(
                        id,
                        recipe(of),
                        recipe(f.to()),
                        f.begins().height(),
                        f.ends().height()))
                .orElseGet(() -> new Mixture.Blend(id, recipe(of)));
    }

    /** How much of which spool. */
    record Portion(SpoolNumber spool, double share) {}

    /** What a fade turns into, and over which heights. */
    record Fading(List<Portion> to, Micrometres begins, Micrometres ends) {}

    private static List<Portion> portions(Recipe recipe) {
        return recipe.portions().stream()
                .map(p -> new Portion(SpoolNumber.of(p.spool()), p.share()))
                .toList();
    }

    private static Recipe recipe(List<Portion> portions) {
        return new Recipe(portions.stream()
                .map(p -> new Recipe.Portion(p.spool().id(), p.share()))
                .toList());
    }
}
