package dev.tranche.app.printers;

import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.HeatFor;
import dev.tranche.core.macro.Step;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A component of a step as a field of a form.
 *
 * @param name of the component
 * @param label before the field, {@code unit} after it
 * @param value as it is typed; empty where the printer's own measure is taken
 * @param kind number, text, lines or choice
 * @param optional whether it may be empty
 * @param choices where there are some
 */
record StepField(
        String name, String label, String unit, String value, Kind kind, boolean optional, List<Choice> choices) {
    enum Kind {
        NUMBER,
        TEXT,
        LINES,
        CHOICE
    }

    record Choice(String value, String title) {}

    private static final Set<String> ONE_LINE = Set.of("text", "line");

    private static final Map<String, StepField> LABELS = Stream.of(
                    label("hertz", "pitch", "Hz"),
                    label("milliseconds", "for", "ms"),
                    label("text", "words", ""),
                    label("length", "length", "mm"),
                    label("height", "by", "mm"),
                    label("extra", "measured +", "mm"),
                    label("speed", "at", "mm/s"),
                    label("axis", "along", ""),
                    label("position", "at", "mm"),
                    label("travel", "pressing", "mm"),
                    label("by", "by", ""),
                    label("seconds", "for", "s"),
                    label("to", "for", ""),
                    label("width", "width", "mm"),
                    label("strokes", "strokes", ""),
                    label("before", "lines before", ""),
                    label("after", "lines after", ""),
                    label("lines", "lines", ""),
                    label("line", "line", ""),
                    label("axes", "of", ""),
                    label("x", "waits at X", "mm"),
                    label("y", "Y", "mm"),
                    label("lift", "lift", "mm"),
                    label("retraction", "retraction", "mm"),
                    label("out", "out", "mm"),
                    label("in", "in", "mm"))
            .collect(java.util.stream.Collectors.toMap(StepField::name, f -> f));

    /** What sentences call a component that they do not call by its name. */
    private static final Map<String, String> IN_SENTENCES = Map.of(
            "hertz", "pitch",
            "milliseconds", "time",
            "seconds", "time",
            "extra", "length beyond the measured one",
            "travel", "press travel",
            "x", "X where it waits",
            "y", "Y where it waits",
            "out", "length out",
            "in", "length in",
            "to", "heat");

    private static StepField label(String name, String label, String unit) {
        return new StepField(name, label, unit, "", Kind.NUMBER, false, List.of());
    }

    /** What sentences call the component {@code name} of a step. */
    static String inSentences(String name) {
        return IN_SENTENCES.getOrDefault(name, name);
    }

    static List<StepField> of(Step step) {
        return Arrays.stream(step.getClass().getRecordComponents())
                .map(c -> of(step, c))
                .toList();
    }

    private static StepField of(Step step, RecordComponent component) {
        StepField known = LABELS.getOrDefault(component.getName(), label(component.getName(), component.getName(), ""));
        Object value;
        try {
            value = component.getAccessor().invoke(step);
        } catch (IllegalAccessException | InvocationTargetException e) {
            throw new IllegalStateException(e);
        }
        boolean optional = value instanceof OptionalDouble;
        return new StepField(
                known.name(),
                known.label(),
                known.unit(),
                typed(value),
                kind(component, value),
                optional,
                choices(value));
    }

    private static Kind kind(RecordComponent component, Object value) {
        if (value instanceof Number || value instanceof OptionalDouble) {
            return Kind.NUMBER;
        } else if (value instanceof Enum<?>) {
            return Kind.CHOICE;
        }
        return ONE_LINE.contains(component.getName()) ? Kind.TEXT : Kind.LINES;
    }

    private static String typed(Object value) {
        if (value instanceof OptionalDouble number) {
            return number.isPresent() ? typed(number.getAsDouble()) : "";
        }
        return value instanceof Double d
                ? BigDecimal.valueOf(d).stripTrailingZeros().toPlainString()
                : value.toString();
    }

    private static List<Choice> choices(Object value) {
        if (value instanceof Command) {
            return Stream.of(Command.M0, Command.M1, Command.M25)
                    .map(c -> new Choice(c.name(), c + ", " + c.meaning()))
                    .toList();
        } else if (value instanceof HeatFor) {
            return Arrays.stream(HeatFor.values())
                    .map(h -> new Choice(h.name(), h.title()))
                    .toList();
        } else if (value instanceof Enum<?> e) {
            return Arrays.stream(e.getDeclaringClass().getEnumConstants())
                    .map(c -> new Choice(((Enum<?>) c).name(), c.toString()))
                    .toList();
        }
        return List.of();
    }
}
