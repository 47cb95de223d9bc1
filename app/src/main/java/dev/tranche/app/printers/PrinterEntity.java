package dev.tranche.app.printers;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A printer and its swap macro, as JSON documents of the core's values. */
@Entity
@Table(name = "printer")
class PrinterEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    @Column(length = 16_000)
    String printer;

    @Column(length = 64_000)
    String macro;

    /** Measured purges. */
    @Column(length = 64_000)
    String purges;

    /** No longer offered, but still named by plans' histories. */
    boolean retired;
}
