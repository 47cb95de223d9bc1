package dev.tranche.app.guide;

import org.springframework.data.jpa.repository.JpaRepository;

interface GuideRepository extends JpaRepository<GuideEntity, Integer> {}
