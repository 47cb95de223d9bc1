package dev.tranche.app.costs;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import dev.tranche.app.exchange.PlanFileWriter;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.storage.Json;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.PaintedObj;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HeatFor;
import dev.tranche.core.macro.HookNames;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Rims;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.client.TestRestTemplate;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.util.LinkedMultiValueMap;
import org.springframework.util.MultiValueMap;

/** The HTTP interface, and plan files through it. */
class ApiTest extends OnePlanTest {
    @Autowired
    private TestRestTemplate http;

    @Autowired
    private PlanFileWriter writer;

    @Autowired
    private Json stored;

    private final ObjectMapper json = new ObjectMapper();

    private static ByteArrayResource file(String name, byte[] bytes) {
        return new ByteArrayResource(bytes) {
            @Override
            public String getFilename() {
                return name;
            }
        };
    }

    private ResponseEntity<String> ask(String path, Object... fields) {
        MultiValueMap<String, Object> body = new LinkedMultiValueMap<>();
        for (int i = 0; i < fields.length; i += 2) {
            body.add((String) fields[i], fields[i + 1]);
        }
        return http.postForEntity("/api/v1/" + path, body, String.class);
    }

    private byte[] planFile(PlanState plan) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        writer.write(plan, out);
        return out.toByteArray();
    }

    private PlanState coloured(String name) {
        PlanState plan = plan(name);
        return plans.edit(
                plan.id(),
                plan.edition(),
                "second",
                p -> p.startAt(
                        Height.ofMillimetres(2.4),
                        shelf.all().get(1).id(),
                        p.layers().on(Height.ofMillimetres(5))));
    }

    /** The file with its plan.json changed, or without an entry. */
    private byte[] changed(byte[] file, Consumer<ObjectNode> change, String without) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file));
                ZipOutputStream zip = new ZipOutputStream(out)) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                byte[] bytes = in.readAllBytes();
                if (!e.getName().startsWith(without)) {
                    zip.putNextEntry(new ZipEntry(e.getName()));
                    if (e.getName().equals("plan.json")) {
                        ObjectNode tree = (ObjectNode) json.readTree(bytes);
                        change.accept(tree);
                        bytes = json.writeValueAsBytes(tree);
                    }
                    zip.write(bytes);
                }
            }
        }
        return out.toByteArray();
    }

    private long stored() throws IOException {
        try (Stream<Path> all = Files.list(files.path("0".repeat(64)).getParent())) {
            return all.count();
        }
    }

    @Test
    void a_colour_may_start_at_a_layer_as_it_may_at_the_desk() throws IOException {
        PlanState plan = plan("by layer");
        ResponseEntity<String> answer = ask(
                "ledger",
                "file",
                file("by-layer.stl", StlWriter.binary(nameplate().mesh())),
                "colours",
                "L13=Light");
        assertThat(answer.getStatusCode()).as(answer.getBody()).isEqualTo(HttpStatus.OK);
        assertThat(json.readTree(answer.getBody())
                        .path("swaps")
                        .get(0)
                        .path("layer")
                        .asInt())
                .isEqualTo(13);
        assertThat(ask(
                                "ledger",
                                "file",
                                file("x.stl", StlWriter.binary(nameplate().mesh())),
                                "colours",
                                "L99=Light")
                        .getBody())
                .contains("There is no layer 99");
    }

    @Test
    void a_painted_model_gets_the_ledger_of_its_colours_and_leaves_no_spools_behind() throws IOException {
        // A block whose highest corners are of a red that is on no shelf: its top is seen, and the sides go by their
        // lower edge.
        StringBuilder obj = new StringBuilder();
        for (int i = 0; i < 8; i++) {
            obj.append("v %d %d %d %s\n"
                    .formatted(20 * (i & 1), 10 * (i >> 1 & 1), 4 * (i >> 2), i < 4 ? "0 0 0" : "0.9 0 0"));
        }
        obj.append("f 1 3 4 2\nf 5 6 8 7\nf 1 2 6 5\nf 3 7 8 4\nf 1 5 7 3\nf 2 4 8 6\n");
        List<Spool> spools = shelf.all();
        JsonNode answer = json.readTree(
                ask("ledger", "file", file("red.obj", obj.toString().getBytes(StandardCharsets.US_ASCII)))
                        .getBody());
        assertThat(answer.path("swaps").size()).isPositive();
        assertThat(shelf.all()).isEqualTo(spools);
    }

    @Test
    void a_model_in_more_colours_than_a_plan_holds_is_planned_in_as_many_as_it_does() throws IOException {
        StringBuilder obj = new StringBuilder("# colours of its material library\n");
        for (int i = 0; i < 40; i++) {
            obj.append("newmtl c%d\nKd %s %s %s\n".formatted(i, i % 4 / 3.0, i / 4 % 4 / 3.0, i / 16 / 2.0));
        }
        for (int i = 0; i < 40; i++) {
            obj.append("usemtl c%d\n".formatted(i));
            for (int c = 0; c < 4; c++) {
                obj.append("v %d %d %d\n"
                        .formatted(10 * (i % 8) + (c == 1 ? 9 : 0), 10 * (i / 8) + (c == 2 ? 9 : 0), c / 3));
            }
            obj.append("f -4 -2 -3\nf -4 -3 -1\nf -4 -1 -2\nf -3 -2 -1\n");
        }
        JsonNode answer = json.readTree(
                ask("ledger", "file", file("forty.obj", obj.toString().getBytes(StandardCharsets.US_ASCII)))
                        .getBody());
        // Some of them are near a spool of the shelf, or near one another.
        assertThat(answer.path("spools").size()).isBetween(20, 26);
    }

    @Test
    void a_painted_part_among_many_colours_is_planned_in_one_where_a_plan_holds_no_more() throws IOException {
        Shapes shapes = new Shapes().sphere(5, 8, 48);
        for (int i = 0; i < 24; i++) {
            shapes.box(12 * i, 30, 0, 10, 10, 2);
        }
        byte[] obj = PaintedObj.of(shapes.mesh(), (x, y, z) -> {
            int colour = y > 20 ? (int) (x / 12) : 24 + (int) (4 + 3.99 * Math.atan2(y, x) / Math.PI);
            return new Srgb(colour % 4 * 85, colour / 4 % 4 * 85, colour / 16 * 127);
        });
        JsonNode answer =
                json.readTree(ask("ledger", "file", file("fair.obj", obj)).getBody());
        assertThat(answer.path("spools").size()).isBetween(20, 26);
    }

    @Test
    void a_model_gets_its_ledger_and_leaves_nothing_behind() throws IOException {
        byte[] stl = StlWriter.binary(new Shapes().box(0, 0, 0, 21, 13, 6).mesh());
        long plansBefore = plans.all().size();
        long filesBefore = stored();
        String second = shelf.all().get(1).name();
        JsonNode answer =
                json.readTree(ask("ledger", "file", file("a.stl", stl), "colours", "3.0=" + second, "copies", "4")
                        .getBody());
        // 6 mm in layers of 0.2: 30 layers, and a base of 3 mm is layers 1 to 15 (domain, common practice).
        assertThat(answer.path("layers").asInt()).isEqualTo(30);
        assertThat(answer.path("swaps").path(0).path("layer").asInt()).isEqualTo(16);
        assertThat(answer.path("swaps").path(0).path("layerFromZero").asInt()).isEqualTo(15);
        assertThat(answer.path("copies").asInt()).isEqualTo(4);
        assertThat(answer.path("totalSeconds").asDouble())
                .isEqualTo(answer.path("plainSeconds").asDouble()
                        + answer.path("addedSeconds").asDouble());
        assertThat(plans.all()).hasSize((int) plansBefore);
        assertThat(stored()).isEqualTo(filesBefore);
    }

    @Test
    void what_only_turns_the_blend_of_a_nozzle_is_told_from_a_change_of_spool() throws IOException {
        PlanState plan = coloured("turns");
        JsonNode swapped = json.readTree(
                ask("ledger", "file", file("p.tranche", planFile(plan))).getBody());
        assertThat(swapped.path("spoolSwaps").asInt()).isEqualTo(1);
        assertThat(swapped.path("swaps").path(0).path("turnsOnly").asBoolean(true))
                .isFalse();
        Rig rig = Beginning.BLENDING.rig("Two inputs");
        Rack fed = rig.rack();
        for (int input = 0; input < 2; input++) {
            fed = fed.feeding(input, Optional.of(shelf.all().get(input).id()));
        }
        long printer = workshop.add(rig.with(fed)).id();
        PlanState there = plans.editAll(plan.id(), plan.edition(), "elsewhere", c -> c.on(printer));
        PlanState blended = plans.edit(there.id(), there.edition(), "a blend", p -> {
            SpoolId id = p.mixtures().next();
            SpoolId first = shelf.all().get(0).id();
            SpoolId second = shelf.all().get(1).id();
            Recipe half = new Recipe(List.of(new Recipe.Portion(first, 0.5), new Recipe.Portion(second, 0.5)));
            return p.with(new Mixture.Blend(id, half), p.layers().on(Height.ofMillimetres(5)))
                    .recolour(1, id);
        });
        JsonNode turned = json.readTree(
                ask("ledger", "file", file("p.tranche", planFile(blended))).getBody());
        assertThat(turned.path("spoolSwaps").asInt()).isZero();
        assertThat(turned.path("swaps").size()).isEqualTo(1);
        assertThat(turned.path("swaps").path(0).path("turnsOnly").asBoolean()).isTrue();
    }

    @Test
    void a_plan_file_gets_the_very_figures_of_its_plan_also_where_its_spools_are_not_known() throws IOException {
        byte[] file = planFile(coloured("figures"));
        JsonNode own =
                json.readTree(ask("ledger", "file", file("p.tranche", file)).getBody());
        int shelved = shelf.all().size();
        byte[] strange = changed(
                file,
                tree -> tree.path("spools").forEach(s -> ((ObjectNode) s)
                        .put("name", s.path("name").asText() + " of a friend")),
                "none");
        JsonNode friends =
                json.readTree(ask("ledger", "file", file("p.tranche", strange)).getBody());
        assertThat(friends.path("firstSpool").asText()).endsWith("of a friend");
        for (String figure : new String[] {"totalSeconds", "wasteGrams", "purgeMillimetres", "cost", "addedSeconds"}) {
            assertThat(friends.path(figure)).isEqualTo(own.path(figure));
        }
        assertThat(shelf.all()).hasSize(shelved);
    }

    @Test
    void what_is_wrong_with_a_plan_file_is_said_in_one_sentence() throws IOException {
        byte[] file = planFile(coloured("wrong"));
        long before = stored();
        refused(changed(file, t -> t.put("version", 7), "none"), "version 7", "newer Tranche");
        refused(changed(file, t -> {}, "models/"), "lacks the model");
        refused(changed(file, t -> t.put("format", "other"), "none"), "tranche-plan");
        refused(changed(file, t -> ((ObjectNode) t.path("plan")).put("copies", 0), "none"), "plan.json", "copies");
        refused(changed(file, t -> ((ObjectNode) t.path("plan")).put("colour", 1), "none"), "plan.json", "colour");
        refused(
                changed(file, t -> ((ObjectNode) t.path("spools").path(0)).put("colour", "red"), "none"),
                "spools[0].colour");
        refused(
                changed(file, t -> ((ObjectNode) t.path("spools").path(0).path("id")).put("value", 999), "none"),
                "does not say what it is");
        refused(java.util.Arrays.copyOf(file, file.length / 2), "damaged or cut short");
        // A model that nothing else names, in a plan file that is refused, and with a spool nobody has.
        byte[] other = StlWriter.binary(new Shapes().box(0, 0, 0, 9, 9, 3).mesh());
        assertThat(ask("ledger", "file", file("b.stl", other), "colours", "1=Nobody's")
                        .getStatusCode())
                .isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(stored()).isEqualTo(before);
    }

    private void refused(byte[] file, String... words) {
        ResponseEntity<String> answer = ask("ledger", "file", file("p.tranche", file));
        assertThat(answer.getStatusCode()).isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(answer.getBody()).contains(words).contains("\"detail\"");
    }

    @Test
    void sliced_gcode_comes_back_with_the_swaps_of_a_plan_file() throws IOException {
        byte[] plan = planFile(coloured("gcode"));
        byte[] sliced = sliced(new SmallGcode().primed()).bytes();
        String written = ask("gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced))
                .getBody();
        assertThat(written.lines().filter(l -> l.startsWith("; tranche") && l.contains("swap")))
                .isNotEmpty();
        // What was there is there still, line for line.
        assertThat(written.lines().toList())
                .containsSubsequence(
                        new String(sliced, StandardCharsets.US_ASCII).lines().toList());
        byte[] other = new SmallGcode().grid(0.2, 0.3, 20).bytes();
        ResponseEntity<String> refused = ask("gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", other));
        assertThat(refused.getStatusCode()).isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(refused.getBody()).contains("slice the model with a first layer");
        // A file that ends in the middle of a line is read up to there.
        byte[] cut = java.util.Arrays.copyOf(sliced, sliced.length - 7);
        assertThat(ask("gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", cut))
                        .getStatusCode())
                .isEqualTo(HttpStatus.OK);
    }

    @Test
    void a_rehearsal_is_answered_with_its_report() throws IOException {
        byte[] plan = planFile(coloured("rehearsal"));
        byte[] sliced = sliced(new SmallGcode()).bytes();
        JsonNode clean =
                json.readTree(ask("rehearsal", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced))
                        .getBody());
        assertThat(clean.path("clean").asBoolean()).isTrue();
        assertThat(clean.path("layers")).isEmpty();
        assertThat(clean.path("stops").size()).isPositive();
        JsonNode first = clean.path("stops").get(0);
        JsonNode wrong = json.readTree(ask(
                        "rehearsal",
                        "plan",
                        file("p.tranche", plan),
                        "gcode",
                        file("s.gcode", sliced),
                        "puts",
                        "1=" + shelf.all().get(0).name())
                .getBody());
        assertThat(wrong.path("clean").asBoolean()).isFalse();
        assertThat(wrong.path("layers").get(0).path("layer").asInt())
                .isEqualTo(first.path("layer").asInt());
        assertThat(wrong.path("layers").get(0).path("wrong").asDouble()).isPositive();
        ResponseEntity<String> refused = ask(
                "rehearsal", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced), "puts", "two=Nobody");
        assertThat(refused.getStatusCode()).isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(refused.getBody()).contains("such as 2=Chalk");
    }

    @Test
    void what_stops_a_hand_off_is_told_one_by_one_and_may_be_accepted_where_it_says_so() throws IOException {
        byte[] plan = planFile(coloured("stops"));
        byte[] sliced = new SmallGcode()
                .sized(30, 20)
                .grid(0.2, 0.2, 5)
                .line("M0")
                .grid(1.2, 0.2, 7)
                .sized(24, 14)
                .grid(2.6, 0.2, 8)
                .sized(14, 8)
                .grid(4.2, 0.2, 5)
                .bytes();
        ResponseEntity<String> refused =
                ask("gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced));
        assertThat(refused.getStatusCode()).isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(refused.getHeaders().getContentType()).isEqualTo(MediaType.APPLICATION_PROBLEM_JSON);
        JsonNode findings = json.readTree(refused.getBody()).path("findings");
        assertThat(findings).hasSize(1);
        assertThat(findings.get(0).path("key").asText()).isEqualTo("stops-in-file");
        assertThat(findings.get(0).path("acceptance").asText()).isEqualTo("Leave them all and stop there too");
        ResponseEntity<String> accepted = ask(
                "gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced), "accept", "stops-in-file");
        assertThat(accepted.getStatusCode()).isEqualTo(HttpStatus.OK);
        assertThat(accepted.getBody().lines()).contains("M0").anyMatch(l -> l.contains("tranche begin"));
        ResponseEntity<String> unknown =
                ask("gcode", "plan", file("p.tranche", plan), "gcode", file("s.gcode", sliced), "accept", "anything");
        assertThat(unknown.getStatusCode()).isEqualTo(HttpStatus.UNPROCESSABLE_ENTITY);
        assertThat(unknown.getBody())
                .contains("There is no finding “anything” here")
                .contains("stops-in-file");
    }

    @Test
    void every_plan_file_is_as_the_published_schema_says() throws IOException {
        PlanState plan = coloured("schema");
        PlanState timed = plans.editAll(plan.id(), plan.edition(), "all of it", c -> c.startingAt(
                        Optional.of(LocalDateTime.of(2026, 11, 28, 18, 30)))
                .times(3)
                .with(c.plate().times(3).withTower(new Spot(40, 40, 0)).with(new Rims(4, 6)))
                .with(c.purge().into(new PurgePlace.OnTower(30)))
                .with(c.colours()
                        .haltAt(
                                new Halt(Height.ofMillimetres(1), "look"),
                                c.colours().layers().on(Height.ofMillimetres(5)))
                        .with(c.colours()
                                .regions()
                                .plus(new Region(
                                        "disc",
                                        new Shape.Zone(new Outline.Disc(5), 9, 9, 0, false),
                                        shelf.all().get(0).id(),
                                        Range.ALL))
                                .plus(new Region(
                                        "trace",
                                        new Shape.Trace(List.of(
                                                new Shape.Trace.Course(Height.ZERO, Optional.empty()),
                                                new Shape.Trace.Course(
                                                        Height.ofMillimetres(1),
                                                        Optional.of(new Shape.Zone(
                                                                new Outline.Box(3, 2), 9, 9, 0, false))))),
                                        shelf.all().get(0).id(),
                                        Range.ALL)))));
        byte[] file = planFile(timed);
        JsonNode tree;
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file))) {
            assertThat(in.getNextEntry().getName()).isEqualTo("plan.json");
            tree = json.readTree(in.readAllBytes());
        }
        String schema = http.getForObject("/schemas/plan-file-1.json", String.class);
        assertThat(JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                        .getSchema(schema)
                        .validate(tree))
                .isEmpty();
    }

    @Test
    void the_schema_knows_every_printer_to_begin_with_and_every_step_there_is() throws IOException {
        JsonNode schema = json.readTree(http.getForObject("/schemas/plan-file-1.json", String.class));
        JsonSchema rigs = part(schema, "rig");
        for (Beginning beginning : Beginning.values()) {
            assertThat(rigs.validate(json.readTree(stored.write(StoredRig.of(beginning.rig("Bench"))))))
                    .as(beginning.name())
                    .isEmpty();
        }
        List<Step> every = List.of(
                new Step.Tone(880, 300),
                Step.Message.LOAD,
                new Step.Retract(2),
                new Step.Lift(5),
                new Step.Park(),
                new Step.Unload(-10, 20),
                new Step.Load(0, 20),
                new Step.Cut(Axis.X, 200, 3),
                new Step.PressSwitch(),
                new Step.SelectExtruder(),
                new Step.WaitForPerson(Command.M25),
                new Step.OwnPause("HOLD Z={{z}}"),
                new Step.Home(Step.Home.Axes.BOTH),
                new Step.SetHeat(HeatFor.OUTGOING),
                new Step.Dwell(60),
                new Step.Heat(HeatFor.HOTTER),
                new Step.Cool(),
                new Step.Prime(30, 4),
                new Step.Purge(4),
                new Step.Wipe(Axis.Y, 20, 4),
                new Step.FirmwareRoutine(
                        "M117 {{in}}",
                        "",
                        OptionalDouble.of(5),
                        OptionalDouble.of(5),
                        OptionalDouble.empty(),
                        OptionalDouble.of(2),
                        OptionalDouble.of(400),
                        OptionalDouble.of(410),
                        OptionalDouble.of(20)),
                new Step.WaitForMoves(),
                new Step.Raw("M118 {{layer}}"),
                new Step.Return());
        assertThat(every).extracting(Object::getClass).containsExactlyInAnyOrder(Step.class.getPermittedSubclasses());
        Macro macro = new Macro(
                "All of them",
                Event.SWAP,
                true,
                Duration.ofSeconds(90),
                every.stream()
                        .map(s -> new MacroStep(s, true, Set.of(1), "Cut {{in}}"))
                        .toList());
        Rig rig = Beginning.values()[0].rig("Bench");
        String written = stored.write(StoredRig.of(rig.with(
                new MacroBook(SwapMethod.PAUSE_AND_PARK, List.of(macro), HostNames.COMMON, HookNames.COMMON))));
        assertThat(part(schema, "macro").validate(json.readTree(written).at("/macros/macros/0")))
                .isEmpty();
        assertThat(schema.findValuesAsText("const"))
                .containsAll(Stream.of(Step.class.getPermittedSubclasses())
                        .map(Class::getSimpleName)
                        .toList());
        JsonNode defs = schema.path("$defs");
        assertThat(named(defs.at("/rig/properties/macros/properties/method/enum")))
                .containsExactly(names(SwapMethod.values()));
        assertThat(named(defs.at("/macro/properties/event/enum"))).containsExactly(names(Event.values()));
        assertThat(named(defs.at("/rig/properties/printer/properties/abilities/properties/pausesHost/items/enum")))
                .containsExactly(names(Command.values()));
    }

    private static JsonSchema part(JsonNode schema, String name) {
        ObjectNode part = schema.deepCopy();
        part.removeAll();
        part.set("$defs", schema.path("$defs"));
        part.put("$ref", "#/$defs/" + name);
        return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(part);
    }

    private static List<String> named(JsonNode list) {
        List<String> named = new ArrayList<>();
        list.forEach(n -> named.add(n.asText()));
        return named;
    }

    private static String[] names(Enum<?>[] values) {
        return Stream.of(values).map(Enum::name).toArray(String[]::new);
    }

    @Test
    void the_description_names_every_question() throws IOException {
        JsonNode api = json.readTree(http.getForObject("/api/openapi", String.class));
        assertThat(api.path("openapi").asText()).startsWith("3.");
        assertThat(api.path("paths").fieldNames())
                .toIterable()
                .containsExactlyInAnyOrder("/api/v1/ledger", "/api/v1/gcode", "/api/v1/rehearsal");
        assertThat(http.getForObject("/api", String.class)).contains("POST /api/v1/gcode", "a plan file");
    }

    @Test
    void the_token_of_a_page_is_sent_to_its_own_site_only() {
        assertThat(http.getForEntity("/", String.class).getHeaders().get("Set-Cookie"))
                .isNotEmpty()
                .allSatisfy(cookie -> assertThat(cookie).contains("SameSite=Strict"));
    }
}
