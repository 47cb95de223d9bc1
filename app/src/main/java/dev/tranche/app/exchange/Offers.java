package dev.tranche.app.exchange;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Models that came together and wait for their owner to choose; kept for an hour. */
@Component
public class Offers {
    private final Cache<String, Offer> offers = Caffeine.newBuilder()
            .maximumSize(100)
            .expireAfterWrite(Duration.ofHours(1))
            .build();

    /**
     * A model to be chosen.
     *
     * @param parts of the file that it is; none for all of it
     * @param size W × D × H, in words, or why it cannot be read
     * @param picture of it, PNG
     */
    public record Candidate(
            ModelFile file, String name, List<Integer> parts, String size, boolean readable, byte[] picture) {}

    public record Offer(String id, String name, List<Candidate> candidates) {
        /** Whether they are things of one file, and not files. */
        public boolean ofOneFile() {
            return !candidates.get(0).parts().isEmpty();
        }
    }

    Offer make(String name, List<Candidate> candidates) {
        Offer offer = new Offer(UUID.randomUUID().toString().substring(0, 8), name, List.copyOf(candidates));
        offers.put(offer.id(), offer);
        return offer;
    }

    public Offer get(String id) {
        Offer offer = offers.getIfPresent(id);
        if (offer == null) {
            throw new Refusal("What was to be chosen from is not kept any more; give the archive again.");
        }
        return offer;
    }
}
