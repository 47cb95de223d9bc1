package dev.tranche.core.macro;

import java.time.Duration;
import java.util.List;

/** How a swap is carried out, each with a macro to begin with. */
public enum SwapMethod {
    FIRMWARE_ROUTINE("Filament change by the firmware (M600)") {
        @Override
        public List<Step> ready() {
            return List.of(new Step.Tone(880, 300), new Step.Message(), new Step.FirmwareRoutine());
        }
    },
    PAUSE_AND_PARK("Pause with park and return (M0)") {
        @Override
        public List<Step> ready() {
            return List.of(
                    new Step.Retract(2),
                    new Step.Lift(5),
                    new Step.Park(),
                    new Step.Tone(880, 300),
                    new Step.Message(),
                    new Step.WaitForPerson(),
                    new Step.Heat(),
                    new Step.Purge(4),
                    new Step.Retract(2),
                    new Step.Return());
        }
    };

    private final String title;

    SwapMethod(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }

    /** The steps most machines can start with. */
    public abstract List<Step> ready();

    /** What a person takes to change a spool by hand: 90 s unless measured. */
    public Duration person() {
        return Duration.ofSeconds(90);
    }
}
