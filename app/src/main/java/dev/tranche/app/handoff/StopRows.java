package dev.tranche.app.handoff;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.handoff.StopTable.Choice;
import dev.tranche.core.handoff.StopTable.Meeting;
import dev.tranche.core.speech.Words;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The stops of a sliced file beside those of the plan. */
@Component
class StopRows {
    /** So many are shown; what is said of all is said of the others, too. */
    static final int MOST = 100;

    /**
     * @param more how many are not shown
     * @param choices that can be had for at least one of them
     */
    record Table(List<Row> rows, int more, List<Option> choices) {}

    /**
     * One stop.
     *
     * @param place on the plan's layers, for people
     * @param plan what the plan has there, for people; {@code out} and {@code in} the spools of a swap, null of others
     * @param chosen code of the choice; empty if none is made
     */
    record Row(
            int index,
            String text,
            long line,
            String place,
            String plan,
            SpoolMark out,
            SpoolMark in,
            List<Option> choices,
            String chosen) {}

    /** Something a stop can be. */
    record Option(String code, String words) {}

    Table of(Workpiece work) {
        List<StopTable.Row> all = work.stops().map(StopTable::rows).orElse(List.of());
        return new Table(
                all.stream().limit(MOST).map(r -> row(work, r)).toList(),
                Math.max(0, all.size() - MOST),
                Arrays.stream(Choice.values())
                        .filter(c -> all.stream().anyMatch(r -> r.takes(c)))
                        .map(c -> new Option(c.name(), together(c)))
                        .toList());
    }

    private static Row row(Workpiece work, StopTable.Row r) {
        Optional<Swap> swap = r.meets()
                .filter(m -> m.what() == BlockStamp.What.SWAP)
                .map(m -> work.ledger().swaps().get(m.number() - 1));
        return new Row(
                r.index(),
                Words.quoted(r.stop().text()),
                r.stop().line(),
                place(work, r),
                swap.map(s -> s.name().toLowerCase(Locale.ROOT))
                        .or(() -> r.meets().map(StopRows::plan))
                        .orElse("nothing"),
                swap.map(s -> SpoolMark.of(work, s.taken())).orElse(null),
                swap.map(s -> SpoolMark.of(work, s.put())).orElse(null),
                Arrays.stream(Choice.values())
                        .filter(r::takes)
                        .map(c -> new Option(c.name(), alone(c, r)))
                        .toList(),
                r.choice().map(Choice::name).orElse(""));
    }

    private static String place(Workpiece work, StopTable.Row r) {
        return r.layer() == 0
                ? "below layer 1"
                : Words.format(
                        "%s layer %d, at %s mm",
                        r.within() ? "in" : "before",
                        r.layer(),
                        r.within() ? work.grid().top(r.layer()) : work.grid().bottom(r.layer()));
    }

    private static String plan(Meeting meeting) {
        return meeting.what() == BlockStamp.What.LOAD ? "the first load" : "halt " + meeting.number();
    }

    private static String alone(Choice choice, StopTable.Row row) {
        return switch (choice) {
            case ADOPT -> "it is that stop: add nothing";
            case REPLACE -> row.meets().isPresent() ? "replace it by the plan's" : "take it out";
            case LEAVE -> row.meets().isPresent() ? "leave it: stop twice" : "leave it: stop there too";
        };
    }

    private static String together(Choice choice) {
        return switch (choice) {
            case ADOPT -> "where the plan stops, they are its stops";
            case REPLACE -> "take them all out";
            case LEAVE -> "leave them all";
        };
    }
}
