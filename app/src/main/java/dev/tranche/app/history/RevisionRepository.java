package dev.tranche.app.history;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface RevisionRepository extends JpaRepository<RevisionEntity, Long> {
    /** A revision without what it holds. */
    record Head(long id, String label) {}

    @Query("select new dev.tranche.app.history.RevisionRepository$Head(r.id, r.label) "
            + "from RevisionEntity r where r.owner = :owner and r.number = :number")
    Optional<Head> head(String owner, int number);

    @Query("select new dev.tranche.app.history.Past(r.number, r.edition, r.label, r.madeAt) "
            + "from RevisionEntity r where r.owner = :owner order by r.number desc")
    List<Past> past(String owner);

    /** Forgets what redo would have done; at once, so that its number is free for the next revision. */
    @Modifying(flushAutomatically = true)
    @Query(value = "delete from revision where owner = :owner and number > :number", nativeQuery = true)
    void forgetAfter(String owner, int number);

    @Query("select r.label from RevisionEntity r where r.owner = :owner and r.edition > :edition order by r.number")
    List<String> labelsSince(String owner, long edition);

    @Query("select r.label from RevisionEntity r where r.owner = :owner and r.number = :number")
    Optional<String> labelOf(String owner, int number);

    @Query("select count(r) > 0 from RevisionEntity r join r.files f where f = :hash")
    boolean hold(String hash);

    void deleteByOwner(String owner);
}
