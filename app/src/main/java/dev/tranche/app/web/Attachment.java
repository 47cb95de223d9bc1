package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;

/** Files that leave as downloads. */
public final class Attachment {
    private Attachment() {}

    public static void begin(HttpServletResponse response, String name, String type) {
        response.setContentType(type + ";charset=utf-8");
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment().filename(name).build().toString());
    }

    public static void text(HttpServletResponse response, String name, String text) throws IOException {
        begin(response, name, "text/plain");
        response.getOutputStream().write(text.getBytes(StandardCharsets.UTF_8));
    }
}
