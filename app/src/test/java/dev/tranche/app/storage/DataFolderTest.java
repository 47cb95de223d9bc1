package dev.tranche.app.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DataFolderTest {
    @TempDir
    private Path folder;

    @Test
    void a_folder_is_held_by_one_application_at_a_time() {
        try (DataFolder held = DataFolder.claim(folder.resolve("new"))) {
            assertThat(held).isNotNull();
            assertThatThrownBy(() -> DataFolder.claim(folder.resolve("new")))
                    .isInstanceOf(DataFolder.CannotStart.class)
                    .hasMessageContaining("Another Tranche is using");
        }
        DataFolder.claim(folder.resolve("new")).close();
    }

    @Test
    void a_folder_that_cannot_be_made_is_said_in_one_sentence() throws IOException {
        Path file = Files.writeString(folder.resolve("file"), "in the way");
        assertThatThrownBy(() -> DataFolder.claim(file.resolve("data")))
                .isInstanceOf(DataFolder.CannotStart.class)
                .hasMessageContaining("cannot write to")
                .hasMessageEndingWith(".");
    }
}
