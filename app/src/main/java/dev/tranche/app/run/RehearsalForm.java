package dev.tranche.app.run;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * A rehearsal as it is asked for.
 *
 * @param swap at which {@code spool} is put in instead of the planned one
 * @param late minutes at each stop
 * @param ignored number of the stop that is ignored, and {@code gaveUp} of that at which the heater gives up
 * @param ends spool that ends after {@code after} mm
 * @param power minutes after which it fails
 */
record RehearsalForm(
        String pace,
        Boolean asks,
        String swap,
        Long spool,
        String late,
        String ignored,
        String gaveUp,
        Long ends,
        String after,
        String power) {

    Setup setup(List<SpoolId> filaments) {
        List<String> faults = new ArrayList<>();
        if (given(ignored)) {
            faults.add("ignore " + Numbers.whole("stop that is ignored", ignored));
        }
        if (given(gaveUp)) {
            faults.add("gives-up " + Numbers.whole("stop at which the heater gives up", gaveUp));
        }
        if (ends != null && given(after)) {
            int filament = filaments.indexOf(new SpoolId(ends));
            if (filament < 0) {
                throw new Refusal("That spool is not in this plan; choose another to end.");
            }
            faults.add(Words.format("ends %d %.1f", filament, Numbers.decimal("mm until it ends", after)));
        }
        if (given(power)) {
            faults.add(Words.format("power %.1f", 60 * Numbers.decimal("minutes until the power fails", power)));
        }
        if (spool != null && !filaments.contains(new SpoolId(spool))) {
            throw new Refusal("That spool is not in this plan; choose one that is.");
        }
        if (spool != null && !given(swap)) {
            throw new Refusal("Give the number of the swap at which the other spool is put in.");
        }
        double minutes = given(late) ? Numbers.decimal("minutes late", late) : 0;
        return new Setup(
                given(pace) ? Numbers.decimal("pace", pace) : 0,
                Boolean.TRUE.equals(asks),
                given(swap) && spool != null
                        ? Map.of(Numbers.whole("swap with another spool", swap), new SpoolId(spool))
                        : Map.of(),
                Duration.ofMillis(Math.round(minutes * 60_000)),
                faults);
    }

    private static boolean given(String typed) {
        return typed != null && !typed.isBlank();
    }
}
