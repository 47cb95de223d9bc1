package dev.tranche.app.exchange;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import com.networknt.schema.ValidationMessage;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.stored.StoredMeasure;
import dev.tranche.app.stored.StoredSpool;
import dev.tranche.core.format.Archives;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.io.InputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Reads plan files. Spools and a printer that are here already, alike in all but their number, are used; others are
 * added. Nothing is added before all of the file has been found good.
 */
@Service
public class PlanFileReader {
    private static final int MOST_ENTRIES = 100;
    private static final int LARGEST_JSON = 16 << 20;

    private final Plans plans;
    private final Workshop workshop;
    private final Shelf shelf;
    private final FileStore files;
    private final Json json;
    private final TrancheProperties properties;
    private final JsonSchema schema;

    PlanFileReader(
            Plans plans, Workshop workshop, Shelf shelf, FileStore files, Json json, TrancheProperties properties)
            throws IOException {
        this.plans = plans;
        this.workshop = workshop;
        this.shelf = shelf;
        this.files = files;
        this.json = json;
        this.properties = properties;
        try (InputStream in = getClass().getResourceAsStream("/static/schemas/plan-file-1.json")) {
            schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                    .getSchema(in);
        }
    }

    /** Whether a file is a plan file, by its first entry. */
    public boolean isPlanFile(InputStream in) throws IOException {
        try (ZipInputStream zip = Archives.open(in)) {
            ZipEntry first = Archives.next(zip);
            return first != null && first.getName().equals(PlanFile.ENTRY);
        } catch (ZipException e) {
            return false;
        }
    }

    /** @throws Refusal saying what is wrong with it and where */
    @Transactional
    public PlanState read(InputStream in) throws IOException {
        ZipInputStream zip = Archives.open(in);
        Set<String> there = new HashSet<>();
        JsonNode tree = null;
        Set<String> named = Set.of();
        int entries = 0;
        long size = 0;
        try {
            for (ZipEntry entry = Archives.next(zip); entry != null; entry = Archives.next(zip)) {
                if (++entries > MOST_ENTRIES) {
                    throw Refusal.of("The plan file holds over %d files; it is no plan file of Tranche.", MOST_ENTRIES);
                }
                if (entry.getName().equals(PlanFile.ENTRY)) {
                    tree = checked(zip.readNBytes(LARGEST_JSON));
                    named = named(tree);
                } else if (named.contains(entry.getName())) {
                    boolean model = entry.getName().startsWith(PlanFile.MODELS);
                    FileStore.Kept kept =
                            files.keep(zip, model ? properties.largestModel() : properties.largestGcode());
                    there.add(kept.hash());
                    size += kept.size();
                    if (size > 2 * properties.largestGcode().toBytes()) {
                        throw FileStore.tooLarge(properties.largestGcode());
                    }
                }
            }
        } catch (ZipException | java.io.EOFException e) {
            throw new Refusal("The plan file is damaged or cut short; get it again from where it came.");
        }
        if (tree == null) {
            throw new Refusal("The file holds no plan.json, so it is no plan file; choose one that Tranche wrote.");
        }
        return add(tree, there);
    }

    private static Set<String> named(JsonNode tree) {
        Set<String> named = new HashSet<>();
        tree.path("plan")
                .path("files")
                .forEach(f -> named.add(PlanFile.MODELS + f.path("hash").asText()));
        named.add(PlanFile.GCODE + tree.path("gcode").path("hash").asText());
        return named;
    }

    private JsonNode checked(byte[] bytes) throws IOException {
        JsonNode tree;
        try {
            tree = json.tree(bytes);
        } catch (JsonProcessingException e) {
            throw Refusal.of(
                    "plan.json in the plan file is no JSON from line %d on; undo what was changed there.",
                    e.getLocation() == null ? 1 : e.getLocation().getLineNr());
        }
        if (!PlanFile.FORMAT.equals(tree.path("format").asText())) {
            throw new Refusal("plan.json is not a plan of Tranche: its format is not “tranche-plan”.");
        }
        int version = tree.path("version").asInt();
        if (version > PlanFile.VERSION) {
            throw Refusal.of(
                    "The plan file is of version %d, and this Tranche reads up to %d; get a newer Tranche to open it.",
                    version, PlanFile.VERSION);
        }
        ValidationMessage wrong = schema.validate(tree).stream().findFirst().orElse(null);
        if (wrong != null) {
            throw Refusal.of(
                    "plan.json in the plan file is not as it should be at %s: %s.",
                    wrong.getInstanceLocation(), Words.oneLine(wrong.getError()));
        }
        return tree;
    }

    private PlanState add(JsonNode tree, Set<String> there) throws IOException {
        PlanFile file = file(tree);
        Meant meant = meant(file);
        for (ModelFile model : meant.plan().files()) {
            if (!there.contains(model.hash())) {
                throw Refusal.of(
                        "The plan file lacks the model “%s”, or holds another in its place; write it again where it came from.",
                        Words.quoted(model.name()));
            }
        }
        Set<SpoolId> described = meant.spools().stream().map(Spool::id).collect(Collectors.toSet());
        for (SpoolId named : meant.plan().colours().palette()) {
            if (!named.isMixture() && !described.contains(named)) {
                throw Refusal.of("plan.json names spool %d and does not say what it is; add it there.", named.value());
            }
        }
        Map<SpoolId, SpoolId> numbers = new HashMap<>();
        meant.spools().forEach(spool -> numbers.put(spool.id(), here(spool, Set.copyOf(numbers.values()))));
        PlanContent plan = meant.plan();
        PlanState added = plans.create(
                file.name(), plan.with(plan.colours().renumbered(numbers::get)).on(printer(meant, numbers)));
        file.gcode()
                .filter(g -> there.contains(g.hash()))
                .ifPresent(g -> plans.giveGcode(added.id(), g.gcode(numbers)));
        return plans.get(added.id());
    }

    private PlanFile file(JsonNode tree) {
        try {
            return json.convert(tree, PlanFile.class);
        } catch (JsonProcessingException e) {
            throw Refusal.of("plan.json in the plan file cannot be read: %s.", Words.oneLine(e.getOriginalMessage()));
        }
    }

    /** What a plan file means, its spools by the numbers they have there. */
    private record Meant(PlanContent plan, List<Spool> spools, Rig printer, List<MeasuredPurge> measured) {}

    private static Meant meant(PlanFile file) {
        try {
            return new Meant(
                    file.plan().plan(),
                    file.spools().stream().map(StoredSpool::spool).toList(),
                    file.printer().rig(),
                    file.measured().stream().map(StoredMeasure::purge).toList());
        } catch (IllegalArgumentException e) {
            throw Refusal.of("plan.json in the plan file contradicts itself: %s.", Words.oneLine(e.getMessage()));
        }
    }

    /** @param taken by spools that are alike: two in the file stay two here */
    private SpoolId here(Spool spool, Set<SpoolId> taken) {
        return shelf.all().stream()
                .filter(s -> !taken.contains(s.id()) && s.equals(spool.as(s.id(), s.gramsLeft())))
                .findFirst()
                .orElseGet(() -> shelf.add(spool))
                .id();
    }

    private long printer(Meant meant, Map<SpoolId, SpoolId> numbers) {
        Rig rig = meant.printer()
                .with(meant.printer().rack().renumbered(spool -> Optional.ofNullable(numbers.get(spool))));
        List<MeasuredPurge> measured = meant.measured().stream()
                .filter(m -> numbers.containsKey(m.out()) && numbers.containsKey(m.in()))
                .map(m -> new MeasuredPurge(numbers.get(m.out()), numbers.get(m.in()), m.volume()))
                .toList();
        return workshop.all().stream()
                .filter(m -> m.rig().equals(rig) && Set.copyOf(m.purges()).equals(Set.copyOf(measured)))
                .map(Workshop.Machine::id)
                .findFirst()
                .orElseGet(() -> {
                    long id = workshop.add(rig).id();
                    measured.forEach(m -> workshop.measured(id, m));
                    return id;
                });
    }
}
