package dev.tranche.app.exchange;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.StoredPlan;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Json;
import dev.tranche.app.stored.StoredMeasure;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.app.stored.StoredSpool;
import dev.tranche.core.plan.SpoolId;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Component;

/** Writes a plan with all it needs into one file that another Tranche reads to the same figures. */
@Component
public class PlanFileWriter {
    private final Workshop workshop;
    private final Shelf shelf;
    private final FileStore files;
    private final Json json;

    PlanFileWriter(Workshop workshop, Shelf shelf, FileStore files, Json json) {
        this.workshop = workshop;
        this.shelf = shelf;
        this.files = files;
        this.json = json;
    }

    /** @param out left open */
    public void write(PlanState plan, OutputStream out) throws IOException {
        Workshop.Machine machine = workshop.get(plan.content().printer());
        Set<SpoolId> named = new LinkedHashSet<>(plan.content().colours().palette());
        named.removeIf(SpoolId::isMixture);
        named.addAll(machine.rig().rack().spools());
        machine.purges().forEach(p -> {
            named.add(p.out());
            named.add(p.in());
        });
        var all = shelf.byId();
        PlanFile file = new PlanFile(
                PlanFile.FORMAT,
                PlanFile.VERSION,
                plan.name(),
                StoredPlan.of(plan.content()),
                named.stream().map(all::get).map(StoredSpool::of).toList(),
                StoredRig.of(machine.rig()),
                machine.purges().stream().map(StoredMeasure::of).toList(),
                plan.gcode().map(PlanFile.Sliced::of));
        ZipOutputStream zip = new ZipOutputStream(out);
        zip.putNextEntry(new ZipEntry(PlanFile.ENTRY));
        zip.write(json.writePretty(file).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
        Set<String> written = new HashSet<>();
        for (ModelFile model : plan.content().files()) {
            copy(zip, PlanFile.MODELS, model.hash(), written);
        }
        if (plan.gcode().isPresent()) {
            copy(zip, PlanFile.GCODE, plan.gcode().get().hash(), written);
        }
        zip.finish();
    }

    private void copy(ZipOutputStream zip, String folder, String hash, Set<String> written) throws IOException {
        if (written.add(folder + hash)) {
            zip.putNextEntry(new ZipEntry(folder + hash));
            Files.copy(files.path(hash), zip);
            zip.closeEntry();
        }
    }
}
