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

    Room(TrancheProperties properties) {
        this.properties = properties;
    }

    /** What is the matter, if there is too little room. */
    public Optional<String> sentence() {
        try {
            long left = Files.getFileStore(properties.data()).getUsableSpace();
            return left >= LEAST
                    ? Optional.empty()
                    : Optional.of(Words.format(
                            "The disk with Tranche's data has %d MB left, and %d are needed to change anything safely; "
                                    + "nothing was changed. Make room and do it again.",
                            left >> 20, LEAST >> 20));
        } catch (IOException e) {
            return Optional.of("The folder with Tranche's data, " + properties.data()
                    + ", cannot be reached; nothing was changed.");
        }
    }

    /** @throws Refusal if there is too little */
    public void require() {
        sentence().ifPresent(said -> {
            throw new Refusal(said);
        });
    }
}
