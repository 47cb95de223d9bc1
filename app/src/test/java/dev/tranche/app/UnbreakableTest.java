package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.zaxxer.hikari.HikariDataSource;
import dev.tranche.app.exchange.PlanFileReader;
import dev.tranche.app.exchange.PlanFileWriter;
import dev.tranche.app.history.Broken;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.hostile.Hostile;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import jakarta.persistence.EntityManagerFactory;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.autoconfigure.web.servlet.AutoConfigureMockMvc;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.mock.web.MockServletContext;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.util.unit.DataSize;
import org.thymeleaf.context.WebContext;
import org.thymeleaf.spring6.SpringTemplateEngine;
import org.thymeleaf.web.servlet.JakartaServletWebApplication;

/** Nothing that is stored, sent or asked breaks more than its own page. */
@AutoConfigureMockMvc
class UnbreakableTest extends OnePlanTest {
    private static final String TRAP = "{{<in}}x{{/in}}";

    @Autowired
    private HikariDataSource connections;

    @Autowired
    private MockMvc mvc;

    @Autowired
    private Jobs jobs;

    @Autowired
    private SpringTemplateEngine templates;

    @Autowired
    private JdbcTemplate database;

    @Autowired
    private PlanFileReader reader;

    @Autowired
    private PlanFileWriter writer;

    @Autowired
    private EntityManagerFactory entities;

    private MockHttpServletResponse ask(MockHttpServletRequestBuilder request) throws Exception {
        MockHttpServletResponse response = mvc.perform(request).andReturn().getResponse();
        response.setCharacterEncoding("UTF-8");
        return response;
    }

    private String text(MockHttpServletRequestBuilder request) throws Exception {
        return ask(request).getContentAsString(StandardCharsets.UTF_8);
    }

    /** As an earlier Tranche would have stored it: another revision in the place of the last. */
    private void spoil(String owner, String with) {
        Long last = database.queryForObject(
                "select r.id from revision r join history h on h.owner = r.owner and r.number = h.head where r.owner = ?",
                Long.class,
                owner);
        database.update("update revision set number = -number - 1 where id = ?", last);
        database.update(
                "insert into revision (owner, number, edition, label, content) "
                        + "select owner, -number - 1, edition, label, ? from revision where id = ?",
                with,
                last);
        database.update("delete from revision where id = ?", last);
    }

    private String stored(String owner) {
        return database.queryForObject(
                "select content from revision r join history h on h.owner = r.owner and r.number = h.head where r.owner = ?",
                String.class,
                owner);
    }

    @Test
    void a_printer_with_a_macro_that_cannot_be_read_breaks_its_own_page_and_is_mended_there() throws Exception {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Spoilt")).id();
        PlanState plan = plan("On the spoilt printer");
        PlanState moved = plans.editAll(plan.id(), plan.edition(), "print on it", c -> c.on(id));
        workshop.edit(id, 0, "rename", r -> r.with(r.printer().named("Spoilt again")));
        String owner = "printer-" + id;
        String good = stored(owner);
        String spoilt = good.replaceFirst("\\{\\{number}}", TRAP.replace("{", "\\{"));
        assertThat(spoilt).isNotEqualTo(good);
        long variant = workshop.variant(id, "A variant of it").id();
        spoil(owner, spoilt);

        assertThat(ask(get("/")).getStatus()).isEqualTo(200);
        assertThat(text(get("/plans/" + plan.id() + "/card")))
                .contains("macros know nothing else", "Open it to mend it");
        assertThat(ask(get("/printers")).getStatus()).isLessThan(400);
        assertThat(ask(get("/shelf")).getStatus()).isEqualTo(200);
        // What was made from it is whole, and leads to it.
        assertThat(text(get("/printers/" + variant)))
                .contains("A variant of it", "Printer " + id + " cannot be read: mend it");
        assertThat(text(get("/plans/" + plan.id()))).contains("A printer it needs cannot be shown", "/printers/" + id);
        String page = text(get("/printers/" + id));
        assertThat(page).contains("This printer cannot be shown as it is", "{{&lt;in}}", "Undo: <span>rename");

        ask(post("/printers/" + id + "/step-back").param("seen", "1").with(csrf()));
        assertThat(text(get("/printers/" + id))).contains("Spoilt").doesNotContain("cannot be shown");
        assertThat(ask(get("/plans/" + moved.id())).getStatus()).isEqualTo(200);
    }

    @Test
    void a_plan_that_cannot_be_read_breaks_its_own_page_and_is_mended_there() throws Exception {
        PlanState plan = plan("Spoilt plan");
        PlanState edited = plans.editAll(plan.id(), plan.edition(), "print two", c -> c.times(2));
        spoil("plan-" + plan.id(), stored("plan-" + plan.id()).replace("\"copies\":2", "\"copies\":-2"));

        assertThat(text(get("/"))).contains("Spoilt plan");
        assertThat(text(get("/plans/" + plan.id() + "/card")))
                .contains("Open it to mend it")
                .doesNotContain("null");
        String page = text(get("/plans/" + plan.id()));
        assertThat(page).contains("This plan cannot be shown as it is", "print two");
        assertThatThrownBy(() -> plans.get(plan.id())).isInstanceOf(Broken.class);

        ask(post("/plans/" + plan.id() + "/step-back")
                .param("seen", Long.toString(edited.edition()))
                .with(csrf()));
        assertThat(plans.get(plan.id()).content().copies()).isOne();
        // What lies before it may be put away, too.
        spoil("plan-" + plan.id(), "{}");
        assertThat(text(get("/plans/" + plan.id()))).contains("Remove this plan");
        ask(post("/plans/" + plan.id() + "/delete").with(csrf()));
        assertThat(text(get("/"))).doesNotContain("card-" + plan.id());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{{<in}}x{{/in}}",
                "{{}}",
                "{{=}}",
                "{{#in}}x{{/in}}",
            })
    void a_macro_takes_names_and_no_other_tag(String text) throws Exception {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Tags")).id();
        MockHttpServletResponse response = ask(post("/printers/" + id + "/macros/0/steps")
                .param("seen", "0")
                .param("kind", "MESSAGE")
                .param("at", "0")
                .param("text", text)
                .with(csrf()));
        assertThat(response.getStatus()).isBetween(400, 499);
        assertThat(ask(get("/printers/" + id + "/macros/0")).getStatus()).isEqualTo(200);
    }

    @Test
    void drawings_of_twelve_thousand_corners_are_kept() {
        PlanState plan = plan("Much drawn");
        Coordinate[] corners = new Coordinate[12_001];
        for (int i = 0; i < 12_000; i++) {
            double r = i % 2 == 0 ? 10 : 9.123;
            corners[i] = new Coordinate(r * Math.cos(i * Math.PI / 6000), r * Math.sin(i * Math.PI / 6000));
        }
        corners[12_000] = corners[0];
        Polygon polygon = new GeometryFactory().createPolygon(corners);
        Silhouette silhouette = Silhouette.of(new GeometryFactory().createMultiPolygon(new Polygon[] {polygon}));
        for (int i = 0; i < 8; i++) {
            int copy = i;
            PlanState now = plans.get(plan.id());
            plans.edit(
                    now.id(),
                    now.edition(),
                    "draw",
                    c -> c.with(c.regions()
                            .plus(new Region(
                                    "copy " + copy,
                                    new Shape.Zone(
                                            new Outline.Drawing("star", silhouette, 20), 10 + copy, 10, 0, false),
                                    shelf.all().get(1).id(),
                                    Range.ALL))));
        }
        assertThat(plans.get(plan.id()).content().colours().regions().list()).hasSize(8);
        assertThat(stored("plan-" + plan.id()).length()).isGreaterThan(1_000_000);
    }

    @Test
    void a_variant_of_another_plan_is_not_dropped_through_this_one() throws Exception {
        PlanState mine = plan("Mine");
        PlanState other = plan("Other");
        PlanState variant = plans.variant(other.id(), "otherwise", c -> c.times(3));
        for (String action : new String[] {"drop", "restore", "adopt"}) {
            for (String id : new String[] {variant.id(), other.id(), "nowhere"}) {
                MockHttpServletResponse response = ask(post("/plans/" + mine.id() + "/variants/" + id + "/" + action)
                        .param("seen", Long.toString(mine.edition()))
                        .with(csrf()));
                assertThat(response.getStatus()).as(action + " " + id).isEqualTo(422);
            }
        }
        assertThat(plans.get(variant.id()).name()).isEqualTo("otherwise");
        assertThat(plans.get(other.id()).name()).isEqualTo("Other");
    }

    @Test
    void pages_of_other_sites_make_nothing_work() throws Exception {
        MockMultipartFile model = new MockMultipartFile("file", "a.stl", null, new byte[200]);
        assertThat(ask(multipart("/api/v1/ledger").file(model).header("Origin", "https://elsewhere.example"))
                        .getStatus())
                .isEqualTo(403);
        assertThat(ask(multipart("/api/v1/ledger").file(model).header("Sec-Fetch-Site", "cross-site"))
                        .getStatus())
                .isEqualTo(403);
        assertThat(ask(multipart("/api/v1/ledger").file(model).header("Sec-Fetch-Site", "same-site"))
                        .getStatus())
                .isEqualTo(403);
        assertThat(ask(multipart("/api/v1/ledger").file(model).header("Origin", "null"))
                        .getStatus())
                .isEqualTo(403);
        // What a browser says of the site counts for more than an origin that it does not tell.
        assertThat(ask(multipart("/api/v1/ledger")
                                .file(model)
                                .header("Sec-Fetch-Site", "same-origin")
                                .header("Origin", "null"))
                        .getStatus())
                .isEqualTo(422);
        // A program says nothing of where it comes from, and gets its sentence.
        assertThat(ask(multipart("/api/v1/ledger").file(model)).getStatus()).isEqualTo(422);
        assertThat(ask(multipart("/api/v1/ledger")
                                .file(model)
                                .header("Host", "localhost")
                                .header("Origin", "http://localhost"))
                        .getStatus())
                .isEqualTo(422);
    }

    @Test
    void the_interface_says_no_as_json() throws Exception {
        MockMultipartFile model = new MockMultipartFile("file", "a.stl", null, new byte[200]);
        MockHttpServletResponse number =
                ask(multipart("/api/v1/ledger").file(model).param("copies", "NaN"));
        assertThat(number.getStatus()).isEqualTo(422);
        assertThat(number.getContentType()).startsWith("application/problem+json");
        assertThat(number.getContentAsString(StandardCharsets.UTF_8)).contains("copies");
        MockHttpServletResponse nothing = ask(multipart("/api/v1/ledger"));
        assertThat(nothing.getStatus()).isEqualTo(422);
        assertThat(nothing.getContentType()).startsWith("application/problem+json");
    }

    @Test
    void work_that_is_done_leads_on_and_is_not_asked_again() throws Exception {
        Job done = jobs.start("Reading", progress -> "/about");
        while (!done.isOver()) {
            done.endsWithin(100);
        }
        MockHttpServletResponse answer = ask(get("/jobs/" + done.id()));
        assertThat(answer.getHeader("HX-Redirect")).isEqualTo("/about");
        assertThat(answer.getContentAsString()).contains("href=\"/about\"").doesNotContain("hx-get");
    }

    @Test
    void where_all_is_counted_a_page_says_that_work_goes_on() throws Exception {
        CountDownLatch seen = new CountDownLatch(1);
        for (int done = 2; done <= 3; done++) {
            int counted = done;
            CountDownLatch there = new CountDownLatch(1);
            Job job = jobs.start("Cutting " + counted, progress -> {
                progress.at(counted, 3);
                there.countDown();
                seen.await();
                return "/about";
            });
            there.await();
            assertThat(ask(get("/jobs/" + job.id())).getContentAsString().contains(">still at work<"))
                    .isEqualTo(counted == 3);
        }
        seen.countDown();
    }

    @Test
    void a_page_that_waits_asks_once_more_where_the_work_ended_while_it_was_written() {
        Job done = jobs.start("Reading", progress -> "/about");
        while (!done.isOver()) {
            done.endsWithin(100);
        }
        MockServletContext application = new MockServletContext();
        WebContext page = new WebContext(JakartaServletWebApplication.buildApplication(application)
                .buildExchange(new MockHttpServletRequest(application), new MockHttpServletResponse()));
        page.setVariable("job", done);
        assertThat(templates.process("jobs/progress", Set.of("progress"), page))
                .contains("hx-get=\"/jobs/" + done.id() + "\"")
                .contains("hx-trigger=\"load ");
    }

    @Test
    void what_is_refused_leaves_no_file_behind() throws Exception {
        long before = filesKept();
        MockHttpServletResponse response = ask(multipart("/plans")
                .file(new MockMultipartFile("file", "a.stl", null, "a recipe for leek soup".getBytes()))
                .with(csrf())
                .header("HX-Request", "true"));
        while (response.getContentAsString().contains("hx-get")) {
            String job = response.getContentAsString().replaceAll("(?s).*hx-get=\"(/jobs/[^\"]+)\".*", "$1");
            response = ask(get(job));
        }
        assertThat(response.getContentAsString(StandardCharsets.UTF_8)).contains("STL");
        assertThat(filesKept()).isEqualTo(before);
    }

    private long filesKept() throws IOException {
        try (Stream<Path> all = Files.list(files.path("0".repeat(64)).getParent())) {
            return all.count();
        }
    }

    @Test
    void a_spool_that_was_removed_is_named_and_brought_back() throws Exception {
        Spool spool = shelf.add(shelf.all().get(0).as(shelf.all().get(0).id(), 77));
        String said = text(post("/shelf/" + spool.id().value() + "/remove").with(csrf()));
        assertThat(said).contains("was taken off the shelf", "Bring it back");
        assertThat(shelf.all()).doesNotContain(spool);
        text(post("/shelf/" + spool.id().value() + "/restore").with(csrf()));
        assertThat(shelf.all()).contains(spool);
    }

    @Test
    void beds_and_drives_are_of_the_kinds_there_are() throws Exception {
        long id = workshop.add(Beginning.DIRECT_PAUSE.rig("Shapes")).id();
        String page = text(get("/printers/" + id));
        assertThat(page).contains("Shapes");
        MockHttpServletResponse response = ask(post("/printers/" + id)
                .param("seen", "0")
                .param("name", "Shapes")
                .param("bedShape", "triangular")
                .param("bedWidth", "200")
                .param("bedDepth", "200")
                .param("maxHeight", "200")
                .param("minX", "0")
                .param("maxX", "200")
                .param("minY", "0")
                .param("maxY", "200")
                .param("nozzle", "0.4")
                .param("inputs", "1")
                .param("hottest", "260")
                .param("heaterMinutes", "10")
                .param("deadVolume", "60")
                .param("reach", "3")
                .param("filament", "1.75")
                .param("drive", "direct")
                .param("gearsToNozzle", "60")
                .with(csrf()));
        assertThat(response.getStatus()).isEqualTo(422);
        assertThat(response.getContentAsString(StandardCharsets.UTF_8)).contains("rectangular or round");
    }

    /** All that works is busy, so that the plan waits to be opened. */
    @Test
    void a_card_whose_plan_is_still_being_opened_keeps_the_database_from_nobody() throws Exception {
        PlanState plan = plan("Waits for its card");
        CountDownLatch free = new CountDownLatch(1);
        int workers = Math.max(4, Runtime.getRuntime().availableProcessors());
        for (int i = 0; i < workers; i++) {
            jobs.start("Busy", progress -> {
                free.await();
                return Job.Work.HERE;
            });
        }
        ExecutorService other = Executors.newSingleThreadExecutor();
        try {
            Future<MockHttpServletResponse> card = other.submit(() -> ask(get("/plans/" + plan.id() + "/card")));
            // By then it has been asked for, and waits for a second more.
            Thread.sleep(500);
            boolean idle = false;
            for (int i = 0; i < 10 && !idle; i++) {
                idle = connections.getHikariPoolMXBean().getActiveConnections() == 0;
                Thread.sleep(20);
            }
            assertThat(card.isDone()).isFalse();
            assertThat(idle).isTrue();
            assertThat(card.get().getStatus()).isEqualTo(200);
        } finally {
            free.countDown();
            other.shutdown();
        }
    }

    @Test
    void a_page_of_plans_asks_as_much_of_the_database_for_many_as_for_one() throws Exception {
        Statistics statistics = entities.unwrap(SessionFactory.class).getStatistics();
        plan("One of many");
        long few = statements(statistics);
        for (int i = 0; i < 12; i++) {
            plan("Many " + i);
        }
        assertThat(statements(statistics)).isEqualTo(few).isLessThan(10);
        // Their figures are made once, and then kept.
        PlanState plan = plan("Drawn");
        assertThat(text(get("/plans/" + plan.id() + "/card"))).contains("<dt>swaps</dt>");
        assertThat(text(get("/"))).containsPattern("(?s)card-" + plan.id() + "\"[^>]*>.*?Drawn.*?<dt>swaps</dt>");
    }

    @Test
    void the_inputs_of_a_blending_nozzle_keep_their_spools_where_the_shelf_counts_otherwise() throws Exception {
        Spool fed = shelf.add(named(shelf.all().get(1), "Fed"));
        Rig blending = Beginning.BLENDING.rig("Blends");
        Workshop.Machine machine = workshop.add(blending.with(blending.rack().feeding(1, Optional.of(fed.id()))));
        PlanState plan = plan("Blended");
        plan = plans.editAll(plan.id(), plan.edition(), "elsewhere", c -> c.on(machine.id()));
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        writer.write(plan, file);
        // Where it is read, the number belongs to another spool.
        shelf.change(named(fed, "Another"));
        PlanState read = reader.read(new ByteArrayInputStream(file.toByteArray()));
        List<Optional<SpoolId>> inputs =
                workshop.get(read.content().printer()).rig().rack().inputs();
        assertThat(shelf.byId().get(inputs.get(1).orElseThrow()).name()).isEqualTo("Fed");
    }

    @Test
    void what_was_cancelled_is_not_called_broken() throws Exception {
        PlanState plan = plan("Takes long", Hostile.randomTriangles(250, 60));
        ExecutorService tab = Executors.newSingleThreadExecutor();
        try {
            Future<String> other = tab.submit(() -> text(get("/plans/" + plan.id() + "/findings")));
            while (!other.isDone()) {
                Matcher job = Pattern.compile("/jobs/([0-9a-f-]+)/cancel").matcher(text(get("/plans/" + plan.id())));
                if (job.find()) {
                    mvc.perform(post("/jobs/" + job.group(1) + "/cancel").with(csrf()));
                }
            }
            assertThat(other.get()).contains("was cancelled").doesNotContain("cannot be shown");
        } finally {
            tab.shutdownNow();
        }
    }

    @Test
    void two_tabs_that_show_a_plan_for_the_first_time_both_show_it() throws Exception {
        ExecutorService tabs = Executors.newFixedThreadPool(4);
        try {
            for (int i = 0; i < 8; i++) {
                String card = "/plans/" + plan("Seen by four " + i).id() + "/card";
                text(get(card));
                database.update("delete from card");
                List<Callable<Integer>> together =
                        Collections.nCopies(4, () -> ask(get(card)).getStatus());
                for (Future<Integer> status : tabs.invokeAll(together)) {
                    assertThat(status.get()).isEqualTo(200);
                }
            }
        } finally {
            tabs.shutdownNow();
        }
    }

    private long statements(Statistics statistics) throws Exception {
        statistics.clear();
        assertThat(ask(get("/")).getStatus()).isEqualTo(200);
        return statistics.getPrepareStatementCount();
    }

    @Test
    void a_file_in_a_plan_file_whose_name_is_in_another_encoding_is_passed_over() throws IOException {
        ByteArrayOutputStream plan = new ByteArrayOutputStream();
        writer.write(plan("Named otherwise"), plan);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(plan.toByteArray()));
                ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.ISO_8859_1)) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                zip.putNextEntry(new ZipEntry(e.getName()));
                in.transferTo(zip);
            }
            zip.putNextEntry(new ZipEntry("models/caf\u00e9.stl"));
            zip.write(1);
        }
        assertThat(reader.read(new ByteArrayInputStream(out.toByteArray())).name())
                .isEqualTo("Named otherwise");
    }

    @Test
    void a_plan_whose_file_prints_another_model_of_the_same_layers_opens_and_says_so() throws Exception {
        PlanState plan = plan("Another's file");
        byte[] other = new SmallGcode().sized(60, 5).grid(0.2, 0.2, 25).bytes();
        FileStore.Kept kept = files.keep(new ByteArrayInputStream(other), DataSize.ofMegabytes(1));
        plans.giveGcode(plan.id(), new PlanState.Gcode(kept.hash(), "another.gcode"));
        assertThat(text(get("/plans/" + plan.id()))).contains("the model was not found in it", "</html>");
        for (String page :
                List.of("/plate", "/hand-off", "/order", "/purge", "/clock", "/compare", "/look", "/print")) {
            assertThat(text(get("/plans/" + plan.id() + page))).as(page).contains("</html>");
        }
    }

    @Test
    void what_was_said_of_a_sliced_file_goes_with_its_plan_file() throws IOException {
        PlanState plan = plan("Said");
        byte[] sliced = sliced(new SmallGcode().line("T0")).bytes();
        FileStore.Kept kept = files.keep(new ByteArrayInputStream(sliced), DataSize.ofMegabytes(1));
        Said said = Said.NOTHING
                .stops(List.of(0, 3), Optional.of(StopTable.Choice.REPLACE))
                .accepting(List.of("another-model", "stops-in-file"));
        plans.giveGcode(plan.id(), new PlanState.Gcode(kept.hash(), "said.gcode", said));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        writer.write(plans.get(plan.id()), out);
        PlanState read = reader.read(new ByteArrayInputStream(out.toByteArray()));
        assertThat(read.gcode().orElseThrow().said()).isEqualTo(said);
        // Another file, of which nothing has been said.
        plans.giveGcode(read.id(), new PlanState.Gcode(kept.hash(), "again.gcode"));
        assertThat(plans.get(read.id()).gcode().orElseThrow().said()).isEqualTo(Said.NOTHING);
    }

    /** Plan files damaged at random, always alike. */
    @Test
    void a_damaged_plan_file_is_read_or_refused() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        writer.write(plan("To be damaged"), out);
        byte[] whole = out.toByteArray();
        String json = entry(whole, "plan.json");
        Random random = new Random(7);
        for (int i = 0; i < 150; i++) {
            boolean inside = i % 3 > 0;
            byte[] damaged = inside ? withPlan(whole, mutated(json, random)) : bytesChanged(whole, random);
            try {
                assertThat(reader.read(new ByteArrayInputStream(damaged)).id()).isNotEmpty();
            } catch (Refusal said) {
                assertThat(said.getMessage()).endsWith(".");
            } catch (IOException | RuntimeException e) {
                throw new AssertionError("try " + i + ": " + (inside ? entry(damaged, "plan.json") : ""), e);
            }
        }
    }

    private static byte[] bytesChanged(byte[] whole, Random random) {
        byte[] changed = whole.clone();
        for (int i = 0; i < 3; i++) {
            changed[random.nextInt(changed.length)] = (byte) random.nextInt(256);
        }
        return changed;
    }

    private static String mutated(String json, Random random) {
        String[] values = {"null", "-1", "1e99", "\"x\"", "[]", "{}", "true", "99999999999999999999", "\"" + TRAP + "\""
        };
        String[] parts = json.split("(?<=[:,\\[])(?=\\s*[\"\\d\\-\\[{tfn])");
        int at = 1 + random.nextInt(parts.length - 1);
        String tail = parts[at].replaceFirst(
                "^\\s*(\"[^\"]*\"|-?[\\d.eE+]+|true|false|null|\\{|\\[)",
                java.util.regex.Matcher.quoteReplacement(values[random.nextInt(values.length)]));
        parts[at] = tail;
        return String.join("", parts);
    }

    private static String entry(byte[] archive, String name) throws IOException {
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                if (e.getName().equals(name)) {
                    return new String(zip.readAllBytes(), StandardCharsets.UTF_8);
                }
            }
        }
        return "";
    }

    private static byte[] withPlan(byte[] archive, String json) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(archive));
                ZipOutputStream zip = new ZipOutputStream(out)) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                zip.putNextEntry(new ZipEntry(e.getName()));
                zip.write(e.getName().equals("plan.json") ? json.getBytes(StandardCharsets.UTF_8) : in.readAllBytes());
            }
        }
        return out.toByteArray();
    }
}
