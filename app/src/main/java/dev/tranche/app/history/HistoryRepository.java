package dev.tranche.app.history;

import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface HistoryRepository extends JpaRepository<HistoryEntity, String> {
    /** For an edit: two edits of one thing come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select h from HistoryEntity h where h.owner = :owner")
    Optional<HistoryEntity> lock(String owner);
}
