package dev.tranche.app.backup;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Restored;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;
import java.util.zip.CheckedInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Writes backups of all that is kept, and takes them back, while Tranche runs. */
@Service
public class Backups {
    private static final String NOTE = "tranche-backup.json";
    private static final String TABLES = "tables/";
    private static final String FILES = "files/";
    private static final int FORMAT = 1;
    private static final int KEPT = 5;
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss").withZone(ZoneOffset.UTC);

    private final DataSource database;
    private final Flyway flyway;
    private final FileStore files;
    private final TemporaryFiles temporary;
    private final TrancheProperties properties;
    private final ApplicationEventPublisher events;
    private final Proof proof;
    private final Clock clock;
    private final ObjectMapper json = new ObjectMapper();

    Backups(
            DataSource database,
            Flyway flyway,
            FileStore files,
            TemporaryFiles temporary,
            TrancheProperties properties,
            ApplicationEventPublisher events,
            Proof proof,
            Clock clock) {
        this.proof = proof;
        this.database = database;
        this.flyway = flyway;
        this.files = files;
        this.temporary = temporary;
        this.properties = properties;
        this.events = events;
        this.clock = clock;
    }

    /** A name for a backup made now. */
    public String name() {
        return "tranche-" + STAMP.format(clock.instant()) + ".zip";
    }

    /** Writes all that is kept: one state of the database, and every file. */
    public void write(OutputStream to) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(new BufferedOutputStream(to))) {
            zip.putNextEntry(new ZipEntry(NOTE));
            zip.write(json.writeValueAsBytes(Map.of(
                    "format",
                    FORMAT,
                    "schema",
                    flyway.info().current().getVersion().getVersion(),
                    "made",
                    clock.instant().toString())));
            try (Connection db = database.getConnection()) {
                db.setTransactionIsolation(Connection.TRANSACTION_SERIALIZABLE);
                db.setAutoCommit(false);
                for (String table : Rows.tables(db)) {
                    zip.putNextEntry(new ZipEntry(TABLES + table + ".jsonl"));
                    Rows.write(db, table, zip);
                }
                db.rollback();
            } catch (SQLException e) {
                throw new IOException(e);
            }
            for (String hash : files.hashes()) {
                // What is cleared away meanwhile is no part of the state above.
                if (Files.exists(files.path(hash))) {
                    zip.putNextEntry(new ZipEntry(FILES + hash));
                    Files.copy(files.path(hash), zip);
                }
            }
        }
    }

    /**
     * Takes a backup back. What was here before is kept beside it, as a backup of its own.
     *
     * @return where that is
     * @throws Refusal if it is none, is damaged, or comes from a newer version; nothing was changed then
     */
    public Path restore(Path backup, Progress progress) throws IOException {
        try (ZipFile zip = new ZipFile(backup.toFile());
                Scratch scratch = new Scratch(zip)) {
            takeFiles(zip, progress);
            Path before = keepWhatIs();
            takeOver(scratch.db);
            try {
                proof.read();
            } catch (Refusal unreadable) {
                putBack(before);
                throw unreadable;
            }
            forgetOld(before.getParent());
            return before;
        } catch (ZipException | EOFException e) {
            throw new Refusal("That is no backup of Tranche, or it was cut off; nothing was changed.");
        } catch (SQLException | JsonProcessingException | IllegalArgumentException | DateTimeException e) {
            throw new Refusal("The backup is damaged, and nothing was changed. Take another copy of it.");
        }
    }

    private void putBack(Path before) throws IOException, SQLException {
        try (ZipFile zip = new ZipFile(before.toFile());
                Scratch scratch = new Scratch(zip)) {
            takeOver(scratch.db);
        }
        Files.delete(before);
    }

    /** A backup as a database of its own, while it is needed. */
    private final class Scratch implements AutoCloseable {
        /** Beside it lie those that the database makes. */
        private final Path file;

        private final Connection db;

        Scratch(ZipFile zip) throws IOException, SQLException {
            String schema = schema(zip);
            file = temporary.file("restoring", rows(zip));
            String url = "jdbc:h2:file:" + file.toAbsolutePath();
            db = DriverManager.getConnection(url, "sa", "");
            try {
                build(url, db, zip, schema);
            } catch (IOException | SQLException | RuntimeException e) {
                close();
                throw e;
            }
        }

        @Override
        public void close() throws IOException, SQLException {
            db.close();
            Files.deleteIfExists(file);
            Files.deleteIfExists(file.resolveSibling(file.getFileName() + ".mv.db"));
            Files.deleteIfExists(file.resolveSibling(file.getFileName() + ".trace.db"));
        }
    }

    /** Bytes of what goes into a database. */
    private static long rows(ZipFile zip) {
        return zip.stream()
                .filter(e -> e.getName().startsWith(TABLES))
                .mapToLong(ZipEntry::getSize)
                .sum();
    }

    private String schema(ZipFile zip) throws IOException {
        ZipEntry entry = zip.getEntry(NOTE);
        if (entry == null) {
            throw new Refusal("That is no backup of Tranche; take one under Settings.");
        }
        JsonNode note;
        try (InputStream in = zip.getInputStream(entry)) {
            note = json.readTree(in.readNBytes(1 << 16));
        }
        String schema = note.path("schema").asText();
        boolean known = Arrays.stream(flyway.info().all())
                .anyMatch(m ->
                        m.getVersion() != null && m.getVersion().getVersion().equals(schema));
        if (note.path("format").asInt() != FORMAT || !known) {
            throw new Refusal(
                    "The backup comes from a newer version of Tranche than this; start that, or a newer one, and nothing was changed here.");
        }
        return schema;
    }

    /** The backup as a database of its own, brought to today's schema. */
    private void build(String url, Connection db, ZipFile zip, String schema) throws SQLException, IOException {
        var configured =
                Flyway.configure().configuration(flyway.getConfiguration()).dataSource(url, "sa", "");
        configured.target(schema).load().migrate();
        List<String> tables = Rows.tables(db);
        for (String table : reversed(tables)) {
            execute(db, "delete from " + Rows.quoted(table));
        }
        for (String table : tables) {
            ZipEntry entry = zip.getEntry(TABLES + table + ".jsonl");
            if (entry == null) {
                throw Rows.damaged(table);
            }
            try (CheckedInputStream in = new CheckedInputStream(zip.getInputStream(entry), new CRC32())) {
                Rows.read(db, table, in);
                if (in.getChecksum().getValue() != entry.getCrc()) {
                    throw Rows.damaged(table);
                }
            }
        }
        configured.target("latest").load().migrate();
    }

    private void takeFiles(ZipFile zip, Progress progress) throws IOException {
        List<? extends ZipEntry> entries =
                zip.stream().filter(e -> e.getName().startsWith(FILES)).toList();
        int done = 0;
        for (ZipEntry entry : entries) {
            progress.at(++done, entries.size());
            String hash = entry.getName().substring(FILES.length());
            try (InputStream in = zip.getInputStream(entry)) {
                FileStore.Kept kept = files.keep(in, properties.largestGcode());
                if (!kept.hash().equals(hash)) {
                    files.takeBack(kept);
                    throw Rows.damaged(entry.getName());
                }
            }
        }
    }

    private Path keepWhatIs() throws IOException {
        Path folder = Files.createDirectories(properties.data().resolve("backups"));
        Path before = folder.resolve(name().replace("tranche-", "before-restoring-"));
        Path part = temporary.file("before", files.total());
        try {
            try (OutputStream out = Files.newOutputStream(part)) {
                write(out);
            }
            Files.move(part, before, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
        return before;
    }

    private void forgetOld(Path folder) throws IOException {
        try (var all = Files.list(folder)) {
            List<Path> old = all.sorted(Collections.reverseOrder()).skip(KEPT).toList();
            for (Path one : old) {
                Files.delete(one);
            }
        }
    }

    /** One transaction: the old rows go, and those of the other database come. Pages that show what was here are out of date. */
    private void takeOver(Connection from) throws SQLException, IOException {
        try (Connection db = database.getConnection()) {
            db.setAutoCommit(false);
            List<String> tables = Rows.tables(db);
            long edition = highest(db);
            try {
                for (String table : reversed(tables)) {
                    execute(db, "delete from " + Rows.quoted(table));
                }
                for (String table : tables) {
                    Transfer.rows(from, db, table);
                }
                execute(db, "update history set edition = edition + " + (edition + 1));
                db.commit();
            } catch (SQLException | RuntimeException e) {
                db.rollback();
                throw e;
            }
            for (String table : tables) {
                Rows.countOn(db, table);
            }
            db.commit();
            db.setAutoCommit(true);
        }
        events.publishEvent(new Restored());
    }

    private static long highest(Connection db) throws SQLException {
        try (Statement statement = db.createStatement();
                ResultSet max = statement.executeQuery("select coalesce(max(edition), 0) from history")) {
            max.next();
            return max.getLong(1);
        }
    }

    private static List<String> reversed(List<String> tables) {
        List<String> reversed = new ArrayList<>(tables);
        Collections.reverse(reversed);
        return reversed;
    }

    private static void execute(Connection db, String sql) throws SQLException {
        try (Statement statement = db.createStatement()) {
            statement.execute(sql);
        }
    }
}
