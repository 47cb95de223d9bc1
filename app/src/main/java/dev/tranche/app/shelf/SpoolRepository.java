package dev.tranche.app.shelf;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface SpoolRepository extends JpaRepository<SpoolEntity, Long> {
    List<SpoolEntity> findByRetiredFalseOrderById();

    List<SpoolEntity> findByRetiredTrueOrderByIdDesc();
}
