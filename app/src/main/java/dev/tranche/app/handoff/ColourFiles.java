package dev.tranche.app.handoff;

import dev.tranche.app.storage.FileNames;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.handoff.ColourSolid;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
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

    /** One 3MF: every part with its name, and a material with the name and colour of its spool. */
    void threeMf(Workpiece work, OutputStream out) throws IOException {
        threeMf(work, solids(work), out);
    }

    /** As {@link #threeMf(Workpiece, OutputStream)}, but only a run of layers, at their height. */
    void threeMf(Workpiece work, int first, int last, OutputStream out) throws IOException {
        threeMf(work, ColourSolid.ofLayers(work.colouring(), first, last, Progress.UNHEARD), out);
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

    /** An archive with one STL a colour, all with the same origin. */
    void stls(Workpiece work, OutputStream out) throws IOException {
        Map<SpoolId, List<Mesh>> bySpool = new LinkedHashMap<>();
        solids(work).forEach(s -> bySpool.computeIfAbsent(s.spool(), k -> new ArrayList<>())
                .addAll(s.meshes()));
        ZipOutputStream zip = new ZipOutputStream(out);
        for (Map.Entry<SpoolId, List<Mesh>> entry : bySpool.entrySet()) {
            String label = work.label(work.spool(entry.getKey()));
            zip.putNextEntry(new ZipEntry(FileNames.safe(work.plan().name()) + "-" + FileNames.safe(label) + ".stl"));
            StlWriter.write(entry.getValue(), zip);
            zip.closeEntry();
        }
        zip.finish();
    }

    /** By the number of their spool, so that a slicing program numbers them alike. */
    private static List<ColourSolid> solids(Workpiece work) {
        List<SpoolId> numbering = work.colours().numbering();
        return ColourSolid.of(work.colouring(), work.partNames(), Progress.UNHEARD).stream()
                .sorted(Comparator.comparingInt(s -> numbering.indexOf(s.spool())))
                .toList();
    }
}
