package dev.tranche.app.library;

import org.springframework.data.jpa.repository.JpaRepository;

interface CardRepository extends JpaRepository<CardEntity, String> {}
