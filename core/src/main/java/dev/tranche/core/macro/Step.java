package dev.tranche.core.macro;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import java.util.Optional;
import java.util.OptionalDouble;

/** One thing a printer does at a swap. Lengths are mm of filament or of travel, speeds mm/s. */
public sealed interface Step {

    /** What the step is called where people choose and read it. */
    String title();

    /** The firmware command it cannot do without. */
    default Optional<Command> needs() {
        return Optional.empty();
    }

    /** How far the nozzle rises in it, mm. */
    default double rise() {
        return 0;
    }

    /** Whether the machine stops in it until a person says go on. */
    default boolean asksForPerson() {
        return false;
    }

    /** Whether it is there for another spool alone: it calls a person, or moves filament out of the nozzle or into it. */
    default boolean isForSpool() {
        return asksForPerson();
    }

    /** Whether lines of the owner's own are in it, that may say anything. */
    default boolean hasOwnLines() {
        return false;
    }

    /** A beep. */
    record Tone(int hertz, int milliseconds) implements Step {
        public Tone {
            within("A tone's pitch", hertz, 20, 20_000, "Hz");
            within("A tone's length", milliseconds, 10, 10_000, "ms");
        }

        @Override
        public boolean isForSpool() {
            return true;
        }

        @Override
        public String title() {
            return "Tone";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M300);
        }
    }

    /** Words on the printer's display, with Mustache names. */
    record Message(String text) implements Step {
        /** Which spool to load. */
        public static final Message LOAD = new Message("Swap {{number}} of {{of}}: load {{in}}");
        /** The same where the person pushes the purge through. */
        public static final Message LOAD_AND_PUSH = new Message("Swap {{number}} of {{of}}: load {{in}} {{push}}");
        /** What is asked before the nozzle goes back. */
        public static final Message CLEAN = new Message("Is {{in}} clean? Clear the strand");

        public Message {
            text = text.strip();
            Template.of(text);
            if (text.isEmpty()) {
                throw new Refusal("A message needs words; “load {{in}}” is a good one.");
            }
            if (text.lines().count() > 1) {
                throw new Refusal("A message is one line; put the second into a message of its own.");
            }
        }

        @Override
        public boolean isForSpool() {
            return true;
        }

        @Override
        public String title() {
            return "Message";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M117);
        }
    }

    /** Draw filament back so that nothing drools. */
    record Retract(double length) implements Step {
        public Retract {
            within("A retraction", length, 0, 20, "mm");
        }

        @Override
        public String title() {
            return "Retract";
        }
    }

    /** Rise straight up from the print. */
    record Lift(double height) implements Step {
        public Lift {
            within("A lift", height, 0.2, 200, "mm");
        }

        @Override
        public String title() {
            return "Lift";
        }

        @Override
        public double rise() {
            return height;
        }
    }

    /** Go to the printer's park spot. */
    record Park() implements Step {
        @Override
        public String title() {
            return "Park";
        }
    }

    /** Draw the filament out: from gears to nozzle, and {@code extra} mm more. */
    record Unload(double extra, double speed) implements Step {
        public Unload {
            beyond("An unloading", extra);
            within("An unloading speed", speed, 0.5, 200, "mm/s");
        }

        @Override
        public boolean isForSpool() {
            return true;
        }

        @Override
        public String title() {
            return "Unload";
        }
    }

    /** Push the new filament up to the nozzle: from the gears, and {@code extra} mm more. */
    record Load(double extra, double speed) implements Step {
        public Load {
            beyond("A loading", extra);
            within("A loading speed", speed, 0.5, 200, "mm/s");
        }

        @Override
        public boolean isForSpool() {
            return true;
        }

        @Override
        public String title() {
            return "Load";
        }
    }

    /** Drive against a cutter and back. */
    record Cut(Axis axis, double position, double travel) implements Step {
        public Cut {
            within("A cutter's place", position, -3000, 3000, "mm");
            within("A cutter's travel", travel, 0.1, 100, "mm");
        }

        @Override
        public boolean isForSpool() {
            return true;
        }

        @Override
        public String title() {
            return "Cut the filament";
        }
    }

    /** Press the selector's switch as often as the new spool's slot wants. */
    record PressSwitch() implements Step {
        @Override
        public String title() {
            return "Press the selector's switch";
        }
    }

    /** Tell a feeder, or a nozzle that blends, which extruder prints next. */
    record SelectExtruder() implements Step {
        @Override
        public String title() {
            return "Choose the extruder";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.T);
        }
    }

    /** Stop until a person says go on, who changes the spool meanwhile; {@code by} one of M0, M1 and M25. */
    record WaitForPerson(Command by) implements Step {
        public WaitForPerson {
            if (!by.stops() || by == Command.M600) {
                throw Refusal.of("%s does not wait for a person; choose M0, M1 or M25.", by);
            }
        }

        @Override
        public String title() {
            return "Wait for the person";
        }

        @Override
        public boolean asksForPerson() {
            return true;
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(by);
        }
    }

    /** The same by a command of the owner's own, such as the name of a pause macro with its parameters. */
    record OwnPause(String line) implements Step {
        public OwnPause {
            line = line.strip();
            Template.of(line);
            if (line.isEmpty() || line.lines().count() > 1 || line.startsWith(";") || line.startsWith("(")) {
                throw new Refusal(
                        "Your own pause is one line that begins with its command; type it as the printer takes it.");
            }
        }

        @Override
        public String title() {
            return "Wait by your own command";
        }

        @Override
        public boolean asksForPerson() {
            return true;
        }

        @Override
        public boolean hasOwnLines() {
            return true;
        }
    }

    /** Find the end of an axis again, or of both; never of Z, which would drive into the print. */
    record Home(Axes axes) implements Step {
        /** Which axes are driven home. */
        public enum Axes {
            X("X"),
            Y("Y"),
            BOTH("X Y");

            private final String words;

            Axes(String words) {
                this.words = words;
            }

            /** As G28 takes them. */
            public String words() {
                return words;
            }

            @Override
            public String toString() {
                return words.replace(" ", " and ");
            }
        }

        @Override
        public String title() {
            return "Home";
        }
    }

    /** Stand still for a while. */
    record Dwell(int seconds) implements Step {
        public Dwell {
            within("A wait", seconds, 1, 3600, "s");
        }

        @Override
        public String title() {
            return "Timed wait";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.G4);
        }
    }

    /** Bring the nozzle to a temperature, and wait for it. */
    record Heat(HeatFor to) implements Step {
        @Override
        public String title() {
            return "Heat";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M109);
        }
    }

    /** Set the nozzle to a temperature, and go on at once. */
    record SetHeat(HeatFor to) implements Step {
        @Override
        public String title() {
            return "Set the temperature, without waiting";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M104);
        }
    }

    /** Let the nozzle cool to standby, without waiting. */
    record Cool() implements Step {
        @Override
        public String title() {
            return "Cool to standby";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M104);
        }
    }

    /** Push a fixed length, to make up for what drooled or to fill a nozzle. */
    record Prime(double length, double speed) implements Step {
        public Prime {
            within("A priming length", length, 0.1, 500, "mm");
            within("A priming speed", speed, 0.2, 30, "mm/s");
        }

        @Override
        public String title() {
            return "Prime";
        }
    }

    /** Push the computed purge through. */
    record Purge(double speed) implements Step {
        public Purge {
            within("A purge speed", speed, 0.2, 30, "mm/s");
        }

        @Override
        public String title() {
            return "Purge";
        }
    }

    /** Go to and fro over a brush at the park spot. */
    record Wipe(Axis axis, double width, int strokes) implements Step {
        /** To and fro twice; from memory. */
        public static final Wipe USUAL = new Wipe(Axis.X, 20, 2);

        public Wipe {
            within("A wipe", width, 1, 200, "mm");
            within("A count of strokes", strokes, 1, 20, "");
        }

        @Override
        public String title() {
            return "Wipe";
        }
    }

    /**
     * The firmware's filament-change routine, with lines of one's own before and after it. What is not given is taken from the
     * printer's measures.
     *
     * @param x where the nozzle waits, mm, and {@code y}; the park spot
     * @param lift mm; {@value #LIFT}
     * @param retraction mm, before it moves there; {@value #RETRACTION}
     * @param out mm of filament drawn out; gears to nozzle
     * @param in mm of filament pushed in; gears to nozzle
     * @param speed mm/s at which the firmware does both, for the time it takes; {@value #SPEED}
     */
    record FirmwareRoutine(
            String before,
            String after,
            OptionalDouble x,
            OptionalDouble y,
            OptionalDouble lift,
            OptionalDouble retraction,
            OptionalDouble out,
            OptionalDouble in,
            OptionalDouble speed)
            implements Step {
        /** How far the firmware lifts the nozzle, mm (common practice). */
        static final double LIFT = 5;
        /** mm, from memory. */
        static final double RETRACTION = 2;
        /** Filament speed of a firmware's or a feeder's own unloading and loading, mm/s; from memory. */
        public static final double SPEED = 15;

        public static final FirmwareRoutine PLAIN = new FirmwareRoutine("", "");

        public FirmwareRoutine {
            Template.of(before);
            Template.of(after);
            x.ifPresent(v -> within("A place to wait at, X", v, -3000, 3000, "mm"));
            y.ifPresent(v -> within("A place to wait at, Y", v, -3000, 3000, "mm"));
            lift.ifPresent(v -> within("A routine's lift", v, 0, 200, "mm"));
            retraction.ifPresent(v -> within("A routine's retraction", v, 0, 20, "mm"));
            out.ifPresent(v -> within("A routine's way out", v, 0, 4000, "mm"));
            in.ifPresent(v -> within("A routine's way in", v, 0, 4000, "mm"));
            speed.ifPresent(v -> within("A routine's speed", v, 0.5, 200, "mm/s"));
            if (x.isPresent() != y.isPresent()) {
                throw new Refusal("A place to wait at needs both X and Y; give both, or none for the park spot.");
            }
        }

        /** With the printer's measures. */
        public FirmwareRoutine(String before, String after) {
            this(
                    before,
                    after,
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty());
        }

        /** Where the nozzle waits on {@code printer}. */
        Optional<Point> spot(Printer printer) {
            return x.isPresent() ? Optional.of(new Point(x.getAsDouble(), y.getAsDouble())) : printer.parkSpot();
        }

        /** How much filament is drawn out, mm. */
        double drawnOut(Printer printer) {
            return out.orElse(printer.drive().gearsToNozzle());
        }

        /** How much is pushed in, mm. */
        double pushedIn(Printer printer) {
            return in.orElse(printer.drive().gearsToNozzle());
        }

        @Override
        public String title() {
            return "Filament change by the firmware";
        }

        @Override
        public boolean asksForPerson() {
            return true;
        }

        @Override
        public double rise() {
            return lift.orElse(LIFT);
        }

        @Override
        public boolean hasOwnLines() {
            return !before.isBlank() || !after.isBlank();
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M600);
        }
    }

    /** Let the moves that are queued end before what follows. */
    record WaitForMoves() implements Step {
        @Override
        public String title() {
            return "Wait for moves";
        }

        @Override
        public Optional<Command> needs() {
            return Optional.of(Command.M400);
        }
    }

    /** Lines of one's own, with Mustache names. */
    record Raw(String lines) implements Step {
        public Raw {
            Template.of(lines);
        }

        @Override
        public String title() {
            return "Own lines";
        }

        @Override
        public boolean hasOwnLines() {
            return !lines.isBlank();
        }
    }

    /** Back over the spot it came from, then down to it. */
    record Return() implements Step {
        @Override
        public String title() {
            return "Return";
        }
    }

    private static void beyond(String what, double extra) {
        within(what + " beyond the measured length", extra, -3000, 1000, "mm");
    }

    private static void within(String what, double value, double least, double most, String unit) {
        if (!(value >= least && value <= most)) {
            throw Refusal.of(
                    "%s of %s is out of range; give %s to %s.",
                    what,
                    (Numerals.number(value, 3) + " " + unit).strip(),
                    Numerals.number(least, 3),
                    (Numerals.number(most, 3) + " " + unit).strip());
        }
    }
}
