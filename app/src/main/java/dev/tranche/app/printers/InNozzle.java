package dev.tranche.app.printers;

import dev.tranche.core.plan.SpoolId;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Remembers which spool's filament is in each printer's nozzle. */
@Service
@Transactional
public class InNozzle {
    private final InNozzleRepository nozzles;

    InNozzle(InNozzleRepository nozzles) {
        this.nozzles = nozzles;
    }

    @Transactional(readOnly = true)
    public Optional<SpoolId> of(long printer) {
        return nozzles.findById(printer).map(n -> new SpoolId(n.spool));
    }

    public void holds(long printer, SpoolId spool, Instant since) {
        InNozzleEntity entity = nozzles.findById(printer).orElseGet(InNozzleEntity::new);
        if (entity.spool != spool.value() || entity.since == null) {
            entity.printer = printer;
            entity.spool = spool.value();
            entity.since = since;
            nozzles.save(entity);
        }
    }

    /** It is empty, or nobody knows. */
    public void forget(long printer) {
        nozzles.deleteById(printer);
    }
}
