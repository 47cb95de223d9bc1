package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;

import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.beans.factory.annotation.Autowired;

class DrawingsTest extends OnePlanTest {
    @Autowired
    private Workbench workbench;

    @Autowired
    private Figures figures;

    @Test
    void however_fast_one_steps_through_the_layers_one_worker_draws_ahead_and_the_others_stay_free() {
        Workpiece work = workbench.openNow(plan("drawn ahead"));
        Jobs jobs = mock(Jobs.class);
        Drawings drawings = new Drawings(figures, jobs);
        for (int layer = 2; layer < 12; layer++) {
            drawings.ahead(work, layer, layer + 1, layer - 1);
        }

        ArgumentCaptor<Object> pieces = ArgumentCaptor.forClass(Object.class);
        verify(jobs, atLeastOnce()).start(pieces.capture(), any(), any());
        assertThat(Set.copyOf(pieces.getAllValues())).hasSize(1);
    }
}
