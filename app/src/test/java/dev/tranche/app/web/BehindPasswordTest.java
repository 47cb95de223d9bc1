package dev.tranche.app.web;

import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.httpBasic;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import dev.tranche.app.support.OnePlanTest;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.autoconfigure.web.servlet.AutoConfigureMockMvc;
import org.springframework.test.context.TestPropertySource;
import org.springframework.test.web.servlet.MockMvc;

/** Where a phone may reach it, it asks for the password. */
@AutoConfigureMockMvc
@TestPropertySource(properties = "tranche.password=leaf and soot")
class BehindPasswordTest extends OnePlanTest {
    @Autowired
    private MockMvc mvc;

    @Test
    void nothing_is_shown_without_the_password_but_that_it_is_ready() throws Exception {
        String print = "/plans/" + plan("kept").id() + "/print";
        mvc.perform(get(print)).andExpect(status().isUnauthorized());
        mvc.perform(get(print + "/events")).andExpect(status().isUnauthorized());
        mvc.perform(get("/js/companion/companion.js")).andExpect(status().isUnauthorized());
        mvc.perform(get(print).with(httpBasic("tranche", "wrong"))).andExpect(status().isUnauthorized());
        mvc.perform(get(print).with(httpBasic("tranche", "leaf and soot"))).andExpect(status().isOk());
        // The script that started it waits for this.
        mvc.perform(get("/actuator/health/readiness")).andExpect(status().isOk());
    }
}
