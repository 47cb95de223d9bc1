package dev.tranche.app.plans;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** The plan as it was after one edit. */
@Entity
@Table(name = "plan_revision")
class RevisionEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String planId;

    /** From 0, without gaps. */
    int number;

    /** The plan's edition that this revision made. */
    long edition;

    /** What the edit did, as undo and redo name it. */
    String label;

    @Column(length = 1_000_000)
    String content;
}
