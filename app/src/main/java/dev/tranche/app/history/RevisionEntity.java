package dev.tranche.app.history;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** Something as it was after one edit. */
@Entity
@Table(name = "revision")
class RevisionEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    /** Whose history it belongs to. */
    String owner;

    /** From 0, without gaps. */
    int number;

    /** The owner's edition that this revision made. */
    long edition;

    /** What the edit did, as undo and redo name it. */
    String label;

    @Lob
    String content;
}
