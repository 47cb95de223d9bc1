package dev.tranche.core.check;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/** Rules on the model. */
final class ModelRules {
    private ModelRules() {}

    static List<Finding> openMesh(PlanFacts facts) {
        long open = facts.sections().stream().filter(s -> s.openEnds() > 0).count();
        if (open == 0) {
            return List.of();
        }
        int first = 1;
        while (facts.sections().get(first - 1).openEnds() == 0) {
            first++;
        }
        return List.of(Finding.of(
                        Severity.WARN,
                        "open-mesh",
                        Words.format(
                                "The model has holes: the outline had to be closed by straight lines on %s, first on layer %d.",
                                Words.count(open, "layer"), first))
                .at(first));
    }

    /** Parts whose lowest layer lies on nothing. */
    static List<Finding> floating(PlanFacts facts) {
        CutModel model = facts.colouring().model();
        int above = IntStream.range(0, model.body().solids().size())
                .filter(i -> !model.hidden().contains(i))
                .map(i -> model.body().solids().get(i).bottom())
                .min()
                .orElse(0);
        if (above > 0) {
            return List.of(Finding.of(
                    Severity.NOTE,
                    "lifted",
                    Words.format(
                            "The model begins %s mm above the bed; it needs support under it, or set it down.",
                            Height.ofMicrometres(above))));
        }
        List<Finding> findings = new ArrayList<>();
        for (int i = 0; i < model.solids().size(); i++) {
            int layer = lowest(model.solids().get(i));
            if (layer > 1) {
                MultiPolygon touching = Areas.intersection(
                        model.section(i, layer).outline(),
                        model.section(layer - 1).outline());
                if (touching.isEmpty()) {
                    findings.add(Finding.of(
                                    Severity.WARN,
                                    "floating-" + i,
                                    Words.format(
                                            "The part “%s” begins at %s mm and lies on nothing there; it needs support, or sits too high.",
                                            facts.partNames().get(i),
                                            facts.grid().bottom(layer)))
                            .at(layer));
                }
            }
        }
        return findings;
    }

    /** Copies that have no room, reach beyond the bed, or stand in one another's way. */
    static List<Finding> plate(PlanFacts facts) {
        // A model that is larger than the bed is told by itself.
        if (facts.match().isPresent() || !tooLarge(facts).isEmpty()) {
            return List.of();
        }
        Layout layout = facts.layout();
        List<Finding> findings = new ArrayList<>();
        if (layout.withoutRoom() > 0) {
            int all = layout.copies().size() + layout.withoutRoom();
            findings.add(Finding.of(
                    Severity.STOP,
                    "too-many-copies",
                    Words.format(
                            "The bed of %s has room for %d of %d copies in rows; print them in several goes, or closer together.",
                            facts.printer().name(), layout.copies().size(), all)));
        }
        List<String> beyond = IntStream.range(0, layout.copies().size())
                .filter(i -> layout.copies().get(i).beyond())
                .mapToObj(i -> String.valueOf(i + 1))
                .toList();
        if (!beyond.isEmpty()) {
            findings.add(Finding.of(
                    Severity.STOP,
                    "copies-beyond",
                    Words.format(
                            "%s beyond the bed of %s; move %s on the plate, or arrange all anew.",
                            beyond.size() == 1
                                    ? "Copy " + beyond.get(0) + " reaches"
                                    : beyond.size() + " copies, from number " + beyond.get(0) + " on, reach",
                            facts.printer().name(),
                            beyond.size() == 1 ? "it" : "them")));
        }
        if (!layout.tooNear().isEmpty()) {
            Layout.Pair pair = layout.tooNear().get(0);
            findings.add(Finding.of(
                    Severity.STOP,
                    "copies-too-near",
                    Words.format(
                            "Copies %d and %d %s%s; move one of them on the plate, or arrange all anew.",
                            pair.one() + 1,
                            pair.other() + 1,
                            pair.apart() == 0
                                    ? "stand in one another"
                                    : Words.format("are %.1f mm apart, nearer than the gap you want", pair.apart()),
                            layout.tooNear().size() == 1 ? "" : ", and so on")));
        }
        return findings;
    }

    private static int lowest(List<Section> sections) {
        int layer = 1;
        while (layer <= sections.size() && sections.get(layer - 1).outline().isEmpty()) {
            layer++;
        }
        return layer > sections.size() ? 0 : layer;
    }

    private static Optional<Finding> towerTooLarge(Tower tower, Envelope bed) {
        double longer = Math.max(tower.width(), tower.depth());
        double shorter = Math.min(tower.width(), tower.depth());
        return longer <= Math.max(bed.getWidth(), bed.getHeight())
                        && shorter <= Math.min(bed.getWidth(), bed.getHeight())
                ? Optional.empty()
                : Optional.of(Finding.of(
                        Severity.STOP,
                        "tower-too-large",
                        Words.format(
                                "The tower would be %.0f × %.0f mm, and the bed is %.0f × %.0f mm; make it wider or narrower, purge less, or purge beside the print.",
                                tower.width(), tower.depth(), bed.getWidth(), bed.getHeight())));
    }

    static List<Finding> tooLarge(PlanFacts facts) {
        Envelope bed = facts.printer().bed().bounds();
        Envelope part = facts.footprint();
        if (part.getWidth() > bed.getWidth() || part.getHeight() > bed.getHeight()) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-wide",
                    Words.format(
                            "The model is %.1f × %.1f mm and the bed %.0f × %.0f mm; choose another printer or scale the model.",
                            part.getWidth(), part.getHeight(), bed.getWidth(), bed.getHeight())));
        }
        Optional<Finding> tower = facts.ledger().tower().flatMap(t -> towerTooLarge(t, bed));
        if (tower.isPresent()) {
            return List.of(tower.get());
        }
        Height high = facts.grid().printedHeight().plus(facts.plan().layers().raft());
        if (high.isAbove(facts.printer().maxHeight())) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-high",
                    Words.format(
                            "The print is %s mm high and the printer reaches %s mm; choose another printer or scale the model.",
                            high, facts.printer().maxHeight())));
        }
        return List.of();
    }
}
