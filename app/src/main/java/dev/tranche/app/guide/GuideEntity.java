package dev.tranche.app.guide;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

@Entity
@Table(name = "guide")
class GuideEntity {
    static final int ONLY = 1;
    static final String OVER = "OVER";

    @Id
    int id;

    /** A {@link Stage}, {@link #OVER}, or nothing. */
    String stage;
}
