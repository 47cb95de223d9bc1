package dev.tranche.app.clock;

import java.util.Optional;

/** Knows what prints under way have made of their schedules. */
public interface Underway {
    /** The stops of a plan's print that are still to come, as a calendar; empty where none is under way. */
    Optional<String> calendar(String plan);
}
