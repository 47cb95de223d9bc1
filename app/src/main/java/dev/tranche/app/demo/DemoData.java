package dev.tranche.app.demo;

import dev.tranche.app.exchange.FileColours;
import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.settings.DayTime;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.Part;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** Fernhollow, an allotment society, prepares its spring open day: its spools, printers and plans. */
@Component
class DemoData implements ApplicationRunner {
    private final Shelf shelf;
    private final Workshop workshop;
    private final Plans plans;
    private final FileStore files;
    private final ModelImport models;
    private final TrancheProperties properties;
    private final ModelCuts cuts;
    private final FileColours fileColours;
    private final Settings settings;
    private final Environment environment;

    DemoData(
            Shelf shelf,
            Workshop workshop,
            Plans plans,
            FileStore files,
            ModelImport models,
            TrancheProperties properties,
            ModelCuts cuts,
            FileColours fileColours,
            Settings settings,
            Environment environment) {
        this.environment = environment;
        this.shelf = shelf;
        this.workshop = workshop;
        this.plans = plans;
        this.files = files;
        this.models = models;
        this.properties = properties;
        this.cuts = cuts;
        this.fileColours = fileColours;
        this.settings = settings;
    }

    /** The open day is on Saturday; the society sleeps at night. */
    private void evening() {
        settings.set(settings.now().currency(), "0.32", "22:30-6:30", "", DayTime.HOURS_24);
    }

    @Override
    public void run(ApplicationArguments arguments) throws IOException {
        if (!environment.matchesProfiles("demo") || !shelf.all().isEmpty()) {
            return;
        }
        evening();
        SpoolId soot = spool("Soot", "#1B1B1D", 640);
        SpoolId chalk = spool("Chalk", "#F4F1E8", 412, 0.5);
        SpoolId leaf = spool("Leaf", "#3E7D3A", 755);
        SpoolId clay = spool("Clay", "#A4583A", 520);
        SpoolId straw = spool("Straw", "#D9B85C", 0.7);
        SpoolId pond = spool("Pond", "#2F6C8C", 300);
        long bench = workshop.add(Beginning.TUBE_ROUTINE.rig("Tube-fed bench printer"))
                .id();
        long small =
                workshop.add(Beginning.DIRECT_PAUSE.rig("Small direct drive")).id();
        long variant = twoExtruders(small, leaf, soot);
        workshop.add(racked(Beginning.SELECTOR.rig("Shed printer with selector box"), soot, chalk, leaf, clay));
        workshop.add(Beginning.HOST.rig("Greenhouse printer with host"));
        long blending = workshop.add(blending(Beginning.BLENDING.rig("Blending nozzle"), pond, chalk))
                .id();
        tile(pond, leaf, clay, straw, chalk, bench);
        panel(soot, leaf, pond, small);
        pot(pond, chalk, blending);
        tag(clay, chalk, small);
        marker(leaf, chalk, soot, variant);
    }

    /** The plain printer stays as it is; a variant of it keeps two spools at hand. */
    private long twoExtruders(long plain, SpoolId leaf, SpoolId soot) {
        Workshop.Machine variant = workshop.variant(plain, "Small direct drive, two at hand");
        workshop.edit(
                variant.id(),
                variant.version().edition(),
                "two extruders",
                rig -> racked(rig.with(rig.rack().resize(2)), leaf, soot));
        return variant.id();
    }

    private Rig racked(Rig rig, SpoolId... spools) {
        Rack rack = rig.rack();
        for (int t = 0; t < spools.length; t++) {
            rack = rack.replace(t, rack.extruder(t).with(shelf.byId().get(spools[t])));
        }
        return rig.with(rack);
    }

    private static Rig blending(Rig rig, SpoolId first, SpoolId second) {
        return rig.with(rig.rack().feeding(0, Optional.of(first)).feeding(1, Optional.of(second)));
    }

    private void tile(SpoolId pond, SpoolId leaf, SpoolId clay, SpoolId straw, SpoolId chalk, long printer)
            throws IOException {
        Mesh mesh = DemoShapes.hollinHill();
        LayerSettings layers = new LayerSettings(Height.ofMillimetres(0.2), Height.ofMillimetres(0.12));
        LayerGrid grid = layers.on(mesh.height());
        ColourPlan colours = ColourPlan.of(layers, pond)
                .startAt(Height.ofMillimetres(1.64), leaf, grid)
                .startAt(Height.ofMillimetres(3.44), clay, grid)
                .startAt(Height.ofMillimetres(4.95), straw, grid)
                .startAt(Height.ofMillimetres(6.56), chalk, grid)
                .haltAt(new Halt(Height.ofMillimetres(1.04), "lay the magnet in"), grid);
        plans.create(
                "Relief tile, Hollin Hill",
                new PlanContent(keep(mesh, "hollin-hill.stl"), colours, PurgeSettings.USUAL, printer));
    }

    /** The pot: its wall fades from one of the nozzle's spools into the other. */
    private void pot(SpoolId pond, SpoolId chalk, long printer) throws IOException {
        Mesh mesh = DemoShapes.pot();
        LayerSettings layers = new LayerSettings(Height.ofMillimetres(0.28), Height.ofMillimetres(0.28));
        LayerGrid grid = layers.on(mesh.height());
        ColourPlan plain = ColourPlan.of(layers, pond);
        Mixture.Fade fade = new Mixture.Fade(
                plain.mixtures().next(), Recipe.of(pond), Recipe.of(chalk), grid.bottom(31), grid.bottom(161));
        PlanState plan = plans.create(
                "Pot with a blended fade",
                new PlanContent(keep(mesh, "pot.stl"), plain.fading(fade, chalk, grid), PurgeSettings.USUAL, printer));
        giveGcode(plan, DemoToolpaths.of(CutModel.of(Body.of(mesh), grid, Progress.UNHEARD), 200, 200), "pot.gcode");
    }

    /** The key tag: printed face down, so that its word is as smooth as the bed. */
    private void tag(SpoolId clay, SpoolId chalk, long printer) throws IOException {
        Mesh mesh = DemoShapes.shedTag();
        LayerGrid grid = LayerSettings.COMMON.on(mesh.height());
        Silhouette face = Silhouette.of(DemoShapes.shedFace());
        Inlay inlay = Inlay.of(
                CutModel.of(Body.of(mesh), grid, Progress.UNHEARD),
                new Outline.Drawing("Word and line", face, face.width()),
                2,
                chalk);
        Region region = inlay.region().of(((Shape.Zone) inlay.region().shape()).at(39, 17));
        ColourPlan colours = ColourPlan.of(LayerSettings.COMMON, clay).with(Regions.NONE.plus(region));
        plans.create(
                "Tag of the tool shed",
                new PlanContent(keep(mesh, "shed-tag.stl"), colours, PurgeSettings.USUAL, printer));
    }

    /** The window: a 3MF file whose panes have colours. */
    private void panel(SpoolId soot, SpoolId leaf, SpoolId pond, long printer) throws IOException {
        List<ThreeMfWriter.Thing> things = DemoShapes.leafPanel().stream()
                .map(p -> {
                    Spool spool = shelf.byId().get(p.name().equals("Leading") ? soot : p.green() ? leaf : pond);
                    return new ThreeMfWriter.Thing(p.name(), spool.name(), spool.colour(), List.of(p.mesh()));
                })
                .toList();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ThreeMfWriter.write("Leaf panel", things, bytes);
        ModelFile file = keep(bytes.toByteArray(), "leaf-panel.3mf");
        ColourPlan plain = ColourPlan.of(LayerSettings.COMMON, soot);
        List<Part> parts = cuts.model(List.of(file), Progress.UNHEARD).parts();
        PlanState plan = plans.create(
                "Leaf panel for the greenhouse",
                new PlanContent(file, fileColours.begin(plain, parts), PurgeSettings.USUAL, printer));
        plans.variant(
                plan.id(),
                "best order",
                c -> c.with(c.colours().with(c.colours().ordering().by(Rule.BEST))));
        PlanState bands = plans.variant(
                plan.id(),
                "in bands",
                c -> c.with(c.colours().with(c.colours().ordering().by(Rule.BANDS))));
        double lineWidth = workshop.get(printer).printer().lineWidth();
        giveGcode(
                bands,
                DemoToolpaths.of(cuts.colouring(bands.content(), lineWidth, Progress.UNHEARD), 180, 180),
                "leaf-panel.gcode");
        plans.variant(plan.id(), "four of them, with a tower", c -> c.with(
                        c.purge().into(new PurgePlace.OnTower(PurgePlace.OnTower.USUAL)))
                .times(4));
    }

    private void marker(SpoolId leaf, SpoolId chalk, SpoolId soot, long printer) throws IOException {
        Mesh mesh = DemoShapes.rowMarker("BEANS");
        LayerGrid grid = LayerSettings.COMMON.on(mesh.height());
        ColourPlan colours = ColourPlan.of(LayerSettings.COMMON, leaf)
                .startAt(Height.ofMillimetres(2.0), soot, grid)
                .startAt(Height.ofMillimetres(2.6), chalk, grid);
        PlanState plan = plans.create(
                "Row marker, beans",
                new PlanContent(keep(mesh, "row-marker-beans.stl"), colours, PurgeSettings.USUAL, printer));
        giveGcode(
                plan,
                DemoToolpaths.of(CutModel.of(Body.of(mesh), grid, Progress.UNHEARD), 180, 180),
                "row-marker-beans.gcode");
    }

    private void giveGcode(PlanState plan, String gcode, String name) throws IOException {
        models.giveGcode(plan, DemoToolpaths.stream(gcode), name);
    }

    private ModelFile keep(Mesh mesh, String name) throws IOException {
        return keep(StlWriter.binary(mesh), name);
    }

    private ModelFile keep(byte[] bytes, String name) throws IOException {
        FileStore.Kept kept = files.keep(new ByteArrayInputStream(bytes), properties.largestModel());
        return new ModelFile(kept.hash(), name, kept.size());
    }

    private SpoolId spool(String name, String colour, double grams) {
        return spool(name, colour, grams, Spool.USUAL_COVER);
    }

    private SpoolId spool(String name, String colour, double grams, double coverDepth) {
        return shelf.add(new Spool(
                        new SpoolId(0),
                        name,
                        Material.PLA,
                        Srgb.parse(colour),
                        Material.PLA.density(),
                        BigDecimal.valueOf(22),
                        210,
                        205,
                        grams,
                        coverDepth))
                .id();
    }
}
