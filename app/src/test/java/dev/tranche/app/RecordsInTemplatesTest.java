package dev.tranche.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;

/** A template that says {@code purge.least} is answered by {@code isLeast()} where there is one, and not by the component. */
@AnalyzeClasses(packages = "dev.tranche", importOptions = ImportOption.DoNotIncludeTests.class)
class RecordsInTemplatesTest {
    @ArchTest
    static final ArchRule COMPONENTS_ARE_NOT_HIDDEN_BY_OTHER_ANSWERS = classes()
            .that()
            .areRecords()
            .should(new ArchCondition<>("have no is… or get… beside a component") {
                @Override
                public void check(JavaClass record, ConditionEvents events) {
                    record.getFields().stream()
                            .map(field -> Character.toUpperCase(field.getName().charAt(0))
                                    + field.getName().substring(1))
                            .filter(name -> record.tryGetMethod("is" + name).isPresent()
                                    || record.tryGetMethod("get" + name).isPresent())
                            .forEach(name -> events.add(SimpleConditionEvent.violated(
                                    record, record.getName() + " answers " + name + " in two ways")));
                }
            });
}
