package dev.tranche.app.library;

import dev.tranche.app.history.Broken;
import dev.tranche.app.history.Reading;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Room;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Plans as cards. Figures are kept with the editions they belong to: a page of cards takes as many statements for a
 * thousand plans as for one, and reckons none of them. A card whose figures are out of date is made anew when it is seen.
 */
@Service
class Cards {
    /** Changes when figures are reckoned or drawn otherwise. */
    private static final String MAKING = "3";

    private final Plans plans;
    private final Workshop workshop;
    private final Shelf shelf;
    private final Settings settings;
    private final Workbench workbench;
    private final CardRepository cards;
    private final Rehearsed rehearsed;
    private final Room room;
    private final Json json;

    Cards(
            Plans plans,
            Workshop workshop,
            Shelf shelf,
            Settings settings,
            Workbench workbench,
            CardRepository cards,
            Rehearsed rehearsed,
            Room room,
            Json json) {
        this.json = json;
        this.rehearsed = rehearsed;
        this.room = room;
        this.plans = plans;
        this.workshop = workshop;
        this.shelf = shelf;
        this.settings = settings;
        this.workbench = workbench;
        this.cards = cards;
    }

    /**
     * @param rehearsed whether it came out clean as it is now
     * @param figures nothing while they have to be made
     * @param wrong why they cannot be; null if they can
     */
    record Card(String id, String name, int variants, boolean rehearsed, Optional<PlanFigures> figures, String wrong) {}

    @Reading
    public List<Card> all() {
        List<Plans.Listed> listed = plans.listed();
        Map<String, CardEntity> kept =
                cards.findAll().stream().collect(Collectors.toMap(c -> c.plan, Function.identity()));
        Map<Long, String> machines = workshop.stamps();
        String world = world();
        Map<String, Long> variants = listed.stream()
                .filter(p -> p.variantOf() != null)
                .collect(Collectors.groupingBy(Plans.Listed::variantOf, Collectors.counting()));
        Map<String, String> on = new HashMap<>();
        kept.values().forEach(c -> on.put(c.plan, machines.getOrDefault(c.printer, "")));
        Set<String> clean = rehearsed.clean(listed, on);
        return listed.stream()
                .filter(p -> p.variantOf() == null)
                .map(p -> new Card(
                        p.id(),
                        p.name(),
                        variants.getOrDefault(p.id(), 0L).intValue(),
                        clean.contains(p.id()),
                        Optional.ofNullable(kept.get(p.id()))
                                .filter(c -> c.edition == p.edition()
                                        && c.world.equals(world)
                                        && c.machine.equals(machines.get(c.printer)))
                                .flatMap(this::figures),
                        null))
                .toList();
    }

    private Optional<PlanFigures> figures(CardEntity card) {
        try {
            return Optional.of(json.read(card.figures, PlanFigures.class));
        } catch (Unreadable madeAnew) {
            return Optional.empty();
        }
    }

    /** The card of one plan with its figures, which are kept; without them while it is still being opened. */
    @Transactional(noRollbackFor = Broken.class)
    public Card make(String id) {
        try {
            PlanState plan = plans.get(id);
            Optional<Workpiece> work = workbench.open(plan);
            work.ifPresent(this::keep);
            return new Card(
                    id,
                    plan.name(),
                    plans.variants(id).size(),
                    rehearsed.of(plan).filter(Rehearsed.Word::clean).isPresent(),
                    work.map(PlanFigures::of),
                    null);
        } catch (Broken broken) {
            String name = plans.listed().stream()
                    .filter(p -> p.id().equals(id))
                    .map(Plans.Listed::name)
                    .findFirst()
                    .orElse("");
            return new Card(id, name, 0, false, Optional.empty(), broken.getMessage());
        }
    }

    private void keep(Workpiece work) {
        if (room.sentence().isPresent()) {
            return;
        }
        // Two pages that keep the same card come one after the other.
        plans.claim(work.plan().id());
        CardEntity card = new CardEntity();
        card.plan = work.plan().id();
        card.edition = work.plan().edition();
        card.printer = work.machine().id();
        card.machine = workshop.stamps().get(card.printer);
        card.world = world();
        card.figures = json.write(PlanFigures.of(work));
        cards.save(card);
    }

    private String world() {
        return MAKING + "-" + shelf.byId().toString().hashCode() + "-"
                + settings.now().toString().hashCode();
    }
}
