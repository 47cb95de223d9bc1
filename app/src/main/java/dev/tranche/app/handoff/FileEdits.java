package dev.tranche.app.handoff;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.SlicedFiles;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Finding;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.AsSliced;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BiFunction;
import org.springframework.stereotype.Service;

/** What is said at the hand-off of a plan's sliced file. */
@Service
public class FileEdits {
    private final Plans plans;
    private final Workbench workbench;
    private final SlicedFiles sliced;
    private final Jobs jobs;

    FileEdits(Plans plans, Workbench workbench, SlicedFiles sliced, Jobs jobs) {
        this.plans = plans;
        this.workbench = workbench;
        this.sliced = sliced;
        this.jobs = jobs;
    }

    /** The plan in the colours that its file lays; ends at the hand-off. */
    Job paint(String id, long seen) {
        Workpiece work = workbench.openNow(plans.get(id));
        return jobs.start("Drawing the colours of the file", progress -> {
            AsSliced painted = work.reckoning().facts().painted(sliced.painting(work, progress));
            plans.editAll(id, seen, "draw the colours of the file", c -> c.with(painted.plan()));
            return "/plans/" + id + "/hand-off";
        });
    }

    private void say(String id, long seen, BiFunction<Workpiece, Said, Said> what) {
        Workpiece work = workbench.openNow(plans.get(id));
        plans.say(id, seen, (plan, said) -> what.apply(work, said));
    }

    /** Which spool a tool stands for; nothing leaves it to Tranche. */
    void tool(String id, long seen, int tool, Optional<SpoolId> spool) {
        say(id, seen, (work, said) -> {
            if (work.tools().stream().flatMap(t -> t.tools().stream()).noneMatch(t -> t.number() == tool)) {
                throw Refusal.of("There is no tool T%d in the G-code; reload the page.", tool);
            }
            if (!spool.map(work.colours().palette()::contains).orElse(true)) {
                throw new Refusal(
                        "The plan has no such spool; start a colour with it at the desk, then choose it here.");
            }
            return said.tool(tool, spool);
        });
    }

    /** What becomes of one of its stops, by index, or of all that can be it; nothing leaves them to be said. */
    void stops(String id, long seen, OptionalInt stop, Optional<StopTable.Choice> choice) {
        say(id, seen, (work, said) -> {
            List<StopTable.Row> meant = work.stops().map(StopTable::rows).orElse(List.of()).stream()
                    .filter(r -> stop.isEmpty() || r.index() == stop.getAsInt())
                    .filter(r -> choice.isEmpty() || r.takes(choice.get()))
                    .toList();
            if (meant.isEmpty()) {
                throw new Refusal(
                        stop.isEmpty()
                                ? "None of the stops in the G-code can be that; the plan stops elsewhere."
                                : "That stop of the G-code cannot be that; the plan does not stop there.");
            }
            return said.stops(meant.stream().map(StopTable.Row::index).toList(), choice);
        });
    }

    /** Takes a finding for known, or, without {@code known}, no longer. */
    void accept(String id, long seen, String key, boolean known) {
        say(id, seen, (work, said) -> {
            String word = acceptable(work, key).word();
            return known ? said.accepting(Set.of(word)) : said.refusing(word);
        });
    }

    /** Takes findings for known, in the plan's present state. */
    public void accept(Workpiece work, List<String> keys) {
        List<String> words =
                keys.stream().map(key -> acceptable(work, key).word()).toList();
        plans.say(work.plan().id(), work.plan().edition(), (plan, said) -> said.accepting(words));
    }

    private static Finding acceptable(Workpiece work, String key) {
        Finding finding = work.findings().stream()
                .filter(f -> f.key().equals(key))
                .findFirst()
                .orElseThrow(() -> Refusal.of(
                        "There is no finding “%s” here; findings of this file are %s.",
                        Words.quoted(key),
                        String.join(
                                ", ", work.findings().stream().map(Finding::key).toList())));
        if (finding.acceptance().isEmpty()) {
            throw Refusal.of("“%s” cannot be accepted: %s", key, finding.sentence());
        }
        return finding;
    }
}
