package dev.tranche.app.storage;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import java.io.IOException;
import org.springframework.stereotype.Component;

/**
 * Records as JSON, for the database and for plan files. What is stored has records of its own; see {@code app.stored}. No
 * list has nothing in a place, unless its record says so.
 */
@Component
public class Json {
    private final JsonMapper mapper;

    public Json() {
        JsonMapper.Builder builder = JsonMapper.builder()
                .addModule(new Jdk8Module())
                .addModule(new JavaTimeModule())
                .disable(SerializationFeature.WRITE_DURATIONS_AS_TIMESTAMPS)
                .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
                .disable(SerializationFeature.FAIL_ON_EMPTY_BEANS)
                .enable(DeserializationFeature.FAIL_ON_NULL_CREATOR_PROPERTIES)
                .defaultSetterInfo(JsonSetter.Value.forContentNulls(Nulls.FAIL));
        mapper = builder.build();
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

    /** @throws JsonProcessingException if it does not hold what the record needs */
    public <T> T convert(JsonNode tree, Class<T> type) throws JsonProcessingException {
        return mapper.treeToValue(tree, type);
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
            throw Unreadable.since(e.getOriginalMessage(), e);
        }
    }
}
