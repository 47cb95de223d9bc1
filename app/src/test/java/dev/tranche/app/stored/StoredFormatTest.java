package dev.tranche.app.stored;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.tranche.app.plans.StoredPlan;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The files beside this test were written by the Tranche that first had the format; they read for ever. */
class StoredFormatTest {
    private static final ObjectMapper TREE = new ObjectMapper();

    private final Json json = new Json();

    private static String written(String name) throws IOException {
        try (InputStream in = StoredFormatTest.class.getResourceAsStream("/stored/" + name + ".json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** Read into the core's values, and stored again. */
    private <S> JsonNode again(String name, Class<S> record, UnaryOperator<S> through) throws IOException {
        return TREE.readTree(json.write(through.apply(json.read(written(name), record))));
    }

    @Test
    void what_was_stored_is_stored_the_same_again() throws IOException {
        assertThat(again("plan-1", StoredPlan.class, s -> StoredPlan.of(s.plan())))
                .isEqualTo(TREE.readTree(written("plan-1")));
        assertThat(again("plan-1-blends", StoredPlan.class, s -> StoredPlan.of(s.plan())))
                .isEqualTo(TREE.readTree(written("plan-1-blends")));
        assertThat(again("plan-1-turned", StoredPlan.class, s -> StoredPlan.of(s.plan())))
                .isEqualTo(TREE.readTree(written("plan-1-turned")));
        assertThat(again("plan-1-traced", StoredPlan.class, s -> StoredPlan.of(s.plan())))
                .isEqualTo(TREE.readTree(written("plan-1-traced")));
        assertThat(again("rig-1", StoredRig.class, s -> StoredRig.of(s.rig())))
                .isEqualTo(TREE.readTree(written("rig-1")));
        assertThat(again("rig-1-pace", StoredRig.class, s -> StoredRig.of(s.rig())))
                .isEqualTo(TREE.readTree(written("rig-1-pace")));
        assertThat(again("spool-1", StoredSpool.class, s -> StoredSpool.of(s.spool())))
                .isEqualTo(TREE.readTree(written("spool-1")));
        assertThat(again("measured-1", StoredMeasure[].class, s -> Arrays.stream(s)
                        .map(StoredMeasure::purge)
                        .map(StoredMeasure::of)
                        .toArray(StoredMeasure[]::new)))
                .isEqualTo(TREE.readTree(written("measured-1")));
    }

    @Test
    void every_step_that_there_is_has_been_stored_and_comes_back() throws IOException {
        Rig rig = json.read(written("rig-1"), StoredRig.class).rig();
        assertThat(rig.macros().macro(0).steps())
                .extracting(MacroStep::step)
                .extracting(Object::getClass)
                .containsExactlyInAnyOrder(Step.class.getPermittedSubclasses());
        assertThat(rig.macros().macro(0).step(2)).isEqualTo(new MacroStep(new Step.Retract(3.5), false, Set.of(1, 3)));
        assertThat(rig.printer().hotend().heaterLimit()).hasMinutes(12);
        assertThat(rig.rack().inputs()).hasSize(2).last().matches(Optional::isEmpty);
    }

    @Test
    void what_was_stored_before_a_field_was_there_has_nothing_said_for_it() throws IOException {
        Rig rig = json.read(written("rig-1"), StoredRig.class).rig();
        assertThat(rig.printer().abilities().dialect()).isEqualTo(Dialect.COMMON);
        Dialect said = new Dialect(
                Dialect.Counting.BY_ITSELF, List.of(new OwnLine("PAUSE")), List.of(new OwnLine("CHANGE_TO #")));
        Rig other = rig.with(rig.printer().with(rig.printer().abilities().reading(said)));
        assertThat(json.read(json.write(StoredRig.of(other)), StoredRig.class).rig())
                .isEqualTo(other);
    }

    @Test
    void money_and_colours_come_back_as_they_were() throws IOException {
        Spool spool = json.read(written("spool-1"), StoredSpool.class).spool();
        assertThat(spool.pricePerKilogram()).isEqualByComparingTo("24.50");
        assertThat(spool.colour().hex()).isEqualToIgnoringCase("#F4F1E8");
    }

    @Test
    void every_place_for_purge_is_stored_in_a_way_of_its_own() {
        for (PurgePlace place : new PurgePlace[] {
            new PurgePlace.Bin(),
            new PurgePlace.Bin(Optional.of(PurgePlace.SmallTower.USUAL)),
            new PurgePlace.Routine(80),
            new PurgePlace.Routine(80, Optional.of(PurgePlace.SmallTower.USUAL)),
            new PurgePlace.OnTower(25)
        }) {
            assertThat(json.read(json.write(StoredPlace.of(place)), StoredPlace.class)
                            .place())
                    .isEqualTo(place);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"copies\" : 4|\"copies\" : 4000",
                "\"BANDS\"|\"SPIRALS\"",
                "\"kind\" : \"Disc\"|\"kind\" : \"Star\"",
                "\"lay the nut in\"|null",
                "\"copies\"|\"kopies\"",
                "{|["
            })
    void what_it_cannot_be_is_said_in_a_sentence(String change) throws IOException {
        String[] parts = change.split("\\|");
        String broken = written("plan-1").replace(parts[0], parts[1]);
        assertThat(broken).isNotEqualTo(written("plan-1"));
        assertThatThrownBy(() -> StoredPlan.FORMAT.read(broken, 1, json))
                .isInstanceOf(Unreadable.class)
                .hasMessageMatching("[A-Z0-9].+\\.");
    }

    /** A file from elsewhere may hold anything; what nobody thought of would be an error of Tranche's own. */
    @Test
    void whatever_stands_in_place_of_a_value_is_read_or_refused() throws IOException {
        for (String name : List.of("rig-1", "rig-1-pace")) {
            withOtherValues(name, StoredRig.class, StoredRig::rig);
        }
        for (String name : List.of("plan-1", "plan-1-blends", "plan-1-turned", "plan-1-traced")) {
            withOtherValues(name, StoredPlan.class, StoredPlan::plan);
        }
        withOtherValues("spool-1", StoredSpool.class, StoredSpool::spool);
    }

    private <S> void withOtherValues(String name, Class<S> record, Function<S, Object> from) throws IOException {
        JsonNode tree = TREE.readTree(written(name));
        for (JsonPointer place : places(tree, JsonPointer.empty()).toList()) {
            for (String other :
                    List.of("null", "\"\"", "\"x\"", "-1", "1e308", "true", "[]", "[null]", "{}", "{\"x\":null}")) {
                JsonNode changed = tree.deepCopy();
                put(changed, place, TREE.readTree(other));
                assertThatCode(() -> {
                            try {
                                from.apply(json.convert(changed, record));
                            } catch (JsonProcessingException | IllegalArgumentException | Refusal refused) {
                                assertThat(refused.getMessage()).isNotBlank();
                            }
                        })
                        .as("%s with %s at %s", name, other, place)
                        .doesNotThrowAnyException();
            }
        }
    }

    private static Stream<JsonPointer> places(JsonNode tree, JsonPointer at) {
        Stream<JsonPointer> within = tree.isObject()
                ? tree.properties().stream()
                        .map(Map.Entry::getKey)
                        .flatMap(f -> places(tree.get(f), at.appendProperty(f)))
                : IntStream.range(0, Math.min(tree.size(), 20))
                        .boxed()
                        .flatMap(i -> places(tree.get(i), at.appendIndex(i)));
        return at.matches() ? within : Stream.concat(Stream.of(at), within);
    }

    private static void put(JsonNode tree, JsonPointer place, JsonNode value) {
        JsonNode holder = tree.at(place.head());
        if (holder.isObject()) {
            ((ObjectNode) holder).set(place.last().getMatchingProperty(), value);
        } else {
            ((ArrayNode) holder).set(place.last().getMatchingIndex(), value);
        }
    }

    @Test
    void what_a_newer_Tranche_stored_says_so() throws IOException {
        String plan = written("plan-1");
        assertThatThrownBy(() -> StoredPlan.FORMAT.read(plan, 2, json))
                .isInstanceOf(Unreadable.class)
                .hasMessageContaining("newer Tranche");
    }
}
