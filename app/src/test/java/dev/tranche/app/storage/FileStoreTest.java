package dev.tranche.app.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;

class FileStoreTest {
    @TempDir
    private Path data;

    private FileStore files;

    @BeforeEach
    void open() throws IOException {
        TrancheProperties properties = new TrancheProperties(
                data, DataSize.ofMegabytes(1), DataSize.ofMegabytes(1), DataSize.ofKilobytes(3), "EUR", "");
        files = new FileStore(properties, new Room(properties));
    }

    private String give(String words) {
        try {
            return files.keep(new ByteArrayInputStream(words.getBytes(StandardCharsets.UTF_8)), DataSize.ofKilobytes(1))
                    .hash();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private boolean isHere(String hash) {
        return Files.exists(files.path(hash));
    }

    @Test
    void what_was_given_for_a_while_is_gone_afterwards_and_what_is_to_stay_stays() {
        String gone;
        try (FileStore.Loan loan = files.lend()) {
            gone = give("a model");
            give("a model");
            assertThat(isHere(gone)).isTrue();
        }
        assertThat(isHere(gone)).isFalse();
        String stays;
        try (FileStore.Loan loan = files.lend()) {
            stays = give("a plan's model");
            loan.keep();
        }
        assertThat(isHere(stays)).isTrue();
    }

    @Test
    void nobody_takes_back_what_was_here_before_or_what_somebody_else_gave_meanwhile() {
        String before = give("here before");
        String meanwhile;
        try (FileStore.Loan loan = files.lend()) {
            give("here before");
            meanwhile = give("both of us");
            CompletableFuture.supplyAsync(() -> give("both of us")).join();
        }
        assertThat(isHere(before)).isTrue();
        assertThat(isHere(meanwhile)).isTrue();
    }

    @Test
    void a_sweep_takes_what_is_old_and_held_by_nobody_and_what_came_in_only_halfway() throws IOException {
        String held = give("held");
        String loose = give("loose");
        Path halfway = Files.createTempFile(data.resolve("files"), "coming-", ".part");
        Path foreign = Files.writeString(data.resolve("files").resolve("notes.txt"), "the owner's own");
        Instant now = Instant.now();
        files.sweep(now.minus(Duration.ofHours(1)), h -> false);
        assertThat(isHere(loose)).isTrue();
        files.sweep(now.plus(Duration.ofHours(1)), held::equals);
        assertThat(isHere(held)).isTrue();
        assertThat(isHere(loose)).isFalse();
        assertThat(halfway).doesNotExist();
        assertThat(foreign).exists();
    }

    @Test
    void what_fills_the_disk_on_its_way_is_refused_and_leaves_nothing() throws IOException {
        DataSize enough = DataSize.ofMegabytes(100);
        TrancheProperties properties = new TrancheProperties(data, enough, enough, enough, "EUR", "");
        FileStore full = new FileStore(properties, new Room(properties) {
            @Override
            public void require(long bytes) {
                throw new Refusal("no room for " + bytes);
            }
        });
        assertThatThrownBy(() -> full.keep(new ByteArrayInputStream(new byte[17 << 20]), enough))
                .isInstanceOf(Refusal.class);
        assertThat(data.resolve("files")).isEmptyDirectory();
        assertThat(full.keep(new ByteArrayInputStream(new byte[1 << 20]), enough)
                        .fresh())
                .isTrue();
    }
}
