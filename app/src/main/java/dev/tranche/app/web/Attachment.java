package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.web.util.UriUtils;

/** Files that leave as downloads. */
public final class Attachment {
    /**
     * Registered nowhere (RFC 6838, section 3.4), but not plain text: phones write .txt behind the name of that, and no printer lists
     * it (common practice).
     */
    public static final String GCODE = "text/x.gcode";

    private Attachment() {}

    public static void begin(HttpServletResponse response, String name, String type) {
        response.setContentType(type + ";charset=utf-8");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, named(name));
    }

    /** A name with other letters than ASCII stands in both ways. Source: RFC 6266, section 5, the last of its examples. */
    private static String named(String name) {
        String plain = name.replaceAll("[^ -~]+", "_");
        String old = ContentDisposition.attachment().filename(plain).build().toString();
        return plain.equals(name) ? old : old + "; filename*=UTF-8''" + UriUtils.encode(name, StandardCharsets.UTF_8);
    }

    public static void gcode(HttpServletResponse response, String name, String text) throws IOException {
        begin(response, name, GCODE);
        response.getOutputStream().write(text.getBytes(StandardCharsets.UTF_8));
    }
}
