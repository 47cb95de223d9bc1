package dev.tranche.app.printers;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import dev.tranche.app.storage.Json;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** A printer as a file of its own, with its abilities, rack and macros; which spools are in it stays at home. */
@Component
class PrinterFiles {
    private static final String FORMAT = "tranche-printer";
    private static final int VERSION = 1;

    private final Json json;

    PrinterFiles(Json json) {
        this.json = json;
    }

    /**
     * What the file says.
     *
     * @param format always {@value #FORMAT}
     * @param version of the format, {@value #VERSION} now
     */
    private record PrinterFile(String format, int version, StoredRig printer) {}

    String write(Rig rig) {
        Rig empty = rig.with(rig.rack().renumbered(spool -> Optional.empty()));
        return json.writePretty(new PrinterFile(FORMAT, VERSION, StoredRig.of(empty)));
    }

    /** @throws Refusal if it is no printer, or one of a newer Tranche */
    Rig read(byte[] file) throws IOException {
        JsonNode tree = tree(file);
        if (!tree.path("format").asText().equals(FORMAT)) {
            throw new Refusal(
                    "This is no printer's file; take one from another Tranche, under the name of a printer there.");
        }
        int version = tree.path("version").asInt();
        if (version > VERSION) {
            throw Refusal.of(
                    "The printer's file is of version %d, and this Tranche reads version %d; take the newer Tranche.",
                    version, VERSION);
        }
        try {
            return json.convert(tree, PrinterFile.class).printer().rig();
        } catch (JsonProcessingException e) {
            throw Refusal.of("The printer's file cannot be read: %s.", Words.oneLine(e.getOriginalMessage()));
        } catch (IllegalArgumentException e) {
            throw Refusal.of("The printer's file contradicts itself: %s.", Words.oneLine(e.getMessage()));
        }
    }

    private JsonNode tree(byte[] file) throws IOException {
        try {
            return json.tree(file);
        } catch (JsonProcessingException e) {
            throw new Refusal("This is no printer's file: it holds no JSON. It may be cut off; take it again.");
        }
    }
}
