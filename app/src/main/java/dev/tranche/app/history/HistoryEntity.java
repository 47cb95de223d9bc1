package dev.tranche.app.history;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

@Entity
@Table(name = "history")
class HistoryEntity {
    @Id
    String owner;

    /** Number of the revision that is in force. */
    int head;

    /** Counts every edit, undo and redo, so that a page can tell that it is out of date. */
    long edition;
}
