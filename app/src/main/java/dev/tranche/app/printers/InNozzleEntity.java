package dev.tranche.app.printers;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "in_nozzle")
class InNozzleEntity {
    @Id
    long printer;

    long spool;
    Instant since;
}
