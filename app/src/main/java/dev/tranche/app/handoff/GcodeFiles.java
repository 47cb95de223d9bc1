package dev.tranche.app.handoff;

import dev.tranche.app.exchange.GivenGcode;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.web.Attachment;
import dev.tranche.app.work.SlicedFiles;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.handoff.JoinedJobs;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/** Sliced files on their way in and out. */
@Service
public class GcodeFiles {
    private final Plans plans;
    private final Workshop workshop;
    private final FileStore files;
    private final TemporaryFiles temporary;
    private final GivenGcode given;
    private final SlicedFiles sliced;
    private final Jobs jobs;
    private final TrancheProperties properties;

    GcodeFiles(
            Plans plans,
            Workshop workshop,
            FileStore files,
            TemporaryFiles temporary,
            GivenGcode given,
            SlicedFiles sliced,
            Jobs jobs,
            TrancheProperties properties) {
        this.plans = plans;
        this.workshop = workshop;
        this.files = files;
        this.temporary = temporary;
        this.given = given;
        this.sliced = sliced;
        this.jobs = jobs;
        this.properties = properties;
    }

    /** A file that is written while it is sent. */
    public record Download(String name, Body body) {
        interface Body {
            void writeTo(OutputStream out) throws IOException;
        }

        public void writeTo(OutputStream out) throws IOException {
            body.writeTo(out);
        }

        public void send(HttpServletResponse response, String type) throws IOException {
            Attachment.begin(response, name, type);
            body.writeTo(response.getOutputStream());
        }
    }

    /** The first swap as it will stand in the file, or, without a file, as it would. */
    record Preview(Swap swap, List<RenderedLine> lines, Optional<Long> line) {}

    /** Keeps jobs that were cut here, joined into one file again, which becomes the plan's. */
    Job join(PlanState plan, List<MultipartFile> jobs) throws IOException {
        Path joined = temporary.file(
                "joined", jobs.stream().mapToLong(MultipartFile::getSize).sum());
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(joined), 1 << 16)) {
            JoinedJobs.copy(
                    jobs.stream().map(f -> (JoinedJobs.File) f::getInputStream).toList(), out);
        } catch (RuntimeException | IOException e) {
            Files.delete(joined);
            throw e;
        }
        String name = FileNames.shown(jobs.get(0).getOriginalFilename()).replaceAll("-job-\\d+", "");
        try (InputStream in = Files.newInputStream(joined, StandardOpenOption.DELETE_ON_CLOSE)) {
            return take(plan, in, name);
        }
    }

    /** Keeps a file and surveys it; it becomes the plan's when it is found to be a print. */
    Job take(PlanState plan, MultipartFile file) throws IOException {
        return given.open(file, properties.largestGcode(), (in, name) -> take(plan, in, name));
    }

    private Job take(PlanState plan, InputStream in, String name) throws IOException {
        Printer printer = workshop.get(plan.content().printer()).printer();
        FileStore.Kept kept = files.keep(in, properties.largestGcode());
        return jobs.start("Reading " + name, progress -> {
            String hash;
            try {
                SlicedFile survey = sliced.survey(kept.hash(), printer, progress);
                hash = survey.pieces() > 0 ? asItCame(kept, survey) : kept.hash();
            } catch (RuntimeException | Error e) {
                files.takeBack(kept);
                throw e;
            }
            Said said = saidBefore(plans.get(plan.id()), hash, printer, progress);
            plans.giveGcode(plan.id(), new PlanState.Gcode(hash, name, said));
            return "/plans/" + plan.id() + "/hand-off";
        });
    }

    /** What was said of a file holds for it with what Tranche put in and without; of any other nothing was said. */
    private Said saidBefore(PlanState plan, String hash, Printer printer, Progress progress) {
        Optional<PlanState.Gcode> before = plan.gcode().filter(g -> !g.said().equals(Said.NOTHING));
        try {
            return before.filter(
                            g -> sliced.bare(g.hash(), printer, progress).equals(sliced.bare(hash, printer, progress)))
                    .map(PlanState.Gcode::said)
                    .orElse(Said.NOTHING);
        } catch (Refusal | UncheckedIOException e) {
            // The file before is none that this printer reads, or has gone.
            return Said.NOTHING;
        }
    }

    /** A file that was rearranged here is kept as it came, and put into the plan's order anew. */
    private String asItCame(FileStore.Kept rearranged, SlicedFile survey) throws IOException {
        try (InputStream in = sliced.restored(rearranged.hash(), survey)) {
            String hash = files.keep(in, properties.largestGcode()).hash();
            files.takeBack(rearranged);
            return hash;
        }
    }

    /** Says so, with the first of the findings that forbid it. */
    public static String notWritten(List<Finding> stops) {
        return "The swaps were not written: " + stops.get(0).sentence();
    }

    /** Findings that its owner knows and accepts. */
    List<Finding> accepted(Workpiece work) {
        return work.findings().stream().filter(Finding::accepted).toList();
    }

    Optional<Preview> preview(Workpiece work) {
        return work.ledger().swaps().stream()
                .filter(s -> work.stops().map(t -> !t.adopts(s)).orElse(true))
                .findFirst()
                .flatMap(swap ->
                        swap.door().map(door -> new Preview(swap, lines(work, swap, door), Optional.of(door.line()))));
    }

    /** Whether the plan swaps, and the file itself stops wherever it does. */
    boolean stopsThere(Workpiece work) {
        List<Swap> swaps = work.ledger().swaps();
        return !swaps.isEmpty()
                && work.stops().filter(t -> swaps.stream().allMatch(t::adopts)).isPresent();
    }

    private static List<RenderedLine> lines(Workpiece work, Swap swap, SlicedLayer.Door door) {
        return work.writer()
                .lines(swap, door, work.printed().orElseThrow(), work.stops().orElseThrow());
    }

    public Download withSwaps(Workpiece work) {
        Patch patch = work.reckoning().patch();
        List<Finding> stops = work.obstacles();
        if (!stops.isEmpty()) {
            throw new Refusal(notWritten(stops));
        }
        return download(work, patch, "-with-swaps", () -> sliced.printed(work));
    }

    Download withoutSwaps(Workpiece work) {
        SlicedFile file = work.file()
                .orElseThrow(() -> new Refusal("There is no G-code yet; give the file your slicing program wrote."));
        return download(
                work,
                Patch.removing(file),
                "-without-swaps",
                () -> Files.newInputStream(
                        files.path(work.plan().gcode().orElseThrow().hash())));
    }

    /** Bytes that are there, or are made while they are read. */
    private interface Bytes {
        InputStream open() throws IOException;
    }

    private static Download download(Workpiece work, Patch patch, String suffix, Bytes bytes) {
        PlanState.Gcode gcode = work.plan().gcode().orElseThrow();
        String stem = FileNames.stem(gcode.name()).replaceAll("(-with-swaps|-without-swaps)$", "");
        return new Download(FileNames.safe(stem) + suffix + ".gcode", out -> {
            try (InputStream in = bytes.open()) {
                patch.copy(in, new BufferedOutputStream(out, 1 << 16), Progress.UNHEARD);
            }
        });
    }
}
