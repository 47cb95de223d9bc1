package dev.tranche.app.exchange;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.LongNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import com.networknt.schema.ValidationMessage;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.CoreJson;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Words;
import java.io.IOException;
import java.io.InputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
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
    private final CoreJson json;
    private final TrancheProperties properties;
    private final JsonSchema schema;

    PlanFileReader(
            Plans plans, Workshop workshop, Shelf shelf, FileStore files, CoreJson json, TrancheProperties properties)
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
        try (ZipInputStream zip = new ZipInputStream(in)) {
            ZipEntry first = zip.getNextEntry();
            return first != null && first.getName().equals(PlanFile.ENTRY);
        } catch (ZipException e) {
            return false;
        }
    }

    /** @throws Refusal saying what is wrong with it and where */
    @Transactional
    public PlanState read(InputStream in) throws IOException {
        ZipInputStream zip = new ZipInputStream(in);
        Set<String> there = new HashSet<>();
        JsonNode tree = null;
        Set<String> named = Set.of();
        int entries = 0;
        long size = 0;
        try {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
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
        return add((ObjectNode) tree, there);
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

    private PlanState add(ObjectNode tree, Set<String> there) throws IOException {
        PlanFile file = value(tree);
        for (ModelFile model : file.plan().files()) {
            if (!there.contains(model.hash())) {
                throw Refusal.of(
                        "The plan file lacks the model “%s”, or holds another in its place; write it again where it came from.",
                        Words.quoted(model.name()));
            }
        }
        Map<Long, Long> numbers = new HashMap<>();
        for (Spool spool : file.spools()) {
            numbers.put(spool.id().value(), here(spool).value());
        }
        for (SpoolId named : file.plan().colours().palette()) {
            if (!numbers.containsKey(named.value())) {
                throw Refusal.of("plan.json names spool %d and does not say what it is; add it there.", named.value());
            }
        }
        PlanFile renumbered = value((ObjectNode) renumbered(tree, numbers));
        long printer = printer(renumbered);
        PlanState plan = plans.create(renumbered.name(), renumbered.plan().on(printer));
        renumbered.gcode().filter(g -> there.contains(g.hash())).ifPresent(g -> plans.giveGcode(plan.id(), g));
        return plans.get(plan.id());
    }

    private PlanFile value(ObjectNode tree) throws IOException {
        try {
            return json.convert(tree, PlanFile.class);
        } catch (JsonProcessingException e) {
            throw Refusal.of("plan.json in the plan file cannot be read: %s.", Words.oneLine(e.getOriginalMessage()));
        } catch (IllegalArgumentException e) {
            throw Refusal.of("plan.json in the plan file contradicts itself: %s.", Words.oneLine(e.getMessage()));
        }
    }

    private SpoolId here(Spool spool) {
        return shelf.all().stream()
                .filter(s -> s.equals(spool.as(s.id(), s.gramsLeft())))
                .findFirst()
                .orElseGet(() -> shelf.add(spool))
                .id();
    }

    private long printer(PlanFile file) {
        return workshop.all().stream()
                .filter(m ->
                        m.rig().equals(file.printer()) && Set.copyOf(m.purges()).equals(Set.copyOf(file.measured())))
                .map(Workshop.Machine::id)
                .findFirst()
                .orElseGet(() -> {
                    long id = workshop.add(file.printer()).id();
                    file.measured().forEach(m -> workshop.measured(id, m));
                    return id;
                });
    }

    /** Every spool is named by an object that holds its number and nothing else. */
    private static JsonNode renumbered(JsonNode node, Map<Long, Long> numbers) {
        if (node instanceof ObjectNode object) {
            if (object.size() == 1 && object.path("value").isIntegralNumber()) {
                long number = object.get("value").asLong();
                object.set("value", LongNode.valueOf(numbers.getOrDefault(number, number)));
            } else {
                object.forEach(child -> renumbered(child, numbers));
            }
        } else if (node instanceof ArrayNode array) {
            array.forEach(child -> renumbered(child, numbers));
        }
        return node;
    }
}
