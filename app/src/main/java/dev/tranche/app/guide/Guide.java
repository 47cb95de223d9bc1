package dev.tranche.app.guide;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.PrintedPlans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.storage.LastRead;
import dev.tranche.app.storage.Restored;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Words;
import java.util.Optional;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Knows how far somebody's first plan has come, and what comes next. Templates ask it as {@code @guide}. */
@Service("guide")
@Transactional
public class Guide {
    /** What stands in a house of which nobody has said anything. */
    public static final Rig FIRST_PRINTER = Beginning.DIRECT_PAUSE.rig("My printer");

    private final GuideRepository states;
    private final Workshop workshop;
    private final PrintedPlans printed;
    private final LastRead<String> stage = new LastRead<>();

    Guide(GuideRepository states, Workshop workshop, PrintedPlans printed) {
        this.printed = printed;
        this.states = states;
        this.workshop = workshop;
    }

    /** Where it was left, if it is going on. */
    @Transactional(readOnly = true)
    public Optional<Stage> stage() {
        String known = known();
        return known.isEmpty() || known.equals(GuideEntity.OVER) ? Optional.empty() : Optional.of(Stage.valueOf(known));
    }

    /** Whether nobody has begun it, or said that they find their own way. */
    @Transactional(readOnly = true)
    public boolean isNew() {
        return known().isEmpty();
    }

    private String known() {
        return stage.get(() -> Optional.ofNullable(entity().stage).orElse(""));
    }

    public void go(Stage to) {
        set(to.name());
    }

    public void leave() {
        set(GuideEntity.OVER);
    }

    private void set(String to) {
        stage.changed();
        entity().stage = to;
    }

    private GuideEntity entity() {
        return states.findById(GuideEntity.ONLY).orElseThrow();
    }

    @EventListener(Restored.class)
    public void restored() {
        stage.changed();
    }

    /** Sets a printer up. The one that a first start put there gives way, if nobody has touched or used it. */
    public void printer(Beginning kind, String name) {
        workshop.all().stream()
                .filter(m -> m.rig().equals(FIRST_PRINTER) && printed.on(m.id()).isEmpty())
                .forEach(m -> workshop.remove(m.id()));
        workshop.add(kind.rig(name));
    }

    /** What to say on the pages of a plan, once the guide has come to its model. */
    @Transactional(readOnly = true)
    public Optional<Advice> beside(Workpiece work) {
        return stage().filter(s -> s.compareTo(Stage.MODEL) >= 0).map(s -> next(work));
    }

    private static Advice next(Workpiece work) {
        PlanState plan = work.plan();
        String handOff = "/plans/" + plan.id() + "/hand-off";
        if (work.colours().paletteInUse().size() < 2) {
            return Advice.at(
                    Stage.COLOUR,
                    "Under Start a colour here stand heights at which this model is flat. Press one, choose a spool, press Start a colour here.");
        }
        if (plan.gcode().isEmpty()) {
            return Advice.at(
                            Stage.FILE,
                            Words.format(
                                    "Slice the model as you always do, in one colour, with layers of %s and %s mm, and drop the G-code on this page.",
                                    work.grid().firstLayer(), work.grid().layerHeight()))
                    .then("Or at the hand-off", handOff);
        }
        if (plan.written().isEmpty()) {
            return Advice.at(
                            Stage.FILE,
                            "The sliced file lies beside the plan. Where Tranche finds nothing that stops, press Write swaps: that file is for the printer.")
                    .then("To the hand-off", handOff);
        }
        return new Advice(
                        Optional.empty(),
                        "Your first file is written. The swap list lies beside the machine; a rehearsal tries the file before any plastic is melted.",
                        Optional.empty())
                .then("Rehearse it", "/plans/" + plan.id() + "/rehearse");
    }
}
