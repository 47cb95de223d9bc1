package dev.tranche.app.support;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.logging.Level;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.WindowType;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;
import org.springframework.util.FileSystemUtils;

/** Debian's Chromium, without a window. It waits for what a person would wait for, never for a time. */
public final class Browser implements AutoCloseable {
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    /** What Chromium says of an element whose page has gone. */
    private static final String ANOTHER_PAGE = "Node with given id does not belong to the document";

    private final ChromeDriver driver;
    private String root;
    private final Path downloads;
    private final Path profile;

    public Browser(int port) {
        at(port);
        try {
            downloads = Files.createTempDirectory("tranche-downloads");
            profile = Files.createTempDirectory("tranche-browser");
            ChromeOptions options = new ChromeOptions();
            options.setBinary("/usr/bin/chromium");
            options.addArguments(
                    "--headless",
                    "--no-sandbox",
                    "--disable-gpu",
                    "--disable-quic",
                    "--no-first-run",
                    "--disable-background-networking",
                    "--disable-component-update",
                    "--disable-sync",
                    "--disable-dev-shm-usage",
                    "--enable-unsafe-swiftshader",
                    "--force-prefers-reduced-motion",
                    "--user-data-dir=" + profile);
            options.setExperimentalOption("prefs", Map.of("download.default_directory", downloads.toString()));
            ChromeDriverService service = new ChromeDriverService.Builder()
                    .usingDriverExecutable(new java.io.File("/usr/bin/chromedriver"))
                    .build();
            driver = new ChromeDriver(service, options);
            size(1280, 800);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Looks at the application on that port from now on. */
    public void at(int port) {
        root = "http://localhost:" + port;
    }

    /** What the browser says where an address refuses something, or the page is left before it answers. */
    private static final Pattern UNANSWERED = Pattern.compile("Failed to load resource|htmx:(sendError|afterRequest)");

    /** What scripts of the pages complained of since this was last asked. */
    public List<String> broken() {
        return driver.manage().logs().get(LogType.BROWSER).getAll().stream()
                .filter(e -> e.getLevel().intValue() >= Level.SEVERE.intValue())
                .map(LogEntry::getMessage)
                .filter(m -> !UNANSWERED.matcher(m).find())
                .toList();
    }

    /** As if somebody else sat down at it: one empty window, no cookies, nothing stored and nothing downloaded. */
    public void forget() {
        Set<String> old = driver.getWindowHandles();
        String window = driver.switchTo().newWindow(WindowType.TAB).getWindowHandle();
        for (String other : old) {
            driver.switchTo().window(other).close();
        }
        driver.switchTo().window(window);
        driver.executeCdpCommand("Network.clearBrowserCookies", Map.of());
        driver.executeCdpCommand("Storage.clearDataForOrigin", Map.of("origin", root, "storageTypes", "all"));
        try (Stream<Path> files = Files.list(downloads)) {
            files.forEach(file -> file.toFile().delete());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Sets the size of the page itself, without what a window has round it. */
    public void size(int width, int height) {
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
        driver.manage().window().setSize(new Dimension(width, height));
    }

    public Browser open(String path) {
        driver.get(root + path);
        // A page that was still on its way when this one was asked for is not taken for it,
        // nor one that stands in for it while a plan is being cut.
        until(() -> (Boolean) driver.executeScript(
                "return document.readyState === 'complete' && !document.getElementById('job-progress')"));
        return this;
    }

    public ChromeDriver driver() {
        return driver;
    }

    public String path() {
        return driver.getCurrentUrl().substring(root.length());
    }

    /** The first of its kind on a page that has arrived whole, its scripts included: before, a press falls on deaf ears. */
    public WebElement find(String css) {
        return until(() -> (WebElement) driver.executeScript(
                "return document.readyState === 'complete' ? document.querySelector(arguments[0]) : null", css));
    }

    public List<WebElement> all(String css) {
        return driver.findElements(By.cssSelector(css));
    }

    public String text(String css) {
        return until(() -> find(css).getText());
    }

    /** Clicks as soon as the element is there and stands still. */
    public void click(String css) {
        until(() -> {
            find(css).click();
            return true;
        });
    }

    public void type(String css, CharSequence... keys) {
        until(() -> {
            WebElement field = find(css);
            if (field.getDomProperty("selectionStart") == null) {
                field.clear();
            } else {
                // As a hand does; what WebDriver clears, it leaves at once.
                field.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
            }
            field.sendKeys(keys);
            return true;
        });
    }

    public void choose(String css, String visible) {
        until(() -> {
            // A menu of spools takes in its choices when a hand comes near.
            driver.executeScript(
                    "arguments[0].focus(); arguments[0].dispatchEvent(new Event('pointerover', {bubbles: true}))",
                    find(css));
            new Select(find(css)).selectByVisibleText(visible);
            return true;
        });
    }

    /** Presses keys on whatever has the focus. */
    public void press(CharSequence... keys) {
        driver.switchTo().activeElement().sendKeys(keys);
    }

    /** Takes the focus off any field, as a click on an empty place would. */
    public void leaveFields() {
        script("document.activeElement.blur()");
    }

    public Object script(String script, Object... arguments) {
        return ((JavascriptExecutor) driver).executeScript(script, arguments);
    }

    /**
     * Runs a script on every page from now on, before any of the page's own.
     *
     * @return by what {@link #noMore} knows it
     */
    public Object beforeEveryPage(String script) {
        return driver.executeCdpCommand("Page.addScriptToEvaluateOnNewDocument", Map.of("source", script))
                .get("identifier");
    }

    /** Runs it no more on pages that are opened from now on. */
    public void noMore(Object script) {
        driver.executeCdpCommand("Page.removeScriptToEvaluateOnNewDocument", Map.of("identifier", script));
    }

    /** Waits until {@code what} is neither null nor false; a page that is being replaced counts as not yet. */
    public <T> T until(Supplier<T> what) {
        return new WebDriverWait(driver, PATIENCE, Duration.ofMillis(50))
                .ignoring(StaleElementReferenceException.class)
                .ignoring(org.openqa.selenium.ElementNotInteractableException.class)
                .ignoring(org.openqa.selenium.ElementClickInterceptedException.class)
                .until(d -> ofThisPage(what));
    }

    /**
     * Null when the page went away while it was looked at. ChromeDriver calls most such elements stale; some (17 of 235
     * on a page that reloads itself every 60 ms) it lets through as an unknown error of Chromium's own inspector.
     */
    private static <T> T ofThisPage(Supplier<T> what) {
        try {
            return what.get();
        } catch (WebDriverException e) {
            if (String.valueOf(e.getRawMessage()).contains(ANOTHER_PAGE)) {
                return null;
            }
            throw e;
        }
    }

    /** Waits until the text of {@code css} holds {@code words}. */
    public void see(String css, String words) {
        until(() -> all(css).stream().anyMatch(e -> e.getText().contains(words)));
    }

    /** The folder of downloads. */
    public Path downloads() {
        return downloads;
    }

    /** The file that arrives in the folder of downloads. */
    public Path download(String name) {
        return until(() -> {
            Path file = downloads.resolve(name);
            return Files.exists(file) && !Files.exists(downloads.resolve(name + ".crdownload")) ? file : null;
        });
    }

    @Override
    public void close() {
        driver.quit();
        // What Chromium still writes to as it goes is left; that is little.
        FileSystemUtils.deleteRecursively(profile.toFile());
        FileSystemUtils.deleteRecursively(downloads.toFile());
    }
}
