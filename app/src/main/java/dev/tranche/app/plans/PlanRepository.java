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

    /** Without what they hold. */
    @Query(LISTED + "order by p.changed desc")
    List<Plans.Listed> listed();

    @Query(LISTED + "and p.id = :id")
    Optional<Plans.Listed> listed(String id);

    /** A variant goes with the plan that it was tried beside. */
    String LISTED =
            "select new dev.tranche.app.plans.Plans$Listed(p.id, p.name, p.variantOf, r.name, p.changed, h.edition, p.tags, p.printer, p.spools) "
                    + "from PlanEntity p join HistoryEntity h on h.owner = concat('plan-', p.id) "
                    + "left join PlanEntity r on r.id = p.variantOf "
                    + "where p.deletedAt is null and (p.variantOf is null or r.id is not null and r.deletedAt is null) ";

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
