package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.machine.Point;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Blend;
import dev.tranche.core.rig.VirtualExtruder;
import java.util.List;
import java.util.Optional;

/**
 * A virtual extruder as it is typed.
 *
 * @param spool id, or null
 * @param weight one an input, on a nozzle that blends
 */
record ExtruderForm(
        Long spool,
        String first,
        String rest,
        String standby,
        String lift,
        String nozzle,
        String filament,
        String offsetX,
        String offsetY,
        List<String> weight) {

    /** The extruder; a spool that is new in it brings its temperatures. */
    VirtualExtruder on(VirtualExtruder before, Optional<Spool> chosen) {
        VirtualExtruder typed = new VirtualExtruder(
                chosen.map(Spool::id),
                Numbers.whole("first-layer temperature", first),
                Numbers.whole("temperature", rest),
                Numbers.whole("standby temperature", standby),
                Numbers.decimal("lift on retract", lift),
                Numbers.decimal("nozzle", nozzle),
                Numbers.decimal("filament", filament),
                new Point(Numbers.decimal("offset X", offsetX), Numbers.decimal("offset Y", offsetY)),
                blend());
        boolean fresh = chosen.isPresent() && !chosen.map(Spool::id).equals(before.spool());
        return fresh ? typed.with(chosen.get()) : typed;
    }

    private Optional<Blend> blend() {
        return weight == null || weight.isEmpty()
                ? Optional.empty()
                : Optional.of(new Blend(
                        weight.stream().map(w -> Numbers.decimal("weight", w)).toList()));
    }
}
