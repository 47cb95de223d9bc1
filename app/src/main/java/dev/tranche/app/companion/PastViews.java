package dev.tranche.app.companion;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.web.Figures;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Course;
import dev.tranche.core.companion.Course.Expected;
import dev.tranche.core.companion.Entry;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.macro.Event;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the pages of prints that have been. */
@Component
class PastViews {
    private static final int MOST_ROWS = 200;

    private final Prints prints;
    private final Lessons lessons;
    private final PrintViews marks;
    private final Settings settings;
    private final Figures figures;

    PastViews(Prints prints, Lessons lessons, PrintViews marks, Settings settings, Figures figures) {
        this.prints = prints;
        this.lessons = lessons;
        this.marks = marks;
        this.settings = settings;
        this.figures = figures;
    }

    /** A print as a row. */
    record Row(
            String id,
            String plan,
            String name,
            String printer,
            String started,
            String planned,
            String took,
            String end) {}

    /** A stop, planned and as it was. */
    record StopRow(
            String title,
            String place,
            SpoolMark in,
            String planned,
            String came,
            String late,
            String took,
            String reckoned,
            String purge,
            String pushed,
            List<String> notes) {}

    /** Something to take over, or taken. */
    record PersonRow(Event event, String macro, String before, String after, int count, boolean taken) {}

    /** Of the machine, × what is reckoned from a source. */
    record RunningRow(String source, String before, String after, int count, boolean taken) {}

    record PairRow(SpoolMark out, SpoolMark in, String before, String after, int count, boolean taken) {}

    record SpoolRow(SpoolMark mark, String planned, String took, String left) {}

    String all(List<Print> all, Model model) {
        model.addAttribute("rows", all.stream().map(this::row).toList());
        return "companion/prints";
    }

    private Row row(Print p) {
        Course c = p.course();
        Instant now = prints.now();
        return new Row(
                p.id(),
                p.plan(),
                p.planName(),
                p.printerName(),
                figures.day(zoned(c.start())),
                figures.time(c.agenda().seconds()),
                c.isOver() ? figures.time(seconds(c.start(), c.end(now))) : "",
                !c.isOver()
                        ? (c.start().isAfter(now) ? "to begin" : "under way")
                        : c.brokeOff() ? "came to nothing" : "done");
    }

    String one(Print print, Model model) {
        Course course = print.course();
        Agenda agenda = course.agenda();
        model.addAttribute("print", print);
        model.addAttribute("row", row(print));
        model.addAttribute("marks", marks.marks(agenda));
        model.addAttribute("behind", behind(course));
        model.addAttribute("why", why(course));
        model.addAttribute(
                "ran",
                course.ran()
                        .map(r -> Words.format(
                                "Between the stops you told of, it ran %s where %s were reckoned.",
                                figures.time(r.took()), figures.time(r.reckoned())))
                        .orElse(""));
        List<Expected> expected = course.expected(prints.now());
        int reached = course.isOver() && !course.brokeOff() ? expected.size() : course.next();
        model.addAttribute(
                "stops",
                IntStream.range(0, expected.size())
                        .limit(MOST_ROWS)
                        .mapToObj(i -> stop(course, i, i < reached))
                        .toList());
        model.addAttribute(
                "running",
                lessons.running(print)
                        .map(r -> new RunningRow(
                                r.source() == BasePrint.Source.SLICED ? "the sliced file" : "the model",
                                Words.format("%.2f", r.lesson().believed()),
                                Words.format("%.2f", r.lesson().learned()),
                                r.lesson().count(),
                                r.taken()))
                        .orElse(null));
        model.addAttribute(
                "people",
                lessons.people(print).stream()
                        .map(p -> new PersonRow(
                                p.event(),
                                p.macro(),
                                figures.time(p.lesson().believed()),
                                figures.time(p.lesson().learned()),
                                p.lesson().count(),
                                p.taken()))
                        .toList());
        model.addAttribute(
                "pairs",
                lessons.pairs(print).stream()
                        .map(p -> new PairRow(
                                marks.mark(agenda, p.out()),
                                marks.mark(agenda, p.in()),
                                figures.length(p.lesson().believed()),
                                figures.length(p.lesson().learned()),
                                p.lesson().count(),
                                p.taken()))
                        .toList());
        model.addAttribute(
                "spools",
                lessons.took(print).stream()
                        .map(t -> new SpoolRow(
                                marks.mark(agenda, t.spool().id()),
                                figures.grams(t.planned()),
                                Words.format("%.1f", t.took()),
                                figures.grams(t.spool().gramsLeft())))
                        .toList());
        return "companion/past";
    }

    private static List<String> why(Course course) {
        List<String> said = new ArrayList<>(course.notes(-1));
        course.entries().stream()
                .filter(e -> e.kind() == Entry.Kind.BROKE_OFF && !e.text().isBlank())
                .forEach(e -> said.add(e.text()));
        return said;
    }

    private String behind(Course course) {
        double by = course.behind(prints.now()).toSeconds();
        return Math.abs(by) < 60 ? "" : figures.about(Math.abs(by)) + (by > 0 ? " longer" : " shorter");
    }

    private StopRow stop(Course course, int index, boolean reached) {
        Visit v = course.agenda().visits().get(index);
        double due = v.spans().waits();
        OptionalDouble took = course.took(index);
        double late =
                course.came(index).map(t -> seconds(course.start(), t) - due).orElse(0.0);
        return new StopRow(
                v.title(),
                v.note().isEmpty() ? v.place() : v.place() + ": " + v.note(),
                v.in().map(s -> marks.mark(course.agenda(), s)).orElse(null),
                figures.time(due),
                course.came(index)
                        .map(t -> figures.time(seconds(course.start(), t)))
                        .orElse(reached ? "not told" : "–"),
                Math.abs(late) < 60 ? "" : figures.about(Math.abs(late)) + (late > 0 ? " later" : " earlier"),
                took.isPresent() ? figures.time(took.getAsDouble()) : "–",
                v.isAttended() ? figures.time(v.spans().person()) : "by itself",
                v.purge() > 0 ? figures.length(v.purge()) : "",
                course.pushed(index).isPresent()
                        ? figures.length(course.pushed(index).getAsDouble())
                        : "",
                course.notes(index));
    }

    private static double seconds(Instant from, Instant to) {
        return Math.max(0, Duration.between(from, to).toMillis() / 1000.0);
    }

    private ZonedDateTime zoned(Instant at) {
        return at.atZone(settings.now().zone());
    }
}
