package dev.tranche.app.companion;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "print_run")
class PrintEntity {
    @Id
    String id;

    String plan;
    String planName;

    /** When the plan, or its file, was last changed before it, ms since 1970. */
    long changed;

    long printer;
    String printerName;
    Instant started;
    Instant over;

    /** The printer as long as it prints this; it prints one at a time. */
    Long busy;

    /** What was planned, as JSON. */
    @Lob
    String agenda;

    /** Whether what it took has been taken off the spools. */
    boolean spoolsTaken;

    void isOver(Instant since) {
        over = since;
        busy = null;
    }
}
