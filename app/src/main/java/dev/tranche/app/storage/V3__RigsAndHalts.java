package dev.tranche.app.storage;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.stereotype.Component;

/**
 * Printers as they were stored first, a printer and the macro of one of two ways of swapping, become rigs; plans
 * get an empty list of halts.
 */
@Component
class V3__RigsAndHalts extends BaseJavaMigration {
    private final ObjectMapper tree = new ObjectMapper();

    @Override
    public void migrate(Context context) throws Exception {
        Connection connection = context.getConnection();
        try (Statement query = connection.createStatement();
                ResultSet rows = query.executeQuery("select id, printer, macro from printer");
                PreparedStatement insert = connection.prepareStatement(
                        "insert into revision (owner, number, edition, label, content) values (?, 0, 0, 'the beginning', ?)")) {
            while (rows.next()) {
                insert.setString(1, "printer-" + rows.getLong("id"));
                insert.setString(2, rig(rows.getString("printer"), rows.getString("macro")));
                insert.executeUpdate();
            }
        }
        try (Statement query = connection.createStatement();
                ResultSet rows = query.executeQuery("select id, content from revision where owner like 'plan-%'");
                PreparedStatement update =
                        connection.prepareStatement("update revision set content = ? where id = ?")) {
            while (rows.next()) {
                ObjectNode content = (ObjectNode) tree.readTree(rows.getString("content"));
                ((ObjectNode) content.get("colours")).putArray("halts");
                update.setString(1, tree.writeValueAsString(content));
                update.setLong(2, rows.getLong("id"));
                update.executeUpdate();
            }
        }
    }

    private String rig(String storedPrinter, String storedMacro) throws IOException {
        ObjectNode printer = (ObjectNode) tree.readTree(storedPrinter);
        printer.set("travel", travel(printer.get("bed")));
        printer.put("home", "FRONT_LEFT");
        ObjectNode hotend = printer.putObject("hotend").put("inputs", 1).put("hottest", 260);
        for (String moved : new String[] {"nozzle", "heaterLimit", "deadVolume"}) {
            hotend.set(moved, printer.remove(moved));
        }
        hotend.put("reach", 3.0);
        printer.putNull("selector");
        ((ObjectNode) printer.get("motion")).put("retractSpeed", 30.0);
        ObjectNode abilities = (ObjectNode) printer.get("abilities");
        abilities.putArray("pausesHost");
        abilities.put("commentsAfterCommands", true);
        ObjectNode rig = tree.createObjectNode();
        rig.set("printer", printer);
        rig.set("rack", rack(printer));
        rig.set("macros", book(tree.readTree(storedMacro)));
        return tree.writeValueAsString(rig);
    }

    /** As far as the bed goes. */
    private ObjectNode travel(JsonNode bed) {
        boolean round = bed.get("kind").asText().equals("Round");
        double half = bed.path("diameter").asDouble() / 2;
        return tree.createObjectNode()
                .put("minX", round ? -half : 0)
                .put("maxX", round ? half : bed.get("width").asDouble())
                .put("minY", round ? -half : 0)
                .put("maxY", round ? half : bed.get("depth").asDouble());
    }

    /** One extruder that believes what the printer knows. */
    private ObjectNode rack(ObjectNode printer) {
        ObjectNode rack = tree.createObjectNode();
        ObjectNode extruder = rack.putArray("extruders").addObject();
        extruder.putNull("spool");
        extruder.put("firstLayerTemperature", 210)
                .put("temperature", 205)
                .put("standby", 150)
                .put("liftOnRetract", 0.3);
        extruder.set("nozzle", printer.get("hotend").get("nozzle"));
        extruder.set("filament", printer.get("filament").get("diameter"));
        extruder.putObject("offset").put("x", 0.0).put("y", 0.0);
        extruder.putNull("blend");
        rack.putArray("inputs");
        return rack;
    }

    /** The ready macros of the same way of swapping, with the three numbers their owner could change. */
    private JsonNode book(JsonNode stored) throws IOException {
        try (InputStream ready = getClass().getResourceAsStream("/db/v3-macros.json")) {
            JsonNode book = tree.readTree(ready).get(stored.get("method").asText());
            JsonNode steps = book.get("macros").get(0).get("steps");
            for (int i = 0; i < Math.min(steps.size(), stored.get("steps").size()); i++) {
                ObjectNode step = (ObjectNode) steps.get(i).get("step");
                for (String number : new String[] {"height", "length", "speed"}) {
                    if (step.has(number)) {
                        step.put(number, stored.get("steps").get(i).get(number).asDouble());
                    }
                }
            }
            return book;
        }
    }
}
