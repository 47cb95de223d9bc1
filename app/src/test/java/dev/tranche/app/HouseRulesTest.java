package dev.tranche.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Pages ask the core and show what it says; storage stays behind its services. */
@AnalyzeClasses(packages = "dev.tranche.app", importOptions = ImportOption.DoNotIncludeTests.class)
class HouseRulesTest {
    @ArchTest
    static final ArchRule CONTROLLERS_TOUCH_NO_STORAGE = noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .should()
            .dependOnClassesThat()
            .haveSimpleNameEndingWith("Repository")
            .orShould()
            .dependOnClassesThat()
            .haveSimpleNameEndingWith("Entity");

    @ArchTest
    static final ArchRule CONTROLLERS_COMPUTE_NOTHING_OF_THE_JOB = noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "dev.tranche.core.purge",
                    "dev.tranche.core.estimate",
                    "dev.tranche.core.geometry",
                    "dev.tranche.core.colour");

    @ArchTest
    static final ArchRule ENTITIES_STAY_AT_HOME =
            classes().that().haveSimpleNameEndingWith("Entity").should().bePackagePrivate();

    @ArchTest
    static final ArchRule DRAWINGS_STORE_AND_SERVE_NOTHING = noClasses()
            .that()
            .resideInAPackage("dev.tranche.app.drawing")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.springframework..", "jakarta..");

    @ArchTest
    static final ArchRule FEATURES_FORM_NO_CIRCLE =
            slices().matching("dev.tranche.app.(*)..").should().beFreeOfCycles();

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
