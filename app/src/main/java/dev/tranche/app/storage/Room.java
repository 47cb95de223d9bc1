package dev.tranche.app.storage;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.nio.file.Files;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Whether the disk has room for an edit. A database that runs out of it while it writes has to be closed; so nothing is
 * written well before that, and reading goes on.
 */
@Component
public class Room {
    private static final long LEAST = 48L << 20;

    private final TrancheProperties properties;

    public Room(TrancheProperties properties) {
        this.properties = properties;
    }

    /** What is the matter, if there is too little room for an edit. */
    public Optional<String> sentence() {
        return sentence(0);
    }

    /**
     * What is the matter, if there is too little room.
     *
     * @param bytes that are to be written, beside what an edit writes
     */
    public Optional<String> sentence(long bytes) {
        try {
            long left = Files.getFileStore(properties.data()).getUsableSpace();
            return left - LEAST >= bytes
                    ? Optional.empty()
                    : Optional.of(Words.format(
                            "The disk with Tranche's data has %d MB left, and %d are needed to %s safely; "
                                    + "nothing was changed. Make room and do it again.",
                            left >> 20,
                            LEAST + bytes + (1 << 20) - 1 >> 20,
                            bytes >> 20 == 0 ? "change anything" : "do this"));
        } catch (IOException e) {
            return Optional.of("The folder with Tranche's data, " + properties.data()
                    + ", cannot be reached; nothing was changed.");
        }
    }

    /**
     * @param bytes as above
     * @throws Refusal if there is too little
     */
    public void require(long bytes) {
        sentence(bytes).ifPresent(said -> {
            throw new Refusal(said);
        });
    }
}
