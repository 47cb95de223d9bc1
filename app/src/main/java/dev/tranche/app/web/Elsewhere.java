package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import org.springframework.web.servlet.View;

/** Sends a page whose request came from htmx to another page. */
public record Elsewhere(String page) implements View {
    @Override
    public void render(Map<String, ?> model, HttpServletRequest request, HttpServletResponse response) {
        response.setHeader("HX-Redirect", page);
    }
}
