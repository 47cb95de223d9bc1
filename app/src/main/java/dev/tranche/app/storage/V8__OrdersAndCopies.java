package dev.tranche.app.storage;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.stereotype.Component;

/**
 * Plans get an order of printing, a place for their purge, copies and a start; printers the power they draw. Until now
 * all went by number, into the bin, one by one.
 */
@Component
class V8__OrdersAndCopies extends BaseJavaMigration {
    private final ObjectMapper tree = new ObjectMapper();

    @Override
    public void migrate(Context context) throws Exception {
        Connection connection = context.getConnection();
        try (Statement query = connection.createStatement();
                ResultSet rows = query.executeQuery("select id, owner, content from revision");
                PreparedStatement update =
                        connection.prepareStatement("update revision set content = ? where id = ?")) {
            while (rows.next()) {
                ObjectNode content = (ObjectNode) tree.readTree(rows.getString("content"));
                if (rows.getString("owner").startsWith("plan-")) {
                    plan(content);
                } else {
                    ((ObjectNode) content.get("printer")).put("watts", 120.0);
                }
                update.setString(1, tree.writeValueAsString(content));
                update.setLong(2, rows.getLong("id"));
                update.executeUpdate();
            }
        }
    }

    private static void plan(ObjectNode content) {
        content.put("copies", 1);
        content.putNull("start");
        ((ObjectNode) content.get("purge")).putObject("place").put("kind", "Bin");
        ((ObjectNode) content.get("colours"))
                .putObject("ordering")
                .put("rule", "NUMBERED")
                .put("aim", "SWAPS")
                .putArray("numbering");
    }
}
