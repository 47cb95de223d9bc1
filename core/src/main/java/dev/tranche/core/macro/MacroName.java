package dev.tranche.core.macro;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.util.Arrays;
import java.util.Optional;

/** A name that text in a macro may hold between double braces. */
public enum MacroName {
    NUMBER("number", "number of the swap or halt, from 1"),
    OF("of", "how many there are"),
    LAYER("layer", "layer that is printed next, from 1"),
    LAYER_FROM_0("layer_from_0", "the same as programs that count from 0 show it"),
    OUT("out", "spool that comes out"),
    IN("in", "spool that goes in"),
    TEMP_OUT("temp_out", "°C of the spool that comes out"),
    TEMP_IN("temp_in", "°C of the spool that goes in"),
    TEMP_HOTTER("temp_hotter", "°C of the hotter of the two"),
    STANDBY("standby", "°C while it waits"),
    PURGE("purge", "mm of filament to push through"),
    PURGE_MM("purge_mm", "the same in whole mm, for people"),
    PUSH("push", "“push 190 mm”, or nothing where the machine's routine does it or a tower takes it"),
    EXTRUDER("extruder", "number of the virtual extruder, from 0"),
    SLOT("slot", "slot of the feeder or selector box, from 1"),
    NOTE("note", "what a halt is for"),
    X("x", "X where the print was left"),
    Y("y", "Y where the print was left"),
    Z("z", "Z where the print was left"),
    PARK_X("park_x", "X of the park spot", true),
    PARK_Y("park_y", "Y of the park spot", true),
    GEARS("gears", "mm of filament from gears to nozzle", true);

    private final String code;
    private final String meaning;
    private final boolean always;

    MacroName(String code, String meaning) {
        this(code, meaning, false);
    }

    MacroName(String code, String meaning, boolean always) {
        this.code = code;
        this.meaning = meaning;
        this.always = always;
    }

    /** As it is written between the braces. */
    public String code() {
        return code;
    }

    /** As it stands in a text. */
    String braced() {
        return "{{" + code + "}}";
    }

    public String meaning() {
        return meaning;
    }

    /** Whether a host's script knows it too. */
    public boolean isKnownToHosts() {
        return always;
    }

    static Optional<MacroName> find(String code) {
        return Arrays.stream(values()).filter(n -> n.code.equals(code)).findFirst();
    }

    String value(Moment m, Printer printer) {
        return switch (this) {
            case NUMBER -> Integer.toString(m.number());
            case OF -> Integer.toString(m.of());
            case LAYER -> Integer.toString(m.layer());
            case LAYER_FROM_0 -> Integer.toString(m.layer() - 1);
            case OUT -> m.out();
            case IN -> m.in();
            case TEMP_OUT -> Integer.toString(m.temperatureOut());
            case TEMP_IN -> Integer.toString(m.temperatureIn());
            case TEMP_HOTTER -> Integer.toString(Math.max(m.temperatureIn(), m.temperatureOut()));
            case STANDBY -> Integer.toString(m.standby());
            case PURGE -> Numerals.mm(m.purge());
            case PURGE_MM -> whole(m.purge());
            case PUSH -> m.purge() > 0 && !m.byRoutine() ? "push " + whole(m.purge()) + " mm" : "";
            case EXTRUDER -> Integer.toString(m.extruder());
            case SLOT -> Integer.toString(m.slot());
            case NOTE -> m.note();
            case X -> Numerals.mm(m.entry().x());
            case Y -> Numerals.mm(m.entry().y());
            case Z -> Numerals.mm(m.entry().z());
            case PARK_X -> printer.parkSpot().map(p -> Numerals.mm(p.x())).orElse("");
            case PARK_Y -> printer.parkSpot().map(p -> Numerals.mm(p.y())).orElse("");
            case GEARS -> Numerals.mm(printer.drive().gearsToNozzle());
        };
    }

    /** Not less than it is. */
    private static String whole(double mm) {
        return Words.format("%.0f", mm);
    }
}
