package dev.tranche.app.demo;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.guide.OwnModels;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.stereotype.Component;

/** Shapes of the allotment for a first plan, each sliced by the stand-in for the very printer it is begun on. */
@Component
class DemoModels implements OwnModels {
    private final ModelImport models;
    private final Workshop workshop;

    DemoModels(ModelImport models, Workshop workshop) {
        this.models = models;
        this.workshop = workshop;
    }

    private enum Own {
        MARKER(
                "row-marker",
                "Row marker",
                "a raised name in three heights: two swaps",
                () -> DemoShapes.rowMarker("BEANS")),
        TILE("hollin-hill", "Relief tile", "a hill whose heights take colours", DemoShapes::hollinHill),
        TAG("shed-tag", "Key tag", "flat, for a word laid into its face", DemoShapes::shedTag);

        private final Model model;
        private final Supplier<Mesh> shape;

        Own(String key, String name, String shows, Supplier<Mesh> shape) {
            this.model = new Model(key, name, shows);
            this.shape = shape;
        }
    }

    @Override
    public List<Model> models() {
        return Arrays.stream(Own.values()).map(o -> o.model).toList();
    }

    @Override
    public Job begin(String key) {
        Own own = Arrays.stream(Own.values())
                .filter(o -> o.model.key().equals(key))
                .findFirst()
                .orElseThrow(() -> new Refusal("There is no such model; choose one of those shown."));
        return models.begin(
                key + ".stl",
                () -> StlWriter.binary(own.shape.get()),
                (plan, progress) -> slice(plan, own.shape.get(), key + ".gcode", progress));
    }

    private void slice(PlanState plan, Mesh mesh, String name, Progress progress) throws IOException {
        CutModel cut =
                CutModel.of(Body.of(mesh), plan.content().colours().layers().on(mesh.height()), progress);
        Coordinate middle =
                workshop.get(plan.content().printer()).printer().bed().bounds().centre();
        models.giveGcode(plan, DemoToolpaths.stream(DemoToolpaths.of(cut, 2 * middle.x, 2 * middle.y)), name);
    }
}
