package dev.tranche.app.desk;

import dev.tranche.app.web.Figures;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.SpoolUse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;

/** All figures of a ledger with their parts, for a spreadsheet. */
@Component
class LedgerCsv {
    private final Figures figures;

    LedgerCsv(Figures figures) {
        this.figures = figures;
    }

    String of(Ledger ledger) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord("level", "figure", "value", "unit", "how");
            for (Derivation figure : ledger.figures()) {
                print(csv, figure, 0);
            }
            for (SpoolUse use : ledger.uses()) {
                csv.printRecord(
                        0,
                        safe("Left of " + use.spool().name()),
                        plain(use.spool().gramsLeft() - use.grams()),
                        "g",
                        "on the spool, less what the print takes");
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    private void print(CSVPrinter csv, Derivation figure, int level) throws IOException {
        csv.printRecord(level, safe(figure.label()), plain(figure.value()), unit(figure), safe(figure.how()));
        for (Derivation part : figure.parts()) {
            print(csv, part, level + 1);
        }
    }

    private String unit(Derivation figure) {
        return switch (figure.unit()) {
            case COUNT, RATIO -> "";
            case MILLIMETRES -> "mm";
            case CUBIC_MILLIMETRES -> "mm³";
            case GRAMS -> "g";
            case SECONDS -> "s";
            case MONEY -> figures.currency();
        };
    }

    private static String plain(double value) {
        return BigDecimal.valueOf(value)
                .setScale(6, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }

    /** No program shall take a name for a formula. */
    private static String safe(String text) {
        return text.isEmpty() || "=+-@".indexOf(text.charAt(0)) < 0 ? text : "'" + text;
    }
}
