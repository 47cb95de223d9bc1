package dev.tranche.app.exchange;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.CoreJson;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.plan.Spool;
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
    private final CoreJson json;

    PlanFileWriter(Workshop workshop, Shelf shelf, FileStore files, CoreJson json) {
        this.workshop = workshop;
        this.shelf = shelf;
        this.files = files;
        this.json = json;
    }

    /** @param out left open */
    public void write(PlanState plan, OutputStream out) throws IOException {
        Workshop.Machine machine = workshop.get(plan.content().printer());
        Set<SpoolId> named = new LinkedHashSet<>(plan.content().colours().palette());
        machine.rig().rack().extruders().forEach(e -> e.spool().ifPresent(named::add));
        machine.purges().forEach(p -> {
            named.add(p.out());
            named.add(p.in());
        });
        var all = shelf.byId();
        PlanFile file = new PlanFile(
                PlanFile.FORMAT,
                PlanFile.VERSION,
                plan.name(),
                plan.content(),
                named.stream().map(all::get).map(Spool.class::cast).toList(),
                machine.rig(),
                machine.purges(),
                plan.gcode());
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
