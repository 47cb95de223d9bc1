package dev.tranche.app.exchange;

import dev.tranche.app.drawing.PartPainter;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PartNotes;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.format.Part;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;

/** Where files hold several models, or things that stand apart: offers them, and begins what is chosen. */
@Service
public class Choosing {
    /** Things of one file that are offered one by one. */
    private static final int MOST_OFFERED = 60;
    /** px */
    private static final int PICTURE_WIDTH = 240;

    private static final int PICTURE_HEIGHT = 170;

    private final ModelCuts cuts;
    private final Jobs jobs;
    private final Offers offers;
    private final PlanMaker maker;

    Choosing(ModelCuts cuts, Jobs jobs, Offers offers, PlanMaker maker) {
        this.cuts = cuts;
        this.jobs = jobs;
        this.offers = offers;
        this.maker = maker;
    }

    /** Where one chooses among models that came as {@code name}, or the plan of the only one. */
    String among(String name, List<ModelFile> models, Progress progress) {
        if (models.size() == 1) {
            return begun(maker.content(models), progress);
        }
        List<Offers.Candidate> candidates = new ArrayList<>();
        for (ModelFile model : models) {
            candidates.add(candidate(model, progress));
        }
        return "/offers/" + offers.make(name, candidates).id();
    }

    /** A plan; or, where one file holds things that stand apart, where one chooses among them. */
    String begun(PlanContent content, Progress progress) {
        PartedModel model = cuts.model(content.files(), progress);
        List<List<Integer>> apart = model.apart();
        if (content.files().size() > 1 || apart.size() == 1 || apart.size() > MOST_OFFERED) {
            return "/plans/" + maker.create(content, progress).id();
        }
        ModelFile file = content.files().get(0);
        List<Offers.Candidate> things = new ArrayList<>();
        for (List<Integer> thing : apart) {
            progress.beat();
            things.add(thing(file, model, thing, progress));
        }
        return "/offers/" + offers.make(file.name(), things).id();
    }

    private static Offers.Candidate thing(ModelFile file, PartedModel model, List<Integer> parts, Progress progress) {
        String first = model.parts().get(parts.get(0)).name();
        return drawn(
                file,
                parts.size() == 1 ? first : Words.format("%s and %d more", first, parts.size() - 1),
                parts,
                parts.stream().map(model.parts()::get).toList(),
                progress);
    }

    private Offers.Candidate candidate(ModelFile file, Progress progress) {
        try {
            return drawn(
                    file,
                    file.name(),
                    List.of(),
                    cuts.model(List.of(file), progress).parts(),
                    progress);
        } catch (Refusal unreadable) {
            return new Offers.Candidate(file, file.name(), List.of(), unreadable.getMessage(), false, new byte[0]);
        }
    }

    private static Offers.Candidate drawn(
            ModelFile file, String name, List<Integer> numbers, List<Part> parts, Progress progress) {
        List<Mesh> solids = parts.stream().map(Part::mesh).toList();
        Body body = new Body(solids, 0);
        String size = Words.format(
                "%.1f × %.1f × %.1f mm",
                body.footprint().getWidth(),
                body.footprint().getHeight(),
                body.height().millimetres() - lowest(solids));
        return new Offers.Candidate(
                file, name, numbers, size, true, PartPainter.png(parts, PICTURE_WIDTH, PICTURE_HEIGHT, progress));
    }

    /** mm */
    private static double lowest(List<Mesh> solids) {
        return solids.stream().mapToInt(Mesh::bottom).min().orElse(0) / 1000.0;
    }

    /** Begins what was chosen: one plan of all of it, aligned by their origins, or a plan each. */
    public Job take(Offers.Offer offer, List<Integer> chosen, boolean together) {
        List<Offers.Candidate> wanted = chosen.stream()
                .filter(i -> i >= 0 && i < offer.candidates().size())
                .map(i -> offer.candidates().get(i))
                .filter(Offers.Candidate::readable)
                .toList();
        if (wanted.isEmpty()) {
            throw new Refusal("Choose at least one of them.");
        }
        List<List<Offers.Candidate>> each =
                together ? List.of(wanted) : wanted.stream().map(List::of).toList();
        each.forEach(c -> PlanMaker.requireRoom(files(c).size()));
        return jobs.start("Reading and cutting " + wanted.get(0).name(), progress -> {
            String last = "";
            for (List<Offers.Candidate> one : each) {
                last = create(one, offer, progress).id();
            }
            return each.size() == 1 ? "/plans/" + last : "/";
        });
    }

    private static List<ModelFile> files(List<Offers.Candidate> chosen) {
        return chosen.stream().map(Offers.Candidate::file).distinct().toList();
    }

    /** One plan of what was chosen; of a file whose things were chosen from, the rest is left out, and can be taken in again. */
    private PlanState create(List<Offers.Candidate> chosen, Offers.Offer offer, Progress progress) {
        PlanContent content = maker.content(files(chosen));
        if (!offer.ofOneFile() || chosen.size() == offer.candidates().size()) {
            return maker.create(content, progress);
        }
        PartedModel model = cuts.model(content.files(), progress);
        List<Integer> kept =
                chosen.stream().flatMap(c -> c.parts().stream()).sorted().toList();
        double lowest =
                lowest(kept.stream().map(p -> model.parts().get(p).mesh()).toList());
        PartNotes notes = PartNotes.NONE.hiding(
                IntStream.range(0, model.parts().size())
                        .filter(p -> !kept.contains(p))
                        .boxed()
                        .collect(Collectors.toSet()),
                true);
        if (lowest > 0) {
            notes = notes.moving(kept.stream().collect(Collectors.toMap(p -> p, p -> new Shift(0, 0, -lowest))));
        }
        String name = chosen.size() == 1
                ? chosen.get(0).name()
                : FileNames.stem(content.files().get(0).name());
        return maker.create(name, content.with(notes), progress);
    }
}
