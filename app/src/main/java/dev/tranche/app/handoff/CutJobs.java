package dev.tranche.app.handoff;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.SlicedFiles;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.handoff.Jobs;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Component;

/** A print in several jobs, for its page and as files. */
@Component
class CutJobs {
    private static final int MOST = 40;

    private final SlicedFiles sliced;

    private final Figures figures;

    CutJobs(SlicedFiles sliced, Figures figures) {
        this.figures = figures;
        this.sliced = sliced;
    }

    /**
     * A job as the page shows it.
     *
     * @param seam between the job before and it, in words; empty of the first
     * @param load what to do with the spool before it
     */
    record Row(
            int number,
            String layers,
            String from,
            String to,
            String seam,
            SpoolMark begins,
            String load,
            int swaps,
            String time) {}

    /** Layers at which something suggests itself, as the field has them. */
    record Suggestion(String name, String layers) {}

    /** @throws Refusal if they are no layers */
    static Set<Integer> layers(String typed) {
        Set<Integer> layers = new TreeSet<>();
        for (String word : typed.strip().split("[\\s,;]+")) {
            if (word.isEmpty()) {
                continue;
            }
            if (!word.matches("\\d{1,6}")) {
                throw Refusal.of("“%s” is no layer; give numbers such as 16, 31.", shortened(word));
            }
            layers.add(Integer.parseInt(word));
        }
        if (layers.size() >= MOST) {
            throw Refusal.of(
                    "That makes %d jobs, and nobody stands by so many; give at most %d.", layers.size() + 1, MOST);
        }
        return layers;
    }

    private static String shortened(String word) {
        return word.length() > 20 ? word.substring(0, 20) + "…" : word;
    }

    static String typed(Set<Integer> layers) {
        return layers.stream().map(String::valueOf).collect(Collectors.joining(", "));
    }

    List<Suggestion> suggestions(Workpiece work) {
        LayerGrid grid = work.grid();
        Set<Integer> colours = work.tranches().stream()
                .map(Tranche::firstLayer)
                .filter(l -> l > 1)
                .collect(Collectors.toCollection(TreeSet::new));
        Set<Integer> halts = work.colours().halts().on(grid).stream()
                .map(h -> grid.snap(h.wished()).layer())
                .filter(l -> l > 1)
                .collect(Collectors.toCollection(TreeSet::new));
        List<Suggestion> all = new ArrayList<>();
        if (!colours.isEmpty() && colours.size() < MOST) {
            all.add(new Suggestion("at each colour", typed(colours)));
        }
        if (!halts.isEmpty() && halts.size() < MOST) {
            all.add(new Suggestion("at each halt", typed(halts)));
        }
        return all;
    }

    List<Row> rows(Workpiece work, Set<Integer> before) {
        return list(work, before).stream()
                .map(j -> new Row(
                        j.number(),
                        j.first() + "–" + j.last(),
                        j.from().toString(),
                        j.to().toString(),
                        j.number() == 1 ? "" : Words.format("%.2f mm", Math.rint(j.gap() * 100) / 100 + 0.0),
                        SpoolMark.of(work, j.begins().id()),
                        j.stays() ? "stays in" : "load",
                        j.swaps(),
                        figures.time(j.seconds())))
                .toList();
    }

    private static List<Jobs.Job> list(Workpiece work, Set<Integer> before) {
        return work.file().isPresent()
                ? work.reckoning().jobs(before).list()
                : Jobs.planned(
                        work.grid(), work.colours().layers().raft(), work.ledger(), work.order(), work.shelf(), before);
    }

    private static Jobs jobs(Workpiece work, Set<Integer> before) {
        return work.reckoning().jobs(before);
    }

    /** One job, from 1, as a file that starts by itself. */
    GcodeFiles.Download job(Workpiece work, Set<Integer> before, int number) {
        Jobs jobs = ready(work, before);
        Jobs.Job job = jobs.list().stream()
                .filter(j -> j.number() == number)
                .findFirst()
                .orElseThrow(() -> Refusal.of(
                        "There are %d jobs, and no number %d.", jobs.list().size(), number));
        return new GcodeFiles.Download(name(work, job), out -> write(work, jobs, job, out));
    }

    GcodeFiles.Download all(Workpiece work, Set<Integer> before) {
        Jobs jobs = ready(work, before);
        return new GcodeFiles.Download(FileNames.safe(work.plan().name()) + "-jobs.zip", out -> {
            ZipOutputStream zip = new ZipOutputStream(out);
            for (Jobs.Job job : jobs.list()) {
                zip.putNextEntry(new ZipEntry(name(work, job)));
                write(work, jobs, job, zip);
                zip.closeEntry();
            }
            zip.finish();
        });
    }

    private Jobs ready(Workpiece work, Set<Integer> before) {
        Jobs jobs = jobs(work, before);
        var stops = work.obstacles();
        if (!stops.isEmpty()) {
            throw new Refusal(GcodeFiles.notWritten(stops));
        }
        return jobs;
    }

    private static String name(Workpiece work, Jobs.Job job) {
        return FileNames.safe(work.plan().name()) + "-job-" + job.number() + ".gcode";
    }

    private void write(Workpiece work, Jobs jobs, Jobs.Job job, OutputStream out) throws IOException {
        try (InputStream in = sliced.printed(work)) {
            BufferedOutputStream buffered = new BufferedOutputStream(out, 1 << 16);
            jobs.copy(job, in, buffered, Progress.UNHEARD);
            buffered.flush();
        }
    }
}
