package dev.tranche.app.printers;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** A printer; what it is like is in its history. */
@Entity
@Table(name = "printer")
class PrinterEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    /** Measured purges, as JSON. */
    @Lob
    String purges;

    /** Id of the printer this is a variant of. */
    Long origin;

    /** No longer offered, but still named by plans' histories. */
    boolean retired;
}
