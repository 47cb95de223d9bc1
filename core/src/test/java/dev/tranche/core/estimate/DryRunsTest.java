package dev.tranche.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.Step;
import dev.tranche.core.rig.Rig;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What is looked up is what would have been run: the same time, the same faults. */
class DryRunsTest {
    private static final List<Double> HEIGHTS = List.of(0.2, 7.4, 239.9, 240.0, 249.0, 250.0);
    private static final List<Double> STANDING = List.of(0.0, 7.4, 7.6, 12.0, 249.8);

    private static Moment at(double z) {
        return new Moment(
                2, 5, 17, "A Soot", "B Chalk", 210, 205, 150, 60, 0, "", ControllerState.standingAt(100, 90, z, 210));
    }

    private static void looksUpWhatWouldRun(Step... steps) {
        Rig rig = new Bench().swapping(steps).rig();
        Macro macro = rig.macros().answer(Event.SWAP).orElseThrow();
        DryRuns runs = new DryRuns(rig);
        for (double z : HEIGHTS) {
            for (double standing : STANDING) {
                Moment moment = at(z).beside(standing);
                DryRun run = DryRun.of(macro, rig.macros(), rig.printer(), moment);
                assertThat(runs.of(Event.SWAP, moment))
                        .as("at %s mm beside %s", z, standing)
                        .returns(run.machineSeconds(), DryRun::machineSeconds)
                        .returns(run.personSeconds(), DryRun::personSeconds)
                        .returns(run.faults().size(), r -> r.faults().size());
            }
        }
    }

    @Test
    void at_any_height_beside_anything_and_under_the_roof_of_the_machine() {
        looksUpWhatWouldRun(new Step.Lift(10), new Step.Park(), new Step.Return());
        looksUpWhatWouldRun(new Step.Park(), new Step.Return());
    }

    @Test
    void with_lines_of_the_owner_that_name_the_height() {
        looksUpWhatWouldRun(new Step.Raw("G1 Z{{z}} F60"), new Step.Lift(5));
    }

    @Test
    void one_that_was_run_is_not_run_again() {
        Rig rig = new Bench()
                .swapping(new Step.Lift(5), new Step.Park(), new Step.Return())
                .rig();
        DryRuns runs = new DryRuns(rig);
        assertThat(runs.of(Event.SWAP, at(1.4).beside(1.1 + 0.3))).isSameAs(runs.of(Event.SWAP, at(99.2)));
    }
}
