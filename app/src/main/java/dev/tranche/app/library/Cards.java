package dev.tranche.app.library;

import dev.tranche.app.history.Broken;
import dev.tranche.app.history.Reading;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.library.CardRepository.Kept;
import dev.tranche.app.library.Search.Figures;
import dev.tranche.app.library.Search.Sort;
import dev.tranche.app.pictures.PieceDrawing;
import dev.tranche.app.pictures.PiecePainter;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.plans.Tags;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Room;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.app.work.Looking;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.look.View;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.awt.Color;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/**
 * Plans as cards. Figures are kept with the editions they belong to: a page of cards takes as many statements for a
 * thousand plans as for one, and reckons none of them. A card whose figures are out of date is made anew when it is seen.
 */
@Service
class Cards {
    /** Changes when figures are reckoned or drawn otherwise. */
    private static final String MAKING = "4";
    /** Of the picture, px. */
    private static final int WIDTH = 248;

    private static final int HEIGHT = 190;
    /** Of a picture of a page's own. */
    private static final double STANDING = 0.6;

    private static final int SECONDS = 60;

    private final Plans plans;
    private final Workshop workshop;
    private final Shelf shelf;
    private final Settings settings;
    private final Workbench workbench;
    private final Looking looking;
    private final CardRepository cards;
    private final Rehearsed rehearsed;
    private final Room room;
    private final Json json;
    private final Jobs jobs;

    Cards(
            Plans plans,
            Workshop workshop,
            Shelf shelf,
            Settings settings,
            Workbench workbench,
            Looking looking,
            CardRepository cards,
            Rehearsed rehearsed,
            Room room,
            Json json,
            Jobs jobs) {
        this.json = json;
        this.jobs = jobs;
        this.looking = looking;
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
     * @param stamp another whenever the picture may be
     * @param figures nothing while they have to be made
     * @param wrong why they cannot be; null if they can
     */
    record Card(
            String id,
            String name,
            Tags tags,
            int variants,
            boolean rehearsed,
            String stamp,
            Optional<PlanFigures> figures,
            String wrong) {}

    /**
     * A page of cards.
     *
     * @param found how many plans are meant in all, of {@code all} that there are
     */
    record Page(List<Card> cards, int found, int all, Search search) {
        /** How many come after this page. */
        public int left() {
            return Math.max(0, found - search.page() * Search.ON_A_PAGE);
        }
    }

    /** The page of cards that is wanted, and no card before it. */
    @Reading
    public Page find(Search search) {
        List<Plans.Listed> listed = plans.listed();
        List<Plans.Listed> roots =
                listed.stream().filter(p -> p.variantOf() == null).toList();
        List<Plans.Listed> found = search.in(roots, words(), sorted(search));
        List<Plans.Listed> page = found.stream()
                .skip((search.page() - 1L) * Search.ON_A_PAGE)
                .limit(Search.ON_A_PAGE)
                .toList();
        return new Page(cards(page, listed), found.size(), roots.size(), search);
    }

    /** What a plan is found by. */
    private Function<Plans.Listed, String> words() {
        Map<Long, String> printers = workshop.all().stream()
                .collect(Collectors.toMap(Machine::id, m -> m.printer().name()));
        Map<SpoolId, Spool> spools = shelf.byId();
        return p -> p.name() + " " + p.tags() + " " + printers.getOrDefault(p.printer(), "") + " "
                + p.spools().stream()
                        .filter(spools::containsKey)
                        .map(id -> spools.get(id).name())
                        .collect(Collectors.joining(" "));
    }

    private Map<String, Figures> sorted(Search search) {
        return search.sort() == Sort.TOUCHED || search.sort() == Sort.NAME
                ? Map.of()
                : cards.sorted().stream()
                        .collect(Collectors.toMap(c -> c.plan(), c -> new Figures(c.swaps(), c.seconds())));
    }

    private List<Card> cards(List<Plans.Listed> page, List<Plans.Listed> all) {
        Map<String, Kept> kept = cards.kept(page.stream().map(Plans.Listed::id).toList()).stream()
                .collect(Collectors.toMap(Kept::plan, Function.identity()));
        Map<Long, String> machines = workshop.stamps();
        String world = world();
        Map<String, Long> variants = all.stream()
                .filter(p -> p.variantOf() != null)
                .collect(Collectors.groupingBy(Plans.Listed::variantOf, Collectors.counting()));
        Map<String, String> on = new HashMap<>();
        page.forEach(p -> on.put(p.id(), machines.getOrDefault(p.printer(), "")));
        Set<String> clean = rehearsed.clean(page, on);
        return page.stream()
                .map(p -> new Card(
                        p.id(),
                        p.name(),
                        p.tags(),
                        variants.getOrDefault(p.id(), 0L).intValue(),
                        clean.contains(p.id()),
                        stamp(p, world, machines),
                        Optional.ofNullable(kept.get(p.id()))
                                .filter(c -> c.edition() == p.edition()
                                        && c.world().equals(world)
                                        && c.machine().equals(machines.get(c.printer())))
                                .flatMap(this::figures),
                        null))
                .toList();
    }

    private Optional<PlanFigures> figures(Kept card) {
        try {
            return Optional.of(json.read(card.figures(), PlanFigures.class));
        } catch (Unreadable madeAnew) {
            return Optional.empty();
        }
    }

    /**
     * The card of one plan with its figures, which are kept; without them while it is still being opened and looked at. The database
     * is left alone meanwhile.
     */
    public Card make(String id) {
        Plans.Listed listed = plans.listed(id);
        try {
            PlanState plan = plans.get(id);
            Optional<Workpiece> work = workbench.open(plan);
            Optional<byte[]> picture = work.flatMap(this::drawn);
            picture.ifPresent(png -> keep(work.orElseThrow(), png));
            return card(
                    listed,
                    rehearsed.of(plan).filter(Rehearsed.Word::clean).isPresent(),
                    picture.flatMap(png -> work).map(PlanFigures::of),
                    null);
        } catch (Broken broken) {
            return card(listed, false, Optional.empty(), broken.getMessage());
        } catch (Refusal refusal) {
            return card(listed, false, Optional.empty(), refusal.getMessage());
        }
    }

    private Card card(Plans.Listed p, boolean clean, Optional<PlanFigures> figures, String wrong) {
        int variants = plans.variants(p.id()).size();
        String stamp = stamp(p, world(), workshop.stamps());
        return new Card(p.id(), p.name(), p.tags(), variants, clean, stamp, figures, wrong);
    }

    /** The piece, as the card was made last. */
    @Reading
    public byte[] picture(String id) {
        return cards.picture(id).orElseThrow(() -> new Refusal("There is no picture of this plan yet; open it."));
    }

    /** From above as it will look; standing, where that would take longer than anybody waits for a card. */
    private Optional<byte[]> drawn(Workpiece work) {
        return work.looks().isQuick()
                ? looking.at(work, View.ABOVE)
                        .map(seen ->
                                PiecePainter.png(PieceDrawing.of(work, View.ABOVE, seen, false, 1, WIDTH, HEIGHT), 2))
                : Optional.of(jobs.await(
                        "A picture of " + work.plan().name(),
                        SECONDS,
                        progress -> PiecePainter.standing(work, STANDING, Color.WHITE)));
    }

    private void keep(Workpiece work, byte[] picture) {
        if (room.sentence().isPresent()) {
            return;
        }
        PlanFigures figures = PlanFigures.of(work);
        CardEntity card = new CardEntity();
        card.plan = work.plan().id();
        card.edition = work.plan().edition();
        card.printer = work.machine().id();
        card.machine = workshop.stamps().get(card.printer);
        card.world = world();
        card.swaps = figures.swaps();
        card.seconds = figures.total();
        card.figures = json.write(figures);
        card.picture = picture;
        plans.together(() -> {
            // Two pages that keep the same card come one after the other.
            plans.claim(card.plan);
            cards.save(card);
        });
    }

    private static String stamp(Plans.Listed p, String world, Map<Long, String> machines) {
        return p.edition() + "-" + Integer.toHexString(Objects.hash(world, machines.get(p.printer())));
    }

    private String world() {
        return MAKING + "-" + shelf.byId().toString().hashCode() + "-"
                + settings.now().toString().hashCode();
    }
}
