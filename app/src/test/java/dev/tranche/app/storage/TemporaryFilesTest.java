package dev.tranche.app.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.autoconfigure.web.servlet.MultipartProperties;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.util.unit.DataSize;

/** What is needed for a moment lies where the room is, and does not pile up. */
class TemporaryFilesTest {
    @TempDir
    Path data;

    private TrancheProperties properties;

    @BeforeEach
    void properties() {
        DataSize enough = DataSize.ofMegabytes(1);
        properties = new TrancheProperties(data, enough, enough, enough, "EUR", "");
    }

    @Test
    void what_a_killed_process_left_is_gone_at_the_next_start_and_what_is_kept_stays() throws IOException {
        Path kept = Files.writeString(data.resolve("kept"), "a plan");
        Path left = new TemporaryFiles(properties, new Room(properties)).file("restoring", 1);
        new TemporaryFiles(properties, new Room(properties));
        assertThat(left).doesNotExist();
        assertThat(kept).exists();
    }

    @Test
    void what_is_sent_comes_in_beside_what_is_kept() throws IOException {
        TemporaryFiles temporary = new TemporaryFiles(properties, new Room(properties));
        assertThat(new Uploads().parts(new MultipartProperties(), temporary).getLocation())
                .isEqualTo(temporary.file("any", 0).getParent().toString())
                .startsWith(data.toString());
    }

    @Test
    void what_the_disk_has_no_room_for_is_not_begun() throws IOException {
        TemporaryFiles temporary = new TemporaryFiles(properties, new Room(properties));
        assertThatThrownBy(() -> temporary.file("rehearsal", 1L << 60))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("are needed to do this safely; nothing was changed. Make room and do it again.");
        assertThat(data.resolve("temporary")).isEmptyDirectory();
    }

    @Test
    void a_copy_for_which_there_is_no_room_is_not_left_in_half() throws IOException {
        TemporaryFiles temporary = new TemporaryFiles(properties, new Room(properties));
        MockMultipartFile sent = new MockMultipartFile("file", new byte[10]) {
            @Override
            public void transferTo(Path copy) throws IOException {
                Files.write(copy, new byte[5]);
                throw new IOException("No space left on device");
            }
        };
        assertThatThrownBy(() -> temporary.copy("backup", sent)).isInstanceOf(IOException.class);
        assertThat(data.resolve("temporary")).isEmptyDirectory();
    }
}
