package dev.tranche.app.terms;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** Words are explained where they stand. */
class TermsTest extends BrowserTest {
    private static final Pattern ASKED = Pattern.compile("terms/term :: of\\('([a-z-]+)'\\)");

    private static Set<String> asked() throws IOException {
        try (Stream<Path> templates = Files.walk(Path.of("src/main/resources/templates"))) {
            return templates
                    .filter(Files::isRegularFile)
                    .flatMap(t -> ASKED.matcher(read(t)).results())
                    .map(MatchResult::group)
                    .map(m -> m.replaceAll(".*'([a-z-]+)'.*", "$1"))
                    .collect(Collectors.toCollection(TreeSet::new));
        }
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void every_question_mark_has_an_answer_and_every_answer_stands_somewhere() throws IOException {
        assertThat(asked())
                .isEqualTo(Arrays.stream(Term.values()).map(Term::key).collect(Collectors.toCollection(TreeSet::new)));
    }

    @Test
    void a_meaning_is_opened_read_and_closed_by_keyboard_and_the_hand_stays_where_it_was() {
        browser.open("/plans/" + plan("words").id());
        browser.script("document.querySelector('[data-term=ledger]').focus()");
        browser.press(Keys.ENTER);
        browser.see("#term", "Each figure opens to how it was computed");
        browser.press(Keys.ESCAPE);
        browser.until(() -> !browser.find("#term").isDisplayed());
        assertThat(browser.script("return document.activeElement.dataset.term")).isEqualTo("ledger");
        // Another, straight after; it stands within the window.
        browser.click("[data-term=score]");
        browser.see("#term", "The print as time goes by");
        assertThat(
                        (Boolean)
                                browser.script(
                                        "const r = document.getElementById('term').getBoundingClientRect(); return r.left >= 0 && r.top >= 0 && r.right <= innerWidth && r.bottom <= innerHeight"))
                .isTrue();
        browser.click("#term a");
        browser.until(() -> browser.path().equals("/words#score"));
        assertThat(browser.text("main")).contains(Term.CLEAN.meaning());
        browser.open("/words/nothing-of-the-kind");
        assertThat(browser.text("main")).contains("not explained");
    }
}
