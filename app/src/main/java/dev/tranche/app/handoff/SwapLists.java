package dev.tranche.app.handoff;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;

/** The list to take to the machine. */
@Component
class SwapLists {
    private final Figures figures;

    SwapLists(Figures figures) {
        this.figures = figures;
    }

    /**
     * @param first the spool to load before the start
     * @param starts when the plan starts; empty if that is not set
     * @param inFile whether the sliced file numbers its layers
     * @param extruders whether there are several, so that each row names its own
     */
    record SwapList(
            SpoolMark first,
            int firstTemperature,
            List<Row> rows,
            String starts,
            boolean inFile,
            boolean extruders,
            String ends) {
        /** Whether a person has anything to do. */
        public boolean attended() {
            return rows.stream().anyMatch(r -> !r.acts().isEmpty());
        }
    }

    /**
     * A swap or a halt as a line of the list; a halt has a note instead of spools and purge, and where a blend turns it says so.
     *
     * @param within whether it comes inside the layer, not before it
     * @param fromZero the layer as programs that count from 0 show it
     * @param inFile the layer as the sliced file's own comments number it, or its height as they give it
     * @param starts height at which the layer begins, where a border of the plan is
     * @param shown height that programs show for the layer: its top, where the nozzle rides, above the raft if there is one
     * @param acts what the person does, in order
     * @param after from the start
     * @param when by the clock, if the plan has a start
     */
    record Row(
            int number,
            int layer,
            boolean within,
            int fromZero,
            String inFile,
            String starts,
            String shown,
            SpoolMark out,
            SpoolMark in,
            String extruder,
            String purge,
            String temperature,
            String note,
            List<String> acts,
            String after,
            String when) {
        /** “Swap 2”, “Blend” or “Halt”. */
        public String name() {
            return halts() ? "Halt" : note.isEmpty() ? "Swap " + number : "Blend";
        }

        public boolean halts() {
            return out == null;
        }
    }

    SwapList of(Workpiece work) {
        Optional<Schedule> schedule = work.schedule();
        var first = work.firstSpool();
        return new SwapList(
                SpoolMark.of(work, first.id()),
                first.firstLayerTemperature(),
                rows(work),
                schedule.map(s -> figures.day(s.start())).orElse(""),
                work.match().isPresent() && work.file().orElseThrow().markers().isPresent(),
                work.machine().rig().rack().size() > 1,
                figures.time(work.ledger().totalSeconds())
                        + schedule.map(s -> ", on " + figures.day(s.end())).orElse(""));
    }

    /** In the order they come; a halt before the swap of the same layer. */
    private List<Row> rows(Workpiece work) {
        return Stream.concat(
                        work.ledger().pauses().stream().map(p -> new Due(p.startsAt(), row(work, p))),
                        work.ledger().swaps().stream().map(s -> new Due(s.startsAt(), row(work, s))))
                .sorted(Comparator.comparingDouble(Due::seconds))
                .map(Due::row)
                .toList();
    }

    private record Due(double seconds, Row row) {}

    private Row row(Workpiece work, Pause pause) {
        return new Row(
                pause.number(),
                pause.layer(),
                pause.within(),
                pause.layer() - 1,
                inFile(work, pause.layer()),
                work.grid().bottom(pause.layer()).toString(),
                shown(work, pause.layer()),
                null,
                null,
                "",
                "",
                "",
                pause.note(),
                acts(pause.duties(work.machine().rig())),
                figures.time(pause.startsAt()),
                when(work, pause.startsAt()));
    }

    private static List<String> acts(List<Duty> duties) {
        return duties.stream().flatMap(d -> d.acts().stream()).toList();
    }

    private static String shown(Workpiece work, int layer) {
        Height raft =
                work.match().map(GridMatch::raft).orElse(work.colours().layers().raft());
        return raft.plus(work.grid().top(layer)).toString();
    }

    private static String inFile(Workpiece work, int layer) {
        return work.match().flatMap(m -> m.markerOf(layer)).orElse("");
    }

    private Row row(Workpiece work, Swap swap) {
        return new Row(
                swap.moment().number(),
                swap.layer(),
                swap.within(),
                swap.layer() - 1,
                inFile(work, swap.layer()),
                work.grid().bottom(swap.layer()).toString(),
                shown(work, swap.layer()),
                SpoolMark.of(work, swap.taken()),
                SpoolMark.of(work, swap.put()),
                work.machine().rig().rack().size() > 1 ? "T" + swap.moment().extruder() : "",
                figures.length(work.ledger().filament().length(swap.pushed())),
                temperature(swap),
                swap.turns() ? "blend" : "",
                acts(swap.duties(work.machine().rig())),
                figures.time(swap.startsAt()),
                when(work, swap.startsAt()));
    }

    /** What goes out at another temperature than what comes in has to be melted, too. */
    private static String temperature(Swap swap) {
        int out = swap.moment().temperatureOut();
        int in = swap.moment().temperatureIn();
        return (out == in ? "" : out + " → ") + in + " °C";
    }

    private String when(Workpiece work, double startsAt) {
        return work.schedule().map(s -> figures.hour(s.at(startsAt))).orElse("");
    }

    String csv(SwapList list) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(
                    "swap",
                    "layer from 1",
                    "layer from 0",
                    "layer in file",
                    "starts at mm",
                    "shown as mm",
                    "out",
                    "in",
                    "extruder",
                    "purge",
                    "nozzle",
                    "halt",
                    "after",
                    "at",
                    "what to do");
            for (Row r : list.rows()) {
                csv.printRecord(
                        r.halts() || r.note().isEmpty() ? r.number() : r.note(),
                        r.layer(),
                        r.fromZero(),
                        r.inFile(),
                        r.starts(),
                        r.shown(),
                        r.halts() ? "" : cell(r.out()),
                        r.halts() ? "" : cell(r.in()),
                        r.extruder(),
                        r.purge(),
                        r.temperature(),
                        r.halts() ? "to " + r.note() : "",
                        r.after(),
                        r.when(),
                        numbered(r.acts()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    /** Begins with a number, so that no program takes it for a formula. */
    private static String numbered(List<String> acts) {
        return IntStream.range(0, acts.size())
                .mapToObj(i -> (i + 1) + ". " + acts.get(i))
                .collect(Collectors.joining("; "));
    }

    /** Begins with the spool's letter, so that no program takes a name for a formula. */
    private static String cell(SpoolMark mark) {
        return Words.format("%s %s", mark.letter(), mark.name());
    }
}
