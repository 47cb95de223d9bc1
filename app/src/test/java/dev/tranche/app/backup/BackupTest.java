package dev.tranche.app.backup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.test.annotation.DirtiesContext;

/** The whole house as one file and back, while it runs. A house of its own, since all of it is replaced. */
@DirtiesContext(classMode = DirtiesContext.ClassMode.BEFORE_CLASS)
class BackupTest extends BrowserTest {
    private static final ObjectMapper JSON = new ObjectMapper();

    @Autowired
    private Backups backups;

    @Value("${local.server.port}")
    private int server;

    private byte[] backup() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        backups.write(out);
        return out.toByteArray();
    }

    private Path restore(byte[] backup) throws IOException {
        return backups.restore(file("backup.zip", backup), Progress.UNHEARD);
    }

    /** The backup with an entry changed; null leaves it out. */
    private static byte[] changed(byte[] backup, BiFunction<String, byte[], byte[]> change) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(backup));
                ZipOutputStream zip = new ZipOutputStream(out)) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                byte[] content = change.apply(entry.getName(), in.readAllBytes());
                if (content != null) {
                    zip.putNextEntry(new ZipEntry(entry.getName()));
                    zip.write(content);
                }
            }
        }
        return out.toByteArray();
    }

    /** The backup with another 32-bit number in what its directory says of the plans' table (APPNOTE.TXT, 4.3.12). */
    private static byte[] directory(byte[] backup, int offset, IntUnaryOperator change) {
        ByteBuffer zip = ByteBuffer.wrap(backup.clone()).order(ByteOrder.LITTLE_ENDIAN);
        byte[] name = "tables/PLAN.jsonl".getBytes(StandardCharsets.US_ASCII);
        for (int at = 0; at + 46 + name.length <= zip.limit(); at++) {
            if (zip.getInt(at) == 0x02014b50
                    && Arrays.equals(zip.array(), at + 46, at + 46 + name.length, name, 0, name.length)) {
                zip.putInt(at + offset, change.applyAsInt(zip.getInt(at + offset)));
                return zip.array();
            }
        }
        throw new IllegalStateException("no such entry");
    }

    @Test
    void what_was_there_is_there_again_with_its_history_and_what_came_since_is_kept_beside() throws IOException {
        PlanState plan = plan("kept in the backup");
        Spool second = shelf.all().get(1);
        plans.edit(plan.id(), plan.edition(), "recolour", p -> p.recolour(0, second.id()));
        browser.open("/plans/" + plan.id());
        browser.find("#ledger");
        byte[] model =
                Files.readAllBytes(files.path(plan.content().files().get(0).hash()));
        browser.open("/settings");
        browser.click("#take-backup");
        Path taken = browser.until(() -> {
            try (var all = Files.list(browser.downloads())) {
                return all.filter(f -> f.getFileName().toString().matches("tranche-.*\\.zip"))
                        .findFirst()
                        .orElse(null);
            } catch (IOException e) {
                return null;
            }
        });

        PlanState later = plan("came later");
        plans.delete(plan.id());
        shelf.add(named(second, "Bought later"));
        Files.delete(files.path(plan.content().files().get(0).hash()));
        give("#backup-file", taken);
        browser.click("#restore-backup");
        browser.see("#content", "The backup was taken back");

        assertThat(plans.listed())
                .extracting(Plans.Listed::name)
                .contains("kept in the backup")
                .doesNotContain("came later");
        assertThat(shelf.all()).extracting(Spool::name).doesNotContain("Bought later");
        PlanState again = plans.get(plan.id());
        assertThat(again.undo()).contains("recolour");
        assertThat(again.content().colours().starts().get(0).spool()).isEqualTo(second.id());
        assertThat(Files.readAllBytes(files.path(again.content().files().get(0).hash())))
                .isEqualTo(model);
        // A page from before is out of date, and numbers go on above those that came.
        assertThat(again.edition()).isGreaterThan(plan.edition() + 1);
        assertThat(shelf.add(named(second, "Bought after")).id().value())
                .isGreaterThan(second.id().value());
        assertThat(plan("begun after").id()).isNotEqualTo(later.id());
        browser.open("/plans/" + plan.id());
        browser.see(".steps", "kept in the backup");
    }

    @Test
    void what_is_no_backup_or_damaged_or_from_a_newer_version_changes_nothing() throws IOException {
        PlanState plan = plan("must not change");
        byte[] good = backup();
        for (byte[] bad : List.of(
                "no backup".getBytes(StandardCharsets.US_ASCII),
                Arrays.copyOf(good, good.length / 2),
                directory(good, 16, checksum -> checksum + 1),
                directory(good, 20, packed -> packed / 2),
                changed(good, (name, content) -> name.equals("tranche-backup.json") ? null : content),
                changed(good, (name, content) -> name.startsWith("tables/PLAN") ? null : content),
                changed(
                        good,
                        (name, content) -> name.startsWith("tables/SPOOL") ? "[\"ID\"]\n[1,2]".getBytes() : content),
                changed(
                        good,
                        (name, content) -> name.startsWith("tables/SPOOL") ? "[\"X\\\" Y\"]\n[1]".getBytes() : content),
                changed(good, (name, content) -> name.startsWith("tables/REVISION.") ? "{".getBytes() : content),
                changed(good, (name, content) -> name.startsWith("files/") ? new byte[] {1} : content))) {
            assertThatThrownBy(() -> restore(bad)).isInstanceOf(Refusal.class).hasMessageContaining("backup");
        }
        byte[] newer = changed(
                good,
                (name, content) -> name.equals("tranche-backup.json")
                        ? "{\"format\":1,\"schema\":\"999\"}".getBytes(StandardCharsets.US_ASCII)
                        : content);
        assertThatThrownBy(() -> restore(newer)).hasMessageContaining("newer version");
        assertThat(plans.get(plan.id()).edition()).isEqualTo(plan.edition());
        try (var left = Files.list(files.path("0".repeat(64)).getParent().getParent())) {
            assertThat(left.map(f -> f.getFileName().toString())).noneMatch(n -> n.startsWith("restoring-"));
        }
    }

    /** What each page needs is read before it is kept; else a backup could take the whole house down. */
    @ParameterizedTest
    @CsvSource({
        "SPOOL, DENSITY, -1, shelf",
        "SPOOL, ID, 999, plans",
        "PRINTER, PURGES, {}, printers",
        "GUIDE, STAGE, NOWHERE, guided start",
        "SETTINGS, ZONE, Nowhere/At_All, settings",
        "PLAN, GCODE_HASH, no hash, plans"
    })
    void what_would_take_the_house_down_is_not_taken_over(String table, String column, String value, String part)
            throws IOException {
        PlanState plan = plan("stays, whatever " + table + " says");
        byte[] bad = changed(
                backup(),
                (name, content) -> name.equals("tables/" + table + ".jsonl") ? with(content, column, value) : content);
        assertThatThrownBy(() -> restore(bad))
                .isInstanceOf(Refusal.class)
                .hasMessage(
                        "The backup is damaged: “%s” in it cannot be read; nothing was changed. Take another copy of it.",
                        part);
        assertThat(plans.get(plan.id()).name()).isEqualTo(plan.name());
    }

    /** A table with another value in a column of its first row. */
    private static byte[] with(byte[] table, String column, String value) {
        String[] lines = new String(table, StandardCharsets.UTF_8).split("\n");
        try {
            JsonNode head = JSON.readTree(lines[0]);
            ArrayNode row = (ArrayNode) JSON.readTree(lines[1]);
            row.set(
                    IntStream.range(0, head.size())
                            .filter(c -> head.get(c).asText().equals(column))
                            .findFirst()
                            .orElseThrow(),
                    value);
            lines[1] = JSON.writeValueAsString(row);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
        return String.join("\n", lines).getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void a_backup_of_an_earlier_version_is_brought_to_today() throws IOException {
        PlanState plan = plan("of an earlier version");
        // As version 18 had it: without what versions 19 to 21 brought.
        byte[] older = changed(backup(), (name, content) -> {
            if (name.equals("tranche-backup.json")) {
                return "{\"format\":1,\"schema\":\"18\"}".getBytes(StandardCharsets.US_ASCII);
            }
            if (name.equals("tables/GUIDE.jsonl")) {
                return null;
            }
            if (name.equals("tables/SETTINGS.jsonl")) {
                return without(content, "HOURS");
            }
            return name.equals("tables/PLAN.jsonl")
                    ? without(content, "TAGS", "PRINTER", "SPOOLS")
                    : name.equals("tables/CARD.jsonl")
                            ? without(content, "SWAPS", "SECONDS", "PICTURE")
                            : name.equals("tables/REVISION.jsonl") ? without(content, "MADE_AT") : content;
        });
        restore(older);
        assertThat(plans.get(plan.id()).name()).isEqualTo("of an earlier version");
    }

    private static byte[] without(byte[] lines, String... columns) {
        com.fasterxml.jackson.databind.ObjectMapper json = new com.fasterxml.jackson.databind.ObjectMapper();
        List<String> gone = List.of(columns);
        StringBuilder out = new StringBuilder();
        List<Integer> kept = null;
        try {
            for (String line : new String(lines, StandardCharsets.UTF_8).lines().toList()) {
                var row = (com.fasterxml.jackson.databind.node.ArrayNode) json.readTree(line);
                if (kept == null) {
                    kept = java.util.stream.IntStream.range(0, row.size())
                            .filter(i -> !gone.contains(row.get(i).asText()))
                            .boxed()
                            .toList();
                }
                var fewer = json.createArrayNode();
                kept.forEach(i -> fewer.add(row.get(i)));
                out.append(fewer).append('\n');
            }
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void a_text_as_long_as_a_revision_may_be_goes_out_and_in() throws Exception {
        try (Connection db = DriverManager.getConnection("jdbc:h2:mem:long-text");
                Statement statement = db.createStatement()) {
            statement.execute(
                    "create table TOLD (ID bigint generated by default as identity, TEXT character large object)");
            String text = "é".repeat(21_000_000);
            try (PreparedStatement insert = db.prepareStatement("insert into TOLD (TEXT) values (?)")) {
                insert.setString(1, text);
                insert.execute();
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Rows.write(db, "TOLD", out);
            statement.execute("delete from TOLD");
            Rows.read(db, "TOLD", new ByteArrayInputStream(out.toByteArray()));
            try (ResultSet back = statement.executeQuery("select TEXT from TOLD")) {
                assertThat(back.next()).isTrue();
                assertThat(back.getString(1).equals(text)).isTrue();
            }
        }
    }

    @Test
    void by_command_it_goes_out_and_in_while_tranche_runs() throws Exception {
        PlanState plan = plan("by command");
        Path file = file("x", new byte[0]).resolveSibling("house.zip");
        String port = String.valueOf(server);
        assertThat(Courier.isMeant("backup", "house.zip", port)).isTrue();
        assertThat(Courier.isMeant("--server.port=8080")).isFalse();
        assertThat(Courier.run("backup", file.toString(), port)).isZero();
        plans.rename(plan.id(), "renamed since");
        assertThat(Courier.run("restore", file.toString(), port)).isZero();
        assertThat(plans.get(plan.id()).name()).isEqualTo("by command");
        assertThat(Courier.run(
                        "restore",
                        file("cut.zip", Arrays.copyOf(Files.readAllBytes(file), 500))
                                .toString(),
                        port))
                .isOne();
        assertThat(Courier.run("backup", file.toString(), "1")).isOne();
    }
}
