package dev.tranche.core.rig;

import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroStep;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Something in which a variant is not what it came from.
 *
 * @param what in a practitioner's words
 * @param here in the variant, {@code there} in its origin
 */
public record Difference(String what, String here, String there) {
    private static final String NONE = "none";

    /** All differences of {@code variant} from {@code origin}, but for the name. */
    public static List<Difference> between(Rig variant, Rig origin) {
        Map<String, String> here = describe(variant);
        Map<String, String> there = describe(origin);
        List<Difference> differences = new ArrayList<>();
        Stream.concat(here.keySet().stream(), there.keySet().stream())
                .distinct()
                .filter(what -> !here.getOrDefault(what, NONE).equals(there.getOrDefault(what, NONE)))
                .forEach(what -> differences.add(
                        new Difference(what, here.getOrDefault(what, NONE), there.getOrDefault(what, NONE))));
        differences.addAll(otherSettings(variant, origin, here, there));
        return differences;
    }

    /** Macros with the same steps in the same order, but with other numbers in them. */
    private static List<Difference> otherSettings(
            Rig variant, Rig origin, Map<String, String> here, Map<String, String> there) {
        List<Difference> differences = new ArrayList<>();
        for (Macro mine : variant.macros().macros()) {
            for (Macro theirs : origin.macros().macros()) {
                String what = title(mine);
                boolean told = !here.getOrDefault(what, NONE).equals(there.getOrDefault(what, NONE));
                if (mine.name().equals(theirs.name()) && !told && !mine.steps().equals(theirs.steps())) {
                    differences.add(new Difference(what, firstChange(mine, theirs), firstChange(theirs, mine)));
                }
            }
        }
        return differences;
    }

    private static String firstChange(Macro one, Macro other) {
        for (int i = 0; i < Math.min(one.steps().size(), other.steps().size()); i++) {
            if (!one.steps().get(i).equals(other.steps().get(i))) {
                return "step " + (i + 1) + ", " + words(one.steps().get(i));
            }
        }
        return NONE;
    }

    /** {@code Lift, height 5.0}. */
    private static String words(MacroStep step) {
        String record = step.step().toString();
        String settings = record.substring(record.indexOf('[') + 1, record.length() - 1);
        return step.step().title()
                + (settings.isEmpty() ? "" : ", " + settings.replace('=', ' '))
                + (step.on() ? "" : ", off")
                + (step.only().isEmpty() ? "" : ", only " + step.only());
    }

    private static String title(Macro macro) {
        return "Macro “" + macro.name() + "”";
    }

    private static Map<String, String> describe(Rig rig) {
        Printer p = rig.printer();
        Map<String, String> all = new LinkedHashMap<>();
        all.put(
                "Bed",
                p.bed() instanceof Bed.Rectangular r
                        ? mm(r.width()) + " × " + mm(r.depth()) + " mm"
                        : "round, " + mm(((Bed.Round) p.bed()).diameter()) + " mm");
        Travel t = p.travel();
        all.put(
                "Travel",
                Words.format("X %s to %s, Y %s to %s mm", mm(t.minX()), mm(t.maxX()), mm(t.minY()), mm(t.maxY())));
        all.put("Height", p.maxHeight() + " mm");
        all.put("Homes", p.home().title());
        all.put("Nozzle", mm(p.nozzle()) + " mm");
        all.put("Inputs", Integer.toString(p.hotend().inputs()));
        all.put("Hottest", p.hotend().hottest() + " °C");
        all.put("Stays hot", p.heaterLimit().toSeconds() + " s");
        all.put("Dead volume", mm(p.deadVolume().cubicMillimetres()) + " mm³");
        all.put("Reach beside plastic", mm(p.hotend().reach()) + " mm");
        all.put("Filament", mm(p.filament().diameter()) + " mm");
        all.put(
                "Drive",
                (p.drive() instanceof Drive.Tube ? "tube, " : "direct, ")
                        + mm(p.drive().gearsToNozzle()) + " mm");
        all.put(
                "Park spot",
                p.parkSpot().map(s -> "X " + mm(s.x()) + " Y " + mm(s.y())).orElse("none"));
        all.put(
                "Selector box",
                p.selector()
                        .map(s -> s.lever().axis() + " " + mm(s.lever().position()) + " mm, "
                                + s.presses().size() + " slots")
                        .orElse("none"));
        all.put(
                "Speeds",
                Words.format(
                        "travel %s, print %s, lift %s, retract %s mm/s, %s mm/s²",
                        mm(p.motion().travelSpeed()),
                        mm(p.motion().printSpeed()),
                        mm(p.motion().liftSpeed()),
                        mm(p.motion().retractSpeed()),
                        mm(p.motion().acceleration())));
        for (Command c : Command.values()) {
            if (p.abilities().understands(c)) {
                String letters = p.abilities().honoured().get(c).stream()
                        .map(String::valueOf)
                        .collect(Collectors.joining(" "));
                String host = p.abilities().pausesHost(c) ? ", pauses the host" : "";
                all.put("Ability " + c, letters.isEmpty() ? "understood" + host : "with " + letters + host);
            }
        }
        all.put("Filament is counted by", p.abilities().dialect().filament().title());
        all.put("Stops of its own", ownLines(p.abilities().dialect().stops()));
        all.put("Changes of tools of its own", ownLines(p.abilities().dialect().tools()));
        all.put("Comments after commands", p.abilities().commentsAfterCommands() ? "allowed" : "not allowed");
        all.put("Extruders", Integer.toString(rig.rack().size()));
        all.put("Way of swapping", rig.macros().method().title());
        for (Macro m : rig.macros().macros()) {
            String steps = m.steps().stream().map(step -> step.step().title()).collect(Collectors.joining(", "));
            all.merge(title(m), (m.on() ? "" : "off: ") + steps, (a, b) -> a + "; " + b);
        }
        return all;
    }

    private static String ownLines(List<OwnLine> lines) {
        return lines.isEmpty() ? "none" : lines.stream().map(OwnLine::text).collect(Collectors.joining(", "));
    }

    private static String mm(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }
}
