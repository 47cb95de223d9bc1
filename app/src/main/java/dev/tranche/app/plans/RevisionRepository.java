package dev.tranche.app.plans;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface RevisionRepository extends JpaRepository<RevisionEntity, Long> {
    Optional<RevisionEntity> findByPlanIdAndNumber(String planId, int number);

    /** Forgets what redo would have done; at once, so that its number is free for the next revision. */
    @Modifying(flushAutomatically = true)
    @Query("delete from RevisionEntity r where r.planId = :planId and r.number > :number")
    void forgetAfter(String planId, int number);

    @Query("select r.label from RevisionEntity r where r.planId = :planId and r.edition > :edition order by r.number")
    List<String> labelsSince(String planId, long edition);
}
