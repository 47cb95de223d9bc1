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
    private static final Pattern TABLE = Pattern.compile("<table[^<>]*>\\s*(<caption)?");

    /** A tag is replaced before it is asked whether it is to be there (Thymeleaf, attribute precedence). */
    @Test
    void no_tag_is_replaced_on_a_condition_of_its_own() throws IOException {
        assertThat(matches(TAG))
                .isNotEmpty()
                .noneMatch(
                        tag -> tag.contains("th:replace=") && (tag.contains("th:if=") || tag.contains("th:unless=")));
    }

    /** Who hears a page goes through its tables by their names (WCAG 2.2, technique H39 and ARIA's naming of a table). */
    @Test
    void every_table_has_a_name_to_be_found_by() throws IOException {
        assertThat(matches(TABLE))
                .isNotEmpty()
                .allMatch(table -> table.contains("aria-label") || table.contains("<caption"));
    }

    /** What of the templates a pattern matches, each after its file's name. */
    private static List<String> matches(Pattern pattern) throws IOException {
        List<String> found = new ArrayList<>();
        try (Stream<Path> templates = Files.walk(Path.of("src/main/resources/templates"))) {
            for (Path file : templates.filter(Files::isRegularFile).toList()) {
                pattern.matcher(Files.readString(file))
                        .results()
                        .map(MatchResult::group)
                        .forEach(text -> found.add(file.getFileName() + " " + text));
            }
        }
        return found;
    }
}
