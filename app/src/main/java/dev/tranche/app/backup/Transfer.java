package dev.tranche.app.backup;

import java.sql.Blob;
import java.sql.Clob;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;

/** Rows from one database into another of the same schema. */
final class Transfer {
    private static final int AT_ONCE = 500;

    private Transfer() {}

    static void rows(Connection from, Connection to, String table) throws SQLException {
        try (Statement statement = from.createStatement();
                ResultSet rows = statement.executeQuery("select * from " + Rows.quoted(table))) {
            ResultSetMetaData meta = rows.getMetaData();
            int columns = meta.getColumnCount();
            List<String> names = new ArrayList<>();
            for (int c = 1; c <= columns; c++) {
                names.add(meta.getColumnName(c));
            }
            try (PreparedStatement insert = to.prepareStatement(Rows.insert(table, names))) {
                int waiting = 0;
                while (rows.next()) {
                    for (int c = 1; c <= columns; c++) {
                        Object value = rows.getObject(c);
                        if (value instanceof Clob clob) {
                            insert.setString(c, clob.getSubString(1, (int) clob.length()));
                        } else if (value instanceof Blob blob) {
                            insert.setBytes(c, blob.getBytes(1, (int) blob.length()));
                        } else {
                            insert.setObject(c, value);
                        }
                    }
                    insert.addBatch();
                    if (++waiting % AT_ONCE == 0) {
                        insert.executeBatch();
                    }
                }
                insert.executeBatch();
            }
        }
    }
}
