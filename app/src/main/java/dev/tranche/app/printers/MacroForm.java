package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.macro.Macro;
import java.time.Duration;

/** What a macro is called and how long the person takes at its stops, as typed. */
record MacroForm(String name, String person) {
    Macro on(Macro macro) {
        double seconds = Numbers.decimal("person's time", person);
        return macro.named(name == null ? "" : name).taking(Duration.ofMillis(Math.round(seconds * 1000)));
    }
}
