package dev.tranche.app.settings;

import org.springframework.data.jpa.repository.JpaRepository;

interface SettingsRepository extends JpaRepository<SettingsEntity, Integer> {}
