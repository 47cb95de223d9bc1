package dev.tranche.core.macro;

import dev.tranche.core.units.Refusal;

/** One thing a printer does at a swap. Lengths are mm of filament or of travel. */
public sealed interface Step {

    /** What the step is called where people choose and read it. */
    String title();

    /** A beep. */
    record Tone(int hertz, int milliseconds) implements Step {
        public Tone {
            within("A tone's pitch", hertz, 20, 20_000, "Hz");
            within("A tone's length", milliseconds, 10, 10_000, "ms");
        }

        @Override
        public String title() {
            return "Tone";
        }
    }

    /** Words on the printer's display: which spool to load. */
    record Message() implements Step {
        @Override
        public String title() {
            return "Message";
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
    }

    /** Go to the printer's park spot. */
    record Park() implements Step {
        @Override
        public String title() {
            return "Park";
        }
    }

    /** Stop until a person says go on, who changes the spool meanwhile. */
    record WaitForPerson() implements Step {
        @Override
        public String title() {
            return "Wait for the person";
        }
    }

    /** Stand still for a while. */
    record Dwell(int seconds) implements Step {
        public Dwell {
            within("A wait", seconds, 1, 3600, "s");
        }

        @Override
        public String title() {
            return "Wait";
        }
    }

    /** Bring the nozzle to the temperature of the spool that goes in. */
    record Heat() implements Step {
        @Override
        public String title() {
            return "Heat for the new spool";
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

    /** The firmware's filament-change routine: it parks, unloads, waits, loads and comes back by itself. */
    record FirmwareRoutine() implements Step {
        @Override
        public String title() {
            return "Filament change by the firmware";
        }
    }

    /** Back over the spot it came from, then down to it. */
    record Return() implements Step {
        @Override
        public String title() {
            return "Return";
        }
    }

    private static void within(String what, double value, double least, double most, String unit) {
        if (!(value >= least && value <= most)) {
            throw Refusal.of("%s of %s %s is out of range; give %s to %s.", what, value, unit, least, most);
        }
    }
}
