package dev.tranche.app.guide;

import java.util.Optional;

/**
 * What the guide says beside a plan.
 *
 * @param stage empty where everything is done
 * @param sentence what comes next and why
 * @param next where one goes for it, if that is another page
 */
public record Advice(Optional<Stage> stage, String sentence, Optional<Next> next) {
    public record Next(String words, String page) {}

    static Advice at(Stage stage, String sentence) {
        return new Advice(Optional.of(stage), sentence, Optional.empty());
    }

    Advice then(String words, String page) {
        return new Advice(stage, sentence, Optional.of(new Next(words, page)));
    }
}
