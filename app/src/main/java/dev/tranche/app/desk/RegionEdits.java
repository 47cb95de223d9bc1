package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Pick;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;

/** What people draw, choose and type about regions and parts, as edits of a plan with a name for undo. */
@Service
class RegionEdits {
    /** Zones that are dragged come to rest on this, mm. */
    private static final double GRID = 0.5;

    private static final double SHARE = 0.4;
    private static final Pattern CORNER = Pattern.compile("\\s*([-+]?\\d*\\.?\\d+)[\\s;]+([-+]?\\d*\\.?\\d+)\\s*");

    private final Plans plans;
    private final Choices choices;
    private final ModelCuts cuts;
    private final Workbench workbench;

    RegionEdits(Plans plans, Choices choices, ModelCuts cuts, Workbench workbench) {
        this.plans = plans;
        this.choices = choices;
        this.cuts = cuts;
        this.workbench = workbench;
    }

    /** A disc or box in the middle of the model. */
    PlanState addSimple(Shown at, String kind, long spool) {
        Envelope box = footprint(plans.get(at.id()));
        double size = Math.max(1, Math.rint(Math.min(box.getWidth(), box.getHeight()) * SHARE));
        Outline outline = kind.equals("disc") ? new Outline.Disc(size) : new Outline.Box(size, size);
        return add(at, middle(outline, box), spool);
    }

    /** @param corners as typed: pairs of X and Y in mm, pairs apart by commas */
    PlanState addPolygon(Shown at, String corners, long spool) {
        List<Coordinate> ring = new ArrayList<>();
        for (String pair : corners.split(",")) {
            Matcher corner = CORNER.matcher(pair);
            if (!corner.matches()) {
                throw Refusal.of(
                        "“%s” is no corner; give pairs of X and Y in mm, such as 3 4, 10 4, 10 9.", pair.strip());
            }
            ring.add(new Coordinate(Double.parseDouble(corner.group(1)), Double.parseDouble(corner.group(2))));
        }
        Silhouette silhouette = Silhouette.polygon(ring);
        Envelope box = new Envelope();
        ring.forEach(box::expandToInclude);
        Outline outline = new Outline.Drawing("Polygon", silhouette, silhouette.width());
        return add(at, new Shape.Zone(outline, box.centre().x, box.centre().y, 0, false), spool);
    }

    /** A drawing in the middle of the model, made smaller where it is larger. */
    PlanState addDrawing(Shown at, Outline.Drawing drawing, long spool) {
        Envelope box = footprint(plans.get(at.id()));
        Silhouette s = drawing.silhouette();
        double room = 0.8 * Math.min(box.getWidth(), box.getHeight() * s.width() / s.depth());
        return add(at, middle(drawing.wide(Math.max(Outline.SMALLEST, Math.min(drawing.width(), room))), box), spool);
    }

    /**
     * A line of text, laid into the top of the model where its middle is, or into its underside.
     *
     * @param drawing of the text, as large as was asked for
     */
    PlanState addText(Shown at, Outline.Drawing drawing, boolean faceDown, long spool) {
        Workpiece work = workbench.openNow(plans.get(at.id()));
        CutModel model = work.cut().model();
        Spool chosen = choices.get(plans.get(at.id()), spool);
        UnaryOperator<Regions> added = faceDown
                ? r -> named(
                        r,
                        Inlay.of(model, drawing, deep(work, chosen, 1), chosen.id())
                                .region())
                : r -> named(
                        r,
                        Inlay.onTop(
                                model,
                                (Shape.Zone) middle(drawing, footprint(work.plan())),
                                top -> deep(work, chosen, top),
                                drawing.name(),
                                chosen.id()));
        return regions(at, "lay in “" + drawing.name() + "”", added);
    }

    private static Regions named(Regions regions, Region region) {
        return regions.plus(region.named(free(regions, region.name())));
    }

    /** As many layers as hide what lies at {@code layer}. */
    static int deep(Workpiece work, Spool chosen, int layer) {
        CutModel model = work.cut().model();
        SpoolId behind = work.trancheOf(layer).spool();
        return Math.min(model.grid().count() - 1, Inlay.layersToHide(model, chosen, work.spool(behind)));
    }

    private static Shape.Zone middle(Outline outline, Envelope box) {
        return new Shape.Zone(outline, snapped(box.centre().x), snapped(box.centre().y), 0, false);
    }

    private PlanState add(Shown at, Shape.Zone zone, long spool) {
        Spool chosen = choices.get(plans.get(at.id()), spool);
        return regions(
                at,
                "add a region in " + chosen.name(),
                r -> r.plus(new Region(free(r, zone.outline().title()), zone, chosen.id(), Range.ALL)));
    }

    private static String free(Regions regions, String title) {
        return Words.free(title, Region.LONGEST_NAME, name -> regions.list().stream()
                .anyMatch(r -> r.name().equals(name)));
    }

    /**
     * A face-down inlay in one go.
     *
     * @param part to be inlaid; without one the drawing is
     * @param layers deep; without it, as deep as it takes
     */
    PlanState inlay(
            Shown at, Optional<Integer> part, Optional<Outline.Drawing> drawing, Optional<Integer> layers, long spool) {
        PlanState plan = plans.get(at.id());
        Workpiece work = workbench.openNow(plan);
        CutModel model = work.cut().model();
        Spool chosen = choices.get(plans.get(at.id()), spool);
        int deep = layers.orElseGet(() -> deep(work, chosen, 1));
        Inlay inlay;
        if (part.isPresent()) {
            part(work, part.get());
            inlay = Inlay.of(model, part.get(), work.partNames().get(part.get()), deep, chosen.id());
        } else {
            inlay = Inlay.of(model, drawing.orElseThrow(), deep, chosen.id());
        }
        return plans.editAll(at.id(), at.edition(), "inlay " + inlay.region().name() + " face down", c -> {
            var changed = c.with(c.colours().with(c.colours().regions().plus(inlay.region())));
            return inlay.replaces() ? changed.with(c.parts().hiding(Set.of(part.orElseThrow()), true)) : changed;
        });
    }

    PlanState change(Shown at, int index, RegionForm form) {
        var grid = cuts.grid(plans.get(at.id()).content());
        return region(at, index, "change", r -> form.on(r, grid));
    }

    PlanState recolour(Shown at, int index, long spool) {
        SpoolId chosen = choices.get(plans.get(at.id()), spool).id();
        return region(at, index, "recolour", r -> r.in(chosen));
    }

    /** So far from where it was, and onto the grid. */
    PlanState drag(Shown at, int index, double dx, double dy) {
        return zone(at, index, "move", z -> z.at(snapped(z.x() + dx), snapped(z.y() + dy)));
    }

    PlanState nudge(Shown at, int index, double dx, double dy) {
        return zone(at, index, "nudge", z -> z.at(rounded(z.x() + dx), rounded(z.y() + dy)));
    }

    PlanState mirror(Shown at, int index) {
        return zone(at, index, "mirror", Shape.Zone::mirroredOver);
    }

    /** A copy beside it, which wins over it. */
    PlanState copy(Shown at, int index) {
        return regions(at, "copy a region", r -> {
            Region it = r.get(index);
            Shape beside =
                    it.shape() instanceof Shape.Zone z ? z.at(rounded(z.x() + 2), rounded(z.y() - 2)) : it.shape();
            return r.plus(it.of(beside).named(free(r, it.name())));
        });
    }

    PlanState remove(Shown at, int index) {
        return regions(at, "remove a region", r -> r.without(index));
    }

    PlanState reorder(Shown at, int from, int to) {
        return regions(at, "reorder the regions", r -> r.moved(from, to));
    }

    /** @param spool 0 to leave them to the colours by height */
    PlanState colourParts(Shown at, Set<Integer> parts, long spool) {
        Workpiece work = some(at, parts);
        if (spool == 0) {
            return regions(at, "colour parts by height", r -> r.releasing(parts));
        }
        Spool chosen = choices.get(plans.get(at.id()), spool);
        String name = parts.size() == 1
                ? work.partNames().get(parts.iterator().next())
                : free(work.colours().regions(), chosen.name() + " parts");
        return regions(at, "colour parts in " + chosen.name(), r -> r.colouring(parts, name, chosen.id()));
    }

    /** A spool that was put on plastic of the layer that is shown, (x, y) mm of the model. */
    PlanState colourPiece(Shown at, double x, double y, long spool) {
        PlanState plan = plans.get(at.id());
        Workpiece work = workbench.openNow(plan);
        Pick pick = Lies.pick(work, at, x, y)
                .orElseThrow(() -> new Refusal("Nothing is printed there on this layer; put it on plastic."));
        Lies lies = Lies.of(work, Lies.layer(work, at), pick);
        if (lies instanceof Lies.InZone zone) {
            return recolour(at, zone.region(), spool);
        }
        if (lies instanceof Lies.InPart in) {
            return colourParts(at, Set.of(in.part()), spool);
        }
        Spool chosen = choices.get(plan, spool);
        return plans.edit(
                at.id(),
                at.edition(),
                "recolour to " + chosen.name(),
                p -> p.recolour(((Lies.ByHeight) lies).start(), chosen.id()));
    }

    PlanState hideParts(Shown at, Set<Integer> parts, boolean hide) {
        some(at, parts);
        var content = plans.get(at.id()).content();
        cuts.grid(content.with(content.parts().hiding(parts, hide)));
        return plans.editAll(
                at.id(),
                at.edition(),
                hide ? "hide parts" : "show parts",
                c -> c.with(c.parts().hiding(parts, hide)));
    }

    PlanState groupParts(Shown at, Set<Integer> parts, String group) {
        some(at, parts);
        return plans.editAll(
                at.id(), at.edition(), "group parts", c -> c.with(c.parts().grouping(parts, group)));
    }

    PlanState namePart(Shown at, int part, String name) {
        some(at, Set.of(part));
        return plans.editAll(
                at.id(), at.edition(), "name a part", c -> c.with(c.parts().naming(part, name)));
    }

    private Workpiece some(Shown at, Set<Integer> parts) {
        if (parts.isEmpty()) {
            throw new Refusal("Choose at least one part first.");
        }
        Workpiece work = workbench.openNow(plans.get(at.id()));
        parts.forEach(p -> part(work, p));
        return work;
    }

    private static void part(Workpiece work, int part) {
        if (part < 0 || part >= work.partNames().size()) {
            throw Refusal.of("There is no part %d in this plan any more; reload the page.", part + 1);
        }
    }

    private PlanState zone(Shown at, int index, String verb, UnaryOperator<Shape.Zone> change) {
        return region(at, index, verb, r -> {
            if (r.shape() instanceof Shape.Zone zone) {
                return r.of(change.apply(zone));
            }
            throw Refusal.of(
                    r.shape().isByPart()
                            ? "“%s” is coloured by part and lies where its part lies."
                            : "“%s” lies where its file prints it; lay a zone over it, or give it other heights.",
                    r.name());
        });
    }

    private PlanState region(Shown at, int index, String verb, UnaryOperator<Region> change) {
        return regions(at, verb + " a region", r -> r.replace(index, change.apply(r.get(index))));
    }

    private PlanState regions(Shown at, String label, UnaryOperator<Regions> change) {
        return plans.edit(at.id(), at.edition(), label, (ColourPlan p) -> p.with(change.apply(p.regions())));
    }

    private Envelope footprint(PlanState plan) {
        return cuts.bodyAtHand(plan.content()).footprint();
    }

    private static double snapped(double mm) {
        return Math.rint(mm / GRID) * GRID + 0.0;
    }

    private static double rounded(double mm) {
        return Math.rint(mm * 1000) / 1000 + 0.0;
    }
}
