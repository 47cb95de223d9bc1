package dev.tranche.app.support;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.test.web.server.LocalServerPort;

/** A running application and a browser that looks at it; to each class of tests it comes as good as new. */
public abstract class BrowserTest extends OnePlanTest {
    protected static Browser browser;

    @LocalServerPort
    private int port;

    @TempDir
    private Path folder;

    @BeforeEach
    void openBrowser() {
        if (browser == null) {
            browser = new Browser(port);
            Runtime.getRuntime().addShutdownHook(new Thread(browser::close));
        }
        browser.at(port);
        browser.size(1280, 800);
    }

    @AfterEach
    void noScriptBroke() {
        assertThat(browser.broken()).as("what scripts of the pages said").isEmpty();
    }

    @AfterAll
    static void leaveBrowser() {
        browser.forget();
    }

    protected Path file(String name, byte[] bytes) throws IOException {
        return Files.write(folder.resolve(name), bytes);
    }

    /** Chooses a file, as people do in the dialog. */
    protected void give(String field, Path file) {
        browser.find(field).sendKeys(file.toString());
    }
}
