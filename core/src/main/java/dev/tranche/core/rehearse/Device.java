package dev.tranche.core.rehearse;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/** A printer at the end of a wire, and the hands beside it. */
public interface Device {
    /** Lines to it. */
    OutputStream lines();

    /** What it says. */
    InputStream answers();

    /** As {@link StandIn#hand}. */
    String hand(String does) throws IOException;
}
