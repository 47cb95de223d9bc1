package dev.tranche.app.plans;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PlanRepository extends JpaRepository<PlanEntity, String> {
    List<PlanEntity> findByDeletedAtIsNullOrderByChangedDesc();

    /** Without what they hold. A variant goes with the plan that it was tried beside. */
    @Query(LISTED
            + "and (p.variantOf is null or exists (select r.id from PlanEntity r where r.id = p.variantOf and r.deletedAt is null)) "
            + "order by p.changed desc")
    List<Plans.Listed> listed();

    @Query(LISTED + "and p.id = :id")
    Optional<Plans.Listed> listed(String id);

    String LISTED =
            "select new dev.tranche.app.plans.Plans$Listed(p.id, p.name, p.variantOf, p.changed, h.edition, p.tags, p.printer, p.spools) "
                    + "from PlanEntity p, HistoryEntity h "
                    + "where p.deletedAt is null and h.owner = concat('plan-', p.id) ";

    List<PlanEntity> findByPrinterIsNull();

    List<PlanEntity> findTop12ByDeletedAtIsNullOrderByChangedDesc();

    List<PlanEntity> findByVariantOfAndDeletedAtIsNullOrderByCreated(String variantOf);

    List<PlanEntity> findByVariantOf(String variantOf);

    List<PlanEntity> findByVariantOfIsNullAndDeletedAtIsNotNullOrderByDeletedAtDesc();

    List<PlanEntity> findByDeletedAtBefore(Instant then);

    boolean existsByGcodeHash(String gcodeHash);

    /** For an edit: two edits of one plan come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select p from PlanEntity p where p.id = :id")
    Optional<PlanEntity> lock(String id);
}
