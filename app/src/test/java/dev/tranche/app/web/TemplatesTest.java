package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What no template may do. */
class TemplatesTest {
    private static final Pattern TAG = Pattern.compile("<[a-z][^<>]*>");

    /** A tag is replaced before it is asked whether it is to be there (Thymeleaf, attribute precedence). */
    @Test
    void no_tag_is_replaced_on_a_condition_of_its_own() throws IOException {
        List<String> wrong = new ArrayList<>();
        try (Stream<Path> templates = Files.walk(Path.of("src/main/resources/templates"))) {
            for (Path file : templates.filter(Files::isRegularFile).toList()) {
                TAG.matcher(Files.readString(file))
                        .results()
                        .map(MatchResult::group)
                        .filter(tag ->
                                tag.contains("th:replace=") && (tag.contains("th:if=") || tag.contains("th:unless=")))
                        .forEach(tag -> wrong.add(file.getFileName() + " " + tag));
            }
        }
        assertThat(wrong).isEmpty();
    }
}
