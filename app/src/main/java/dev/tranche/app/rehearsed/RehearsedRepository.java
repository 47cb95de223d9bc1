package dev.tranche.app.rehearsed;

import org.springframework.data.jpa.repository.JpaRepository;

interface RehearsedRepository extends JpaRepository<RehearsedEntity, String> {}
