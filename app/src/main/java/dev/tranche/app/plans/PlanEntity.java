package dev.tranche.app.plans;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "plan")
class PlanEntity {
    /** Letters and digits; it also stamps the files written for the plan. */
    @Id
    String id;

    String name;
    Instant created;
    Instant changed;

    /** When it was put away; nothing if it is here. */
    Instant deletedAt;

    /** The plan it was tried beside, if it is a variant. */
    String variantOf;

    String gcodeHash;
    String gcodeName;

    /** Spools that the owner gave to its tools, as {@code tool=spool} pairs. */
    String gcodeTools = "";

    /** What becomes of its stops, as {@code index=choice} pairs, and {@code gcodeAccepted} the findings he accepts. */
    String gcodeStops = "";

    String gcodeAccepted = "";

    String tags = "";

    /** The printer that prints it, as it is now; nothing where that was not looked up yet. */
    Long printer;

    /** Numbers of the spools it prints with, each between commas. */
    String spools;

    /** State of the swaps last written into G-code. */
    String writtenState;
}
