package dev.tranche.app.companion;

import dev.tranche.app.clock.Calendars;
import dev.tranche.app.clock.Underway;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.settings.Moments;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Course;
import dev.tranche.core.companion.Course.Expected;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page beside the machine. */
@Component
class PrintViews implements Underway {
    /** A visit of a minute more or less than planned is on time. */
    private static final long ON_TIME = 60;

    private static final int MOST_CARDS = 40;

    private final Prints prints;
    private final Shelf shelf;
    private final Settings settings;
    private final Moments moments;
    private final Figures figures;
    private final Calendars calendars;

    PrintViews(Prints prints, Shelf shelf, Settings settings, Moments moments, Figures figures, Calendars calendars) {
        this.prints = prints;
        this.shelf = shelf;
        this.settings = settings;
        this.moments = moments;
        this.figures = figures;
        this.calendars = calendars;
    }

    /** A stop, in words. */
    record Card(
            int index,
            String title,
            String place,
            String note,
            SpoolMark out,
            SpoolMark in,
            String purge,
            boolean byHand,
            String at,
            long epoch,
            boolean attended,
            List<String> notes) {}

    /** A thing to do, and whether it is done. */
    record Tick(int index, int stop, String text, boolean done) {}

    /** What tells one state of a print from another. */
    static String mark(Print print) {
        return print.id() + " " + print.course().start().toEpochMilli() + " "
                + print.course().entries().size();
    }

    /** Begins a print of a plan, at a time as it was typed. */
    void begin(Workpiece work, String at) {
        Optional<Instant> start = moments.read(at)
                .map(local -> local.atZone(settings.now().zone()).toInstant());
        prints.start(
                work.plan(),
                work.machine().printer().name(),
                Agenda.of(work.ledger(), work.machine().rig(), work.colours()),
                start);
    }

    /** @param busy what its printer is at already */
    String start(Workpiece work, List<Print> before, Optional<Print> busy, Model model) {
        Agenda agenda = Agenda.of(work.ledger(), work.machine().rig(), work.colours());
        model.addAttribute("state", "none");
        model.addAttribute("obstacles", work.obstacles());
        model.addAttribute("marks", marks(agenda));
        model.addAttribute("first", SpoolMark.of(work, work.firstSpool().id()));
        model.addAttribute("firstHeat", work.firstSpool().firstLayerTemperature());
        model.addAttribute("machine", work.machine().printer().name());
        model.addAttribute(
                "visits", agenda.visits().stream().filter(Visit::isAttended).count());
        model.addAttribute("takes", figures.time(agenda.seconds()));
        model.addAttribute(
                "startField",
                work.schedule()
                        .map(s -> s.start()
                                .toLocalDateTime()
                                .truncatedTo(ChronoUnit.MINUTES)
                                .toString())
                        .orElse(""));
        model.addAttribute("holds", work.ledger().cleared().orElse(null));
        model.addAttribute(
                "holdsPurge",
                work.ledger()
                        .cleared()
                        .map(c -> figures.length(
                                work.ledger().filament().length(c.purge().volume())))
                        .orElse(""));
        model.addAttribute("last", before.stream().findFirst().orElse(null));
        model.addAttribute("busy", busy.orElse(null));
        return "companion/print";
    }

    String page(PlanState plan, Print print, Model model) {
        stage(plan, Optional.of(print), model);
        return "companion/print";
    }

    /** What is to be done; that it is over, where it is. */
    String stage(PlanState plan, Optional<Print> print, Model model) {
        model.addAttribute("plan", plan);
        model.addAttribute("print", print.orElse(null));
        model.addAttribute("never", Duty.NEVER);
        if (print.isEmpty() || print.get().course().isOver()) {
            model.addAttribute("state", "over");
            model.addAttribute("marks", List.of());
            print.ifPresent(p -> model.addAttribute("brokeOff", p.course().brokeOff()));
            return "companion/print :: beside";
        }
        under(plan, print.get(), model);
        return "companion/print :: beside";
    }

    private void under(PlanState plan, Print print, Model model) {
        Course course = print.course();
        Instant now = prints.now();
        boolean begun = !course.start().isAfter(now);
        List<Expected> expected = course.expected(now);
        List<Card> cards = IntStream.range(0, expected.size())
                .mapToObj(i -> card(course, i, expected.get(i)))
                .toList();
        int next = course.next();
        model.addAttribute("state", begun ? "running" : "planned");
        model.addAttribute("marks", marks(course.agenda()));
        model.addAttribute("mark", mark(print));
        model.addAttribute("now", now.toEpochMilli());
        model.addAttribute("starts", hour(course.start()));
        model.addAttribute("startsEpoch", course.start().toEpochMilli());
        model.addAttribute("moved", plan.changed().toEpochMilli() != print.changed());
        model.addAttribute("ends", hour(course.end(now)));
        model.addAttribute("endsEpoch", course.end(now).toEpochMilli());
        model.addAttribute("behind", behind(course.behind(now)));
        model.addAttribute("first", mark(course.agenda(), course.agenda().first()));
        model.addAttribute("next", next < cards.size() ? cards.get(next) : null);
        model.addAttribute("came", next < cards.size() && course.came(next).isPresent());
        model.addAttribute("ticks", next < cards.size() ? ticks(course, next) : List.of());
        model.addAttribute(
                "pushed",
                next < cards.size() && course.pushed(next).isPresent()
                        ? figures.plain(course.pushed(next).getAsDouble())
                        : "");
        List<Card> after = cards.stream().filter(c -> c.index() > next).toList();
        model.addAttribute("after", after.stream().limit(MOST_CARDS).toList());
        model.addAttribute("more", Math.max(0, after.size() - MOST_CARDS));
        List<Card> passed =
                cards.stream().filter(c -> c.index() < next && c.attended()).toList();
        model.addAttribute("passed", passed.subList(Math.max(0, passed.size() - MOST_CARDS), passed.size()));
    }

    private Card card(Course course, int index, Expected expected) {
        Visit v = course.agenda().visits().get(index);
        return new Card(
                index,
                v.title(),
                v.place(),
                v.note(),
                v.out().map(s -> mark(course.agenda(), s)).orElse(null),
                v.in().map(s -> mark(course.agenda(), s)).orElse(null),
                v.purge() > 0 ? figures.length(v.purge()) : "",
                v.byHand(),
                hour(expected.waits()),
                expected.waits().toEpochMilli(),
                v.isAttended(),
                course.notes(index));
    }

    private static List<Tick> ticks(Course course, int visit) {
        List<Visit.Act> acts = course.agenda().visits().get(visit).acts();
        Set<Integer> ticked = course.ticked(visit);
        List<Tick> ticks = new ArrayList<>();
        for (int i = 0; i < acts.size(); i++) {
            ticks.add(new Tick(i, acts.get(i).stop(), unbroken(acts.get(i).text()), ticked.contains(i)));
        }
        return ticks;
    }

    /** With figures and their units on one line, however narrow a phone is. */
    private static String unbroken(String text) {
        return text.replaceAll("(?<=\\d) (?=°C|mm|s\\b)", "\u00a0");
    }

    private String behind(Duration by) {
        long seconds = by.toSeconds();
        if (Math.abs(seconds) < ON_TIME) {
            return "as planned";
        }
        return figures.about(Math.abs(seconds)) + (seconds > 0 ? " later than planned" : " earlier than planned");
    }

    /** The time of day, with the day where it is another. */
    String hour(Instant at) {
        ZonedDateTime zoned = at.atZone(settings.now().zone());
        ZonedDateTime today = prints.now().atZone(settings.now().zone());
        return zoned.toLocalDate().equals(today.toLocalDate()) ? figures.clock(zoned) : figures.hour(zoned);
    }

    List<SpoolMark> marks(Agenda agenda) {
        return agenda.uses().stream().map(u -> mark(agenda, u.spool())).toList();
    }

    /** A spool as the print knew it; the shelf may have changed since. */
    SpoolMark mark(Agenda agenda, SpoolId id) {
        char letter = agenda.uses().stream()
                .filter(u -> u.spool().equals(id))
                .map(Agenda.Use::letter)
                .findFirst()
                .orElse('A');
        Map<SpoolId, Spool> spools = shelf.byId();
        // An earlier Tranche could note a blend for a spool.
        return SpoolMark.of(letter, spools.getOrDefault(id, spools.get(agenda.first())));
    }

    @Override
    public Optional<String> calendar(String plan) {
        return prints.under(plan).map(this::calendar);
    }

    /** The stops that are still to come, as they are expected now. */
    String calendar(Print print) {
        Course course = print.course();
        List<Expected> expected = course.expected(prints.now());
        List<Calendars.Event> events = new ArrayList<>();
        for (int i = course.next(); i < expected.size(); i++) {
            Visit v = course.agenda().visits().get(i);
            if (v.isAttended()) {
                String spools = v.in().isPresent() && v.out().isPresent()
                        ? Words.format(
                                ": %s out, %s in",
                                mark(course.agenda(), v.out().get()).name(),
                                mark(course.agenda(), v.in().get()).name())
                        : v.note().isEmpty() ? "" : ": " + v.note();
                events.add(new Calendars.Event(
                        Calendars.uid(
                                print.plan(),
                                v.kind() == Visit.Kind.HALT ? "halt" : v.kind() == Visit.Kind.SWAP ? "swap" : "load",
                                v.number()),
                        expected.get(i).waits(),
                        expected.get(i).goesOn(),
                        v.title() + spools,
                        Words.format(
                                "%s, %s.%s",
                                print.planName(),
                                v.place(),
                                v.purge() > 0 ? " Purge " + figures.length(v.purge()) + "." : "")));
            }
        }
        return calendars.write(events);
    }
}
