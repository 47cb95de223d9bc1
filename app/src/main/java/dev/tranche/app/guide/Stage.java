package dev.tranche.app.guide;

import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.Locale;

/** What a first plan needs, in the order of the work. */
public enum Stage {
    PRINTER(
            "Your printer",
            "Printers change filament in different ways. That decides what a swap costs, and which commands Tranche may write."),
    SPOOLS(
            "Your spools",
            "How much has to be purged between two spools comes from their colours, and every drawing shows them."),
    MODEL("A model", "Colours start at heights of a model, so Tranche cuts it into the very layers that you print."),
    COLOUR(
            "A first colour",
            "It starts at the layer that is nearest to the height you say; what it costs stands beside it at once."),
    FILE(
            "The file",
            "Slice as you always do, in one colour. Tranche puts the swaps between its lines and leaves each line as it is.");

    private final String title;
    private final String why;

    Stage(String title, String why) {
        this.title = title;
        this.why = why;
    }

    public String title() {
        return title;
    }

    public String why() {
        return why;
    }

    /** As it is counted on the page, from 1. */
    public int number() {
        return ordinal() + 1;
    }

    /** Whether it has a page of its own; the others stand where the work is done. */
    public boolean hasPage() {
        return compareTo(MODEL) <= 0;
    }

    /** @throws Refusal if it is none */
    static Stage at(String path) {
        return Arrays.stream(values())
                .filter(s -> s.path().equals(path))
                .findFirst()
                .orElseThrow(() -> new Refusal("The guide has no such step; begin it again under Settings."));
    }

    public String path() {
        return name().toLowerCase(Locale.ROOT);
    }
}
