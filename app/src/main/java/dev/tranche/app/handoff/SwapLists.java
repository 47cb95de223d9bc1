package dev.tranche.app.handoff;

import dev.tranche.app.drawing.SpoolMark;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Words;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;

/** The list to take to the machine. */
@Component
class SwapLists {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    private final Figures figures;

    SwapLists(Figures figures) {
        this.figures = figures;
    }

    /**
     * @param first the spool to load before the start
     * @param start time of day as typed, or empty
     * @param inFile whether the sliced file numbers its layers
     */
    record SwapList(SpoolMark first, int firstTemperature, List<Row> rows, String start, boolean inFile, String ends) {}

    /**
     * A swap as a line of the list.
     *
     * @param fromZero the layer as programs that count from 0 show it
     * @param inFile the layer as the sliced file's own comments number it
     * @param after from the start
     * @param when time of day, if a start was given
     */
    record Row(
            int number,
            int layer,
            int fromZero,
            String inFile,
            String height,
            SpoolMark out,
            SpoolMark in,
            String purge,
            String temperature,
            String after,
            String when) {}

    SwapList of(Workpiece work, String start) {
        Optional<LocalTime> begins = time(start);
        var first = work.spool(work.tranches().get(0).spool());
        return new SwapList(
                SpoolMark.of(work, first.id()),
                first.firstLayerTemperature(),
                work.ledger().swaps().stream().map(s -> row(work, s, begins)).toList(),
                begins.map(CLOCK::format).orElse(""),
                work.match().isPresent() && work.file().orElseThrow().markers().isPresent(),
                figures.time(work.ledger().totalSeconds())
                        + begins.map(b -> ", at " + at(b, work.ledger().totalSeconds()))
                                .orElse(""));
    }

    private Row row(Workpiece work, Swap swap, Optional<LocalTime> begins) {
        OptionalLong marker = work.match().map(m -> m.markerOf(swap.layer())).orElse(OptionalLong.empty());
        return new Row(
                swap.number(),
                swap.layer(),
                swap.layer() - 1,
                marker.isPresent() ? Long.toString(marker.getAsLong()) : "",
                swap.height().toString(),
                SpoolMark.of(work, swap.out().id()),
                SpoolMark.of(work, swap.in().id()),
                figures.length(swap.purgeLength()),
                temperature(swap),
                figures.time(swap.startsAt()),
                begins.map(b -> at(b, swap.startsAt())).orElse(""));
    }

    /** Between two classes of plastic the nozzle has to melt both. */
    private static String temperature(Swap swap) {
        int in = swap.in().temperature();
        return swap.in().material() == swap.out().material()
                ? in + " °C"
                : swap.out().temperature() + " → " + in + " °C";
    }

    private static String at(LocalTime begins, double seconds) {
        long minutes = begins.toSecondOfDay() / 60 + Math.round(seconds / 60);
        long days = minutes / (24 * 60);
        return CLOCK.format(begins.plusMinutes(Math.round(seconds / 60)))
                + (days == 0 ? "" : " +" + Words.count(days, "day"));
    }

    private static Optional<LocalTime> time(String text) {
        if (text.isBlank()) {
            return Optional.empty();
        }
        try {
            return Optional.of(LocalTime.parse(text.strip().length() == 4 ? "0" + text.strip() : text.strip()));
        } catch (DateTimeParseException e) {
            throw Refusal.of("“%s” is no time of day; type it as 18:30.", Words.quoted(text));
        }
    }

    String csv(SwapList list) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(
                    "swap",
                    "layer from 1",
                    "layer from 0",
                    "layer in file",
                    "height mm",
                    "out",
                    "in",
                    "purge",
                    "nozzle",
                    "after",
                    "at");
            for (Row r : list.rows()) {
                csv.printRecord(
                        r.number(),
                        r.layer(),
                        r.fromZero(),
                        r.inFile(),
                        r.height(),
                        cell(r.out()),
                        cell(r.in()),
                        r.purge(),
                        r.temperature(),
                        r.after(),
                        r.when());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    /** Begins with the spool's letter, so that no program takes a name for a formula. */
    private static String cell(SpoolMark mark) {
        return String.format(Locale.ROOT, "%s %s", mark.letter(), mark.name());
    }
}
