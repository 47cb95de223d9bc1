package dev.tranche.app.printers;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface PrinterRepository extends JpaRepository<PrinterEntity, Long> {
    List<PrinterEntity> findByRetiredFalseOrderById();
}
