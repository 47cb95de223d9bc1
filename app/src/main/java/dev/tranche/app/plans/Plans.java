package dev.tranche.app.plans;

import dev.tranche.app.history.Broken;
import dev.tranche.app.history.Histories;
import dev.tranche.app.history.Past;
import dev.tranche.app.history.Reading;
import dev.tranche.app.history.StalePage;
import dev.tranche.app.history.Version;
import dev.tranche.app.plans.PlanState.Gcode;
import dev.tranche.app.shelf.SpoolUse;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Plans with their history. Every edit is one transaction and one revision; undo and redo move between them. */
@Service
@Transactional(noRollbackFor = Broken.class)
public class Plans implements SpoolUse {
    private static final int LONGEST_NAME = 80;
    private static final int MOST_VARIANTS = 7;

    private final PlanRepository plans;
    private final Histories histories;
    private final Clock clock;

    Plans(PlanRepository plans, Histories histories, Clock clock) {
        this.plans = plans;
        this.histories = histories;
        this.clock = clock;
    }

    /** All plans that can be read, with their variants, the last changed first. */
    @Reading
    public List<PlanState> all() {
        List<PlanState> kept = plans.findByDeletedAtIsNullOrderByChangedDesc().stream()
                .flatMap(p -> whole(p).stream())
                .toList();
        Set<String> ids = kept.stream().map(PlanState::id).collect(Collectors.toSet());
        return kept.stream().filter(p -> ids.contains(p.root())).toList();
    }

    /** The variants that were tried beside a plan, the oldest first. */
    @Reading
    public List<PlanState> variants(String root) {
        return plans.findByVariantOfAndDeletedAtIsNullOrderByCreated(root).stream()
                .flatMap(p -> whole(p).stream())
                .toList();
    }

    @Reading
    public PlanState get(String id) {
        return state(find(plans.findById(id)));
    }

    public PlanState create(String name, PlanContent content) {
        return create(name, content, null);
    }

    /** Tries a plan otherwise, beside it; its sliced file is taken along. */
    public PlanState variant(String id, String name, UnaryOperator<PlanContent> change) {
        PlanState plan = get(id);
        if (variants(plan.root()).size() >= MOST_VARIANTS) {
            throw Refusal.of("A plan takes at most %d variants; drop one first.", MOST_VARIANTS);
        }
        PlanState variant = create(name, change.apply(plan.content()), plan.root());
        plan.gcode().ifPresent(g -> giveGcode(variant.id(), g));
        return get(variant.id());
    }

    /** Makes a plan what its variant is; the variant stays. A plan that has no sliced file takes the variant's. */
    public PlanState adopt(String id, long seen, String variant) {
        PlanState taken = get(variant);
        if (!taken.root().equals(id)) {
            throw gone();
        }
        PlanState made = editAll(id, seen, "adopt " + taken.name(), c -> taken.content());
        if (made.gcode().isPresent() || taken.gcode().isEmpty()) {
            return made;
        }
        giveGcode(id, taken.gcode().orElseThrow());
        return get(id);
    }

    private PlanState create(String name, PlanContent content, String variantOf) {
        PlanEntity plan = new PlanEntity();
        plan.variantOf = variantOf;
        plan.id = UUID.randomUUID().toString().substring(0, 8);
        plan.name = checkedName(name);
        plan.created = clock.instant();
        plan.changed = plan.created;
        note(plan, content);
        plans.save(plan);
        return state(plan, histories.begin(history(plan.id), content));
    }

    /**
     * Makes an edit of the colours.
     *
     * @param seen the edition the page showed when the edit was made
     * @param label what it does, for undo
     * @throws StalePage if the plan has moved on since
     */
    public PlanState edit(String id, long seen, String label, UnaryOperator<ColourPlan> change) {
        return editAll(id, seen, label, content -> content.with(change.apply(content.colours())));
    }

    /** As {@link #edit}, of anything that undo goes back and forth through. */
    public PlanState editAll(String id, long seen, String label, UnaryOperator<PlanContent> change) {
        PlanEntity plan = find(plans.lock(id));
        return moved(plan, histories.edit(history(id), seen, label, change));
    }

    public PlanState undo(String id, long seen) {
        PlanEntity plan = find(plans.lock(id));
        return moved(plan, histories.undo(history(id), seen));
    }

    public PlanState redo(String id, long seen) {
        PlanEntity plan = find(plans.lock(id));
        return moved(plan, histories.redo(history(id), seen));
    }

    /** Every point of a plan's history, the latest first. */
    @Reading
    public List<Past> past(String id) {
        find(plans.findById(id));
        return histories.past(history(id));
    }

    /** The number of the point that holds. */
    @Reading
    public int head(String id) {
        return histories.head(history(id));
    }

    /** The plan as it was at a point of its history. */
    @Reading
    public PlanState at(String id, int number) {
        PlanContent then = histories.at(history(id), number);
        long edition = past(id).stream()
                .filter(p -> p.number() == number)
                .mapToLong(Past::edition)
                .findFirst()
                .orElseThrow();
        return get(id).asAt(edition, then);
    }

    /** Makes the plan what it was then. */
    public PlanState goTo(String id, long seen, int number) {
        PlanEntity plan = find(plans.lock(id));
        return moved(plan, histories.goTo(history(id), seen, number));
    }

    private PlanState moved(PlanEntity plan, Version<PlanContent> version) {
        plan.changed = clock.instant();
        note(plan, version.content());
        return state(plan, version);
    }

    public PlanState rename(String id, String name) {
        PlanEntity plan = find(plans.lock(id));
        plan.name = checkedName(name);
        return state(plan);
    }

    public PlanState duplicate(String id) {
        PlanState original = get(id);
        String name = original.name() + " (copy)";
        PlanState copy = create(name.length() <= LONGEST_NAME ? name : original.name(), original.content());
        original.gcode().ifPresent(g -> giveGcode(copy.id(), g));
        return copy;
    }

    /** Puts a plan away; {@link #restore} brings it back. */
    public void delete(String id) {
        find(plans.lock(id)).deletedAt = clock.instant();
    }

    public void restore(String id) {
        plans.lock(id).orElseThrow(Plans::gone).deletedAt = null;
    }

    /** Puts a variant of {@code id} away. */
    public void drop(String id, String variant) {
        variantOf(id, variant).deletedAt = clock.instant();
    }

    public void bringBack(String id, String variant) {
        variantOf(id, variant).deletedAt = null;
    }

    private PlanEntity variantOf(String id, String variant) {
        return plans.lock(variant)
                .filter(v -> id.equals(v.variantOf))
                .orElseThrow(() -> new Refusal("That is no variant of this plan; reload the page."));
    }

    public void giveGcode(String id, Gcode gcode) {
        PlanEntity plan = find(plans.lock(id));
        plan.gcodeHash = gcode.hash();
        plan.gcodeName = Words.oneLine(gcode.name());
        say(plan, gcode.said());
        touch(plan);
    }

    /**
     * Says something of the sliced file.
     *
     * @param seen the edition the page showed
     */
    public void say(String id, long seen, BiFunction<PlanState, Said, Said> what) {
        claim(id);
        PlanState now = get(id);
        if (now.edition() != seen) {
            throw histories.stale(history(id), seen);
        }
        Gcode gcode = now.gcode()
                .orElseThrow(() -> new Refusal("There is no G-code in this plan any more; reload the page."));
        giveGcode(id, gcode.with(what.apply(now, gcode.said())));
    }

    public void takeGcodeAway(String id) {
        PlanEntity plan = find(plans.lock(id));
        plan.gcodeHash = null;
        plan.gcodeName = null;
        say(plan, Said.NOTHING);
        touch(plan);
    }

    private static void say(PlanEntity plan, Said said) {
        StoredSaid stored = StoredSaid.of(said);
        plan.gcodeTools = stored.tools();
        plan.gcodeStops = stored.stops();
        plan.gcodeAccepted = stored.accepted();
    }

    public void wrote(String id, String state) {
        find(plans.lock(id)).writtenState = state;
    }

    @Override
    @Reading
    public List<String> using(SpoolId spool) {
        return listed().stream()
                .filter(p -> p.spools().contains(spool))
                .map(Listed::title)
                .toList();
    }

    /** Until the transaction is over, nobody else changes the plan, or what is kept with it. */
    public void claim(String id) {
        find(plans.lock(id));
    }

    /** Whether any plan, in any state that undo may bring back, holds the file {@code hash}. */
    @Reading
    public boolean hold(String hash) {
        return plans.existsByGcodeHash(hash) || histories.hold(hash);
    }

    /**
     * A plan as a list shows it, whether it can be read or not.
     *
     * @param variantOf the plan it was tried beside; null if it is no variant
     * @param beside that plan's name
     * @param printer that prints it; null if it cannot be read
     * @param spools numbers of those it prints with
     */
    public record Listed(
            String id,
            String name,
            String variantOf,
            String beside,
            Instant changed,
            long edition,
            Tags tags,
            Long printer,
            Set<SpoolId> spools) {
        Listed(
                String id,
                String name,
                String variantOf,
                String beside,
                Instant changed,
                long edition,
                String tags,
                Long printer,
                String spools) {
            this(id, name, variantOf, beside, changed, edition, Tags.parse(tags), printer, numbers(spools));
        }

        /** What it is known by where plans and variants stand together. */
        public String title() {
            return variantOf == null ? name : beside + ": " + name;
        }

        private static Set<SpoolId> numbers(String spools) {
            return Pattern.compile("\\d+")
                    .matcher(spools == null ? "" : spools)
                    .results()
                    .map(number -> new SpoolId(Long.parseLong(number.group())))
                    .collect(Collectors.toCollection(LinkedHashSet::new));
        }
    }

    /** All plans and their variants, without those put away, the last changed first, in one statement. */
    @Reading
    public List<Listed> listed() {
        return plans.listed();
    }

    /** As {@link #listed()}, of one. */
    @Reading
    public Listed listed(String id) {
        return plans.listed(id).orElseThrow(Plans::gone);
    }

    /** Does all of it or nothing. */
    public void together(Runnable deeds) {
        deeds.run();
    }

    /** Gives a plan other tags. */
    public void tag(String id, UnaryOperator<Tags> change) {
        PlanEntity plan = find(plans.lock(id));
        plan.tags = change.apply(Tags.parse(plan.tags)).toString();
    }

    /** Notes of plans of earlier versions what lists are searched by. */
    public void noteAll() {
        plans.findByPrinterIsNull().forEach(plan -> whole(plan).ifPresent(state -> note(plan, state.content())));
    }

    private static void note(PlanEntity plan, PlanContent content) {
        plan.printer = content.printer();
        plan.spools = content.colours().paletteInUse().stream()
                .map(spool -> "," + spool.value())
                .collect(Collectors.joining("", "", ","));
    }

    /** The spools that the plans changed last print with, the latest first. */
    @Reading
    public Set<SpoolId> lastUsed() {
        return plans.findTop12ByDeletedAtIsNullOrderByChangedDesc().stream()
                .flatMap(p -> Listed.numbers(p.spools).stream())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** The plan that was changed last, if there is any. */
    @Reading
    public Optional<String> latest() {
        return plans.findTop12ByDeletedAtIsNullOrderByChangedDesc().stream()
                .map(p -> p.id)
                .findFirst();
    }

    /** The printers of the plans changed last, the latest first. */
    @Reading
    public Set<Long> lastPrinters() {
        return plans.findTop12ByDeletedAtIsNullOrderByChangedDesc().stream()
                .flatMap(p -> Stream.ofNullable(p.printer))
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** A plan that was put away and can still be brought back. */
    public record Deleted(String id, String name, Instant at) {}

    /** What was put away, the latest first; variants apart. */
    @Reading
    public List<Deleted> deleted() {
        return plans.findByVariantOfIsNullAndDeletedAtIsNotNullOrderByDeletedAtDesc().stream()
                .map(p -> new Deleted(p.id, p.name, p.deletedAt))
                .toList();
    }

    /** Forgets for good what was put away before {@code then}, with its variants. */
    public void forgetDeleted(Instant then) {
        for (PlanEntity plan : plans.findByDeletedAtBefore(then)) {
            plans.findByVariantOf(plan.id).forEach(this::forget);
            forget(plan);
        }
    }

    private void forget(PlanEntity plan) {
        histories.forget(history(plan.id));
        plans.delete(plan);
    }

    private void touch(PlanEntity plan) {
        plan.changed = clock.instant();
        histories.touch(history(plan.id));
    }

    private static Histories.Owner<PlanContent> history(String id) {
        return new Histories.Owner<>("plan", id, StoredPlan.FORMAT);
    }

    private PlanState state(PlanEntity plan) {
        return state(plan, histories.now(history(plan.id)));
    }

    /** A plan that cannot be read says so on its own page. */
    private Optional<PlanState> whole(PlanEntity plan) {
        try {
            return Optional.of(state(plan));
        } catch (Broken said) {
            return Optional.empty();
        }
    }

    private static PlanState state(PlanEntity plan, Version<PlanContent> version) {
        return new PlanState(
                plan.id,
                plan.name,
                version.content(),
                version.edition(),
                version.undo(),
                version.redo(),
                Optional.ofNullable(plan.gcodeHash)
                        .map(h -> new Gcode(
                                h,
                                plan.gcodeName,
                                new StoredSaid(plan.gcodeTools, plan.gcodeStops, plan.gcodeAccepted).said())),
                Optional.ofNullable(plan.writtenState),
                plan.changed,
                Optional.ofNullable(plan.variantOf));
    }

    private static String checkedName(String name) {
        String line = Words.oneLine(name == null ? "" : name);
        if (line.isEmpty() || line.length() > LONGEST_NAME) {
            throw Refusal.of("A plan needs a name of at most %d letters.", LONGEST_NAME);
        }
        return line;
    }

    private static PlanEntity find(Optional<PlanEntity> plan) {
        return plan.filter(p -> p.deletedAt == null).orElseThrow(Plans::gone);
    }

    private static Refusal gone() {
        return new Refusal("That plan is not here; it may have been deleted. Choose another under Plans.");
    }
}
