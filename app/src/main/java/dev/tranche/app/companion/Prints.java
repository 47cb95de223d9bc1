package dev.tranche.app.companion;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.InNozzle;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.app.stored.StoredAgenda;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Course;
import dev.tranche.core.companion.Entry;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Prints on real machines. What was told of one is a row of its own before it is acknowledged, and never changes. */
@Service
@Transactional
public class Prints {
    /** Nobody plans a start further off. */
    private static final Duration FARTHEST = Duration.ofDays(60);

    private final PrintRepository prints;
    private final EntryRepository entries;
    private final InNozzle nozzles;
    private final Json json;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Prints(
            PrintRepository prints,
            EntryRepository entries,
            InNozzle nozzles,
            Json json,
            Clock clock,
            ApplicationEventPublisher events) {
        this.prints = prints;
        this.entries = entries;
        this.nozzles = nozzles;
        this.json = json;
        this.clock = clock;
        this.events = events;
    }

    /** Something was told of a plan's print. */
    record Told(String plan) {}

    /** What a page tells: an entry, by the name it has there, and how long ago that was. */
    record Word(Entry.Kind kind, int visit, double amount, String text, String token, Duration ago) {}

    Instant now() {
        return clock.instant().truncatedTo(ChronoUnit.MILLIS);
    }

    /** Begins one; where it is under way already, such as from another window, that one. */
    Print start(PlanState plan, String printerName, Agenda agenda, Optional<Instant> at) {
        long printer = plan.content().printer();
        Optional<PrintEntity> busy = prints.findByBusy(printer);
        if (busy.isPresent()) {
            if (busy.get().plan.equals(plan.id())) {
                return print(busy.get());
            }
            throw Refusal.of(
                    "%s is printing “%s”; say that that print is over before another begins, beside it or under Prints that have been.",
                    printerName, Words.quoted(busy.get().planName));
        }
        PrintEntity entity = new PrintEntity();
        entity.id = UUID.randomUUID().toString();
        entity.plan = plan.id();
        entity.planName = plan.name();
        entity.changed = plan.changed().toEpochMilli();
        entity.printer = printer;
        entity.printerName = printerName;
        entity.started = at.map(this::soonEnough).orElseGet(this::now);
        entity.agenda = StoredAgenda.FORMAT.write(agenda, json);
        entity.busy = printer;
        try {
            prints.saveAndFlush(entity);
        } catch (DataIntegrityViolationException other) {
            throw new Refusal("A print has just begun on that printer in another window; reload the page.");
        }
        begun(entity, agenda);
        return told(entity);
    }

    /** Until a print begins, the nozzle holds what it held. */
    private void begun(PrintEntity entity, Agenda agenda) {
        if (!entity.started.isAfter(now())) {
            nozzles.holds(entity.printer, agenda.first(), now());
        }
    }

    private Instant soonEnough(Instant at) {
        Instant now = now();
        if (at.isAfter(now.plus(FARTHEST)) || at.isBefore(now.minus(FARTHEST))) {
            throw new Refusal("A print begins within sixty days; give another start.");
        }
        return at.truncatedTo(ChronoUnit.MILLIS);
    }

    /** One that was to begin later begins now. */
    Print startNow(String id) {
        PrintEntity entity = entity(id);
        Instant now = now();
        if (entity.started.isAfter(now)) {
            entity.started = now;
            begun(entity, print(entity).course().agenda());
        }
        return told(entity);
    }

    /** One that was to begin later is put off. */
    void forget(String id) {
        PrintEntity entity = entity(id);
        if (!entity.started.isAfter(now())) {
            throw new Refusal("That print has begun; say that it came to nothing instead.");
        }
        entries.deleteAll(entries.findByRunOrderById(id));
        prints.delete(entity);
        events.publishEvent(new Told(entity.plan));
    }

    /** Tells something of a print of {@code plan}; what has been told under the same token is told once. */
    Print tell(String plan, String id, Word word) {
        PrintEntity entity = prints.locked(id).filter(p -> p.plan.equals(plan)).orElseThrow(Prints::gone);
        if (word.token().isBlank() || word.token().length() > 64) {
            throw new Refusal("What was pressed has no name; reload the page.");
        }
        if (entries.existsByRunAndToken(id, word.token())) {
            return print(entity);
        }
        Course before = print(entity).course();
        Duration ago = word.ago().isNegative() ? Duration.ZERO : word.ago();
        Instant at = ago.compareTo(FARTHEST) > 0 ? now() : now().minus(ago);
        Course after = before.with(new Entry(word.kind(), at, word.visit(), word.amount(), Words.oneLine(word.text())));
        if (!after.equals(before)) {
            Entry entry = after.entries().get(after.entries().size() - 1);
            entries.save(EntryEntity.of(id, word.token(), entry));
            after.ended().ifPresent(entity::isOver);
            if (!before.isOver() && !entity.started.isAfter(now())) {
                nozzles.holds(entity.printer, after.inNozzle(), entry.at());
            }
        }
        return told(entity);
    }

    /** Says that one has come to nothing. */
    void breakOff(String id) {
        Print print = get(id);
        String token = UUID.randomUUID().toString();
        tell(print.plan(), id, new Word(Entry.Kind.BROKE_OFF, -1, 0, "", token, Duration.ZERO));
    }

    void spoolsTaken(String id) {
        entity(id).spoolsTaken = true;
    }

    private Print told(PrintEntity entity) {
        events.publishEvent(new Told(entity.plan));
        return print(entity);
    }

    /** The print of a plan that is under way, or is to begin. */
    @Transactional(readOnly = true)
    Optional<Print> under(String plan) {
        return prints.findByPlanOrderByStartedDesc(plan).stream()
                .filter(p -> p.over == null)
                .findFirst()
                .map(this::print);
    }

    /** What a printer is at, or is to begin. */
    @Transactional(readOnly = true)
    Optional<Print> on(long printer) {
        return whole(prints.findByBusy(printer).stream().toList()).stream().findFirst();
    }

    /** All of a plan, the last first. */
    @Transactional(readOnly = true)
    List<Print> of(String plan) {
        return whole(prints.findByPlanOrderByStartedDesc(plan));
    }

    /** The last fifty of a printer, the last first. */
    @Transactional(readOnly = true)
    List<Print> of(long printer) {
        return whole(prints.findTop50ByPrinterOrderByStartedDesc(printer));
    }

    /** The last of all plans, the last first. */
    @Transactional(readOnly = true)
    List<Print> all() {
        return whole(prints.findTop200ByOrderByStartedDesc());
    }

    @Transactional(readOnly = true)
    Print get(String id) {
        return print(entity(id));
    }

    /** What cannot be read is left out; its own page says why. */
    private List<Print> whole(List<PrintEntity> found) {
        return found.stream()
                .flatMap(e -> {
                    try {
                        return Optional.of(print(e)).stream();
                    } catch (Refusal broken) {
                        return Optional.<Print>empty().stream();
                    }
                })
                .toList();
    }

    private Print print(PrintEntity e) {
        Agenda agenda = agenda(e);
        List<Entry> told = entries.findByRunOrderById(e.id).stream()
                .map(EntryEntity::entry)
                .toList();
        return new Print(
                e.id,
                e.plan,
                e.planName,
                e.changed,
                e.printer,
                e.printerName,
                new Course(agenda, e.started, told),
                e.spoolsTaken);
    }

    private Agenda agenda(PrintEntity e) {
        try {
            return StoredAgenda.FORMAT.read(e.agenda, 1, json);
        } catch (Unreadable broken) {
            throw Refusal.of(
                    "What the print of “%s” was to be cannot be read. %s",
                    Words.quoted(e.planName), broken.getMessage());
        }
    }

    private PrintEntity entity(String id) {
        return prints.findById(id).orElseThrow(Prints::gone);
    }

    private static Refusal gone() {
        return new Refusal("That print is no longer there.");
    }
}
