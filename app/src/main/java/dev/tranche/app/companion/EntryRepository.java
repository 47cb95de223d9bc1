package dev.tranche.app.companion;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface EntryRepository extends JpaRepository<EntryEntity, Long> {
    List<EntryEntity> findByRunOrderById(String run);

    boolean existsByRunAndToken(String run, String token);
}
