package dev.tranche.core.handoff;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * An interpreter for tests alone, of whole files: the meaning of G0, G1, G20, G21, G28 and G90 to G92 as Kramer, Proctor and
 * Messina, NISTIR 6556 (2000), give it, and M82, M83, M200 and T as open firmware has them (common practice). Arcs are their ends. It shares no code
 * with the core's.
 */
public final class PlainMachine {
    private static final Pattern NUMBER = Pattern.compile("^N\\d+\\s*");
    private static final Pattern TOOL = Pattern.compile("T\\d+");
    private static final Set<String> TRIMS = Set.of("M106", "M107", "M204", "M221", "M104", "M109", "M486", "M900");

    private final Map<Character, Double> axes = new HashMap<>(Map.of('X', 0.0, 'Y', 0.0, 'Z', 0.0, 'E', 0.0));
    private final List<Laid> laid = new ArrayList<>();
    private final List<Move> moves = new ArrayList<>();
    private final boolean together;
    /** Fans, accelerations, flow and heat as they were said last. */
    private final TreeSet<String> trims = new TreeSet<>(List.of("M106 0.0", "M486 -1.0"));

    private final Map<String, Double> drawn = new HashMap<>();
    private final Map<String, Double> net = new HashMap<>();
    private double scale = 1;
    /** Of the filament, where its volume is counted. */
    private double diameter;
    /** Machines with several draw each back by itself. */
    private String tool = "T0";
    /** Whether a tool has been chosen. */
    private boolean named;

    private boolean adds;
    private boolean addsFilament;
    /** Of lines that Tranche put in. */
    private boolean inBlock;

    private PlainMachine(boolean together) {
        this.together = together;
    }

    /** A line of plastic of the file's own; {@code drawn} is how far filament was drawn back where it began. */
    record Laid(double fromX, double fromY, double toX, double toY, double z, double filament, double drawn) {
        boolean isAs(Laid o) {
            return near(fromX, o.fromX)
                    && near(fromY, o.fromY)
                    && near(toX, o.toX)
                    && near(toY, o.toY)
                    && near(z, o.z)
                    && near(drawn, o.drawn)
                    && Math.abs(filament - o.filament) < 2e-5 * 25.4;
        }

        private static boolean near(double a, double b) {
            return Math.abs(a - b) < 0.0011;
        }
    }

    /** @param together whether G90 and G91 count filament, too */
    static List<Laid> run(byte[] file, boolean together) {
        return after(file, together).laid;
    }

    /** Any move, Tranche's own as well; {@code net} is what the tool has pushed and drawn back until then where it laid nothing. */
    public record Move(
            String tool,
            double fromX,
            double fromY,
            double fromZ,
            double toX,
            double toY,
            double toZ,
            double filament,
            double drawn,
            double net,
            String said) {
        /** Whether it lays plastic. */
        public boolean lays() {
            return filament > 0 && (fromX != toX || fromY != toY);
        }

        /** How high the nozzle is at the lowest. */
        public double lowest() {
            return Math.min(fromZ, toZ);
        }

        public double length() {
            return Math.hypot(toX - fromX, toY - fromY);
        }
    }

    /** All that moves, in its order. */
    public static List<Move> moves(byte[] file, boolean together) {
        return after(file, together).moves;
    }

    private static PlainMachine after(byte[] file, boolean together) {
        PlainMachine machine = new PlainMachine(together);
        String lines = new String(file, StandardCharsets.ISO_8859_1);
        for (int from = 0, end; from < lines.length(); from = end + 1) {
            end = until(lines, from, '\n');
            machine.obey(lines.substring(from, end));
        }
        return machine;
    }

    private static int until(String text, int from, char end) {
        int at = text.indexOf(end, from);
        return at < 0 ? text.length() : at;
    }

    /** mm of filament that goes in, whatever for. */
    static double fed(byte[] file, boolean together) {
        return run(file, together).stream().mapToDouble(Laid::filament).sum();
    }

    private void obey(String given) {
        inBlock = given.startsWith("; tranche begin") || inBlock && !given.startsWith("; tranche end");
        if (given.startsWith("; tranche took ")) {
            return;
        }
        String spoken = given.substring(0, Math.min(until(given, 0, ';'), until(given, 0, '*')))
                .toUpperCase(Locale.ROOT);
        String line = (spoken.startsWith("N") ? NUMBER.matcher(spoken).replaceFirst("") : spoken).strip();
        if (line.isEmpty() || line.startsWith("M117")) {
            return;
        }
        Map<Character, Double> words = words(line);
        String command = line.substring(0, Math.min(until(line, 0, ' '), until(line, 0, '\t')));
        if (command.startsWith("T") && TOOL.matcher(command).matches()) {
            choose(command);
        }
        if (TRIMS.contains(command) || command.startsWith("SET_")) {
            String about = command.replace("107", "106").replace("109", "104");
            trims.removeIf(t -> t.startsWith(about));
            boolean inWords = command.startsWith("SET_") || command.equals("M900");
            trims.add(inWords ? line : about + " " + (command.equals("M107") ? 0 : words.getOrDefault('S', 255.0)));
        }
        if (command.startsWith("EXCLUDE_OBJECT")) {
            trims.removeIf(t -> t.startsWith("EXCLUDE_OBJECT"));
            trims.addAll(command.equals("EXCLUDE_OBJECT_START") ? List.of(line) : List.of());
        }
        switch ("XYZE".indexOf(command.charAt(0)) >= 0 ? "G1" : command) {
            case "G0", "G1", "G2", "G3" -> move(words);
            case "M200" -> diameter = words.get('D');
            case "G20" -> scale = 25.4;
            case "G21" -> scale = 1;
            case "G28" -> axes.putAll(Map.of('X', 0.0, 'Y', 0.0, 'Z', 0.0));
            case "G90" -> {
                adds = false;
                addsFilament &= !together;
            }
            case "G91" -> {
                adds = true;
                addsFilament |= together;
            }
            case "G92" -> words.forEach((axis, value) -> axes.replace(axis, value * unit(axis)));
            case "M82" -> addsFilament = false;
            case "M83" -> addsFilament = true;
            default -> {}
        }
    }

    /** Letters with a number behind them. */
    private static Map<Character, Double> words(String line) {
        Map<Character, Double> words = new HashMap<>();
        int at = 0;
        while (at < line.length()) {
            char letter = line.charAt(at++);
            int from = at;
            while (from < line.length() && Character.isWhitespace(line.charAt(from))) {
                from++;
            }
            int to = from < line.length() && (line.charAt(from) == '-' || line.charAt(from) == '+') ? from + 1 : from;
            int digits = to;
            while (to < line.length() && (line.charAt(to) == '.' || line.charAt(to) >= '0' && line.charAt(to) <= '9')) {
                to++;
            }
            if (letter >= 'A' && letter <= 'Z' && to > digits) {
                words.put(letter, Double.parseDouble(line.substring(from, to)));
                at = to;
            }
        }
        return words;
    }

    /** What is in the nozzle before the first choice is what is chosen first, unless it has printed. */
    private void choose(String other) {
        if (!named && moves.stream().noneMatch(Move::lays)) {
            drawn.put(other, drawn.getOrDefault(tool, 0.0));
            net.put(other, net.getOrDefault(tool, 0.0));
            drawn.remove(tool);
            net.remove(tool);
        }
        named = true;
        tool = other;
    }

    /** mm in a unit of that axis. */
    private double unit(char axis) {
        return axis == 'E' && diameter > 0 ? scale * scale * scale / (Math.PI * diameter * diameter / 4) : scale;
    }

    private void move(Map<Character, Double> words) {
        Map<Character, Double> before = new HashMap<>(axes);
        for (char axis : "XYZE".toCharArray()) {
            if (words.containsKey(axis)) {
                boolean more = axis == 'E' ? addsFilament : adds;
                axes.put(axis, words.get(axis) * unit(axis) + (more ? axes.get(axis) : 0));
            }
        }
        double filament = axes.get('E') - before.get('E');
        boolean goes = !axes.get('X').equals(before.get('X')) || !axes.get('Y').equals(before.get('Y'));
        moves.add(new Move(
                tool,
                before.get('X'),
                before.get('Y'),
                before.get('Z'),
                axes.get('X'),
                axes.get('Y'),
                axes.get('Z'),
                filament,
                drawn.getOrDefault(tool, 0.0),
                net.getOrDefault(tool, 0.0),
                String.join(",", trims)));
        if (filament <= 0 || !goes) {
            net.merge(tool, filament, Double::sum);
        }
        if (words.containsKey('E') && goes && !inBlock) {
            laid.add(new Laid(
                    before.get('X'),
                    before.get('Y'),
                    axes.get('X'),
                    axes.get('Y'),
                    axes.get('Z'),
                    filament,
                    drawn.getOrDefault(tool, 0.0)));
        }
        drawn.merge(tool, -filament, (was, more) -> Math.max(0, was + more));
        drawn.computeIfPresent(tool, (t, length) -> Math.max(0, length));
    }
}
