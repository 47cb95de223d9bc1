package dev.tranche.app.api;

import dev.tranche.app.run.Setup;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** What came out of a rehearsal, for programs. */
@Schema(name = "Rehearsal")
record RehearsalAnswer(
        @Schema(description = "whether everything came out as planned") boolean clean,
        @Schema(description = "whether the file came to its end") boolean whole,
        @Schema(description = "s, people included") double seconds,
        @Schema(description = "lines that were sent") long lines,
        List<Stop> stops,
        @Schema(description = "layers that are not as planned") List<Layer> layers,
        List<Trouble> troubles,
        @Schema(description = "commands in words that only the printer knows, and how often they were passed over")
                Map<String, Integer> own) {

    /** A stop. */
    @Schema(name = "RehearsedStop")
    record Stop(
            @Schema(description = "what of the plan it is") String stop,
            @Schema(description = "that is printed next, from 1") int layer,
            @Schema(description = "s from the start") double at,
            @Schema(description = "s") double lasted,
            @Schema(description = "spool that was to be put in; empty for none") String wanted,
            @Schema(description = "spool that was put in; empty for none") String put,
            List<String> acts) {}

    /** A layer that is not as planned; mm of filament. */
    @Schema(name = "RehearsedLayer")
    record Layer(
            int layer,
            double right,
            double mixed,
            double wrong,
            double missing,
            @Schema(description = "greatest CIEDE2000 of a mix to what it should be") double difference) {}

    /** What went wrong. */
    @Schema(name = "RehearsedTrouble")
    record Trouble(String sentence, int times) {}

    static Setup setup(Workpiece work, List<String> puts) {
        Map<Integer, SpoolId> spools = new HashMap<>();
        for (String put : puts) {
            String[] both = put.split("=", 2);
            SpoolId spool = both.length < 2
                    ? null
                    : work.ledger().uses().stream()
                            .map(u -> u.spool())
                            .filter(s -> s.name().equalsIgnoreCase(both[1].strip()))
                            .map(s -> s.id())
                            .findFirst()
                            .orElse(null);
            if (spool == null || !both[0].strip().matches("[1-9]\\d{0,5}")) {
                throw Refusal.of(
                        "“%s” is no swap with a spool of this plan; give its number and a spool, such as 2=Chalk.",
                        Words.quoted(put));
            }
            spools.put(Integer.parseInt(both[0].strip()), spool);
        }
        return new Setup(0, false, spools, Duration.ZERO, List.of());
    }

    static RehearsalAnswer of(Workpiece work, Report report) {
        return new RehearsalAnswer(
                report.isClean(),
                report.whole(),
                report.seconds(),
                report.lines(),
                report.stops().stream()
                        .map(s -> new Stop(
                                s.at().title(),
                                s.at().layer(),
                                s.at().seconds(),
                                s.seconds(),
                                s.at().wanted().map(id -> work.spool(id).name()).orElse(""),
                                s.put().map(id -> work.spool(id).name()).orElse(""),
                                s.at().acts()))
                        .toList(),
                report.unclean().stream()
                        .map(l -> new Layer(l.layer(), l.right(), l.mixed(), l.wrong(), l.missing(), l.difference()))
                        .toList(),
                report.troubles().stream()
                        .map(t -> new Trouble(t.sentence(), t.times()))
                        .toList(),
                report.own());
    }
}
