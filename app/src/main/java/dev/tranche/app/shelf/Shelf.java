package dev.tranche.app.shelf;

import dev.tranche.app.storage.LastRead;
import dev.tranche.app.storage.Restored;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.data.domain.Sort;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The spools a hobbyist owns. */
@Service
@Transactional
public class Shelf {
    private final SpoolRepository spools;
    private final LastRead<List<Spool>> all = new LastRead<>();
    private final LastRead<Map<SpoolId, Spool>> byId = new LastRead<>();

    Shelf(SpoolRepository spools) {
        this.spools = spools;
    }

    @Transactional(readOnly = true)
    public List<Spool> all() {
        return all.get(() -> spools.findByRetiredFalseOrderById().stream()
                .map(SpoolEntity::spool)
                .toList());
    }

    /** Every spool there ever was, since plans' histories may name it. */
    @Transactional(readOnly = true)
    public Map<SpoolId, Spool> byId() {
        return byId.get(() -> {
            Map<SpoolId, Spool> map = new LinkedHashMap<>();
            spools.findAll(Sort.by("id")).forEach(s -> map.put(s.spool().id(), s.spool()));
            return Collections.unmodifiableMap(map);
        });
    }

    /** Adds a spool; the id it comes with is ignored. */
    public Spool add(Spool spool) {
        changed();
        SpoolEntity entity = new SpoolEntity();
        entity.take(spool);
        return spools.save(entity).spool();
    }

    /** A name that no spool of the shelf has; see {@link Words#free}. */
    @Transactional(readOnly = true)
    public String free(String name) {
        Set<String> names =
                all().stream().map(s -> s.name().toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        return Words.free(name, Spool.LONGEST_NAME, n -> names.contains(n.toLowerCase(Locale.ROOT)));
    }

    /**
     * What came of taking spools in.
     *
     * @param there names that were on the shelf already
     */
    public record Taken(int added, List<String> there) {}

    /** Adds spools, but for those whose name is on the shelf. */
    public Taken take(List<Spool> given) {
        List<String> there = new ArrayList<>();
        Set<String> names = all().stream()
                .map(s -> s.name().toLowerCase(Locale.ROOT))
                .collect(Collectors.toCollection(HashSet::new));
        int added = 0;
        for (Spool spool : given) {
            if (names.add(spool.name().toLowerCase(Locale.ROOT))) {
                add(spool);
                added++;
            } else {
                there.add(spool.name());
            }
        }
        return new Taken(added, there);
    }

    public void change(Spool spool) {
        entity(spool.id()).take(spool);
    }

    /** Takes a spool off the shelf, until it is brought back; the caller has seen to it that no plan names it. */
    public Spool remove(SpoolId id) {
        SpoolEntity entity = entity(id);
        entity.retired = true;
        return entity.spool();
    }

    public void restore(SpoolId id) {
        entity(id).retired = false;
    }

    /** What was taken off the shelf, the last first. */
    @Transactional(readOnly = true)
    public List<Spool> removed() {
        return spools.findByRetiredTrueOrderByIdDesc().stream()
                .map(SpoolEntity::spool)
                .toList();
    }

    @EventListener(Restored.class)
    public void changed() {
        all.changed();
        byId.changed();
    }

    /** A spool to be changed. */
    private SpoolEntity entity(SpoolId id) {
        changed();
        return spools.findById(id.value())
                .orElseThrow(() -> new Refusal("That spool is no longer on the shelf; reload the page."));
    }
}
