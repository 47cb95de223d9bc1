package dev.tranche.app.settings;

import dev.tranche.app.storage.Restored;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.estimate.Power;
import dev.tranche.core.estimate.QuietTime;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps the settings; what nobody has set is what the machine says. */
@Service
public class Settings {
    private final SettingsRepository settings;
    private final TrancheProperties properties;
    /** What was read last; there is one owner and one application. */
    private volatile Current current;

    Settings(SettingsRepository settings, TrancheProperties properties) {
        this.settings = settings;
        this.properties = properties;
    }

    /**
     * @param currency three letters, as figures show it
     * @param tariff price of a kilowatt hour, if it is to be counted
     * @param quiet when nobody is at the machine
     * @param zone in which its clock runs
     * @param hours as times of day are written
     */
    public record Current(
            String currency, Optional<BigDecimal> tariff, List<QuietTime> quiet, ZoneId zone, DayTime hours) {
        /** A price is written with two places, or as many as it takes, wherever it comes from. */
        public Current {
            tariff = tariff.map(
                    t -> t.setScale(Math.max(2, t.stripTrailingZeros().scale())));
        }

        public Optional<Power> power(double watts) {
            return tariff.map(t -> new Power(watts, t));
        }
    }

    public Current now() {
        Current known = current;
        if (known == null) {
            known = read(settings.findById(SettingsEntity.ONLY).orElseThrow());
            current = known;
        }
        return known;
    }

    @EventListener(Restored.class)
    void restored() {
        current = null;
    }

    private Current read(SettingsEntity e) {
        return new Current(
                e.currency == null ? properties.currency() : e.currency,
                Optional.ofNullable(e.tariff),
                QuietTime.parse(e.quiet),
                e.zone == null ? ZoneId.systemDefault() : ZoneId.of(e.zone),
                e.hours == null ? DayTime.HOURS_24 : DayTime.valueOf(e.hours));
    }

    /**
     * @param tariff empty for none
     * @param quiet as {@link QuietTime#parse} takes it
     * @param zone such as {@code Europe/Berlin}; empty for the machine's own
     * @throws Refusal if anything cannot be; then nothing changes
     */
    @Transactional
    public void set(String currency, String tariff, String quiet, String zone, DayTime hours) {
        SettingsEntity e = settings.findById(SettingsEntity.ONLY).orElseThrow();
        String letters = currency.strip().toUpperCase(java.util.Locale.ROOT);
        if (!letters.matches("[A-Z]{3}")) {
            throw Refusal.of("“%s” is not a currency; give its three letters, such as EUR.", Words.quoted(currency));
        }
        BigDecimal price = tariff.isBlank() ? null : price(tariff);
        String times = String.join(
                ", ", QuietTime.parse(quiet).stream().map(QuietTime::toString).toList());
        String place = zone.isBlank() ? null : zone(zone);
        e.currency = letters;
        e.tariff = price;
        e.quiet = times;
        e.zone = place;
        e.hours = hours.name();
        current = read(e);
    }

    private static BigDecimal price(String tariff) {
        String number = tariff.strip().replace(',', '.');
        if (!number.matches("\\d{1,4}(\\.\\d{1,5})?")) {
            throw Refusal.of("“%s” is not a price of a kilowatt hour; type one such as 0.30.", Words.quoted(tariff));
        }
        return new Power(0, new BigDecimal(number)).perKilowattHour();
    }

    private static String zone(String zone) {
        try {
            return ZoneId.of(zone.strip()).getId();
        } catch (DateTimeException e) {
            throw Refusal.of("“%s” is not a time zone; choose one such as Europe/Berlin.", Words.quoted(zone));
        }
    }
}
