package dev.tranche.app.desk;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PartNotes;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Pick;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Relief;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.IntUnaryOperator;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the lists of regions and parts, and says what lies where a layer was clicked. */
@Component
class RegionViews {
    private final Choices choices;
    private final ModelCuts cuts;
    private final Figures figures;

    RegionViews(Choices choices, ModelCuts cuts, Figures figures) {
        this.cuts = cuts;
        this.choices = choices;
        this.figures = figures;
    }

    /**
     * A region as a row, the one that wins over all first.
     *
     * @param relief what of it is seen, buried and proud
     * @param zone its measures, if it is one
     */
    record RegionRow(
            int index,
            SpoolMark mark,
            String name,
            String layers,
            String relief,
            String from,
            String to,
            Optional<ZoneRow> zone) {}

    record ZoneRow(
            String kind, String x, String y, String width, Optional<String> depth, String turn, boolean mirrored) {}

    /**
     * @param mark of the spool it is coloured with as a whole, if it is
     * @param file it came in
     */
    record PartRow(
            int number,
            Optional<SpoolMark> mark,
            String name,
            String measures,
            boolean hidden,
            String group,
            String file) {}

    /** What was clicked. */
    record Piece(String name, SpoolMark mark, String post, String field, String value) {}

    void show(Workpiece work, Shown shown, SpoolId suggested, Model model) {
        model.addAttribute("side", shown.sideOr());
        model.addAttribute("regions", regions(work));
        List<PartRow> parts = parts(work);
        model.addAttribute("parts", parts);
        model.addAttribute(
                "partMarks",
                parts.stream()
                        .flatMap(p -> p.mark().stream())
                        .distinct()
                        .sorted(Comparator.comparing(SpoolMark::letter))
                        .toList());
        model.addAttribute(
                "partFiles", parts.stream().map(PartRow::file).distinct().toList());
        int chosen = shown.regionOr();
        boolean there = chosen >= 0 && chosen < work.colours().regions().size();
        model.addAttribute("chosen", there ? chosen : null);
        Spool own = work.spool(suggested);
        Spool behind = work.spool(work.trancheOf(1).spool());
        int deep = RegionEdits.deep(work, own, 1);
        model.addAttribute("inlayLayers", deep);
        model.addAttribute(
                "inlayWhy",
                Words.format(
                        "Left empty, as deep as it takes: %s of %s on %s, since its cover depth is %.2f mm and from there on nobody tells the difference (CIEDE2000 of 1).",
                        Words.count(deep, "layer"), own.name(), behind.name(), own.coverDepth()));
    }

    private List<RegionRow> regions(Workpiece work) {
        List<RegionRow> rows = new ArrayList<>();
        List<Region> regions = work.colours().regions().list();
        LayerGrid grid = work.grid();
        for (int i = 0; i < regions.size(); i++) {
            Region r = regions.get(i);
            rows.add(new RegionRow(
                    i,
                    SpoolMark.of(work, r.spool()),
                    r.name(),
                    layers(r.range().first(grid), r.range().last(grid), grid),
                    outlines(r.shape()) + relief(work.colouring().reliefs().get(i)),
                    r.range().from().toString(),
                    r.range().to().map(Object::toString).orElse(""),
                    r.shape() instanceof Shape.Zone z ? Optional.of(zone(z)) : Optional.empty()));
        }
        Collections.reverse(rows);
        return rows;
    }

    private ZoneRow zone(Shape.Zone z) {
        String kind =
                z.outline() instanceof Outline.Disc ? "disc" : z.outline() instanceof Outline.Box ? "box" : "drawing";
        return new ZoneRow(
                kind,
                figures.plain(z.x()),
                figures.plain(z.y()),
                figures.plain(round(z.outline().width())),
                z.outline() instanceof Outline.Box box
                        ? Optional.of(figures.plain(round(box.depth())))
                        : Optional.empty(),
                figures.plain(z.turn()),
                z.mirrored());
    }

    private static double round(double mm) {
        return Math.rint(mm * 1000) / 1000;
    }

    private static String layers(int first, int last, LayerGrid grid) {
        if (first > grid.count() || last < first) {
            return "no layer";
        }
        return first == 1 && last == grid.count() ? "all layers" : Words.layers(first, last);
    }

    private static String outlines(Shape shape) {
        return shape instanceof Shape.Trace trace ? Words.count((int) trace.outlines(), "traced outline") + ", " : "";
    }

    private static String relief(Relief r) {
        if (r.missing()) {
            return "meets nothing";
        }
        return Words.format("shows %.2f mm, buried %.2f, proud %.2f", r.shown(), r.buried(), r.proud())
                + (r.above() > 0 ? Words.format(", %.2f under the top", r.above()) : "");
    }

    private List<PartRow> parts(Workpiece work) {
        List<PartRow> rows = new ArrayList<>();
        PlanContent content = work.plan().content();
        PartNotes notes = content.parts();
        List<ModelFile> files = content.files();
        IntUnaryOperator fileOf = files.size() == 1 ? i -> 0 : cuts.modelAtHand(files)::fileOf;
        for (int i = 0; i < work.partNames().size(); i++) {
            int region = work.colours().regions().ofPart(i);
            Mesh mesh = work.cut().model().body().solids().get(i);
            String measures = Words.format(
                    "%.2f cm³, %.2f–%s mm", Math.abs(mesh.volume()) / 1000, mesh.bottom() / 1000.0, mesh.height());
            rows.add(new PartRow(
                    i,
                    region < 0
                            ? Optional.empty()
                            : Optional.of(SpoolMark.of(
                                    work, work.colours().regions().get(region).spool())),
                    work.partNames().get(i),
                    measures,
                    notes.of(i).hidden(),
                    notes.of(i).group(),
                    files.get(fileOf.applyAsInt(i)).name()));
        }
        rows.sort(Comparator.comparing(PartRow::group));
        return rows;
    }

    /** What lies at (x, y) mm of the layer under the cursor. */
    void piece(Workpiece work, Shown shown, double x, double y, Model model) {
        model.addAttribute("plan", work.plan());
        model.addAttribute("spools", choices.of(work.plan()));
        model.addAttribute(
                "piece",
                Lies.pick(work, shown, x, y)
                        .map(p -> piece(work, Lies.layer(work, shown), p))
                        .orElse(null));
    }

    private static Piece piece(Workpiece work, int layer, Pick pick) {
        SpoolMark mark = SpoolMark.of(work, pick.spool());
        String base = "/plans/" + work.plan().id();
        Lies lies = Lies.of(work, layer, pick);
        if (lies instanceof Lies.InZone zone) {
            return new Piece(
                    work.colours().regions().get(zone.region()).name(),
                    mark,
                    base + "/regions/" + zone.region() + "/recolour",
                    "region",
                    "" + zone.region());
        }
        if (lies instanceof Lies.InPart in) {
            return new Piece(work.partNames().get(in.part()), mark, base + "/parts/colour", "parts", "" + in.part());
        }
        int start = ((Lies.ByHeight) lies).start();
        return new Piece("Colour by height", mark, base + "/starts/" + start + "/recolour", "start", "" + start);
    }
}
