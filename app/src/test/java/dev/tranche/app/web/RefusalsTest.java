package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.jobs.Jobs;
import jakarta.servlet.http.HttpServletResponse;
import org.junit.jupiter.api.Test;
import org.springframework.stereotype.Controller;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.bind.annotation.GetMapping;

class RefusalsTest {
    @Controller
    static class Download {
        @GetMapping("/file")
        void file(HttpServletResponse response) {
            Attachment.begin(response, "figure.3mf", "model/3mf");
            throw new OutOfMemoryError();
        }
    }

    @Test
    void a_file_for_which_memory_ran_out_becomes_a_page_that_says_so() throws Exception {
        MockMvc mvc = MockMvcBuilders.standaloneSetup(new Download())
                .setControllerAdvice(new Refusals(null, null, null))
                .build();
        MvcResult answer = mvc.perform(MockMvcRequestBuilders.get("/file")).andReturn();
        assertThat(answer.getResponse().getStatus()).isEqualTo(507);
        assertThat(answer.getResponse().getHeader("Content-Disposition")).isNull();
        assertThat(answer.getModelAndView().getViewName()).isEqualTo("web/refusal");
        assertThat(answer.getModelAndView().getModel()).containsEntry("sentence", Jobs.NO_MEMORY);
    }
}
