package dev.tranche.app.plans;

import java.util.List;

/** An edit came from a page that shows an earlier edition of the plan; it was not made. */
public class StalePage extends RuntimeException {
    private static final long serialVersionUID = 1L;

    StalePage(List<String> changes) {
        super("This plan was changed in another tab"
                + (changes.isEmpty() ? "" : " (" + String.join("; ", changes) + ")")
                + ". Your last change was not made; the page now shows the plan as it is.");
    }
}
