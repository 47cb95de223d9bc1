package dev.tranche.app.coupons;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface CouponRepository extends JpaRepository<CouponEntity, String> {
    List<CouponEntity> findByPrinter(long printer);
}
