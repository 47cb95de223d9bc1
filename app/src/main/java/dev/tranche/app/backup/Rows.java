package dev.tranche.app.backup;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The rows of a table as lines of JSON: the names of its columns, then a line a row. */
final class Rows {
    /** A text may be as long as a revision may; one that is longer is not read to its end. */
    private static final int LONGEST_TEXT = 64 << 20;

    private static final ObjectMapper JSON = new ObjectMapper(JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxStringLength(LONGEST_TEXT)
                    .build())
            .build());
    private static final ObjectWriter LINE = JSON.writer();
    private static final int AT_ONCE = 500;

    private Rows() {}

    /** Tables in the order in which their rows can be put in: none before one that it refers to. */
    static List<String> tables(Connection db) throws SQLException {
        Map<String, Set<String>> needs = new LinkedHashMap<>();
        try (ResultSet rows = db.getMetaData().getTables(null, "PUBLIC", "%", new String[] {"BASE TABLE"})) {
            while (rows.next()) {
                String name = rows.getString("TABLE_NAME");
                if (!name.equalsIgnoreCase("flyway_schema_history")) {
                    needs.put(name, new LinkedHashSet<>());
                }
            }
        }
        for (String table : needs.keySet()) {
            try (ResultSet keys = db.getMetaData().getImportedKeys(null, "PUBLIC", table)) {
                while (keys.next()) {
                    needs.get(table).add(keys.getString("PKTABLE_NAME"));
                }
            }
            needs.get(table).remove(table);
        }
        List<String> ordered = new ArrayList<>();
        for (String table : needs.keySet()) {
            after(table, needs, ordered);
        }
        return ordered;
    }

    private static void after(String table, Map<String, Set<String>> needs, List<String> ordered) {
        if (!ordered.contains(table)) {
            needs.get(table).forEach(needed -> after(needed, needs, ordered));
            ordered.add(table);
        }
    }

    static void write(Connection db, String table, OutputStream out) throws SQLException, IOException {
        try (Statement statement = db.createStatement();
                ResultSet rows = statement.executeQuery("select * from " + quoted(table))) {
            ResultSetMetaData meta = rows.getMetaData();
            ArrayNode names = JsonNodeFactory.instance.arrayNode();
            for (int c = 1; c <= meta.getColumnCount(); c++) {
                names.add(meta.getColumnName(c));
            }
            line(out, names);
            while (rows.next()) {
                ArrayNode row = JsonNodeFactory.instance.arrayNode();
                for (int c = 1; c <= meta.getColumnCount(); c++) {
                    add(row, rows, c, meta.getColumnType(c));
                }
                line(out, row);
            }
        }
    }

    private static void line(OutputStream out, JsonNode line) throws IOException {
        out.write(LINE.writeValueAsBytes(line));
        out.write('\n');
    }

    private static void add(ArrayNode row, ResultSet rows, int column, int type) throws SQLException {
        Object value =
                switch (type) {
                    case Types.BLOB, Types.VARBINARY, Types.BINARY, Types.LONGVARBINARY -> rows.getBytes(column);
                    case Types.TIMESTAMP_WITH_TIMEZONE -> rows.getObject(column, OffsetDateTime.class);
                    case Types.CLOB, Types.VARCHAR, Types.CHAR -> rows.getString(column);
                    default -> rows.getObject(column);
                };
        if (value == null) {
            row.addNull();
        } else if (value instanceof byte[] bytes) {
            row.add(Base64.getEncoder().encodeToString(bytes));
        } else if (value instanceof Boolean b) {
            row.add(b);
        } else if (value instanceof Long || value instanceof Integer) {
            row.add(((Number) value).longValue());
        } else if (value instanceof Double d) {
            row.add(d);
        } else if (value instanceof BigDecimal d) {
            row.add(d);
        } else {
            row.add(value.toString());
        }
    }

    /**
     * Puts rows in.
     *
     * @throws Refusal if they are not such as the table has
     */
    static void read(Connection db, String table, InputStream in) throws SQLException, IOException {
        Map<String, Integer> types = types(db, table);
        try (JsonParser lines = JSON.createParser(in)) {
            List<String> columns = new ArrayList<>();
            JsonNode head = JSON.readTree(lines);
            if (head == null) {
                throw damaged(table);
            }
            for (JsonNode name : head) {
                if (!types.containsKey(name.asText())) {
                    throw damaged(table);
                }
                columns.add(name.asText());
            }
            try (PreparedStatement insert = db.prepareStatement(insert(table, columns))) {
                int waiting = 0;
                for (JsonNode row = JSON.readTree(lines); row != null; row = JSON.readTree(lines)) {
                    if (row.size() != columns.size()) {
                        throw damaged(table);
                    }
                    for (int c = 0; c < columns.size(); c++) {
                        set(insert, c + 1, types.get(columns.get(c)), row.get(c));
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

    /** A statement that puts a row in. */
    static String insert(String table, List<String> columns) {
        return "insert into " + quoted(table) + " ("
                + String.join(", ", columns.stream().map(Rows::quoted).toList()) + ") values ("
                + String.join(", ", Collections.nCopies(columns.size(), "?")) + ")";
    }

    private static void set(PreparedStatement insert, int at, int type, JsonNode value) throws SQLException {
        if (value.isNull()) {
            insert.setNull(at, type);
            return;
        }
        switch (type) {
            case Types.BLOB, Types.VARBINARY, Types.BINARY, Types.LONGVARBINARY -> insert.setBytes(
                    at, Base64.getDecoder().decode(value.asText()));
            case Types.TIMESTAMP_WITH_TIMEZONE -> insert.setObject(at, OffsetDateTime.parse(value.asText()));
            case Types.BIGINT, Types.INTEGER, Types.SMALLINT -> insert.setLong(at, value.longValue());
            case Types.DOUBLE, Types.REAL, Types.FLOAT -> insert.setDouble(at, value.doubleValue());
            case Types.DECIMAL, Types.NUMERIC -> insert.setBigDecimal(at, value.decimalValue());
            case Types.BOOLEAN, Types.BIT -> insert.setBoolean(at, value.booleanValue());
            default -> insert.setString(at, value.asText());
        }
    }

    private static Map<String, Integer> types(Connection db, String table) throws SQLException {
        Map<String, Integer> types = new LinkedHashMap<>();
        try (ResultSet columns = db.getMetaData().getColumns(null, "PUBLIC", table, "%")) {
            while (columns.next()) {
                types.put(columns.getString("COLUMN_NAME"), columns.getInt("DATA_TYPE"));
            }
        }
        return types;
    }

    /** Numbers that rows are given from here on are above those they have. */
    static void countOn(Connection db, String table) throws SQLException {
        List<String> counted = new ArrayList<>();
        try (ResultSet columns = db.getMetaData().getColumns(null, "PUBLIC", table, "%")) {
            while (columns.next()) {
                if ("YES".equals(columns.getString("IS_AUTOINCREMENT"))) {
                    counted.add(columns.getString("COLUMN_NAME"));
                }
            }
        }
        for (String column : counted) {
            try (Statement statement = db.createStatement()) {
                long next;
                try (ResultSet max = statement.executeQuery(
                        "select coalesce(max(" + quoted(column) + "), 0) + 1 from " + quoted(table))) {
                    max.next();
                    next = max.getLong(1);
                }
                statement.execute(
                        "alter table " + quoted(table) + " alter column " + quoted(column) + " restart with " + next);
            }
        }
    }

    static String quoted(String name) {
        return '"' + name.replace("\"", "\"\"") + '"';
    }

    static Refusal damaged(String what) {
        return Refusal.of(
                "The backup is damaged: “%s” in it cannot be read; nothing was changed. Take another copy of it.",
                what);
    }
}
