package dev.tranche.app.storage;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
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
    private final CoreJson json;

    V3__RigsAndHalts(CoreJson json) {
        this.json = json;
    }

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

    private String rig(String storedPrinter, String storedMacro) throws Exception {
        ObjectNode p = (ObjectNode) tree.readTree(storedPrinter);
        Bed bed = json.read(p.get("bed").toString(), Bed.class);
        p.set("travel", node(Travel.over(bed)));
        p.put("home", Corner.FRONT_LEFT.name());
        ObjectNode hotend = (ObjectNode) node(Hotend.COMMON);
        for (String moved : new String[] {"nozzle", "heaterLimit", "deadVolume"}) {
            hotend.set(moved, p.remove(moved));
        }
        p.set("hotend", hotend);
        p.putNull("selector");
        ((ObjectNode) p.get("motion")).put("retractSpeed", Motion.COMMON.retractSpeed());
        ObjectNode abilities = (ObjectNode) p.get("abilities");
        abilities.putArray("pausesHost");
        abilities.put("commentsAfterCommands", true);
        Printer printer = json.read(p.toString(), Printer.class);
        return json.write(new Rig(printer, Rack.of(printer, 1), book((ObjectNode) tree.readTree(storedMacro))));
    }

    /** The ready macros of the same way of swapping, with the three numbers their owner could change. */
    private static MacroBook book(ObjectNode stored) {
        MacroBook ready = SwapMethod.valueOf(stored.get("method").asText()).ready();
        Macro swap = ready.macro(0);
        ArrayNode steps = (ArrayNode) stored.get("steps");
        for (int i = 0; i < Math.min(steps.size(), swap.steps().size()); i++) {
            MacroStep step = swap.steps().get(i);
            swap = swap.replace(i, step.with(numbers(step.step(), steps.get(i))));
        }
        return ready.replace(0, swap);
    }

    private static Step numbers(Step step, JsonNode stored) {
        if (step instanceof Step.Lift) {
            return new Step.Lift(stored.get("height").asDouble());
        } else if (step instanceof Step.Retract) {
            return new Step.Retract(stored.get("length").asDouble());
        } else if (step instanceof Step.Purge) {
            return new Step.Purge(stored.get("speed").asDouble());
        }
        return step;
    }

    private JsonNode node(Object value) throws Exception {
        return tree.readTree(json.write(value));
    }
}
