package dev.tranche.app.history;

import java.util.List;

/** An edit came from a page that shows an earlier edition; it was not made. */
public class StalePage extends RuntimeException {
    private static final long serialVersionUID = 1L;

    StalePage(String what, List<String> changes) {
        super("This " + what + " was changed in another tab"
                + (changes.isEmpty() ? "" : " (" + String.join("; ", changes) + ")")
                + ". Your last change was not made; the page now shows the " + what + " as it is.");
    }
}
