package dev.tranche.app.rehearsed;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "rehearsed")
class RehearsedEntity {
    @Id
    String plan;

    /** When the plan, or its file, was last changed before it, ms since 1970. */
    long changed;

    String machine;
    boolean clean;
    String summary;
    Instant at;
}
