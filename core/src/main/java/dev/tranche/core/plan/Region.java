package dev.tranche.core.plan;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;

/**
 * Parts, a zone or a trace with a colour of its own over a range of heights.
 *
 * @param name for people, at most 60 letters
 */
public record Region(String name, Shape shape, SpoolId spool, Range range) {
    public static final int LONGEST_NAME = 60;

    public Region {
        name = Words.oneLine(name == null ? "" : name);
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new Refusal("A region needs a name of at most 60 letters.");
        }
    }

    public Region named(String other) {
        return new Region(other, shape, spool, range);
    }

    public Region of(Shape other) {
        return new Region(name, other, spool, range);
    }

    public Region in(SpoolId other) {
        return new Region(name, shape, other, range);
    }

    public Region over(Range other) {
        return new Region(name, shape, spool, other);
    }
}
