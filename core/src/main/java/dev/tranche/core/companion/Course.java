package dev.tranche.core.companion;

import dev.tranche.core.companion.Entry.Kind;
import dev.tranche.core.companion.Visit.Spans;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A print under way: what was planned, when it began, and what people told of it since. Nothing told is ever changed or taken
 * out; all that follows is folded from it.
 *
 * @param start when it began, or will
 * @param entries in the order in which they were told; their times never go back
 */
public record Course(Agenda agenda, Instant start, List<Entry> entries) {
    /** Pushed by hand, filament of more than this is a mistyped number, mm. */
    private static final double LONGEST_PUSH = 3000;

    /** Over less than this, s, whoever comes a little late says more of themselves than of the machine. */
    private static final double TELLING = 600;

    private static final int LONGEST_TEXT = 300;
    private static final Duration LONGEST_SHIFT = Duration.ofHours(48);

    public Course {
        entries = List.copyOf(entries);
    }

    public static Course beginning(Agenda agenda, Instant start) {
        return new Course(agenda, start, List.of());
    }

    /**
     * With one thing more.
     *
     * @return the same where it has been told already, such as from another window
     * @throws Refusal if it cannot be
     */
    public Course with(Entry told) {
        Entry entry = notBeforeTheLast(told);
        require(entry);
        if (isKnown(entry)) {
            return this;
        }
        return new Course(
                agenda, start, Stream.concat(entries.stream(), Stream.of(entry)).toList());
    }

    /** A clock that was set back does not turn the print back. */
    private Entry notBeforeTheLast(Entry told) {
        Instant last =
                entries.isEmpty() ? start : entries.get(entries.size() - 1).at();
        return told.at().isBefore(last) ? new Entry(told.kind(), last, told.visit(), told.amount(), told.text()) : told;
    }

    private void require(Entry e) {
        if (isOver() && e.kind() != Kind.NOTED) {
            throw new Refusal("This print is over; nothing but a note can be added to it.");
        }
        boolean whole = e.kind() == Kind.ENDED || e.kind() == Kind.BROKE_OFF || e.kind() == Kind.NOTED;
        if (e.visit() >= agenda.visits().size() || e.visit() < (whole ? -1 : 0)) {
            throw Refusal.of(
                    "This print has no stop %d; it has %d. Reload the page.",
                    e.visit() + 1, agenda.visits().size());
        }
        if (e.text().length() > LONGEST_TEXT) {
            throw Refusal.of("What is said of a print has at most %d letters; say it shorter.", LONGEST_TEXT);
        }
        switch (e.kind()) {
            case PUSHED -> requirePush(e.amount());
            case SHIFTED -> {
                if (!(Math.abs(e.amount()) <= LONGEST_SHIFT.toSeconds())) {
                    throw new Refusal("A stop comes at most two days later or earlier than planned.");
                }
            }
            case TICKED, UNTICKED -> {
                int acts = agenda.visits().get(e.visit()).acts().size();
                if (e.amount() != Math.rint(e.amount()) || e.amount() < 0 || e.amount() >= acts) {
                    throw Refusal.of("That stop has %d things to do, and no other; reload the page.", acts);
                }
            }
            case NOTED -> {
                if (e.text().isBlank()) {
                    throw new Refusal("A note needs at least one letter.");
                }
            }
            default -> {
                // Nothing more is asked of it.
            }
        }
    }

    private static void requirePush(double length) {
        if (!(length > 0 && length <= LONGEST_PUSH)) {
            throw Refusal.of(
                    "A measured purge of %s mm of filament cannot be; give what was pushed, above 0 and up to %.0f mm.",
                    Words.format("%.0f", length), LONGEST_PUSH);
        }
    }

    private boolean isKnown(Entry e) {
        return switch (e.kind()) {
            case CAME -> came(e.visit()).isPresent() || e.visit() < next();
            case DONE -> e.visit() < next();
            case TICKED -> ticked(e.visit()).contains((int) e.amount());
            case UNTICKED -> !ticked(e.visit()).contains((int) e.amount());
            default -> false;
        };
    }

    private Stream<Entry> told(Kind kind) {
        return entries.stream().filter(e -> e.kind() == kind);
    }

    private Optional<Instant> when(Kind kind, int visit) {
        return told(kind).filter(e -> e.visit() == visit).map(Entry::at).findFirst();
    }

    public Optional<Instant> came(int visit) {
        return when(Kind.CAME, visit);
    }

    public Optional<Instant> done(int visit) {
        return when(Kind.DONE, visit);
    }

    /** Acts of a visit that are done, from 0. */
    public Set<Integer> ticked(int visit) {
        Set<Integer> ticked = new TreeSet<>();
        for (Entry e : entries) {
            if (e.visit() == visit && e.kind() == Kind.TICKED) {
                ticked.add((int) e.amount());
            } else if (e.visit() == visit && e.kind() == Kind.UNTICKED) {
                ticked.remove((int) e.amount());
            }
        }
        return ticked;
    }

    public List<String> notes(int visit) {
        return told(Kind.NOTED).filter(e -> e.visit() == visit).map(Entry::text).toList();
    }

    /** mm of filament that were pushed until it was clean, as told last. */
    public OptionalDouble pushed(int visit) {
        return told(Kind.PUSHED)
                .filter(e -> e.visit() == visit)
                .mapToDouble(Entry::amount)
                .reduce((first, last) -> last);
    }

    /** The first visit at which somebody still has to let it go on; as many as there are where there is none. */
    public int next() {
        int after = told(Kind.DONE).mapToInt(Entry::visit).max().orElse(-1) + 1;
        return IntStream.range(after, agenda.visits().size())
                .filter(i -> agenda.visits().get(i).isAttended())
                .findFirst()
                .orElse(agenda.visits().size());
    }

    public boolean isOver() {
        return ended().isPresent();
    }

    /** When it was over. */
    public Optional<Instant> ended() {
        return entries.stream()
                .filter(e -> e.kind() == Kind.ENDED || e.kind() == Kind.BROKE_OFF)
                .map(Entry::at)
                .findFirst();
    }

    /** Whether it came to nothing. */
    public boolean brokeOff() {
        return told(Kind.BROKE_OFF).findAny().isPresent();
    }

    /**
     * A stop by the clock.
     *
     * @param waits when the machine waits there, or did
     * @param goesOn when it is let go on
     */
    public record Expected(Instant waits, Instant goesOn) {}

    /** When each visit comes, or came, as far as can be told {@code now}: whoever is late delays all that follows. */
    public List<Expected> expected(Instant now) {
        List<Expected> all = new ArrayList<>();
        Instant from = start;
        double planned = 0;
        int next = next();
        for (int i = 0; i < agenda.visits().size(); i++) {
            Spans spans = agenda.visits().get(i).spans();
            Instant due = after(from, spans.waits() - planned + shift(i));
            Instant waits = came(i).filter(t -> t.isBefore(due)).orElse(due);
            Instant free = after(came(i).filter(t -> t.isAfter(waits)).orElse(waits), spans.person());
            boolean mayStillWait = i == next && agenda.visits().get(i).isAttended() && now.isAfter(free);
            Instant goesOn = done(i).orElse(mayStillWait ? ended().orElse(now) : free);
            all.add(new Expected(waits.isAfter(goesOn) ? goesOn : waits, goesOn));
            from = after(goesOn, spans.after());
            planned = spans.prints();
        }
        return all;
    }

    private double shift(int visit) {
        return told(Kind.SHIFTED)
                .filter(e -> e.visit() == visit)
                .mapToDouble(Entry::amount)
                .sum();
    }

    /** When the print is done, as far as can be told {@code now}. */
    public Instant end(Instant now) {
        if (ended().isPresent()) {
            return ended().get();
        }
        List<Expected> all = expected(now);
        return all.isEmpty()
                ? after(start, agenda.seconds())
                : after(
                        all.get(all.size() - 1).goesOn(),
                        agenda.visits().get(all.size() - 1).spans().after() + agenda.last());
    }

    /** How much later than planned it will be done. */
    public Duration behind(Instant now) {
        return Duration.between(after(start, agenda.seconds()), end(now));
    }

    /** What a person took at a visit, where both its ends were told, s. */
    public OptionalDouble took(int visit) {
        Optional<Instant> came = came(visit);
        Optional<Instant> done = done(visit);
        return came.isPresent() && done.isPresent()
                ? OptionalDouble.of(Duration.between(came.get(), done.get()).toMillis() / 1000.0)
                : OptionalDouble.empty();
    }

    /**
     * How long the machine ran between stops of which both ends were told, s.
     *
     * @param reckoned that it would
     */
    public record Ran(double reckoned, double took) {}

    /** Between a stop that was let go on and the next at which somebody came: whoever comes late makes it longer. */
    public Optional<Ran> ran() {
        double reckoned = 0;
        double took = 0;
        for (int i = 1; i < agenda.visits().size(); i++) {
            Optional<Instant> from = done(i - 1);
            Optional<Instant> to = came(i);
            if (from.isPresent() && to.isPresent()) {
                Spans before = agenda.visits().get(i - 1).spans();
                reckoned += agenda.visits().get(i).spans().waits() - (before.prints() - before.after());
                took += Duration.between(from.get(), to.get()).toMillis() / 1000.0;
            }
        }
        return reckoned > 0 ? Optional.of(new Ran(reckoned, took)) : Optional.empty();
    }

    /**
     * How many times as long the machine took as was reckoned before anything was measured of it; nothing where too little was
     * told to say so.
     */
    public OptionalDouble pace() {
        return ran().filter(r -> r.reckoned() >= TELLING)
                .flatMap(r -> agenda.basis().map(b -> b.pace() * r.took() / r.reckoned()))
                .filter(Pace::isPossible)
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
    }

    /** The spool that is in the nozzle by what was told. */
    public SpoolId inNozzle() {
        boolean whole = isOver() && !brokeOff();
        if (whole && agenda.endsWith().isPresent()) {
            return agenda.endsWith().get();
        }
        int passed = whole ? agenda.visits().size() : next();
        return agenda.visits().stream()
                .limit(passed)
                .flatMap(v -> v.in().stream())
                .reduce((first, last) -> last)
                .orElse(agenda.first());
    }

    private static Instant after(Instant from, double seconds) {
        return from.plusMillis(Math.round(seconds * 1000));
    }
}
