package dev.tranche.app.storage;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.HashSet;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.stereotype.Component;

/** Each revision says by rows which files it needs, and in which version of the format it is stored: until now the first. */
@Component
class V13__FilesByRows extends BaseJavaMigration {
    private static final Pattern FILE = Pattern.compile("\"hash\"\\s*:\\s*\"([0-9a-f]{64})\"");

    @Override
    public void migrate(Context context) throws Exception {
        Connection connection = context.getConnection();
        try (Statement change = connection.createStatement()) {
            change.execute("alter table revision add column format int default 1 not null");
            change.execute(
                    "create table revision_file (revision bigint not null references revision (id) on delete cascade,"
                            + " hash varchar(64) not null, primary key (revision, hash))");
            change.execute("create index revision_file_hash on revision_file (hash)");
        }
        try (Statement query = connection.createStatement();
                ResultSet rows = query.executeQuery("select id, content from revision where owner like 'plan-%'");
                PreparedStatement insert =
                        connection.prepareStatement("insert into revision_file (revision, hash) values (?, ?)")) {
            while (rows.next()) {
                for (String hash : files(rows.getString("content"))) {
                    insert.setLong(1, rows.getLong("id"));
                    insert.setString(2, hash);
                    insert.executeUpdate();
                }
            }
        }
    }

    /** Found in the text, so that what cannot be read keeps its files too. */
    private static Set<String> files(String content) {
        Set<String> files = new HashSet<>();
        for (Matcher found = FILE.matcher(content); found.find(); ) {
            files.add(found.group(1));
        }
        return files;
    }
}
