package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.macro.Step;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;

/**
 * A step as it is typed: one field for each component of its record, so that a new kind of step needs no form of its
 * own.
 *
 * @param values by the names of the components; {@code on} and {@code only} beside them
 */
record StepForm(Map<String, String> values) {

    MacroStep on(MacroStep before) {
        return new MacroStep(step(before.step()), "true".equals(values.get("on")), only(), told(before));
    }

    /** What was proposed is not the owner's word. */
    private String told(MacroStep before) {
        String told =
                values.getOrDefault("told", before.told()).replace("\r\n", "\n").strip();
        return told.equals(values.getOrDefault("proposed", "")
                        .replace("\r\n", "\n")
                        .strip())
                ? ""
                : told;
    }

    private Set<Integer> only() {
        Set<Integer> only = new TreeSet<>();
        String text = values.getOrDefault("only", "");
        for (String word : text.split("[,;\\s]+")) {
            if (!word.isBlank()) {
                only.add(Numbers.whole("extruder", word.replaceFirst("^[Tt]", "")));
            }
        }
        return only;
    }

    private Step step(Step before) {
        RecordComponent[] components = before.getClass().getRecordComponents();
        Class<?>[] types =
                Arrays.stream(components).map(RecordComponent::getType).toArray(Class<?>[]::new);
        Object[] arguments = Arrays.stream(components).map(this::argument).toArray();
        try {
            return (Step) before.getClass().getDeclaredConstructor(types).newInstance(arguments);
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof Refusal refusal) {
                throw refusal;
            }
            throw new IllegalStateException(e);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private Object argument(RecordComponent component) {
        String text = values.getOrDefault(component.getName(), "");
        String name = StepField.inSentences(component.getName());
        if (component.getType() == int.class) {
            return Numbers.whole(name, text);
        } else if (component.getType() == double.class) {
            return Numbers.decimal(name, text);
        } else if (component.getType() == OptionalDouble.class) {
            return text.isBlank() ? OptionalDouble.empty() : OptionalDouble.of(Numbers.decimal(name, text));
        } else if (component.getType() == String.class) {
            return text.replace("\r\n", "\n").strip();
        }
        return Arrays.stream(component.getType().getEnumConstants())
                .filter(c -> ((Enum<?>) c).name().equals(text))
                .findFirst()
                .orElseThrow(() ->
                        Refusal.of("“%s” is no choice for the %s; take one from the list.", Words.quoted(text), name));
    }
}
