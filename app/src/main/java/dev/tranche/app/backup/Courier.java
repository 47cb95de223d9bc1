package dev.tranche.app.backup;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Base64;
import java.util.Collections;
import java.util.List;

/** Fetches a backup from a Tranche that runs, or brings it one: {@code backup FILE PORT}, {@code restore FILE PORT}. */
public final class Courier {
    private static final String BOUNDARY = "tranche-backup";

    private final HttpClient http = HttpClient.newHttpClient();
    private final String house;

    private Courier(String port) {
        house = "http://127.0.0.1:" + port;
    }

    /** Whether a start is meant for the courier. */
    public static boolean isMeant(String... arguments) {
        return arguments.length == 3 && List.of("backup", "restore").contains(arguments[0]);
    }

    /** Runs the errand, and answers the exit code. */
    public static int run(String... arguments) throws IOException, InterruptedException {
        Courier courier = new Courier(arguments[2]);
        Path file = Path.of(arguments[1]);
        try {
            return arguments[0].equals("backup") ? courier.fetch(file) : courier.bring(file);
        } catch (ConnectException e) {
            return say("Tranche does not answer at port " + arguments[2] + "; start it first, or give another PORT.");
        }
    }

    private int fetch(Path file) throws IOException, InterruptedException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        HttpResponse<Path> answer = http.send(request("/api/v1/backup").GET().build(), BodyHandlers.ofFile(part));
        if (answer.statusCode() != 200) {
            Files.deleteIfExists(part);
            return say("Tranche gave no backup (" + answer.statusCode() + "); is TRANCHE_PASSWORD set as it is there?");
        }
        Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
        System.out.println("Everything is copied into " + file + ".");
        return 0;
    }

    private int bring(Path file) throws IOException, InterruptedException {
        if (!Files.isReadable(file)) {
            return say("There is no file " + file + " to take back.");
        }
        HttpRequest request = request("/api/v1/restore")
                .header("Content-Type", "multipart/form-data; boundary=" + BOUNDARY)
                .POST(BodyPublishers.ofInputStream(() -> body(file)))
                .build();
        HttpResponse<String> answer = http.send(request, BodyHandlers.ofString());
        if (answer.statusCode() != 200) {
            return say(answer.body().strip());
        }
        System.out.println(answer.body().strip());
        return 0;
    }

    private static InputStream body(Path file) {
        try {
            return new SequenceInputStream(Collections.enumeration(List.of(
                    bytes("--" + BOUNDARY
                            + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"backup.zip\"\r\n\r\n"),
                    Files.newInputStream(file),
                    bytes("\r\n--" + BOUNDARY + "--\r\n"))));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.US_ASCII));
    }

    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(house + path));
        String password = System.getenv("TRANCHE_PASSWORD");
        return password == null
                ? request
                : request.header(
                        "Authorization",
                        "Basic "
                                + Base64.getEncoder()
                                        .encodeToString(("tranche:" + password).getBytes(StandardCharsets.UTF_8)));
    }

    /** Why it did not work, and the exit code of that. */
    private static int say(String sentence) {
        System.err.println(sentence);
        return 1;
    }
}
