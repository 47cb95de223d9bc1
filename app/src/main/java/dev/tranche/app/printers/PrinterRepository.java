package dev.tranche.app.printers;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PrinterRepository extends JpaRepository<PrinterEntity, Long> {
    List<PrinterEntity> findByRetiredFalseOrderById();

    List<PrinterEntity> findByRetiredTrueOrderByIdDesc();

    @Query("select p.id, h.edition, p.purges from PrinterEntity p, HistoryEntity h "
            + "where h.owner = concat('printer-', cast(p.id as string))")
    List<Object[]> stamps();
}
