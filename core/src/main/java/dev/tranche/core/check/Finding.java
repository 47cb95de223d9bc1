package dev.tranche.core.check;

import dev.tranche.core.speech.Severity;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The result of a rule.
 *
 * @param key the same for the same finding in the same place; letters, digits and dashes
 * @param concern what it is about
 * @param sentence what is so, why it matters, what to do
 * @param layer where to look, from 1
 * @param fix a change of the plan that mends it
 * @param acceptance what somebody says who knows it and prints all the same, where that may be said
 * @param accepted whether the owner of the sliced file has said so; it stops nothing then
 * @param known whether it says on almost every plan what whoever has read it once knows
 */
public record Finding(
        Severity severity,
        String key,
        Concern concern,
        String sentence,
        OptionalInt layer,
        Optional<Fix> fix,
        Optional<String> acceptance,
        boolean accepted,
        boolean known) {
    /** What an owner accepts: this finding as it reads, and not another of its kind. */
    public String word() {
        return key + "." + Integer.toHexString(sentence.hashCode());
    }

    static Finding of(Severity severity, String key, String sentence) {
        return new Finding(
                severity,
                key,
                Concern.COLOURS,
                sentence,
                OptionalInt.empty(),
                Optional.empty(),
                Optional.empty(),
                false,
                false);
    }

    Finding on(Concern subject) {
        return new Finding(severity, key, subject, sentence, layer, fix, acceptance, accepted, known);
    }

    Finding saying(String words) {
        return new Finding(severity, key, concern, words, layer, fix, acceptance, accepted, known);
    }

    Finding at(int where) {
        return new Finding(severity, key, concern, sentence, OptionalInt.of(where), fix, acceptance, accepted, known);
    }

    Finding mendedBy(Fix how) {
        return new Finding(severity, key, concern, sentence, layer, Optional.of(how), acceptance, accepted, known);
    }

    Finding acceptedBy(String words) {
        return new Finding(severity, key, Concern.FILE, sentence, layer, fix, Optional.of(words), accepted, known);
    }

    Finding accept() {
        return new Finding(
                severity == Severity.STOP ? Severity.WARN : severity,
                key,
                concern,
                sentence,
                layer,
                fix,
                acceptance,
                true,
                known);
    }

    /** Known to whoever has read it once, unless it warns. */
    Finding quietly() {
        boolean note = severity == Severity.NOTE && fix.isEmpty();
        return new Finding(severity, key, concern, sentence, layer, fix, acceptance, accepted, note);
    }
}
