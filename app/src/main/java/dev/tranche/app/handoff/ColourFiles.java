package dev.tranche.app.handoff;

import dev.tranche.app.jobs.Downloads;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.handoff.ColourSolid;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Component;

/** The plan's colours as model files for a slicing program. */
@Component
class ColourFiles {

    private static final String MODEL = "model/3mf";

    private final Downloads downloads;

    ColourFiles(Downloads downloads) {
        this.downloads = downloads;
    }

    /** A file of a plan as it is. */
    private record FileOf(String plan, long edition, String name) {}

    private Job make(Workpiece work, String suffix, String type, Downloads.Content content) {
        String name = FileNames.safe(work.plan().name()) + suffix;
        return downloads.make(new FileOf(work.plan().id(), work.plan().edition(), name), name, type, content);
    }

    /** One 3MF: every part with its name, and a material with the name and colour of its spool. */
    Job threeMf(Workpiece work) {
        return make(work, ".3mf", MODEL, (out, progress) -> threeMf(work, solids(work, progress), out));
    }

    /** As {@link #threeMf(Workpiece)}, but only a run of layers, at their height. */
    Job threeMf(Workpiece work, int first, int last) {
        if (first < 1 || last < first || last > work.grid().count()) {
            throw Refusal.of("The plan has layers 1 to %d.", work.grid().count());
        }
        return make(
                work,
                "-layers-" + first + "-" + last + ".3mf",
                MODEL,
                (out, progress) -> threeMf(work, ColourSolid.ofLayers(work.colouring(), first, last, progress), out));
    }

    /** An archive with one STL a colour, all with the same origin. */
    Job stls(Workpiece work) {
        return make(
                work, "-colours.zip", "application/zip", (out, progress) -> stls(work, solids(work, progress), out));
    }

    private static void threeMf(Workpiece work, List<ColourSolid> solids, OutputStream out) throws IOException {
        List<ThreeMfWriter.Thing> things = solids.stream()
                .map(s -> new ThreeMfWriter.Thing(
                        s.name(),
                        work.spool(s.spool()).name(),
                        work.spool(s.spool()).colour(),
                        s.meshes()))
                .toList();
        ThreeMfWriter.writeAssembled(work.plan().name(), things, out);
    }

    private static void stls(Workpiece work, List<ColourSolid> solids, OutputStream out) throws IOException {
        Map<SpoolId, List<ColourSolid>> bySpool = new LinkedHashMap<>();
        solids.forEach(
                s -> bySpool.computeIfAbsent(s.spool(), k -> new ArrayList<>()).add(s));
        ZipOutputStream zip = new ZipOutputStream(out);
        for (Map.Entry<SpoolId, List<ColourSolid>> entry : bySpool.entrySet()) {
            String label = work.label(work.spool(entry.getKey()));
            zip.putNextEntry(new ZipEntry(FileNames.safe(work.plan().name()) + "-" + FileNames.safe(label) + ".stl"));
            List<Mesh> meshes = new ArrayList<>();
            entry.getValue().forEach(s -> s.meshes().forEach(meshes::add));
            StlWriter.write(meshes, zip);
            zip.closeEntry();
        }
        zip.finish();
    }

    /** By the number of their spool, so that a slicing program numbers them alike. */
    private static List<ColourSolid> solids(Workpiece work, Progress progress) {
        List<SpoolId> numbering = work.colours().numbering();
        return ColourSolid.of(work.colouring(), work.partNames(), progress).stream()
                .sorted(Comparator.comparingInt(s -> numbering.indexOf(s.spool())))
                .toList();
    }
}
