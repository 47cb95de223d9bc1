package dev.tranche.core.rig;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;

/**
 * A file that tries every ability harmlessly, so that its owner can watch what the machine does and tick it off. The
 * nozzle stays below 50 °C, so no filament moves; the carriage stays 20 mm above the bed.
 */
public final class Probe {
    private static final int WARM = 45;

    private Probe() {}

    /**
     * One thing to watch for.
     *
     * @param parameter letter that is tried; empty for the command itself
     * @param lines that try it
     * @param watch what happens if the firmware honours it
     */
    public record Trial(Command command, String parameter, List<String> lines, String watch) {
        public Trial {
            lines = List.copyOf(lines);
        }
    }

    public static List<Trial> trials(Printer printer) {
        Point middle = new Point(
                printer.bed().bounds().centre().x, printer.bed().bounds().centre().y);
        Point park = printer.parkSpot().orElse(middle);
        String x = number(park.x());
        String y = number(park.y());
        List<Trial> all = new ArrayList<>();
        all.add(trial(Command.M117, "", "words appear on the display", "M117 Hello"));
        all.add(trial(Command.M300, "", "a beep", "M300"));
        all.add(trial(Command.M300, "S", "a high beep, then a low one", "M300 S1760 P300", "M300 S220 P300"));
        all.add(trial(Command.M300, "P", "a short beep, then one of two seconds", "M300 S880 P100", "M300 S880 P2000"));
        all.add(trial(
                Command.G4,
                "S",
                "five seconds between two moves",
                "G1 X" + x + " F3000",
                "G4 S5",
                "G1 X" + number(middle.x()) + " F3000"));
        all.add(trial(
                Command.G4,
                "P",
                "five seconds between two moves",
                "G1 X" + x + " F3000",
                "G4 P5000",
                "G1 X" + number(middle.x()) + " F3000"));
        all.add(trial(
                Command.M400,
                "",
                "the words come when the slow move has ended, not before",
                "G1 X" + x + " F900",
                "M400",
                "M117 move ended"));
        all.add(trial(Command.M104, "S", "the target becomes 45 °C, and the file goes on at once", "M104 S" + WARM));
        all.add(trial(Command.M109, "S", "the file waits until 45 °C", "M109 S" + WARM));
        all.add(trial(Command.M109, "R", "the file waits until it has cooled to 40 °C", "M109 R40"));
        all.add(trial(Command.M0, "", "the machine stops until you go on", "M0"));
        all.add(trial(Command.M1, "", "the machine stops until you go on", "M1"));
        all.add(trial(Command.M25, "", "the card or the host stops the file until you resume", "M25"));
        all.add(trial(Command.M600, "X", "it waits at X " + x, "M600 X" + x));
        all.add(trial(Command.M600, "Y", "it waits at Y " + y, "M600 Y" + y));
        all.add(trial(Command.M600, "Z", "it lifts by 30 mm", "M600 Z30"));
        all.add(trial(
                Command.M600,
                "E",
                "it draws filament back before it moves away; it may refuse, being cold",
                "M600 E5"));
        all.add(trial(
                Command.M600, "U", "it unloads 10 mm, far less than usual; it may refuse, being cold", "M600 U10"));
        all.add(trial(Command.M600, "L", "it loads 10 mm, far less than usual; it may refuse, being cold", "M600 L10"));
        all.add(trial(Command.T, "", "the display or the feeder shows another extruder", "T1", "T0"));
        all.add(trial(Command.G10, "", "no “unknown command” on the display", "G10", "G11"));
        if (printer.hotend().blends()) {
            all.add(trial(Command.M163, "SP", "no “unknown command” on the display", "M163 S0 P0.5", "M163 S1 P0.5"));
            all.add(trial(Command.M164, "S", "the display shows an even mix", "M164 S0"));
            all.add(trial(
                    Command.M166,
                    "AZIJS",
                    "the display shows a gradient; the last line ends it",
                    "M166 A0 Z10 I0 J1 S1",
                    "M166 S0"));
        }
        return all;
    }

    /** The whole file: each trial announced, two seconds before it begins. */
    public static List<String> file(Printer printer) {
        List<String> lines = new ArrayList<>();
        lines.add("; tranche probe: watch, and tick what you see under Abilities");
        lines.add("; nothing is heated over 50 C and no filament is moved");
        lines.add("G21");
        lines.add("G90");
        lines.add("G28");
        lines.add("G1 Z20 F600");
        int number = 0;
        List<Trial> trials = trials(printer);
        for (Trial trial : trials) {
            number++;
            String what = trial.command() + (trial.parameter().isEmpty() ? "" : " " + trial.parameter());
            lines.add("; " + number + " of " + trials.size() + ": " + what + ", " + plain(trial.watch()));
            lines.add("M117 " + number + " " + what);
            lines.add("G4 P2000");
            lines.addAll(trial.lines());
        }
        lines.add("M104 S0");
        lines.add("M117 probe ended");
        return lines;
    }

    private static Trial trial(Command command, String parameter, String watch, String... lines) {
        return new Trial(command, parameter, List.of(lines), watch);
    }

    private static String plain(String text) {
        return text.replace("°", "").replaceAll("[“”]", "\"");
    }

    private static String number(double value) {
        String text = Words.format("%.2f", value);
        return text.replaceAll("\\.?0+$", "");
    }
}
