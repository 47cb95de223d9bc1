package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A firmware command that matters to a swap. The letters are the parameters that some firmware honours; what each
 * of them means is common practice in open firmware.
 */
public enum Command {
    M600("filament change", "XYZEUL", "X Y where to wait, Z lift, E retract, U unload, L load"),
    M0("stop and wait for a person", "", ""),
    M1("stop and wait, if stops are on", "", ""),
    M25("pause the file", "", "the card reader or the host stops sending"),
    G4("wait a while", "PS", "P milliseconds, S seconds"),
    M300("tone", "SP", "S pitch in Hz, P length in ms"),
    M117("message", "", ""),
    M104("set nozzle temperature", "S", "S °C"),
    M109("set nozzle temperature and wait", "SR", "S °C, R also waits to cool"),
    M400("wait for moves to end", "", ""),
    T("choose an extruder", "", ""),
    G10("retract, by the firmware's length", "", ""),
    G11("push back what G10 drew", "", ""),
    M163("weight of one input of a blend", "SP", "S input, P weight"),
    M164("keep the weights as an extruder", "S", "S extruder"),
    M165("all weights at once", "", ""),
    M166("gradient over height", "AZIJS", "A from, Z to, I J extruders, S on");

    private static final Map<String, Command> BY_NAME =
            Arrays.stream(values()).collect(Collectors.toUnmodifiableMap(Command::name, c -> c));
    private static final Pattern LINE = Pattern.compile("([GMTgmt])(\\d{1,6})(?![\\d_])");

    private final String meaning;
    private final String parameters;
    private final String letters;

    Command(String meaning, String parameters, String letters) {
        this.meaning = meaning;
        this.parameters = parameters;
        this.letters = letters;
    }

    public String meaning() {
        return meaning;
    }

    /** Every parameter letter that may be ticked for this command. */
    public String parameters() {
        return parameters;
    }

    /** What the letters stand for, in a few words. */
    public String letters() {
        return letters;
    }

    /** Whether the file goes no further until somebody or something says so. */
    public boolean stops() {
        return this == M600 || this == M0 || this == M1 || this == M25;
    }

    public static Command parse(String code) {
        return Optional.ofNullable(BY_NAME.get(code))
                .orElseThrow(() -> Refusal.of("“%s” is not a command Tranche uses in macros.", code));
    }

    /** The command a line of G-code begins with, if it is one of these. */
    public static Optional<Command> startingLine(String line) {
        Matcher m = LINE.matcher(line);
        return m.lookingAt()
                ? of(Character.toUpperCase(line.charAt(0)), Integer.parseInt(m.group(2)))
                : Optional.empty();
    }

    /** The command of a line that begins with {@code letter} and {@code number}, if it is one of these. */
    private static Optional<Command> of(char letter, int number) {
        return Optional.ofNullable(BY_NAME.get(letter == 'T' ? "T" : letter + Integer.toString(number)));
    }
}
