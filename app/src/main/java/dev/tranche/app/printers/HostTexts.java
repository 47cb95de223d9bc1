package dev.tranche.app.printers;

import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostNames;
import dev.tranche.core.macro.HostScripts;
import dev.tranche.core.rig.Rig;

/** The two scripts of a host as texts to copy. */
record HostTexts(HostNames names, String pause, String resume) {
    static HostTexts of(Rig rig) {
        HostScripts scripts = HostScripts.of(rig.macros(), rig.printer(), rig.typical(Event.HOST_PAUSE, 0));
        return new HostTexts(
                rig.macros().hostNames(), HostScripts.text(scripts.pause()), HostScripts.text(scripts.resume()));
    }
}
