package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.not;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.header;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.support.OnePlanTest;
import java.net.InetAddress;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.autoconfigure.web.ServerProperties;
import org.springframework.boot.test.autoconfigure.web.servlet.AutoConfigureMockMvc;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.util.unit.DataSize;

@AutoConfigureMockMvc
class SafetyTest extends OnePlanTest {
    @Autowired
    private MockMvc mvc;

    @Test
    void pages_allow_no_scripts_or_styles_but_those_that_ship_with_them() throws Exception {
        mvc.perform(get("/"))
                .andExpect(status().isOk())
                .andExpect(header().string(
                                "Content-Security-Policy", containsString("script-src 'self'; style-src 'self'")))
                .andExpect(header().string("Content-Security-Policy", not(containsString("unsafe"))))
                .andExpect(header().string("X-Content-Type-Options", "nosniff"))
                .andExpect(content().string(not(containsString(" style="))))
                .andExpect(content().string(not(containsString("<style"))));
    }

    @Test
    void pages_name_no_address_outside() throws Exception {
        for (String page : new String[] {
            "/", "/shelf", "/printers/new", "/plans/" + plan("inside").id()
        }) {
            mvc.perform(get(page)).andExpect(content().string(not(containsString("src=\"http"))));
            mvc.perform(get(page)).andExpect(content().string(not(containsString("href=\"http"))));
        }
    }

    @Test
    void a_change_without_the_pages_own_token_is_refused() throws Exception {
        String id = plan("token").id();
        mvc.perform(post("/plans/" + id + "/delete")).andExpect(status().isForbidden());
        assertThat(plans.get(id).name()).isEqualTo("token");
    }

    @Test
    void another_sites_name_for_this_machine_is_refused() throws Exception {
        mvc.perform(get("/").with(request -> {
                    request.setServerName("rebound.example");
                    return request;
                }))
                .andExpect(status().isBadRequest());
    }

    @Test
    void names_are_shown_and_never_run() throws Exception {
        String id = plan("<script>alert(1)</script>").id();
        String name = "\"><svg onload=alert(2)>";
        mvc.perform(post("/shelf")
                        .with(csrf())
                        .param("name", name)
                        .param("material", "PLA")
                        .param("colour", "#123456")
                        .param("price", "20")
                        .param("firstTemperature", "210")
                        .param("temperature", "205")
                        .param("gramsLeft", "100"))
                .andExpect(status().isOk());
        for (String page : new String[] {"/", "/shelf", "/plans/" + id, "/plans/" + id + "/swap-list"}) {
            mvc.perform(get(page))
                    .andExpect(status().isOk())
                    .andExpect(content().string(not(containsString("<script>alert"))))
                    .andExpect(content().string(not(containsString("<svg onload"))));
        }
    }

    @Test
    void listening_to_other_machines_needs_a_password() throws Exception {
        ServerProperties open = new ServerProperties();
        open.setAddress(InetAddress.getByName("0.0.0.0"));
        assertThatThrownBy(() -> new LoopbackGuard(open, properties("")))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("Set tranche.password");
        assertThat(new LoopbackGuard(open, properties("beans"))).isNotNull();
        ServerProperties loopback = new ServerProperties();
        loopback.setAddress(InetAddress.getLoopbackAddress());
        assertThat(new LoopbackGuard(loopback, properties(""))).isNotNull();
        assertThatThrownBy(() -> new LoopbackGuard(new ServerProperties(), properties("")))
                .isInstanceOf(IllegalStateException.class);
    }

    private static TrancheProperties properties(String password) {
        return new TrancheProperties(
                Path.of("x"),
                DataSize.ofMegabytes(1),
                DataSize.ofMegabytes(1),
                DataSize.ofMegabytes(1),
                "EUR",
                password);
    }

    @Test
    void a_page_that_is_not_there_says_so() throws Exception {
        mvc.perform(get("/plans/nowhere")).andExpect(content().string(containsString("That plan is not here")));
        mvc.perform(get("/nowhere")).andExpect(status().isNotFound());
    }
}
