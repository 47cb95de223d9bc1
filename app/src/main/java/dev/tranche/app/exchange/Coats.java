package dev.tranche.app.exchange;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.coat.Coating;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.Coat;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Takes what model files paint on the outside of their parts into a plan, as regions traced of it. */
@Service
public class Coats {
    private static final String PAINTING = "Colouring the model as it is painted";
    /** s */
    private static final int PATIENCE = 300;

    private final Plans plans;
    private final ModelCuts cuts;
    private final Workshop workshop;
    private final FileColours colours;
    private final Jobs jobs;

    Coats(Plans plans, ModelCuts cuts, Workshop workshop, FileColours colours, Jobs jobs) {
        this.plans = plans;
        this.cuts = cuts;
        this.workshop = workshop;
        this.colours = colours;
        this.jobs = jobs;
    }

    /** All of a plan as it is painted, in the place of what was taken so before; ends at the desk. */
    public Job paint(PlanState plan, long seen) {
        return jobs.start(PAINTING, progress -> {
            Map<Integer, Coat> coats =
                    cuts.model(plan.content().files(), progress).coats();
            List<Region> painted = drawing(plan.content(), coats, progress).regions(progress);
            plans.editAll(
                    plan.id(),
                    seen,
                    "colour the model as it is painted",
                    c -> with(c.with(unpainted(c.colours())), painted));
            return "/plans/" + plan.id() + "?side=parts";
        });
    }

    static PlanContent with(PlanContent content, List<Region> painted) {
        Regions regions = content.colours().regions();
        for (Region region : painted) {
            regions = regions.plus(region);
        }
        return content.with(content.colours().with(regions));
    }

    /** What a plan begins with, by a worker: the coats of parts from number {@code first} on. */
    List<Region> begin(PlanContent content, int first, Progress progress) {
        return orNone(() -> few(content, first, progress).regions(progress));
    }

    /** As {@link #begin}, for requests: colours are chosen here, and a worker does the rest while they wait. */
    List<Region> atHand(PlanContent content) {
        return orNone(() -> jobs.await(PAINTING, PATIENCE, few(content, 0, Progress.UNHEARD)::regions));
    }

    /** Nothing where it is too much for a plan: what was wrong is said to whoever asks for it at the desk. */
    private static List<Region> orNone(Supplier<List<Region>> painted) {
        try {
            return painted.get();
        } catch (Refusal tooMuch) {
            return List.of();
        }
    }

    /** But for coats of so many colours that somebody has to ask for them: it takes its time, and spools. */
    private Drawing few(PlanContent content, int first, Progress progress) {
        Map<Integer, Coat> coats =
                new TreeMap<>(cuts.model(content.files(), progress).coats());
        coats.entrySet().removeIf(c -> c.getKey() < first || c.getValue().isOfMany());
        return drawing(content, coats, progress);
    }

    private Drawing drawing(PlanContent content, Map<Integer, Coat> coats, Progress progress) {
        List<Coat.Hue> hues = coats.values().stream()
                .flatMap(c -> c.hues().stream())
                .filter(h -> h.colour().isPresent())
                .distinct()
                .toList();
        requireRoom(content, coats.values(), hues);
        Map<Coat.Hue, Spool> spools = new HashMap<>();
        hues.forEach(h -> spools.put(h, colours.spool(h.colour().orElseThrow(), h.called())));
        double lineWidth = workshop.get(content.printer()).printer().lineWidth();
        return new Drawing(cuts.cut(content, progress).model(), coats, spools, lineWidth);
    }

    /** Before any colour becomes a spool of the shelf; what covers most of a part the plan has already. */
    private static void requireRoom(PlanContent content, Collection<Coat> coats, List<Coat.Hue> hues) {
        Set<Optional<Srgb>> more = hues.stream().map(Coat.Hue::colour).collect(Collectors.toCollection(HashSet::new));
        coats.forEach(c -> more.remove(c.hues().get(0).colour()));
        Coating.requireRoom(unpainted(content.colours()).palette().size() + more.size());
    }

    /** Without what was taken of coats before. */
    private static ColourPlan unpainted(ColourPlan colours) {
        return colours.with(new Regions(
                colours.regions().list().stream().filter(r -> !Coating.made(r)).toList()));
    }

    /** All that is chosen, and nothing drawn yet. */
    private record Drawing(CutModel model, Map<Integer, Coat> coats, Map<Coat.Hue, Spool> spools, double lineWidth) {
        List<Region> regions(Progress progress) {
            return coats.isEmpty() ? List.of() : Coating.regions(model, coats, spools::get, lineWidth, progress);
        }
    }
}
