package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Shapes;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.context.WebApplicationContext;

class DrawingsTest extends OnePlanTest {
    @Autowired
    private Figures figures;

    @Autowired
    private WebApplicationContext application;

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

    @Test
    void a_drawing_says_that_not_all_that_is_too_thin_is_marked() throws Exception {
        assertThat(thinOf(40)).contains("0.30").doesNotContain("stretches marked");
        assertThat(thinOf(41)).contains("0.30").contains("first 40 thin stretches marked");
    }

    private String thinOf(int hairs) throws Exception {
        Shapes comb = new Shapes();
        for (int i = 0; i < hairs; i++) {
            comb.box(i, 0, 0, 0.3, 20, 1);
        }
        return MockMvcBuilders.webAppContextSetup(application)
                .build()
                .perform(get(
                                "/plans/{id}/thin",
                                plan("hairs " + hairs, comb.mesh()).id())
                        .param("at", "1"))
                .andReturn()
                .getResponse()
                .getContentAsString();
    }
}
