package dev.tranche.app.history;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.HashSet;
import java.util.Set;

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

    /** When the edit was made; nothing of those that earlier versions made. */
    Instant madeAt;

    @Lob
    String content;

    /** The version of the format in which it is stored. */
    int format;

    /** Hashes of the files it needs. */
    @ElementCollection
    @CollectionTable(name = "revision_file", joinColumns = @JoinColumn(name = "revision"))
    @Column(name = "hash")
    Set<String> files = new HashSet<>();
}
