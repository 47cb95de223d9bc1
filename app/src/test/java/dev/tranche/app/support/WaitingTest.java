package dev.tranche.app.support;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Iterator;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebDriverException;

/** What the tests of pages stand on: they wait as a person does, and see what fails. */
class WaitingTest extends BrowserTest {
    @Test
    void a_page_that_goes_away_while_it_is_looked_at_is_looked_at_again() {
        // As ChromeDriver says it; the second in some seven of a hundred times.
        Iterator<WebDriverException> gone = List.of(
                        new StaleElementReferenceException("stale element reference: stale element not found"),
                        new WebDriverException(
                                "unknown error: unhandled inspector error: {\"code\":-32000,\"message\":\"Node with given id does not belong to the document\"}"))
                .iterator();

        assertThat(browser.<String>until(() -> {
                    if (gone.hasNext()) {
                        throw gone.next();
                    }
                    return "the new page";
                }))
                .isEqualTo("the new page");
    }

    @Test
    void whatever_else_the_browser_says_is_not_waited_away() {
        assertThatThrownBy(() -> browser.until(() -> {
                    throw new WebDriverException("unknown error: the browser has died");
                }))
                .hasMessageContaining("the browser has died");
    }
}
