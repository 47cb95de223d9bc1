package dev.tranche.app.rehearsed;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.storage.Room;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.speech.Words;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Knows which plans have been rehearsed as they are now, and how that ended. A plan or printer that has changed has not. */
@Service
public class Rehearsed {
    private static final int LONGEST = 400;

    private final RehearsedRepository kept;
    private final Plans plans;
    private final Workshop workshop;
    private final Room room;

    Rehearsed(RehearsedRepository kept, Plans plans, Workshop workshop, Room room) {
        this.kept = kept;
        this.plans = plans;
        this.workshop = workshop;
        this.room = room;
    }

    /**
     * How it ended.
     *
     * @param summary what was not as planned; empty if nothing was
     */
    public record Word(boolean clean, String summary, Instant at) {}

    /** Keeps how the rehearsal of {@code plan} ended, if it is as it was when that began. */
    @Transactional
    public void keep(PlanState plan, String machine, Report report) {
        if (room.sentence().isPresent() || plans.listed().stream().noneMatch(p -> p.id().equals(plan.id()))) {
            return;
        }
        RehearsedEntity entity = new RehearsedEntity();
        entity.plan = plan.id();
        entity.changed = plan.changed().toEpochMilli();
        entity.machine = machine;
        entity.clean = report.isClean();
        entity.summary = summary(report);
        entity.at = Instant.now();
        kept.save(entity);
    }

    /** By which a printer's state is told from its others. */
    public String machine(PlanState plan) {
        return workshop.stamps().getOrDefault(plan.content().printer(), "");
    }

    private static String summary(Report report) {
        StringBuilder text = new StringBuilder();
        long wrong = report.stops().stream().filter(Report.Stopped::isWrong).count();
        if (wrong > 0) {
            text.append(Words.count((int) wrong, "wrong spool")).append(" put in. ");
        }
        int unclean = report.unclean().size();
        if (unclean > 0) {
            text.append(unclean == 1 ? "1 layer is" : unclean + " layers are")
                    .append(Words.format(
                            " not as planned, the first layer %d. ",
                            report.unclean().get(0).layer()));
        }
        report.troubles().forEach(t -> text.append(t.sentence()).append(' '));
        String all = text.toString().strip();
        return all.length() <= LONGEST ? all : all.substring(0, LONGEST - 1) + "…";
    }

    /** What is known of a plan as it is now. */
    @Transactional(readOnly = true)
    public Optional<Word> of(PlanState plan) {
        return kept.findById(plan.id())
                .filter(r -> r.changed == plan.changed().toEpochMilli() && r.machine.equals(machine(plan)))
                .map(r -> new Word(r.clean, r.summary, r.at));
    }

    /** The plans that came out clean as they are now, of those that are listed with their printers' states. */
    @Transactional(readOnly = true)
    public Set<String> clean(List<Plans.Listed> listed, Map<String, String> machines) {
        Map<String, RehearsedEntity> all =
                kept.findAll().stream().collect(Collectors.toMap(r -> r.plan, Function.identity()));
        return listed.stream()
                .filter(p -> {
                    RehearsedEntity r = all.get(p.id());
                    return r != null
                            && r.clean
                            && r.changed == p.changed().toEpochMilli()
                            && r.machine.equals(machines.get(p.id()));
                })
                .map(Plans.Listed::id)
                .collect(Collectors.toSet());
    }
}
