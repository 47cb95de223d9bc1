package dev.tranche.app.printers;

import org.springframework.data.jpa.repository.JpaRepository;

interface InNozzleRepository extends JpaRepository<InNozzleEntity, Long> {}
