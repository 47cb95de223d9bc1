package dev.tranche.app.library;

import jakarta.persistence.Basic;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** Figures of a plan, with what they were reckoned from. */
@Entity
@Table(name = "card")
class CardEntity {
    @Id
    String plan;

    /** The plan's edition. */
    long edition;

    /** Id of its printer, and {@code machine} the state that was in. */
    long printer;

    String machine;

    /** The state of all that holds for every plan: the shelf, the settings, and how figures are made. */
    String world;

    /** What lists are sorted by: swaps, and seconds of the whole print. */
    int swaps;

    double seconds;

    @Lob
    String figures;

    /** The piece seen from above, PNG. */
    @Lob
    @Basic(fetch = FetchType.LAZY)
    byte[] picture;
}
