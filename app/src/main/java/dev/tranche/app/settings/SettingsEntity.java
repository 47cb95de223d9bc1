package dev.tranche.app.settings;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.math.BigDecimal;

@Entity
@Table(name = "settings")
class SettingsEntity {
    static final int ONLY = 1;

    @Id
    int id;

    String currency;
    BigDecimal tariff;
    String quiet;
    String zone;

    /** A {@link DayTime}. */
    String hours;
}
