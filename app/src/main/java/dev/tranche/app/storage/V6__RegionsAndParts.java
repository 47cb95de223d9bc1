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
 * A plan's model becomes part of what undo goes through, since files can be added to it; plans get no regions, no notes
 * on parts, no raft, and a first layer that is not drawn in.
 */
@Component
class V6__RegionsAndParts extends BaseJavaMigration {
    private final ObjectMapper tree = new ObjectMapper();

    @Override
    public void migrate(Context context) throws Exception {
        Connection connection = context.getConnection();
        try (Statement query = connection.createStatement();
                ResultSet rows = query.executeQuery("select r.id, r.content, p.model_hash, p.model_name, p.model_size"
                        + " from revision r join plan p on r.owner = 'plan-' || p.id");
                PreparedStatement update =
                        connection.prepareStatement("update revision set content = ? where id = ?")) {
            while (rows.next()) {
                ObjectNode content = (ObjectNode) tree.readTree(rows.getString("content"));
                content.putArray("files")
                        .addObject()
                        .put("hash", rows.getString("model_hash"))
                        .put("name", rows.getString("model_name"))
                        .put("size", rows.getLong("model_size"));
                content.putObject("parts").putObject("notes");
                ((ObjectNode) content.get("placement")).put("lift", 0.0);
                ObjectNode colours = (ObjectNode) content.get("colours");
                colours.putObject("regions").putArray("list");
                ObjectNode layers = (ObjectNode) colours.get("layers");
                layers.putObject("raft").put("micrometres", 0);
                layers.put("shrink", 0.0);
                update.setString(1, tree.writeValueAsString(content));
                update.setLong(2, rows.getLong("id"));
                update.executeUpdate();
            }
        }
    }
}
