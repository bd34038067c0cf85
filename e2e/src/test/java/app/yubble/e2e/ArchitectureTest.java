package app.yubble.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;

/** The rooms of docs/architecture.md and the doors between them. */
@AnalyzeClasses(packages = "app.yubble", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule coreIsPlainJava = classes()
            .that()
            .resideInAPackage("app.yubble.core..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("app.yubble.core..", "java..", "org.jspecify..");

    @ArchTest
    static final ArchRule coreHasNoInterface = noClasses()
            .that()
            .resideInAPackage("app.yubble.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.awt..", "javax..", "java.net..", "java.sql..");

    @ArchTest
    static final ArchRule mediaKnowsOnlyCore = noClasses()
            .that()
            .resideInAPackage("app.yubble.media..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "app.yubble.vision..",
                    "app.yubble.server..",
                    "app.yubble.cli..",
                    "app.yubble.bench..",
                    "org.springframework..");

    @ArchTest
    static final ArchRule visionKnowsOnlyCore = noClasses()
            .that()
            .resideInAPackage("app.yubble.vision..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "app.yubble.media..",
                    "app.yubble.server..",
                    "app.yubble.cli..",
                    "app.yubble.bench..",
                    "org.springframework..");

    @ArchTest
    static final ArchRule onlyVisionRunsNetworks = noClasses()
            .that()
            .resideOutsideOfPackages("app.yubble.vision..", "app.yubble.onnx..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("ai.onnxruntime..");

    @ArchTest
    static final ArchRule nothingImportsTheServer = noClasses()
            .that()
            .resideOutsideOfPackage("app.yubble.server..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("app.yubble.server..");

    @ArchTest
    static final ArchRule theCommandLineNeedsNoServer = noClasses()
            .that()
            .resideInAPackage("app.yubble.cli..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.springframework..", "jakarta..");

    @ArchTest
    static final ArchRule corePackagesHaveNoCycles =
            slices().matching("app.yubble.core.(*)..").should().beFreeOfCycles();

    /** The line is a list: nothing in it leads back to what comes before. */
    @ArchTest
    static final ArchRule classesOfTheLineHaveNoCycles = slices().assignedFrom(new SliceAssignment() {
                @Override
                public SliceIdentifier getIdentifierOf(JavaClass each) {
                    return each.getPackageName().equals("app.yubble.core.refocus")
                            ? SliceIdentifier.of(each.getName().replaceAll("\\$.*", ""))
                            : SliceIdentifier.ignore();
                }

                @Override
                public String getDescription() {
                    return "classes of core.refocus";
                }
            })
            .should()
            .beFreeOfCycles();

    @ArchTest
    static final ArchRule serverPackagesHaveNoCycles =
            slices().matching("app.yubble.server.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule mediaPackagesHaveNoCycles =
            slices().matching("app.yubble.media.(*)..").should().beFreeOfCycles();
}
