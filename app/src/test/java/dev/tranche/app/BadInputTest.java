package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import dev.tranche.app.exchange.ArchiveTest;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.math.BigDecimal;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.autoconfigure.web.servlet.AutoConfigureMockMvc;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;

/** What people give by mistake: one clear sentence each, and nothing lost. */
@AutoConfigureMockMvc
class BadInputTest extends OnePlanTest {
    private static final byte[] GOOD = StlWriter.binary(nameplate().mesh());

    @LocalServerPort
    private int port;

    @Autowired
    private MockMvc mvc;

    /** Gives a file and follows the work to its end. */
    private String give(String address, String name, byte[] bytes) throws Exception {
        MockHttpServletResponse response = mvc.perform(multipart(address)
                        .file(new MockMultipartFile("file", name, null, bytes))
                        .with(csrf())
                        .header("HX-Request", "true"))
                .andReturn()
                .getResponse();
        Matcher job = Pattern.compile("hx-get=\"(/jobs/[^\"]+)\"").matcher(response.getContentAsString());
        while (job.find()) {
            response = mvc.perform(get(job.group(1))).andReturn().getResponse();
            job = Pattern.compile("hx-get=\"(/jobs/[^\"]+)\"").matcher(response.getContentAsString());
        }
        String page = response.getHeader("HX-Redirect");
        return page != null ? page : response.getContentAsString(StandardCharsets.UTF_8);
    }

    @Test
    void whoever_sends_a_form_without_its_file_is_told_so() throws Exception {
        String plan = "/plans/" + plan("without a file").id();
        for (String address : List.of(
                "/plans",
                plan + "/gcode",
                plan + "/files",
                plan + "/model/add",
                plan + "/regions/svg",
                "/printers/file",
                "/shelf/table")) {
            MockHttpServletResponse plain = mvc.perform(MockMvcRequestBuilders.post(address)
                            .param("seen", "0")
                            .with(csrf())
                            .header("HX-Request", "true"))
                    .andReturn()
                    .getResponse();
            assertThat(plain.getStatus()).as(address).isEqualTo(422);
            assertThat(plain.getContentAsString()).as(address).contains("choose one");
            MockHttpServletResponse empty = mvc.perform(
                            multipart(address).param("seen", "0").with(csrf()).header("HX-Request", "true"))
                    .andReturn()
                    .getResponse();
            assertThat(empty.getStatus()).as(address).isEqualTo(422);
            assertThat(empty.getContentAsString()).as(address).contains("choose one");
        }
    }

    @Test
    void a_program_that_brings_no_backup_is_told_so_in_a_line_and_not_in_a_page() throws Exception {
        MockHttpServletResponse none = mvc.perform(MockMvcRequestBuilders.post("/api/v1/restore")
                        .contentType("application/zip")
                        .content(new byte[50]))
                .andReturn()
                .getResponse();
        assertThat(none.getStatus()).isEqualTo(422);
        assertThat(none.getContentType()).startsWith("text/plain");
        assertThat(none.getContentAsString()).contains("send it as the part “file”");
    }

    @Test
    void a_file_that_breaks_off_on_its_way_is_asked_for_again() throws Exception {
        String head = "--x\r\nContent-Disposition: form-data; name=\"model\"; filename=\"a.stl\"\r\n\r\n";
        HttpRequest brokenOff = HttpRequest.newBuilder(URI.create("http://localhost:" + port + "/api/v1/ledger"))
                .header("Content-Type", "multipart/form-data; boundary=x")
                .POST(HttpRequest.BodyPublishers.ofString(head + "solid"))
                .build();
        HttpResponse<String> said = HttpClient.newHttpClient().send(brokenOff, HttpResponse.BodyHandlers.ofString());
        assertThat(said.statusCode()).isEqualTo(422);
        assertThat(said.body()).contains("did not arrive whole; send it again");
    }

    private void refusesModel(byte[] bytes, String words) throws Exception {
        int before = plans.all().size();
        assertThat(give("/plans", "model.stl", bytes)).contains(words);
        assertThat(plans.all()).hasSize(before);
    }

    /** It is said before it has come, and nothing of it lies there afterwards. */
    @Test
    void what_the_disk_has_no_room_for_is_refused_before_it_comes() throws IOException {
        try (Socket socket = new Socket("localhost", port)) {
            socket.setSoTimeout(10_000);
            String head = "POST /api/v1/ledger HTTP/1.1\r\nHost: localhost\r\nContent-Length: " + (1L << 50)
                    + "\r\nContent-Type: multipart/form-data; boundary=x\r\n\r\n--x\r\n";
            socket.getOutputStream().write(head.getBytes(StandardCharsets.US_ASCII));
            BufferedReader answer =
                    new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
            assertThat(answer.readLine()).startsWith("HTTP/1.1 422");
            assertThat(answer.lines()
                            .filter(l -> l.contains("Make room and do it again"))
                            .findFirst())
                    .isPresent();
        }
    }

    @Test
    void models_that_are_none_are_refused_and_make_no_plan() throws Exception {
        refusesModel(new byte[0], "The file is empty");
        refusesModel("a recipe for leek soup".getBytes(), "no STL model");
        refusesModel(Arrays.copyOf(GOOD, GOOD.length - 30), "cut short");
        byte[] lying = GOOD.clone();
        ByteBuffer.wrap(lying).order(ByteOrder.LITTLE_ENDIAN).putInt(80, 77);
        refusesModel(lying, "77 triangles but has room for 36");
        byte[] nowhere = GOOD.clone();
        ByteBuffer.wrap(nowhere).order(ByteOrder.LITTLE_ENDIAN).putFloat(84 + 12, Float.NaN);
        refusesModel(nowhere, "Triangle 1 has a corner at (NaN");
        refusesModel("<html><body>Sign in to download</body></html>".getBytes(), "web page");
        refusesModel(new byte[3 << 20], "larger than 2 MB");
        refusesModel("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n".getBytes(), "names corner “9”");
        refusesModel(new byte[] {'P', 'K', 3, 4, 0, 0}, "The archive");
    }

    @Test
    void a_good_model_makes_a_plan_whatever_it_is_called() throws Exception {
        String page = give("/plans", "..\\..\\evil\r\nname<b>.exe", GOOD);
        assertThat(page).startsWith("/plans/");
        assertThat(plans.get(page.substring("/plans/".length())).name()).isEqualTo("evil name<b>");
    }

    @Test
    void gcode_that_prints_nothing_is_refused_and_the_plan_keeps_the_file_it_had() throws Exception {
        PlanState plan = plan("keeps");
        String address = "/plans/" + plan.id() + "/gcode";
        assertThat(give(address, "good.gcode", sliced(new SmallGcode()).bytes()))
                .endsWith("/hand-off");
        assertThat(give(address, "bad.gcode", "G28\nG1 X10\n".getBytes())).contains("never extrudes");
        assertThat(give(address, "bad.gcode", "not at all".getBytes())).contains("it is no G-code");
        assertThat(plans.get(plan.id()).gcode().orElseThrow().name()).isEqualTo("good.gcode");
    }

    @Test
    void gcode_may_come_packed_and_what_is_none_is_called_what_it_is() throws Exception {
        PlanState plan = plan("packed");
        byte[] plain = sliced(new SmallGcode()).bytes();
        for (String address : List.of("/plans/" + plan.id() + "/gcode", "/plans/" + plan.id() + "/files")) {
            assertThat(give(address, "tag.gcode.gz", gzip(plain))).isEqualTo("/plans/" + plan.id() + "/hand-off");
            assertThat(plans.get(plan.id()).gcode().orElseThrow().name()).isEqualTo("tag.gcode");
            for (Charset names : List.of(StandardCharsets.UTF_8, Charset.forName("IBM850"))) {
                give(address, "sliced.zip", ArchiveTest.zip(names, Map.of("gro\u00DF.gcode", plain)));
                assertThat(plans.get(plan.id()).gcode().orElseThrow().name()).isEqualTo("gro\u00DF.gcode");
            }
            byte[] zip = ArchiveTest.zip(Map.of("out/a.gcode", plain, "out/.a.gcode", plain, "note.txt", GOOD));
            assertThat(give(address, "all.zip", zip)).isEqualTo("/plans/" + plan.id() + "/hand-off");
            assertThat(plans.get(plan.id()).gcode().orElseThrow().name()).isEqualTo("a.gcode");
            assertThat(give(address, "two.zip", ArchiveTest.zip(Map.of("a.gcode", plain, "b.gcode", plain))))
                    .contains("“a.gcode” and “b.gcode”");
            byte[] cut = gzip(plain);
            assertThat(give(address, "cut.gcode.gz", Arrays.copyOf(cut, cut.length / 2)))
                    .contains("archive is broken");
            assertThat(give(address, "wide.gcode", new String(plain, StandardCharsets.UTF_8).getBytes("UTF-16")))
                    .contains("UTF-16");
            assertThat(plans.get(plan.id()).gcode().orElseThrow().name()).isEqualTo("a.gcode");
        }
        assertThat(give("/plans/" + plan.id() + "/gcode", "bomb.gcode.gz", gzip(new byte[1 << 26])))
                .contains("Unpacked, the archive would take over")
                .doesNotContain("model");
        assertThat(give("/plans/" + plan.id() + "/gcode", "tag.stl", GOOD)).contains("“tag.stl” is a model");
        assertThat(give("/plans/" + plan.id() + "/gcode", "none.zip", ArchiveTest.zip(Map.of("a.stl", GOOD))))
                .contains("holds no G-code");
        assertThat(give("/plans/" + plan.id() + "/gcode", "half.zip", Arrays.copyOf(new byte[] {'P', 'K', 3, 4}, 40)))
                .contains("archive is broken");
    }

    private static byte[] gzip(byte[] plain) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
            out.write(plain);
        }
        return packed.toByteArray();
    }

    @Test
    void gcode_in_inches_relative_with_crlf_or_latin_1_is_taken() throws Exception {
        String address = "/plans/" + plan("kinds").id() + "/gcode";
        for (SmallGcode kind : new SmallGcode[] {
            new SmallGcode().inches(), new SmallGcode().relativeExtrusion(), new SmallGcode().crlf()
        }) {
            String page = give(address, "kind.gcode", sliced(kind).bytes());
            String shown = mvc.perform(get(page)).andReturn().getResponse().getContentAsString();
            assertThat(shown).contains("one for one");
        }
    }

    private String post(String address, String... parameters) throws Exception {
        MockHttpServletRequestBuilder request =
                org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post(address)
                        .with(csrf())
                        .header("HX-Request", "true");
        for (int i = 0; i < parameters.length; i += 2) {
            request.param(parameters[i], parameters[i + 1]);
        }
        return mvc.perform(request).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource({
        "-0.4, below the bed",
        "7, above the last layer",
        "NaN, is not a height",
        "3 inches, is not a height",
        "L99, no layer 99",
        "'', is not a height"
    })
    void heights_that_cannot_be_change_nothing(String height, String words) throws Exception {
        PlanState plan = plan("heights");
        String spool = String.valueOf(shelf.all().get(1).id().value());
        assertThat(post("/plans/" + plan.id() + "/starts", "seen", "0", "height", height, "spool", spool))
                .contains(words);
        assertThat(plans.get(plan.id()).edition()).isZero();
    }

    @Test
    void layers_and_spools_that_cannot_be_change_nothing() throws Exception {
        PlanState plan = plan("layers");
        String address = "/plans/" + plan.id();
        assertThat(post(address + "/layers", "seen", "0", "first", "0", "height", "0.2"))
                .contains("cannot be printed");
        assertThat(post(address + "/starts", "seen", "0", "height", "2", "spool", "4711"))
                .contains("not on the shelf");
        assertThat(post(address + "/starts", "seen", "x", "height", "2", "spool", "1"))
                .contains("needs a number");
        assertThat(post(address + "/order", "seen", "0", "rule", "quickest"))
                .contains("The field “rule” takes one of NUMBERED, ", "choose one");
        assertThat(post(address + "/starts/7/merge", "seen", "0")).contains("no colour number 8");
        assertThat(post(address + "/findings/none/mend", "seen", "0")).contains("no longer there");
        assertThat(plans.get(plan.id()).edition()).isZero();
    }

    @Test
    void blends_and_fades_that_cannot_be_change_nothing() throws Exception {
        PlanState plan = plan("paints");
        String address = "/plans/" + plan.id() + "/paints/";
        String dark = String.valueOf(shelf.all().get(0).id().value());
        String light = String.valueOf(shelf.all().get(1).id().value());
        assertThat(post(address + "fade", "seen", "0", "from", dark, "to", light, "begins", "1", "ends", "9"))
                .contains("ends at 9.00 mm and the print at 5.00 mm");
        assertThat(post(address + "fade", "seen", "0", "from", dark, "to", light, "begins", "4", "ends", "1"))
                .contains("does not rise");
        assertThat(post(address + "fade", "seen", "0", "from", dark, "to", dark, "begins", "1", "ends", "4"))
                .contains("changes nothing");
        assertThat(post(address + "fade", "seen", "0", "from", dark, "to", "-7", "begins", "1", "ends", "4"))
                .contains("not on the shelf");
        assertThat(post(address + "fade", "seen", "0", "from", dark, "to", light, "begins", "", "ends", "4"))
                .contains("is not a height");
        assertThat(post(address + "blend", "seen", "0", "of", dark, "of", light, "share", "50", "share", "60"))
                .contains("The weights sum to 1.1 and must sum to 1");
        assertThat(post(address + "blend", "seen", "0", "of", dark, "of", light, "share", "NaN", "share", "50"))
                .contains("share of");
        assertThat(post(address + "blend", "seen", "0", "of", dark, "of", light, "share", "-10", "share", "110"))
                .contains("0 to 1");
        assertThat(post(address + "blend", "seen", "0", "of", dark, "share", "100"))
                .contains("A blend of one spool is that spool");
        assertThat(post(address + "blend", "seen", "0", "of", dark, "of", light, "share", "100"))
                .contains("a share for each");
        assertThat(post(address + "preset/0", "seen", "0")).contains("no blend of spools");
        assertThat(post(address + "preset/99", "seen", "0")).contains("There is no T99");
        assertThat(post(address + "-4/begins", "seen", "0", "height", "2")).contains("not in this plan any more");
        assertThat(post("/plans/" + plan.id() + "/purge/measured", "out", "-1", "in", light, "length", "80"))
                .contains("measure those");
        assertThat(plans.get(plan.id()).edition()).isZero();
    }

    @Test
    void a_spool_without_a_colour_or_with_words_for_numbers_is_refused() throws Exception {
        String[] spool = {
            "name",
            "Moss",
            "material",
            "PLA",
            "colour",
            "",
            "price",
            "20",
            "firstTemperature",
            "210",
            "temperature",
            "205",
            "gramsLeft",
            "100"
        };
        assertThat(post("/shelf", spool)).contains("A spool needs a colour");
        spool[5] = "#4C6B2F";
        spool[7] = "cheap";
        assertThat(post("/shelf", spool)).contains("“cheap” is not a number for the price");
        spool[7] = "20";
        spool[11] = "20.5";
        assertThat(post("/shelf", spool)).contains("temperature needs a whole number");
        assertThat(shelf.all()).noneMatch(s -> s.name().equals("Moss"));
    }

    @Test
    void what_plans_use_is_not_taken_away() throws Exception {
        PlanState user = plan("user");
        plans.variant(user.id(), "on a tower", p -> p);
        long spool = shelf.all().get(0).id().value();
        assertThat(post("/shelf/" + spool + "/remove"))
                .contains("This spool is part of “")
                .contains("“user: on a tower”")
                .contains("“user”");
        assertThat(post("/printers/" + workshop.all().get(0).id() + "/remove"))
                .contains("“user: on a tower”")
                .contains("would print on this");
        plans.delete(user.id());
        assertThat(plans.using(shelf.all().get(0).id()))
                .doesNotContain("user")
                .noneMatch(n -> n.contains("on a tower"));
    }

    @Test
    void an_edit_from_a_page_that_fell_behind_is_not_made() throws Exception {
        PlanState plan = plan("behind");
        String spool = String.valueOf(shelf.all().get(1).id().value());
        post("/plans/" + plan.id() + "/starts", "seen", "0", "height", "2", "spool", spool);
        assertThat(post("/plans/" + plan.id() + "/starts", "seen", "0", "height", "3", "spool", spool))
                .contains("changed in another tab (start Light at 2.00 mm)");
        assertThat(plans.get(plan.id()).content().colours().starts().list()).hasSize(2);
    }

    @Test
    void a_swap_list_tells_day_and_time_and_its_csv_holds_no_formula() throws Exception {
        PlanState plan = plan("list");
        String spool = String.valueOf(shelf.all().get(1).id().value());
        post("/plans/" + plan.id() + "/starts", "seen", "0", "height", "2.4", "spool", spool);
        plans.editAll(plan.id(), 1, "start", c -> c.startingAt(Optional.of(LocalDateTime.of(2026, 11, 27, 23, 58))));
        String csv = mvc.perform(get("/plans/" + plan.id() + "/swap-list.csv"))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8);
        assertThat(csv.lines()).hasSize(2);
        assertThat(csv).contains("1,13,12,,2.40,2.60,A Dark,B Light,").containsPattern(",Sat 00:\\d\\d");
        // Two temperatures stand where there are two.
        assertThat(csv).contains(",205 °C,").doesNotContain("→");
        PlanState warmer = plan("warmer list");
        Spool warm = shelf.add(new Spool(
                new SpoolId(0), "Warmer", Material.PLA, Srgb.parse("#336699"), 1.24, BigDecimal.TEN, 225, 220, 500));
        post(
                "/plans/" + warmer.id() + "/starts",
                "seen",
                "0",
                "height",
                "2.4",
                "spool",
                String.valueOf(warm.id().value()));
        assertThat(mvc.perform(get("/plans/" + warmer.id() + "/swap-list.csv"))
                        .andReturn()
                        .getResponse()
                        .getContentAsString(StandardCharsets.UTF_8))
                .contains(",205 → 220 °C,");
    }

    @Test
    void steps_that_cannot_be_are_refused_with_the_reason_and_change_nothing() throws Exception {
        long id = workshop.add(Beginning.SELECTOR.rig("Refusing")).id();
        String macro = "/printers/" + id + "/macros/0";
        Rig before = workshop.get(id).rig();
        assertThat(post(macro + "/steps/1", "seen", "0", "on", "true", "height", "high"))
                .contains("“high” is not a number for the height;");
        assertThat(post(macro + "/steps/1", "seen", "0", "on", "true", "height", "1000"))
                .contains("A lift of 1000 mm is out of range");
        assertThat(post(macro + "/steps/1", "seen", "0", "on", "true", "height", "5", "only", "T20"))
                .contains("extruders from T0 to T15");
        assertThat(post(macro + "/steps/3", "seen", "0", "on", "true", "to", "EVERYBODY"))
                .contains("is no choice for the heat;");
        assertThat(post(macro + "/steps", "seen", "0", "kind", "Dance", "at", "0"))
                .contains("“Dance” is no step");
        assertThat(post(macro + "/steps/77", "seen", "0", "on", "true", "height", "5"))
                .contains("no step 78");
        assertThat(post(
                        "/printers/" + id + "/macros/host",
                        "seen",
                        "0",
                        "x",
                        " ",
                        "y",
                        "b",
                        "e",
                        "c",
                        "f",
                        "d",
                        "mode",
                        "M83"))
                .contains("name for X must be 1 to 60 letters");
        assertThat(post(macro + "/steps/77/move", "seen", "0", "to", "0")).contains("no step 78");
        assertThat(post("/printers/" + id + "/macros/9/steps", "seen", "0", "kind", "Park", "at", "0"))
                .contains("macro is not there any more");
        assertThat(post(macro, "seen", "0", "name", " ", "person", "90")).contains("at most 60 letters");
        assertThat(post(macro, "seen", "0", "name", "Swap", "person", "99999999"))
                .contains("12 hours");
        assertThat(workshop.get(id).rig()).isEqualTo(before);
    }

    @Test
    void own_lines_with_unknown_names_or_open_braces_are_refused() throws Exception {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Naming")).id();
        String macro = "/printers/" + id + "/macros/0";
        post(macro + "/steps", "seen", "0", "kind", "Own lines", "at", "0");
        assertThat(post(macro + "/steps/0", "seen", "1", "on", "true", "lines", "M117 {{spool}}"))
                .contains("{{spool}} is not a name that macros know");
        assertThat(post(macro + "/steps/0", "seen", "1", "on", "true", "lines", "M117 {{in"))
                .contains("is not a name between braces");
        assertThat(post(macro + "/steps/0", "seen", "1", "on", "true", "lines", "M117 {{in}}"))
                .contains("M117 B Light");
    }

    /** Behind what calls itself plain text or an archive, phones and browsers write .txt and .zip. */
    @Test
    void what_leaves_for_a_printer_or_another_house_keeps_its_name() throws Exception {
        String plan = "/plans/" + plan("Öl für Ида").id();
        give(plan + "/gcode", "p.gcode", sliced(new SmallGcode()).bytes());
        Map<MockHttpServletRequestBuilder, String> types = Map.of(
                MockMvcRequestBuilders.post(plan + "/gcode/with-swaps"), "text/x.gcode",
                MockMvcRequestBuilders.post(plan + "/gcode/without-swaps"), "text/x.gcode",
                get("/printers/1/probe.gcode"), "text/x.gcode",
                get(plan + "/plan.tranche"), "application/vnd.tranche.plan+zip",
                get(plan + "/coloured.3mf"), "model/3mf");
        for (Map.Entry<MockHttpServletRequestBuilder, String> file : types.entrySet()) {
            MockHttpServletResponse given = asked(file.getKey());
            assertThat(given.getStatus()).isEqualTo(200);
            assertThat(given.getContentType()).isEqualTo(file.getValue() + ";charset=utf-8");
        }
        assertThat(mvc.perform(get(plan + "/plan.tranche"))
                        .andReturn()
                        .getResponse()
                        .getHeader("Content-Disposition"))
                .isEqualTo("attachment; filename=\"Ol-fur-_.tranche\"; "
                        + "filename*=UTF-8''Ol-fur-%D0%98%D0%B4%D0%B0.tranche");
    }

    /** What is made first is sent from elsewhere. */
    private MockHttpServletResponse asked(MockHttpServletRequestBuilder request) throws Exception {
        MockHttpServletResponse given =
                mvc.perform(request.with(csrf())).andReturn().getResponse();
        return given.getForwardedUrl() == null
                ? given
                : mvc.perform(get(given.getForwardedUrl())).andReturn().getResponse();
    }

    /** From a page that was open before its file was put away. */
    @Test
    void a_rehearsal_without_a_file_is_refused() throws Exception {
        assertThat(post("/plans/" + plan("Unsliced").id() + "/rehearse"))
                .contains("There is no G-code yet to rehearse; give the file your slicing program wrote.");
    }

    @Test
    void a_macro_takes_200_steps_and_no_more() throws Exception {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Long")).id();
        Step[] parks = java.util.Collections.nCopies(200, new Step.Park()).toArray(Step[]::new);
        workshop.edit(id, 0, "many", rig -> rig.with(rig.macros().replace(0, Macro.of(Event.SWAP, parks))));
        assertThat(post("/printers/" + id + "/macros/0/steps", "seen", "1", "kind", "Park", "at", "0"))
                .contains("A macro of 201 steps is too long; 200 are allowed");
    }

    @Test
    void names_cannot_smuggle_lines_or_comments_into_gcode() throws Exception {
        PlanState plan = plan("smuggler");
        assertThat(post("/plans/" + plan.id() + "/halts", "seen", "0", "height", "2", "note", "nut\nM112 ; (x)"))
                .contains("nut M112 ; (x)");
        PlanState halted = plans.get(plan.id());
        assertThat(halted.content().colours().halts().list().get(0).note()).isEqualTo("nut M112 ; (x)");
        give(
                "/plans/" + plan.id() + "/gcode",
                "p.gcode",
                sliced(new SmallGcode()).bytes());
        String written = post("/plans/" + plan.id() + "/gcode/with-swaps");
        assertThat(written).contains("M117 Halt 1: nut M112 x").doesNotContain("\nM112");
        assertThat(post("/plans/" + plan.id() + "/halts", "seen", "2", "height", "2", "note", " "))
                .contains("A halt needs a note");
        assertThat(post("/plans/" + plan.id() + "/halts", "seen", "2", "height", "77", "note", "x"))
                .contains("above the last layer");
    }

    /** What Java reads as a number, and no machine has. */
    @ParameterizedTest
    @ValueSource(strings = {"NaN", "Infinity", "-Infinity", "1e999"})
    void a_place_that_is_no_number_is_refused(String place) throws Exception {
        long printer = workshop.all().get(0).id();
        MockHttpServletResponse said = mvc.perform(
                        get("/printers/" + printer + "/macros/0").param("x", place))
                .andReturn()
                .getResponse();
        assertThat(said.getStatus()).isEqualTo(422);
        assertThat(said.getContentAsString()).contains("needs a number");
    }

    @Test
    void abilities_racks_and_measures_that_cannot_be_are_refused() throws Exception {
        String printer =
                "/printers/" + workshop.add(Beginning.BLENDING.rig("Strict")).id();
        assertThat(post(printer + "/abilities", "seen", "0", "ability", "M999")).contains("“M999” is not a command");
        assertThat(post(printer + "/abilities", "seen", "0", "ability", "M117", "host", "M117"))
                .contains("stops nothing");
        assertThat(post(printer + "/rack", "seen", "0", "count", "17")).contains("1 to 16");
        String[] extruder = {
            "seen",
            "0",
            "first",
            "210",
            "rest",
            "205",
            "standby",
            "150",
            "lift",
            "0.3",
            "nozzle",
            "0.4",
            "filament",
            "1.75",
            "offsetX",
            "0",
            "offsetY",
            "0",
            "weight",
            "0.5",
            "weight",
            "0.4"
        };
        assertThat(post(printer + "/rack/0", extruder)).contains("The weights sum to 0.9 and must sum to 1");
        extruder[21] = "0.5";
        extruder[5] = "2000";
        assertThat(post(printer + "/rack/0", extruder)).contains("A temperature of 2000 °C is out of range");
    }

    @Test
    void a_model_with_a_small_hole_is_put_right_and_said_to_be() throws Exception {
        byte[] pierced = StlWriter.binary(
                new Shapes().sphere(10, 12, 24).dropLastTriangle().mesh());
        String page = give("/plans", "pierced.stl", pierced);
        String fold =
                mvc.perform(get(page + "/model")).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8);
        assertThat(fold).contains("Put right when it was read").contains("1 hole closed");
        String open = give(
                "/plans",
                "open.stl",
                StlWriter.binary(
                        new Shapes().box(0, 0, 0, 20, 20, 3).dropLastTriangle().mesh()));
        String told =
                mvc.perform(get(open + "/model")).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8);
        assertThat(told).contains("3 edges still have a triangle on one side only");
        assertThat(mvc.perform(get(open)).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8))
                .contains("The model has holes");
        String obj = "v 900 900 -2\nv 902 900 -2\nv 900 902 -2\nv 900 900 -1\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 3 1 4\n";
        String tiny = give("/plans", "tiny.obj", obj.getBytes());
        assertThat(mvc.perform(get(tiny + "/model"))
                        .andReturn()
                        .getResponse()
                        .getContentAsString(StandardCharsets.UTF_8))
                .contains("if it was drawn in inches, scale it to 2540 %")
                .contains("from the origin")
                .contains("2.00 mm below the bed");
    }

    @Test
    void a_house_in_millimetres_begins_at_a_hundredth_and_a_scan_comes_as_it_is() throws Exception {
        byte[] large =
                StlWriter.binary(new Shapes().box(0, 0, 0, 12_000, 9_000, 6_000).mesh());
        assertThat(mvc.perform(multipart("/api/v1/ledger")
                                .file(new MockMultipartFile("file", "house.stl", null, large)))
                        .andReturn()
                        .getResponse()
                        .getContentAsString(StandardCharsets.UTF_8))
                .contains("\"layers\":300");
        String house = give("/plans", "house.stl", large);
        assertThat(mvc.perform(get(house + "/model"))
                        .andReturn()
                        .getResponse()
                        .getContentAsString(StandardCharsets.UTF_8))
                .contains("12.00 m long, which no bed holds; it is planned at 1 % of that");
        assertThat(mvc.perform(get(house)).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8))
                .contains("120.0 × 90.0 × 60.00 mm");
        String ply = "ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\n"
                + "element face 4\nproperty list uchar int vertex_indices\nend_header\n"
                + "0 0 0 20 0 0 0 20 0 0 0 20\n3 0 2 1 3 0 1 3 3 1 2 3 3 2 0 3\n";
        String scan = give("/plans", "scan", ply.getBytes(StandardCharsets.US_ASCII));
        assertThat(mvc.perform(get(scan)).andReturn().getResponse().getContentAsString(StandardCharsets.UTF_8))
                .contains("20.0 × 20.0 × 20.00 mm");
    }
}
