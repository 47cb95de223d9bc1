package dev.tranche.app.companion;

import dev.tranche.core.companion.Entry;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "print_entry")
class EntryEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String run;

    /** What a page calls it: sent twice, it is told once. */
    String token;

    String kind;
    Instant at;
    int visit;
    double amount;
    String text;

    static EntryEntity of(String run, String token, Entry entry) {
        EntryEntity entity = new EntryEntity();
        entity.run = run;
        entity.token = token;
        entity.kind = entry.kind().name();
        entity.at = entry.at();
        entity.visit = entry.visit();
        entity.amount = entry.amount();
        entity.text = entry.text();
        return entity;
    }

    Entry entry() {
        return new Entry(Entry.Kind.valueOf(kind), at, visit, amount, text);
    }
}
