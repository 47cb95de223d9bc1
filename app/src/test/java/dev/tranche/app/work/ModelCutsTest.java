package dev.tranche.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Room;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;

class ModelCutsTest {
    private static final DataSize ENOUGH = DataSize.ofMegabytes(1);

    @Test
    void a_model_too_large_to_keep_beside_others_is_read_once_to_make_a_plan_of_it(@TempDir Path data)
            throws IOException {
        TrancheProperties properties = new TrancheProperties(data, ENOUGH, ENOUGH, ENOUGH, "EUR", "");
        FileStore files = new FileStore(properties, new Room(properties));
        byte[] stl = StlWriter.binary(new Shapes().box(0, 0, 0, 20, 10, 3).mesh());
        FileStore.Kept kept = files.keep(new ByteArrayInputStream(stl), ENOUGH);
        List<ModelFile> box = List.of(new ModelFile(kept.hash(), "box.stl", kept.size()));

        ModelCuts cuts = new ModelCuts(files, null, 11);
        PartedModel read = cuts.model(box, Progress.UNHEARD);
        assertThat(read.body().triangles()).isEqualTo(12);
        assertThat(cuts.model(box, Progress.UNHEARD)).isSameAs(read);
        assertThat(cuts.modelAtHand(box)).isSameAs(read);
    }
}
