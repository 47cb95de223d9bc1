package dev.tranche.app.coupons;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

@Entity
@Table(name = "coupon")
class CouponEntity {
    @Id
    String plan;

    long printer;
    String kind;

    @Column(name = "out_spool")
    long out;

    /** The spool it measures. */
    @Column(name = "in_spool")
    long in;

    /** What its first mark measures, mm³ or mm. */
    @Column(name = "first_mark")
    double first;

    double step;
    int marks;
    /** The first mark that is as it should be, once somebody has looked. */
    Double seen;
}
