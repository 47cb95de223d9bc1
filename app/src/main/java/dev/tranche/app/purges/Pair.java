package dev.tranche.app.purges;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;

/**
 * The pair of spools whose cell is open; nothing where none is.
 *
 * @param out id of the spool that comes out, {@code in} of the one that goes in
 */
record Pair(Long out, Long in) {
    boolean open() {
        return out != null && in != null && !out.equals(in);
    }

    SpoolId from() {
        return new SpoolId(required(out));
    }

    SpoolId to() {
        return new SpoolId(required(in));
    }

    private static long required(Long id) {
        if (id == null) {
            throw new Refusal("Choose a pair of spools first.");
        }
        return id;
    }
}
