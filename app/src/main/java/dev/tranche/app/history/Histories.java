package dev.tranche.app.history;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Restored;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.app.stored.Format;
import dev.tranche.core.speech.Refusal;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Keeps histories. Its callers bring the transaction, in which one edit is one revision. */
@Service
@Transactional(propagation = Propagation.MANDATORY, noRollbackFor = Broken.class)
public class Histories {
    private static final int LONGEST_LABEL = 200;
    private static final int MOST_KEPT = 500;
    /** Letters of one revision. */
    private static final int LARGEST = 32 << 20;

    private final HistoryRepository histories;
    private final RevisionRepository revisions;
    private final Json json;
    private final Clock clock;
    private final Cache<Long, Object> contents =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).softValues().build();

    Histories(HistoryRepository histories, RevisionRepository revisions, Json json, Clock clock) {
        this.clock = clock;
        this.histories = histories;
        this.revisions = revisions;
        this.json = json;
    }

    /**
     * Whose history it is.
     *
     * @param what in a sentence: plan, printer
     * @param id letters, digits and dashes
     * @param format of its content
     */
    public record Owner<T>(String what, String id, Format<T, ?> format) {
        String key() {
            return what + "-" + id;
        }
    }

    public <T> Version<T> begin(Owner<T> owner, T content) {
        HistoryEntity history = new HistoryEntity();
        history.owner = owner.key();
        histories.save(history);
        save(owner, history, "the beginning", content);
        return version(owner, history);
    }

    public <T> Version<T> now(Owner<T> owner) {
        return version(owner, histories.findById(owner.key()).orElseThrow());
    }

    /**
     * Makes an edit; one that changes nothing makes no revision.
     *
     * @param seen the edition the page showed when the edit was made
     * @param label what it does, for undo
     * @throws StalePage if the owner has moved on since
     */
    public <T> Version<T> edit(Owner<T> owner, long seen, String label, UnaryOperator<T> change) {
        HistoryEntity history = current(owner, seen);
        T before = version(owner, history).content();
        T after = change.apply(before);
        if (!after.equals(before)) {
            revisions.forgetAfter(history.owner, history.head);
            history.head++;
            history.edition++;
            save(owner, history, label, after);
        }
        return version(owner, history);
    }

    public <T> Version<T> undo(Owner<T> owner, long seen) {
        HistoryEntity history = current(owner, seen);
        if (history.head > 0) {
            history.head--;
            history.edition++;
        }
        return version(owner, history);
    }

    public <T> Version<T> redo(Owner<T> owner, long seen) {
        HistoryEntity history = current(owner, seen);
        if (revisions.labelOf(history.owner, history.head + 1).isPresent()) {
            history.head++;
            history.edition++;
        }
        return version(owner, history);
    }

    /** Every point of a history, the latest first, and the number of the one that holds. */
    public List<Past> past(Owner<?> owner) {
        return revisions.past(owner.key());
    }

    public int head(Owner<?> owner) {
        return histories.findById(owner.key()).orElseThrow().head;
    }

    /** What it was at a point of its history. */
    public <T> T at(Owner<T> owner, int number) {
        return content(owner, revision(owner, number).id());
    }

    /** Makes it what it was at a point of its history; what came since stays there to go forth to. */
    public <T> Version<T> goTo(Owner<T> owner, long seen, int number) {
        HistoryEntity history = current(owner, seen);
        revision(owner, number);
        if (history.head != number) {
            history.head = number;
            history.edition++;
        }
        return version(owner, history);
    }

    private RevisionRepository.Head revision(Owner<?> owner, int number) {
        return revisions
                .head(owner.key(), number)
                .orElseThrow(() -> new Refusal("That point of the history is gone; reload the page."));
    }

    /** Whether any state of anything needs the file {@code hash}. */
    public boolean hold(String hash) {
        return revisions.hold(hash);
    }

    /** Forgets a history for good. */
    public void forget(Owner<?> owner) {
        revisions.deleteByOwner(owner.key());
        histories.deleteById(owner.key());
    }

    /** What was read of revisions is of others. */
    @EventListener(Restored.class)
    @Transactional(propagation = Propagation.SUPPORTS)
    public void restored() {
        contents.invalidateAll();
    }

    /** Something beside the content has changed, so pages that show the owner are out of date. */
    public void touch(Owner<?> owner) {
        histories.lock(owner.key()).orElseThrow().edition++;
    }

    /** What to say to a page that shows edition {@code seen} of something that has moved on. */
    public StalePage stale(Owner<?> owner, long seen) {
        return new StalePage(owner.what(), revisions.labelsSince(owner.key(), seen));
    }

    private HistoryEntity current(Owner<?> owner, long seen) {
        HistoryEntity history = histories.lock(owner.key()).orElseThrow();
        if (history.edition != seen) {
            throw stale(owner, seen);
        }
        return history;
    }

    private <T> void save(Owner<T> owner, HistoryEntity history, String label, T content) {
        RevisionEntity revision = new RevisionEntity();
        revision.owner = history.owner;
        revision.number = history.head;
        revision.edition = history.edition;
        revision.madeAt = clock.instant();
        revision.label = label.length() <= LONGEST_LABEL ? label : label.substring(0, LONGEST_LABEL);
        revision.content = owner.format().write(content, json);
        revision.format = owner.format().version();
        revision.files.addAll(owner.format().files().apply(content));
        if (revision.content.length() > LARGEST) {
            throw Refusal.of(
                    "With this the %s would take over %d MB; simplify its drawings first.",
                    owner.what(), LARGEST >> 20);
        }
        contents.put(revisions.save(revision).id, content);
    }

    private <T> Version<T> version(Owner<T> owner, HistoryEntity history) {
        RevisionRepository.Head head =
                revisions.head(history.owner, history.head).orElseThrow();
        Optional<String> undo = history.head > 0 ? Optional.of(head.label()) : Optional.empty();
        try {
            return new Version<>(
                    content(owner, head.id()),
                    history.edition,
                    undo,
                    revisions.labelOf(history.owner, history.head + 1));
        } catch (Unreadable e) {
            throw new Broken(owner.what(), owner.id(), e.getMessage(), history.edition, undo);
        }
    }

    /** What a revision holds never changes, so it is read once while there is room. */
    private <T> T content(Owner<T> owner, long revision) {
        @SuppressWarnings("unchecked") // a revision's number is its owner's alone
        T known = (T) contents.getIfPresent(revision);
        if (known == null) {
            RevisionEntity stored = revisions.findById(revision).orElseThrow();
            known = owner.format().read(stored.content, stored.format, json);
            contents.put(revision, known);
        }
        return known;
    }
}
