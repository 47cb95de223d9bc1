package dev.tranche.core.machine;

import dev.tranche.core.units.Refusal;
import java.util.Arrays;

/** A firmware command that matters to a swap. The letters are the parameters that some firmware honours. */
public enum Command {
    M600("filament change", "XYZEUL"),
    M0("stop and wait for a person", ""),
    M25("pause the file", ""),
    G4("wait a while", "PS"),
    M300("tone", "SP"),
    M117("message", ""),
    M104("set nozzle temperature", "S"),
    M109("set nozzle temperature and wait", "SR"),
    M400("wait for moves to end", "");

    private final String meaning;
    private final String parameters;

    Command(String meaning, String parameters) {
        this.meaning = meaning;
        this.parameters = parameters;
    }

    public String meaning() {
        return meaning;
    }

    /** Every parameter letter that may be ticked for this command. */
    public String parameters() {
        return parameters;
    }

    public static Command parse(String code) {
        return Arrays.stream(values())
                .filter(c -> c.name().equals(code))
                .findFirst()
                .orElseThrow(() -> Refusal.of("“%s” is not a command Tranche uses in macros.", code));
    }
}
