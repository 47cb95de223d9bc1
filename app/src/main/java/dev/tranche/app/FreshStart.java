package dev.tranche.app;

import java.nio.charset.StandardCharsets;
import java.util.function.IntConsumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Ends the process where memory has run out and nobody is left to say so; {@code ./tranche} starts it again. Where a file takes the
 * last of the memory, the error can meet any thread: what answers for its work refuses it in a sentence, but one that lets requests in
 * dies of it, and nobody would be answered any more. What was acknowledged is stored, and survives this as it does a power cut.
 */
final class FreshStart implements Thread.UncaughtExceptionHandler {
    /** By which whoever started it knows that it is to be started again. */
    static final int AGAIN = 70;

    private static final Logger LOG = LoggerFactory.getLogger(FreshStart.class);

    /** Made beforehand: there is no room for it any more. */
    private static final byte[] SENTENCE =
            """
            Tranche ran out of memory and ends; what was stored is safe. To give it more: TRANCHE_JAVA_OPTIONS=-Xmx2g ./tranche start
            """
                    .getBytes(StandardCharsets.UTF_8);

    private final IntConsumer end;

    /** @param end ends the process with a status, without a look back */
    FreshStart(IntConsumer end) {
        this.end = end;
    }

    @Override
    public void uncaughtException(Thread thread, Throwable error) {
        if (error instanceof OutOfMemoryError) {
            try {
                System.err.write(SENTENCE, 0, SENTENCE.length);
            } finally {
                end.accept(AGAIN);
            }
        } else {
            LOG.error("“{}” ended", thread.getName(), error);
        }
    }
}
