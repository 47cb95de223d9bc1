package dev.tranche.app.companion;

import dev.tranche.app.printers.MeasuredPurges;
import dev.tranche.app.printers.MeasuredTimes;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Course;
import dev.tranche.core.companion.Lesson;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.ObjDoubleConsumer;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What prints teach: how long a person takes, how much purge a pair needs, what is left on the spools. */
@Service
@Transactional
class Lessons implements MeasuredTimes {
    /** So finely things are believed: seconds of a person and millimetres of purge, and the pace of a machine. */
    private static final double STEP = 1;

    private static final double STEP_OF_PACE = 0.01;

    private final Prints prints;
    private final Workshop workshop;
    private final MeasuredPurges purges;
    private final Shelf shelf;

    Lessons(Prints prints, Workshop workshop, MeasuredPurges purges, Shelf shelf) {
        this.prints = prints;
        this.workshop = workshop;
        this.purges = purges;
        this.shelf = shelf;
    }

    /**
     * How long a person takes at one stop of a macro, s.
     *
     * @param taken whether the macro says so already
     */
    record Person(Event event, String macro, Lesson lesson, boolean taken) {}

    /** How many times as long a printer takes as is reckoned from a source. */
    record Running(BasePrint.Source source, Lesson lesson, boolean taken) {}

    /** How much a pair needs, mm of filament. */
    record Pair(SpoolId out, SpoolId in, Lesson lesson, boolean taken) {}

    /**
     * What a print took of a spool, g.
     *
     * @param planned with its purge
     * @param took with the purge that was measured; of a print that came to nothing, what had run by then
     */
    record Took(Spool spool, char letter, double planned, double took) {}

    private static Event event(Visit.Kind kind) {
        return switch (kind) {
            case LOAD -> Event.FIRST_LOAD;
            case HALT -> Event.HALT;
            case SWAP -> Event.SWAP;
        };
    }

    private static void eachTook(Course course, ObjDoubleConsumer<Visit> sink) {
        List<Visit> visits = course.agenda().visits();
        for (int i = 0; i < visits.size(); i++) {
            Visit visit = visits.get(i);
            course.took(i).ifPresent(s -> sink.accept(visit, visit.personal(s)));
        }
    }

    private static void eachPushed(Course course, ObjDoubleConsumer<Visit> sink) {
        List<Visit> visits = course.agenda().visits();
        for (int i = 0; i < visits.size(); i++) {
            Visit visit = visits.get(i);
            if (visit.out().isPresent() && visit.in().isPresent()) {
                course.pushed(i).ifPresent(mm -> sink.accept(visit, mm));
            }
        }
    }

    /** What a print, with those before it on that printer, says of people. */
    @Transactional(readOnly = true)
    public List<Person> people(Print print) {
        Optional<Machine> machine = workshop.find(print.printer());
        List<Person> people = new ArrayList<>();
        for (Event event : List.of(Event.FIRST_LOAD, Event.HALT, Event.SWAP)) {
            machine.flatMap(m -> m.rig().macros().answer(event))
                    .filter(macro -> isMeasured(print, event, macro.name()))
                    .flatMap(macro -> person(print.printer(), event, macro))
                    .ifPresent(people::add);
        }
        return people;
    }

    private static boolean isMeasured(Print print, Event event, String macro) {
        boolean[] found = {false};
        eachTook(
                print.course(),
                (v, s) -> found[0] |= event(v.kind()) == event && v.macro().equals(macro));
        return found[0];
    }

    private Optional<Person> person(long printer, Event event, Macro macro) {
        List<Double> measured = new ArrayList<>();
        prints.of(printer)
                .forEach(p -> eachTook(p.course(), (v, s) -> {
                    if (event(v.kind()) == event && v.macro().equals(macro.name())) {
                        measured.add(s);
                    }
                }));
        if (measured.isEmpty()) {
            return Optional.empty();
        }
        double believed = macro.person().toMillis() / 1000.0;
        Lesson lesson = new Lesson(believed, measured);
        return Optional.of(new Person(event, macro.name(), lesson, lesson.isBelieved(STEP)));
    }

    /** What a print, with those before it on that printer, says of the machine; nothing where too little was told of it. */
    @Transactional(readOnly = true)
    public Optional<Running> running(Print print) {
        Optional<Machine> machine = workshop.find(print.printer());
        if (machine.isEmpty() || print.course().pace().isEmpty()) {
            return Optional.empty();
        }
        BasePrint.Source source = print.course().agenda().basis().orElseThrow().source();
        List<Double> measured = new ArrayList<>();
        prints.of(print.printer()).stream()
                .map(Print::course)
                .filter(c ->
                        c.agenda().basis().filter(b -> b.source() == source).isPresent())
                .forEach(c -> c.pace().ifPresent(measured::add));
        Lesson lesson = new Lesson(source.in(machine.get().printer().motion().pace()), measured);
        return Optional.of(new Running(source, lesson, lesson.isBelieved(STEP_OF_PACE)));
    }

    /** What a print, with those before it on that printer, says of its pairs of spools. */
    @Transactional(readOnly = true)
    public List<Pair> pairs(Print print) {
        Map<List<SpoolId>, Double> planned = new LinkedHashMap<>();
        eachPushed(
                print.course(),
                (v, mm) -> planned.putIfAbsent(List.of(v.out().orElseThrow(), v.in().orElseThrow()), v.purge()));
        if (planned.isEmpty()) {
            return List.of();
        }
        Map<List<SpoolId>, List<Double>> measured = new LinkedHashMap<>();
        prints.of(print.printer())
                .forEach(p -> eachPushed(p.course(), (v, mm) -> measured.computeIfAbsent(
                                List.of(v.out().orElseThrow(), v.in().orElseThrow()), k -> new ArrayList<>())
                        .add(mm)));
        Optional<Machine> machine = workshop.find(print.printer());
        return planned.entrySet().stream()
                .map(e -> {
                    Optional<Double> known = machine.flatMap(m -> known(m, e.getKey()));
                    Lesson lesson = new Lesson(known.orElse(e.getValue()), measured.get(e.getKey()));
                    boolean taken = known.isPresent() && lesson.isBelieved(STEP);
                    return new Pair(e.getKey().get(0), e.getKey().get(1), lesson, taken);
                })
                .toList();
    }

    private static Optional<Double> known(Machine machine, List<SpoolId> pair) {
        return machine.purges().stream()
                .filter(p -> p.out().equals(pair.get(0)) && p.in().equals(pair.get(1)))
                .map(MeasuredPurge::volume)
                .map(machine.printer().filament()::length)
                .findFirst();
    }

    /** What it took of each spool. */
    @Transactional(readOnly = true)
    public List<Took> took(Print print) {
        Course course = print.course();
        Map<SpoolId, Spool> spools = shelf.byId();
        Map<SpoolId, Double> more = new LinkedHashMap<>();
        double area = workshop.find(print.printer())
                .map(m -> m.printer().filament().volume(1).cubicMillimetres())
                .orElse(0.0);
        eachPushed(course, (v, mm) -> {
            SpoolId in = v.in().orElseThrow();
            if (spools.containsKey(in)) {
                more.merge(in, (mm - v.purge()) * area * spools.get(in).density() / 1000, Double::sum);
            }
        });
        double ran = course.brokeOff() ? ran(course) : 1;
        return course.agenda().uses().stream()
                .map(u -> new Took(
                        spools.get(u.spool()),
                        u.letter(),
                        u.grams(),
                        Math.max(0, ran * u.grams() + more.getOrDefault(u.spool(), 0.0))))
                .toList();
    }

    /** How much of a print ran before it came to nothing, 0…1, by time. */
    private static double ran(Course course) {
        Agenda agenda = course.agenda();
        double seconds =
                Duration.between(course.start(), course.ended().orElseThrow()).toMillis() / 1000.0;
        return Math.max(0, Math.min(1, seconds / Math.max(1, agenda.seconds())));
    }

    /** Takes what was measured of a person over into the printer's macro. */
    public void takePerson(Print print, Event event) {
        Person person = people(print).stream()
                .filter(p -> p.event() == event)
                .findFirst()
                .orElseThrow(() -> new Refusal("Nothing was measured of that; the macro may have changed since."));
        Machine machine = workshop.get(print.printer());
        Duration takes = Duration.ofSeconds(Math.round(person.lesson().learned()));
        workshop.edit(
                machine.id(),
                machine.version().edition(),
                Words.format("%s: person %d s, as measured", person.macro(), takes.toSeconds()),
                rig -> {
                    Macro macro = rig.macros().answer(event).orElseThrow();
                    return rig.with(rig.macros().replace(rig.macros().macros().indexOf(macro), macro.taking(takes)));
                });
    }

    /** Takes what was measured of the machine over into the printer. */
    public void takeRunning(Print print) {
        Running running = running(print)
                .orElseThrow(() -> new Refusal("Too little was told of this print to say how fast the machine is."));
        Machine machine = workshop.get(print.printer());
        double times = Math.round(running.lesson().learned() * 100) / 100.0;
        workshop.edit(
                machine.id(),
                machine.version().edition(),
                Words.format("Prints take × %.2f, as measured", times),
                rig -> {
                    Motion motion = rig.printer().motion();
                    return rig.with(
                            rig.printer().with(motion.with(running.source().set(motion.pace(), times))));
                });
    }

    /** Takes what a pair needed over into the printer's measured purges. */
    public void takePair(Print print, SpoolId out, SpoolId in) {
        Pair pair = pairs(print).stream()
                .filter(p -> p.out().equals(out) && p.in().equals(in))
                .findFirst()
                .orElseThrow(() -> new Refusal("That pair of spools was not measured in this print."));
        purges.add(print.printer(), out, in, pair.lesson().learned());
    }

    /** Takes off the spools what a print took, g; once. */
    public void takeOff(Print print, Map<SpoolId, Double> grams) {
        if (print.spoolsTaken()) {
            throw new Refusal("What this print took is off the spools already; correct them on the shelf.");
        }
        Map<SpoolId, Spool> spools = shelf.byId();
        for (Took took : took(print)) {
            Spool spool = spools.get(took.spool().id());
            double off = grams.getOrDefault(spool.id(), 0.0);
            if (!(off >= 0 && off <= 100_000)) {
                throw Refusal.of("%s cannot have lost %s g; give 0 or more.", spool.name(), off);
            }
            shelf.change(spool.as(spool.id(), Math.max(0, spool.gramsLeft() - off)));
        }
        prints.spoolsTaken(print.id());
    }

    @Override
    @Transactional(readOnly = true)
    public Optional<Lesson> of(long printer, Event event, Macro macro) {
        return person(printer, event, macro).map(Person::lesson);
    }
}
