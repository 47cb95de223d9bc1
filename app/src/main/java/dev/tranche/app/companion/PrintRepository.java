package dev.tranche.app.companion;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PrintRepository extends JpaRepository<PrintEntity, String> {
    /** One, and nobody else tells anything of it until this is stored. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select p from PrintEntity p where p.id = :id")
    Optional<PrintEntity> locked(String id);

    /** What a printer prints now, or is to. */
    Optional<PrintEntity> findByBusy(Long printer);

    List<PrintEntity> findByPlanOrderByStartedDesc(String plan);

    List<PrintEntity> findTop50ByPrinterOrderByStartedDesc(long printer);

    List<PrintEntity> findTop200ByOrderByStartedDesc();
}
