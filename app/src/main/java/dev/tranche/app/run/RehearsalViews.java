package dev.tranche.app.run;

import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.pictures.Outlines;
import dev.tranche.app.pictures.PlateDrawing;
import dev.tranche.app.pictures.ScoreDrawing;
import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Encounter;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.returns.ReturnPath;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of a rehearsal. */
@Component
class RehearsalViews {
    /** The state of a plan of which there is no rehearsal. */
    static final String NONE = "none";

    private static final int MOST_ROWS = 60;

    private final Figures figures;

    RehearsalViews(Figures figures) {
        this.figures = figures;
    }

    /** A stop of the report, in words. */
    record StopRow(String title, String place, String put, boolean wrong, String at, String lasted) {}

    /** A layer that is not as planned, in words. */
    record LayerRow(int layer, String what) {}

    /** Lines of plastic over the picture of a layer that are alike. */
    record MarkPath(String path, String kind, String colour) {}

    String page(Workpiece work, Optional<Run> run, Model model) {
        stage(work, run, model);
        model.addAttribute("section", SectionDrawing.of(work, 234, 470));
        model.addAttribute("plate", PlateDrawing.of(work, 470, 430));
        model.addAttribute("score", ScoreDrawing.of(work, figures, 1, 1, 1240, 130));
        model.addAttribute("lines", work.file().map(f -> f.lines()).orElse(1L));
        model.addAttribute("total", work.ledger().totalSeconds());
        return "run/rehearse";
    }

    String stage(Workpiece work, Optional<Run> run, Model model) {
        model.addAttribute("plan", work.plan());
        model.addAttribute("work", work);
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute("never", Duty.NEVER);
        model.addAttribute("state", run.map(Run::state).orElse(NONE));
        model.addAttribute("pace", run.map(Run::pace).orElse(0.0));
        model.addAttribute(
                "other",
                run.filter(r -> r.isOver() && !r.subject().equals(Run.Subject.of(work)))
                        .isPresent());
        model.addAttribute("stop", run.flatMap(Run::waitsAt).orElse(null));
        model.addAttribute("failure", run.flatMap(Run::failure).orElse(null));
        run.flatMap(Run::report).ifPresent(report -> report(work, report, model));
        run.flatMap(Run::waitsAt).ifPresent(stop -> model.addAttribute("where", where(work, stop)));
        return "run/rehearse :: stage";
    }

    /** In the plan's words where it knows the stop. */
    private static String where(Workpiece work, Encounter stop) {
        return work.ledger().swaps().stream()
                .filter(s -> stop.what().equals(Optional.of(s.turns() ? BlockStamp.What.MIX : BlockStamp.What.SWAP))
                        && s.moment().number() == stop.number()
                        && s.layer() == stop.layer())
                .map(Swap::place)
                .findFirst()
                .orElse(stop.layer() > 0 ? "before layer " + stop.layer() : "before the first layer");
    }

    private void report(Workpiece work, Report report, Model model) {
        model.addAttribute("report", report);
        model.addAttribute("took", figures.time(report.seconds()));
        model.addAttribute(
                "stops",
                report.stops().stream().limit(MOST_ROWS).map(s -> row(work, s)).toList());
        List<LayerRow> unclean = report.unclean().stream().map(l -> row(l)).toList();
        model.addAttribute("unclean", unclean.stream().limit(MOST_ROWS).toList());
        model.addAttribute("uncleanCount", unclean.size());
        List<Report.Stopped> seams = report.seams();
        model.addAttribute(
                "seams",
                seams.isEmpty()
                        ? ""
                        : Words.format(
                                "%s over a minute; the longest, %s, lasted %s. A layer that has cooled holds the next one worse.",
                                Words.count(seams.size(), "stop") + (seams.size() == 1 ? " lasts" : " last"),
                                where(work, longest(seams).at()),
                                figures.time(longest(seams).seconds())));
        List<ReturnPath> drool = work.returns().unclean();
        model.addAttribute(
                "drool",
                drool.isEmpty()
                        ? ""
                        : Words.format(
                                "After %s of %d the nozzle comes back over another colour; the plate shows where.",
                                work.ledger().changes(drool.size()),
                                work.ledger().swaps().size()));
        report.unclean().stream().findFirst().ifPresent(l -> layer(work, report, l.layer(), model));
    }

    private static Report.Stopped longest(List<Report.Stopped> seams) {
        return seams.stream()
                .max(java.util.Comparator.comparingDouble(Report.Stopped::seconds))
                .orElseThrow();
    }

    private StopRow row(Workpiece work, Report.Stopped s) {
        String put = s.put().map(p -> label(work, p)).orElse("");
        return new StopRow(
                s.at().title(),
                where(work, s.at()),
                s.isWrong()
                        ? Words.format(
                                "%s, not %s", put, label(work, s.at().wanted().orElseThrow()))
                        : put,
                s.isWrong(),
                figures.time(s.at().seconds()),
                figures.time(s.seconds()));
    }

    private static String label(Workpiece work, SpoolId spool) {
        return work.colours().letter(spool) + " " + work.shelf().get(spool).name();
    }

    private static LayerRow row(Report.LayerSeen l) {
        StringBuilder what = new StringBuilder();
        if (l.wrong() > 0) {
            what.append(Words.format("%.1f mm of filament in a wrong colour", l.wrong()));
        }
        if (l.mixed() > 0) {
            what.append(what.isEmpty() ? "" : ", ")
                    .append(Words.format("%.1f mm mixed, by up to ΔE %.1f", l.mixed(), l.difference()));
        }
        if (l.missing() > 0) {
            what.append(what.isEmpty() ? "" : ", ").append(Words.format("%.1f mm missing", l.missing()));
        }
        return new LayerRow(l.layer(), what.toString());
    }

    void layer(Workpiece work, Run run, int layer, Model model) {
        Report report =
                run.report().orElseThrow(() -> new Refusal("The rehearsal is not over yet; wait for its report."));
        model.addAttribute("plan", work.plan());
        model.addAttribute("work", work);
        model.addAttribute("marks", SpoolMark.palette(work));
        layer(work, report, layer, model);
    }

    private void layer(Workpiece work, Report report, int layer, Model model) {
        if (layer < 1 || layer > report.layers().size()) {
            throw Refusal.of(
                    "There is no layer %d in this rehearsal; it has %d.",
                    layer, report.layers().size());
        }
        Report.LayerSeen seen = report.layers().get(layer - 1);
        model.addAttribute("seenLayer", row(seen));
        model.addAttribute("picture", LayerDrawing.of(work, layer, -1, false, new Outlines(), 400, 190));
        model.addAttribute("marked", paths(seen));
        model.addAttribute("lineWidth", work.machine().printer().lineWidth());
        List<Integer> unclean =
                report.unclean().stream().map(Report.LayerSeen::layer).toList();
        model.addAttribute(
                "before",
                unclean.stream().filter(l -> l < layer).reduce((a, b) -> b).orElse(null));
        model.addAttribute(
                "after", unclean.stream().filter(l -> l > layer).findFirst().orElse(null));
    }

    private static List<MarkPath> paths(Report.LayerSeen seen) {
        Map<List<String>, StringBuilder> paths = new LinkedHashMap<>();
        for (Report.Mark m : seen.marks()) {
            paths.computeIfAbsent(
                            List.of(
                                    m.kind().name().toLowerCase(Locale.ROOT),
                                    m.colour().hex()),
                            k -> new StringBuilder())
                    .append(Words.format("M%.2f %.2fL%.2f %.2f", m.x0(), m.y0(), m.x1(), m.y1()));
        }
        return paths.entrySet().stream()
                .map(e -> new MarkPath(
                        e.getValue().toString(), e.getKey().get(0), e.getKey().get(1)))
                .toList();
    }
}
