package dev.tranche.app.storage;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Words;
import java.io.IOException;
import org.springframework.stereotype.Component;

/** The core's values as JSON for the database; sealed kinds carry their name in a field {@code kind}. */
@Component
public class CoreJson {
    private final JsonMapper mapper;

    public CoreJson() {
        JsonMapper.Builder builder = JsonMapper.builder()
                .addModule(new Jdk8Module())
                .addModule(new JavaTimeModule())
                .disable(SerializationFeature.WRITE_DURATIONS_AS_TIMESTAMPS)
                .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
                .disable(SerializationFeature.FAIL_ON_EMPTY_BEANS)
                .enable(DeserializationFeature.FAIL_ON_NULL_CREATOR_PROPERTIES);
        for (Class<?> kind :
                new Class<?>[] {Bed.class, Drive.class, Step.class, Shape.class, Outline.class, PurgePlace.class}) {
            builder.addMixIn(kind, Kind.class);
            for (Class<?> permitted : kind.getPermittedSubclasses()) {
                builder.registerSubtypes(permitted);
            }
        }
        builder.addMixIn(Silhouette.class, Text.class);
        builder.addMixIn(Srgb.class, Hex.class);
        mapper = builder.build();
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "kind")
    private interface Kind {}

    /** A value that is written as one text and read from it. */
    private abstract static class Text {
        @JsonCreator
        static Silhouette parse(String text) {
            throw new IllegalStateException("only its place counts");
        }

        @Override
        @JsonValue
        public abstract String toString();
    }

    /** A colour is written as people type it. */
    private abstract static class Hex {
        @JsonCreator
        static Srgb parse(String text) {
            throw new IllegalStateException("only its place counts");
        }

        @JsonValue
        public abstract String hex();
    }

    public String write(Object value) {
        try {
            return mapper.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** As {@link #write}, with line breaks, for files that people open. */
    public String writePretty(Object value) {
        try {
            return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * A value from a tree that came from outside.
     *
     * @throws JsonProcessingException if it does not hold what the value needs
     * @throws Refusal if the value refuses what it holds
     */
    public <T> T convert(JsonNode tree, Class<T> type) throws JsonProcessingException {
        try {
            return mapper.treeToValue(tree, type);
        } catch (JsonProcessingException e) {
            if (e.getCause() instanceof Refusal refusal) {
                throw refusal;
            }
            throw e;
        }
    }

    /** @throws JsonProcessingException if it is no JSON */
    public JsonNode tree(byte[] json) throws IOException {
        return mapper.readTree(json);
    }

    /** @throws Unreadable if it is not what this Tranche would write */
    public <T> T read(String json, Class<T> type) {
        try {
            return mapper.readValue(json, type);
        } catch (JsonProcessingException e) {
            throw new Unreadable(
                    e.getCause() instanceof Refusal refusal
                            ? refusal.getMessage()
                            : "It is not stored as this Tranche stores it: " + Words.oneLine(e.getOriginalMessage())
                                    + ".",
                    e);
        }
    }
}
