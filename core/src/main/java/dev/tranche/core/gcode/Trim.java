package dev.tranche.core.gcode;

import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.StringJoiner;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a printer goes on with until it is told otherwise, besides moving and heating: fans (M106, M107), accelerations
 * (M201, M204), speeds (M203, M220), jerk (M205, M566), pressure (M572, M900), shaping (M593), flow (M221) and which of the things
 * on the bed is printed, so that one alone can be given up (M486), and the same
 * in firmwares whose commands are words; common practice in open firmware.
 *
 * @param said the last number of each, by command and parameter, such as {@code M204 P}; of fans by their number; of words with
 *     what they are said of, such as {@code SET_FAN_SPEED FAN=shelf SPEED=}
 */
public record Trim(SortedMap<String, Double> said) {
    public static final Trim NONE = new Trim(Collections.emptySortedMap());

    private static final String FAN = "M106 P";
    private static final String ACCELERATION = "M204 ";
    private static final Pattern NUMBER =
            Pattern.compile("([A-Z_]{1,40}=)([-+]?(?:\\d{1,12}\\.?\\d{0,12}|\\.\\d{1,12}))");
    /** Which thing is printed, where things have names; what it begins with where it ends. */
    private static final String THING = "EXCLUDE_OBJECT_START";

    private static final String THING_ENDS = "EXCLUDE_OBJECT_END";

    private static final double FULL = 255;
    private static final int MOST_FANS = 16;
    /** Commands in words that hold until they are said again. */
    private static final Set<String> IN_WORDS =
            Set.of("SET_PRESSURE_ADVANCE", "SET_VELOCITY_LIMIT", "SET_FAN_SPEED", "SET_INPUT_SHAPER", "SET_RETRACTION");
    /** No printer has more to say. */
    private static final int MOST = 100;
    /** Longer texts are nobody's. */
    private static final int MOST_WORDS = 12;

    public Trim {
        said = Collections.unmodifiableSortedMap(new TreeMap<>(said));
    }

    /** Whether a command is about any of it. */
    static boolean isAbout(int m) {
        return switch (m) {
            case 106, 107, 201, 203, 204, 205, 220, 221, 486, 566, 572, 593, 900 -> true;
            default -> false;
        };
    }

    /** After a command in words. */
    Trim afterWords(GcodeScanner line) {
        String[] words = line.codeText().split("\\s+", MOST_WORDS);
        if (words[0].equals(THING) || words[0].equals(THING_ENDS)) {
            return ofThing(words);
        }
        if (!IN_WORDS.contains(words[0])) {
            return this;
        }
        TreeMap<String, Double> now = new TreeMap<>(said);
        StringJoiner of = new StringJoiner(" ", "", " ").add(words[0]);
        Map<String, Double> numbers = new LinkedHashMap<>();
        for (String word : List.of(words).subList(1, words.length)) {
            Matcher number = NUMBER.matcher(word);
            if (number.matches()) {
                numbers.put(number.group(1), Double.valueOf(number.group(2)));
            } else {
                of.add(word);
            }
        }
        numbers.forEach((parameter, value) -> now.put(of + parameter, value));
        return now.equals(said) || now.size() > MOST ? this : new Trim(now);
    }

    private Trim ofThing(String[] words) {
        TreeMap<String, Double> now = new TreeMap<>(said);
        now.keySet().removeIf(k -> k.startsWith(THING));
        if (words[0].equals(THING) && now.size() < MOST) {
            now.put(String.join(" ", words), 1.0);
        }
        return now.equals(said) ? this : new Trim(now);
    }

    /** The acceleration that was said in words, mm/s²; 0 if none was. */
    double accelerationInWords() {
        return said.getOrDefault("SET_VELOCITY_LIMIT ACCEL=", 0.0);
    }

    Trim after(GcodeScanner line) {
        TreeMap<String, Double> now = new TreeMap<>(said);
        int m = line.number();
        if (m == 106 || m == 107) {
            double fan = line.get('P', 0);
            if (fan < 0 || fan > MOST_FANS || fan != Math.rint(fan)) {
                return this;
            }
            now.put(FAN + (int) fan, m == 107 ? 0 : line.get('S', FULL));
        } else {
            for (char parameter = 'A'; parameter <= 'Z'; parameter++) {
                if (parameter != 'M' && line.has(parameter) && (m != 486 || parameter == 'S')) {
                    if (m == 204 && parameter == 'S') {
                        // It is said of printing and of travel at once.
                        now.keySet().removeIf(k -> k.startsWith(ACCELERATION));
                    }
                    now.put("M" + m + " " + parameter, line.get(parameter));
                }
            }
        }
        return now.equals(said) ? this : new Trim(now);
    }

    /** The commands after which a printer that goes on as {@code now} goes on like this. */
    public List<String> after(Trim now) {
        List<String> commands = new ArrayList<>();
        SortedSet<String> keys = new TreeSet<>(said.keySet());
        keys.addAll(now.said.keySet());
        keys.removeIf(k -> k.startsWith(ACCELERATION));
        for (String key : keys) {
            Double is = said.getOrDefault(key, otherwise(key));
            boolean differs = is != null && !is.equals(now.said.getOrDefault(key, otherwise(key)));
            if (differs && key.startsWith(THING) && is == 0) {
                // One ends before another begins.
                commands.add(0, THING_ENDS + key.substring(THING.length()));
            } else if (differs) {
                commands.add(key.startsWith(THING) ? key : command(key, is));
            }
        }
        if (!accelerations().equals(now.accelerations())) {
            accelerations().forEach((key, value) -> commands.add(command(key, value)));
        }
        return commands;
    }

    /** What is said of printing and travel at once comes first: it takes back what was said of one. */
    private Map<String, Double> accelerations() {
        Map<String, Double> all = new LinkedHashMap<>();
        if (said.containsKey(ACCELERATION + "S")) {
            all.put(ACCELERATION + "S", said.get(ACCELERATION + "S"));
        }
        said.forEach((key, value) -> {
            if (key.startsWith(ACCELERATION)) {
                all.putIfAbsent(key, value);
            }
        });
        return all;
    }

    /** What holds before anything is said; nothing where only the firmware knows. */
    private static Double otherwise(String key) {
        if (key.startsWith(FAN) || key.startsWith(THING)) {
            return 0.0;
        }
        return switch (key) {
            case "M220 S", "M221 S" -> 100.0;
            case "M486 S" -> -1.0;
            default -> null;
        };
    }

    private static String command(String key, double value) {
        String number = Words.format("%.6f", value).replaceAll("\\.?0+$", "");
        if (!key.startsWith(FAN)) {
            return key + number;
        }
        String fan = key.equals(FAN + "0") ? "" : " P" + key.substring(FAN.length());
        return value == 0 ? "M107" + fan : "M106" + fan + " S" + number;
    }
}
