package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.history.Broken;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.InNozzle;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.format.Part;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.job.Brief;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.job.Wish;
import dev.tranche.core.look.Looks;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;

/**
 * Brings stored plans to life. What a plan is reckoned from is fetched by whoever asks; the reckoning itself is work of
 * its own, done once for as many as wait for it, and kept while there is room.
 */
@Service
public class Workbench {
    /** What most edits take, and more than anyone minds waiting for without a bar, ms. */
    private static final long CLICK = 1_500;
    /** After an edit, while the page shows what was before it, ms. */
    private static final long IN_PLACE = 15_000;
    /** For what has no page of its own to wait on, ms. */
    private static final long PATIENCE = 120_000;

    private static final int MOST_KEPT = 60;
    /** A page that waits asks again within a second or two. */
    private static final Duration JUST_NOW = Duration.ofSeconds(15);

    private final InNozzle nozzles;
    private final Rehearsed rehearsed;
    private final ModelCuts cuts;
    private final SlicedFiles sliced;
    private final Shelf shelf;
    private final Workshop workshop;
    private final Settings settings;
    private final Jobs jobs;
    private final Cache<Stock, Workpiece> kept =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).softValues().build();
    /** What was just made: a full cache would rather keep what is looked at often, and somebody is waiting for this. */
    private final Cache<Stock, Workpiece> fresh =
            Caffeine.newBuilder().expireAfterWrite(JUST_NOW).softValues().build();
    /** How pieces look of which something is kept: most edits change no colour. */
    private final Cache<Colouring, Looks> looks =
            Caffeine.newBuilder().weakKeys().weakValues().build();

    /** What came of plans last: of an edited one much is as it was. */
    private final Cache<String, Reckoning> reckoned =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).softValues().build();

    Workbench(
            ModelCuts cuts,
            SlicedFiles sliced,
            Shelf shelf,
            Workshop workshop,
            Settings settings,
            Jobs jobs,
            InNozzle nozzles,
            Rehearsed rehearsed) {
        this.nozzles = nozzles;
        this.rehearsed = rehearsed;
        this.cuts = cuts;
        this.sliced = sliced;
        this.shelf = shelf;
        this.workshop = workshop;
        this.settings = settings;
        this.jobs = jobs;
    }

    /** All that a plan is reckoned from. Two that are equal are reckoned to the same. */
    private record Stock(
            PlanState plan,
            Machine machine,
            Map<SpoolId, Spool> shelf,
            List<SpoolId> atHand,
            Settings.Current settings,
            Optional<SpoolId> inNozzle,
            Optional<String> rehearsed) {
        /** An edition has one content, which need not be compared. */
        @Override
        public boolean equals(Object other) {
            return other instanceof Stock o
                    && plan.id().equals(o.plan.id())
                    && plan.edition() == o.plan.edition()
                    && plan.name().equals(o.plan.name())
                    && plan.written().equals(o.plan.written())
                    && machine.id() == o.machine.id()
                    && machine.version().edition() == o.machine.version().edition()
                    && machine.purges().equals(o.machine.purges())
                    && shelf.equals(o.shelf)
                    && atHand.equals(o.atHand)
                    && settings.equals(o.settings)
                    && inNozzle.equals(o.inNozzle)
                    && rehearsed.equals(o.rehearsed);
        }

        @Override
        public int hashCode() {
            return plan.id().hashCode() + 31 * Long.hashCode(plan.edition());
        }
    }

    /** The plan with all its figures; empty if that takes longer than a click, and {@link #prepare} is due. */
    public Optional<Workpiece> open(PlanState plan) {
        return open(plan, CLICK);
    }

    /** As {@link #open}, for a page that stays while it waits. */
    public Optional<Workpiece> openInPlace(PlanState plan) {
        return open(plan, IN_PLACE);
    }

    /** As {@link #open}, for pages that cannot do without. */
    public Workpiece openNow(PlanState plan) {
        return open(plan, PATIENCE)
                .orElseThrow(() -> Refusal.of(
                        "%s is still being opened; wait on its desk until it is, then do this again.", plan.name()));
    }

    private Optional<Workpiece> open(PlanState plan, long milliseconds) {
        Stock stock = stock(plan);
        Workpiece known = known(stock);
        if (known != null) {
            return Optional.of(known);
        }
        Job job = begin(stock);
        if (!job.endsWithin(milliseconds)) {
            return Optional.empty();
        }
        Workpiece made = known(stock);
        if (made == null && job.isCancelled()) {
            throw Refusal.of("Opening %s was cancelled; open it again when you want it.", plan.name());
        }
        if (made == null) {
            throw new Broken(
                    "plan",
                    plan.id(),
                    job.failure().orElse("There is not enough memory to open this plan beside the others."),
                    plan.edition(),
                    plan.undo());
        }
        return Optional.of(made);
    }

    private Workpiece known(Stock stock) {
        Workpiece known = kept.getIfPresent(stock);
        return known != null ? known : fresh.getIfPresent(stock);
    }

    /** The work that opens the plan, for a page that waits for it and is then shown. */
    public Job prepare(PlanState plan) {
        return begin(stock(plan));
    }

    /** Work on a plan at one of its pages, done once for all who look at that. */
    private record Errand(Stock stock, String place) {}

    /**
     * More work that a page of an open plan needs; the job is over where it took no longer than a click.
     *
     * @param place of the page under the plan's own
     * @param title as people read it
     */
    Job more(Workpiece of, String place, String title, Consumer<Progress> work) {
        Stock stock = stock(of.plan());
        boolean isCurrent = known(stock) == of;
        Job job = jobs.start(new Errand(stock, place), title, progress -> {
            work.accept(progress);
            if (isCurrent) {
                // It may have gone meanwhile, and what was found would go with it.
                keep(stock, of);
            }
            return Job.Work.HERE;
        });
        job.endsWithin(CLICK);
        return job;
    }

    private Stock stock(PlanState plan) {
        return new Stock(
                plan,
                workshop.get(plan.content().printer()),
                shelf.byId(),
                shelf.all().stream().map(Spool::id).toList(),
                settings.now(),
                nozzles.of(plan.content().printer()),
                rehearsed.of(plan).filter(w -> !w.clean()).map(Rehearsed.Word::summary));
    }

    private Job begin(Stock stock) {
        return jobs.start(stock, "Opening " + stock.plan().name(), progress -> {
            Workpiece made = assemble(stock, progress);
            keep(stock, made);
            return Job.Work.HERE;
        });
    }

    private void keep(Stock stock, Workpiece made) {
        fresh.put(stock, made);
        kept.put(stock, made);
    }

    private Workpiece assemble(Stock stock, Progress progress) {
        PlanState plan = stock.plan();
        Machine machine = stock.machine();
        ModelCuts.Cut cut = cuts.cut(plan.content(), progress);
        Colouring colouring = cuts.colouring(plan.content(), machine.printer().lineWidth(), progress);
        Optional<String> hash = plan.gcode().map(PlanState.Gcode::hash);
        Brief brief = new Brief(
                plan.id(),
                colouring,
                names(plan),
                plan.content().purge(),
                machine.purges(),
                machine.rig(),
                stock.shelf(),
                stock.atHand(),
                hash.map(h -> sliced.survey(h, machine.printer(), progress)),
                plan.gcode().map(PlanState.Gcode::said).orElse(Said.NOTHING),
                Rearranging.NONE,
                new Terms(
                        plan.content().copies(),
                        stock.settings().power(machine.printer().watts()),
                        plan.content().filling()),
                plan.content().plate(),
                cut.footprint(),
                // A start that has fallen into an hour that is skipped is an hour later.
                plan.content().start().map(s -> s.atZone(stock.settings().zone())),
                stock.settings().quiet(),
                plan.written(),
                stock.inNozzle(),
                stock.rehearsed());
        Rearranging rearranging = hash.flatMap(
                        h -> Wish.of(brief, () -> sliced.plain(h, machine.printer(), progress), progress)
                                .map(wish -> sliced.rearranged(h, wish, machine.printer(), progress)))
                .orElse(Rearranging.NONE);
        Reckoning reckoning = Reckoning.of(
                brief.with(rearranging),
                looks(colouring, stock.shelf()),
                Optional.ofNullable(reckoned.getIfPresent(plan.id())),
                progress);
        reckoned.put(plan.id(), reckoning);
        return new Workpiece(plan, cut, machine, reckoning);
    }

    private Looks looks(Colouring colouring, Map<SpoolId, Spool> shelf) {
        return looks.asMap()
                .compute(colouring, (c, known) -> known != null && known.isOf(c, shelf) ? known : new Looks(c, shelf));
    }

    /** What the parts are called: by their owner, or else by their files. */
    private List<String> names(PlanState plan) {
        List<Part> parts = cuts.model(plan.content().files(), Progress.UNHEARD).parts();
        return IntStream.range(0, parts.size())
                .mapToObj(i -> {
                    String own = plan.content().parts().of(i).name();
                    return own.isEmpty() ? parts.get(i).name() : own;
                })
                .toList();
    }
}
