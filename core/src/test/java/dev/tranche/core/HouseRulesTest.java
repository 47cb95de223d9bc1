package dev.tranche.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The core computes: it draws, stores and serves nothing, and its packages form no circle. */
@AnalyzeClasses(packages = "dev.tranche.core", importOptions = ImportOption.DoNotIncludeTests.class)
class HouseRulesTest {
    @ArchTest
    static final ArchRule THE_CORE_IS_PLAIN_JAVA_AND_ITS_LIBRARIES =
            com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes()
                    .should()
                    .onlyDependOnClassesThat()
                    .resideInAnyPackage(
                            "dev.tranche.core..",
                            "java.lang..",
                            "java.util..",
                            "java.io..",
                            "java.nio..",
                            "java.math..",
                            "java.time..",
                            "java.text..",
                            "java.security..",
                            "org.locationtech.jts..",
                            "org.tinfour..",
                            "com.samskivert.mustache..",
                            "com.fasterxml.jackson..",
                            "org.apache.batik.parser..",
                            "java.awt",
                            "java.awt.geom..",
                            "java.awt.image..",
                            "java.awt.color..",
                            "javax.imageio..",
                            "javax.xml.stream..");

    @ArchTest
    static final ArchRule PACKAGES_FORM_NO_CIRCLE =
            slices().matching("dev.tranche.core.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule MESHES_AND_LAYERS_KNOW_NOTHING_OF_COLOURS_OR_MACHINES = noClasses()
            .that()
            .resideInAnyPackage("dev.tranche.core.geometry", "dev.tranche.core.layer")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("dev.tranche.core.colour", "dev.tranche.core.machine", "dev.tranche.core.plan");

    /** Decimal points stay points wherever Tranche runs. */
    @ArchTest
    static final ArchRule NUMBERS_ARE_WRITTEN_IN_ONE_WAY = noClasses()
            .that()
            .doNotHaveSimpleName("Words")
            .should()
            .callMethod(String.class, "format", String.class, Object[].class)
            .orShould()
            .callMethod(String.class, "format", java.util.Locale.class, String.class, Object[].class)
            .orShould()
            .callMethod(String.class, "formatted", Object[].class);
}
