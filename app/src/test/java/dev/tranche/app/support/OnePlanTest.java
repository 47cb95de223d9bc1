package dev.tranche.app.support;

import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.work.Workbench;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgeSettings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.security.web.csrf.DefaultCsrfToken;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.util.unit.DataSize;
import org.springframework.web.context.WebApplicationContext;

/** A running application on data of its own, with small models to plan. */
@SpringBootTest(
        webEnvironment = WebEnvironment.RANDOM_PORT,
        properties = {
            "tranche.largest-model=2MB",
            "tranche.largest-gcode=20MB",
            // Some tests count what is asked of the database; one application serves them all.
            "spring.jpa.properties.hibernate.generate_statistics=true"
        })
public abstract class OnePlanTest {
    @Autowired
    protected Plans plans;

    @Autowired
    protected Shelf shelf;

    @Autowired
    protected Workshop workshop;

    @Autowired
    protected FileStore files;

    @Autowired
    protected Workbench workbench;

    @Autowired
    private WebApplicationContext application;

    @DynamicPropertySource
    static void data(DynamicPropertyRegistry registry) {
        // One folder for each application that is started.
        Path folder = folder();
        registry.add("tranche.data", folder::toString);
    }

    private static Path folder() {
        try {
            return Files.createTempDirectory(
                    Files.createDirectories(Path.of("target", "test-data").toAbsolutePath()), "of-one");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A plate of 30 × 20 × 2.4 mm, a step to 4.0 and a step to 5.0: 25 layers of 0.2 mm. */
    public static Shapes nameplate() {
        return new Shapes()
                .box(0, 0, 0, 30, 20, 2.4)
                .box(3, 3, 2.4, 24, 14, 1.6)
                .box(8, 6, 4, 14, 8, 1);
    }

    /** The nameplate as a program slices it, after what {@code gcode} begins with. */
    public static SmallGcode sliced(SmallGcode gcode) {
        return gcode.sized(30, 20)
                .grid(0.2, 0.2, 12)
                .sized(24, 14)
                .grid(2.6, 0.2, 8)
                .sized(14, 8)
                .grid(4.2, 0.2, 5);
    }

    /** A page of a plan, such as {@code print}; the plan is opened first, since its page may show how far that is. */
    protected String page(PlanState plan, String place) throws Exception {
        workbench.openNow(plans.get(plan.id()));
        return MockMvcBuilders.webAppContextSetup(application)
                .build()
                .perform(get("/plans/{id}/{place}", plan.id(), place)
                        .requestAttr("_csrf", new DefaultCsrfToken("X-Token", "token", "of this page")))
                .andReturn()
                .getResponse()
                .getContentAsString();
    }

    /** A plan of the nameplate, all in the first spool. */
    protected PlanState plan(String name) {
        return plan(name, nameplate().mesh());
    }

    protected PlanState plan(String name, Mesh mesh) {
        return plan(name, StlWriter.binary(mesh));
    }

    protected PlanState plan(String name, byte[] stl) {
        try {
            FileStore.Kept kept = files.keep(new ByteArrayInputStream(stl), DataSize.ofMegabytes(50));
            Spool first = shelf.all().get(0);
            return plans.create(
                    name,
                    new PlanContent(
                            new ModelFile(kept.hash(), name + ".stl", kept.size()),
                            ColourPlan.of(LayerSettings.COMMON, first.id()),
                            PurgeSettings.USUAL,
                            workshop.all().get(0).id()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The shelf's third spool, a brick red, for plans that need one more than it begins with. */
    protected Spool zinc() {
        return shelf.all().stream()
                .filter(s -> s.name().equals("Zinc"))
                .findFirst()
                .orElseGet(() -> shelf.add(new Spool(
                        new SpoolId(0),
                        "Zinc",
                        Material.PLA,
                        Srgb.parse("#A5402D"),
                        1.24,
                        BigDecimal.TEN,
                        210,
                        205,
                        500)));
    }

    /** A spool as another is, under a name of its own. */
    protected static Spool named(Spool like, String name) {
        return new Spool(
                like.id(),
                name,
                like.material(),
                like.colour(),
                like.density(),
                like.pricePerKilogram(),
                like.firstLayerTemperature(),
                like.temperature(),
                like.gramsLeft(),
                like.coverDepth());
    }
}
