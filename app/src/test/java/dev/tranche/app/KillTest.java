package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.geometry.Shapes;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.TestInstance.Lifecycle;
import org.junit.jupiter.api.io.TempDir;

/**
 * The server as a process of its own. It is killed, for real, in the middle of edits, and all that it acknowledged is there
 * when it runs again; and it has little memory.
 */
@TestInstance(Lifecycle.PER_CLASS)
class KillTest {
    private static final Duration PATIENCE = Duration.ofSeconds(90);
    private static final Pattern JOB = Pattern.compile("hx-get=\"(/jobs/[^\"]+)\"");

    @TempDir
    private static Path data;

    private Process server;
    private HttpClient client;
    private int port;
    private String token;

    /** One server is enough for whoever does not kill it. */
    @BeforeEach
    void run() throws Exception {
        if (server == null || !server.isAlive()) {
            server = start();
        }
    }

    @AfterAll
    void stop() throws InterruptedException {
        if (server != null) {
            server.destroyForcibly().waitFor();
        }
    }

    @Test
    void everything_acknowledged_before_a_kill_is_there_after_it() throws Exception {
        String plan = newPlan("kill.stl", OnePlanTest.nameplate());
        editsUntilKilled(plan);
        ticksThroughKills(plan);
    }

    /** What is kept to be quick goes before somebody is told that there is no room. */
    @Test
    void however_many_models_were_opened_there_is_memory_for_the_next() throws Exception {
        for (int i = 1; i <= 7; i++) {
            int around = i < 6 ? 400 : 1200;
            String plan = newPlan("ball " + i + ".stl", new Shapes().sphere(20 + 0.1 * i, 300, around));
            assertThat(page(plan)).contains("ball " + i);
        }
    }

    private void editsUntilKilled(String plan) throws Exception {
        AtomicInteger acknowledged = new AtomicInteger();
        CountDownLatch enough = new CountDownLatch(25);
        Thread killer = new Thread(() -> {
            try {
                enough.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            server.destroyForcibly();
        });
        killer.setDaemon(true);
        killer.start();
        try {
            while (true) {
                // The height tells which edit it was: 2000 µm and the edit's number.
                String height = "2.%03d".formatted(acknowledged.get() + 1);
                HttpResponse<String> answer = acknowledged.get() == 0
                        ? post(plan + "/starts", "seen=0&spool=2&height=" + height)
                        : post(plan + "/starts/1/move", "seen=" + acknowledged.get() + "&height=" + height);
                assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
                acknowledged.incrementAndGet();
                enough.countDown();
            }
        } catch (IOException killed) {
            killer.join();
            server.waitFor();
        }
        assertThat(acknowledged.get()).isGreaterThanOrEqualTo(25);

        server = start();
        String desk = page(plan);
        Matcher edition = Pattern.compile("name=\"seen\" value=\"(\\d+)\"").matcher(desk);
        assertThat(edition.find()).as(desk).isTrue();
        int kept = Integer.parseInt(edition.group(1));
        // The edit under way when the kill came may have been kept without being acknowledged.
        assertThat(kept).isBetween(acknowledged.get(), acknowledged.get() + 1);
        assertThat(desk).contains("value=\"2.%03d\"".formatted(kept).replaceAll("(\\.\\d\\d)0\"", "$1\""));
    }

    /** {@code -Dtranche.kills=50} does it as often as a long print might need it. */
    private void ticksThroughKills(String plan) throws Exception {
        post(plan + "/print", "");
        Matcher found = Pattern.compile("data-print=\"([^\"]+)\"").matcher(page(plan + "/print"));
        assertThat(found.find()).isTrue();
        String print = found.group(1);
        int kills = Integer.getInteger("tranche.kills", 3);
        for (int i = 1; i <= kills; i++) {
            HttpResponse<String> answer = post(
                    plan + "/print/told",
                    "print=" + print + "&kind=NOTED&visit=0&text=tick+" + i + "+of+many&token=t" + i);
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
            server.destroyForcibly().waitFor();
            server = start();
            String page = page(plan + "/print");
            for (int told = 1; told <= i; told++) {
                assertThat(page).contains("tick " + told + " of many");
            }
        }
    }

    private Process start() throws Exception {
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        client = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        List<String> command = List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-Xmx160m",
                "-cp",
                System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                TrancheApplication.class.getName(),
                "--server.port=" + port,
                "--tranche.data=" + data);
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(data.resolve("server.log").toFile())
                .start();
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (process.isAlive() && System.nanoTime() < end) {
            try {
                if (get("/actuator/health/readiness").statusCode() == 200) {
                    Matcher found =
                            Pattern.compile("X-XSRF-TOKEN&quot;:&quot;([^&]+)").matcher(get("/").body());
                    assertThat(found.find()).isTrue();
                    token = found.group(1);
                    return process;
                }
            } catch (IOException notYet) {
                process.waitFor(100, TimeUnit.MILLISECONDS);
            }
        }
        process.destroyForcibly().waitFor();
        throw new AssertionError("the server did not come up: " + Files.readString(data.resolve("server.log")));
    }

    private String newPlan(String file, Shapes shape) throws Exception {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.write(("--cut\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + file + "\"\r\n\r\n")
                .getBytes(StandardCharsets.US_ASCII));
        body.write(StlWriter.binary(shape.mesh()));
        body.write("\r\n--cut--\r\n".getBytes(StandardCharsets.US_ASCII));
        HttpResponse<String> answer = client.send(
                request("/plans")
                        .header("Content-Type", "multipart/form-data; boundary=cut")
                        .POST(BodyPublishers.ofByteArray(body.toByteArray()))
                        .build(),
                BodyHandlers.ofString());
        return whenDone(answer)
                .headers()
                .firstValue("HX-Redirect")
                .orElseThrow(() -> new AssertionError(file + " " + answer.body()));
    }

    /** A page of a plan, which a server that has just started may have to cut first. */
    private String page(String path) throws Exception {
        HttpResponse<String> answer = get(path);
        HttpResponse<String> done = whenDone(answer);
        return (done == answer ? answer : get(path)).body();
    }

    /** Waits as a page does that shows progress. */
    private HttpResponse<String> whenDone(HttpResponse<String> first) throws Exception {
        HttpResponse<String> answer = first;
        for (Matcher m = JOB.matcher(answer.body()); m.find(); m = JOB.matcher(answer.body())) {
            answer = get(m.group(1));
        }
        return answer;
    }

    private HttpResponse<String> get(String path) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(URI.create("http://localhost:" + port + path))
                .timeout(PATIENCE)
                .build();
        return client.send(request, BodyHandlers.ofString());
    }

    private HttpResponse<String> post(String path, String form) throws IOException, InterruptedException {
        return client.send(
                request(path)
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(BodyPublishers.ofString(form))
                        .build(),
                BodyHandlers.ofString());
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create("http://localhost:" + port + path))
                .timeout(PATIENCE)
                .header("HX-Request", "true")
                .header("X-XSRF-TOKEN", token);
    }
}
