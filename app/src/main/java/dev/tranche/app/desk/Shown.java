package dev.tranche.app.desk;

import java.util.Optional;

/**
 * What the page showed when an edit was made on it.
 *
 * @param seen edition of the plan
 * @param layer under the cursor; null where the page had none yet
 * @param beside layer that is kept beside it, if any
 */
record Shown(long seen, Integer layer, Integer beside) {
    Optional<Integer> cursor() {
        return Optional.ofNullable(layer);
    }

    Optional<Integer> kept() {
        return Optional.ofNullable(beside);
    }
}
