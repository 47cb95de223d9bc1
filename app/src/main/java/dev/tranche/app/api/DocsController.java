package dev.tranche.app.api;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.StreamSupport;
import org.springdoc.webmvc.api.OpenApiWebMvcResource;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;

/** The description of the interface as a page, from the very description that programs get. */
@Controller
class DocsController {
    private static final String PATH = "/api";

    private final OpenApiWebMvcResource description;
    private final ObjectMapper json;

    DocsController(OpenApiWebMvcResource description, ObjectMapper json) {
        this.description = description;
        this.json = json;
    }

    /** What can be asked, with the fields to send. */
    record Question(String path, String summary, List<Field> fields, List<Answer> answers) {}

    record Field(String name, boolean file, boolean required, String description) {}

    record Answer(String code, String description) {}

    @GetMapping(PATH)
    String show(HttpServletRequest request, Locale locale, Model model) throws IOException {
        JsonNode api = json.readTree(description.openapiJson(request, PATH, locale));
        List<Question> questions = new ArrayList<>();
        api.path("paths").fields().forEachRemaining(e -> questions.add(question(e.getKey(), e.getValue())));
        model.addAttribute("questions", questions);
        model.addAttribute("about", api.path("info").path("description").asText());
        model.addAttribute("root", api.path("servers").path(0).path("url").asText());
        return "api/docs";
    }

    private static Question question(String path, JsonNode node) {
        JsonNode post = node.path("post");
        JsonNode sent = post.path("requestBody")
                .path("content")
                .path("multipart/form-data")
                .path("schema");
        List<String> required = StreamSupport.stream(sent.path("required").spliterator(), false)
                .map(JsonNode::asText)
                .toList();
        List<Field> fields = new ArrayList<>();
        sent.path("properties")
                .fields()
                .forEachRemaining(f -> fields.add(new Field(
                        f.getKey(),
                        true,
                        required.contains(f.getKey()),
                        f.getValue().path("description").asText())));
        post.path("parameters")
                .forEach(p -> fields.add(new Field(
                        p.path("name").asText(),
                        false,
                        p.path("required").asBoolean(),
                        p.path("description").asText())));
        List<Answer> answers = new ArrayList<>();
        post.path("responses")
                .fields()
                .forEachRemaining(a -> answers.add(
                        new Answer(a.getKey(), a.getValue().path("description").asText())));
        return new Question(path, post.path("summary").asText(), fields, answers);
    }
}
