package dev.tranche.app.plate;

import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.Mends;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.check.Fix;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Rims;
import dev.tranche.core.plate.SideBySide;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.stereotype.Component;

/** What was typed or dragged on the plate becomes an edit of its plan. */
@Component
class PlateEdits {
    private static final double MOST_APART = 500;

    private final Plans plans;
    private final Workbench workbench;
    private final ModelCuts cuts;
    private final Mends mends;

    PlateEdits(Plans plans, Workbench workbench, ModelCuts cuts, Mends mends) {
        this.plans = plans;
        this.workbench = workbench;
        this.cuts = cuts;
        this.mends = mends;
    }

    PlanState arrange(String id, long seen, String copies, String gap) {
        int number = Numbers.whole("number of copies", copies);
        double apart = Numbers.decimal("gap", gap);
        return edit(
                id,
                seen,
                number == 1 ? "put one copy in the middle" : "arrange " + number + " copies",
                plate -> plate.arranged(number, apart));
    }

    PlanState rims(String id, long seen, String brim, String skirt) {
        Rims rims = new Rims(Numbers.decimal("brim", brim), Numbers.decimal("skirt", skirt));
        return edit(id, seen, "change brim and skirt", plate -> plate.with(rims));
    }

    PlanState place(String id, long seen, int copy, PlaceForm place) {
        Spot spot = place.spot();
        return with(id, seen, copy, before -> spot);
    }

    PlanState move(String id, long seen, int copy, MoveForm by) {
        return with(id, seen, copy, by::from);
    }

    PlanState placeTower(String id, long seen, PlaceForm place, String width) {
        Spot spot = place.spot();
        double wide = Numbers.decimal("width of the tower", width);
        return plans.editAll(id, seen, "move the tower", c -> c.with(
                        c.purge().into(c.purge().place().wide(wide)))
                .with(c.plate().withTower(spot)));
    }

    PlanState moveTower(String id, long seen, MoveForm by) {
        Spot now = workbench
                .openNow(plans.get(id))
                .returns()
                .tower()
                .orElseThrow(() -> new Refusal("This plan prints no tower; choose one where purge goes."))
                .spot();
        return edit(
                id,
                seen,
                "move the tower",
                plate -> plate.withTower(by.from(plate.tower().orElse(now))));
    }

    PlanState towerAnywhere(String id, long seen) {
        return edit(id, seen, "find the tower a place", Plate::withTowerAnywhere);
    }

    PlanState cure(String id, long seen, String label) {
        Workpiece work = workbench.openNow(plans.get(id));
        return work.cures().stream()
                .filter(cure -> cure.label().equals(label))
                .findFirst()
                .map(cure -> mends.apply(id, seen, Fix.of(cure, work.layout())))
                .orElseThrow(() -> new Refusal(
                        "That is no longer offered, since the plate has changed; choose from what it offers now."));
    }

    PlanState layOut(String id, long seen, String apart) {
        double gap = Numbers.decimal("gap", apart);
        if (!(gap >= 0 && gap <= MOST_APART)) {
            throw Refusal.of("A gap of %s mm between parts is out of range; give 0 to %.0f mm.", gap, MOST_APART);
        }
        PlanContent now = plans.get(id).content();
        Map<Integer, Shift> turned = new HashMap<>(now.parts().shifts());
        turned.replaceAll((part, shift) -> shift.onTheSpot());
        Body body = cuts.bodyAtHand(now.with(now.parts().moving(turned)));
        List<Integer> fileOf = new ArrayList<>();
        for (int file = 0; file < now.files().size(); file++) {
            int parts = cuts.modelAtHand(List.of(now.files().get(file))).parts().size();
            fileOf.addAll(Collections.nCopies(parts, file));
        }
        double widest = workbench
                .openNow(plans.get(id))
                .machine()
                .printer()
                .bed()
                .bounds()
                .getWidth();
        Map<Integer, Shift> shifts =
                new HashMap<>(SideBySide.of(body, now.parts().hidden(), fileOf, gap, widest));
        shifts.replaceAll((part, shift) -> turned.getOrDefault(part, Shift.NONE).by(shift));
        return plans.editAll(
                id,
                seen,
                "lay the parts side by side",
                c -> c.with(c.parts().moving(turned).moving(shifts)));
    }

    PlanState together(String id, long seen) {
        return plans.editAll(
                id, seen, "put the parts together", c -> c.with(c.parts().asInTheirFiles()));
    }

    PlanState movePart(String id, long seen, int part, Shift shift) {
        Workpiece work = workbench.openNow(plans.get(id));
        return movePart(work, seen, part, shift, work.plan().content().plate().byHand());
    }

    /** By so much on the bed, as the first copy stands; all else stays where it is. */
    PlanState movePart(String id, long seen, int part, MoveForm by) {
        Workpiece work = workbench.openNow(plans.get(id));
        List<Spot> spots = work.layout().spots();
        Shift before = work.plan().content().parts().of(part).shift();
        return movePart(
                work,
                seen,
                part,
                by.from(before, spots.isEmpty() ? 0 : spots.get(0).turn()),
                spots);
    }

    /** The middle of the model moves with its parts, and takes nothing along that stands at one of {@code spots}. */
    private PlanState movePart(Workpiece work, long seen, int part, Shift shift, List<Spot> spots) {
        int parts = work.partNames().size();
        if (part < 0 || part >= parts) {
            throw Refusal.of("The model has %d parts, and no number %d.", parts, part + 1);
        }
        PlanContent now = work.plan().content();
        PlanContent moved = now.with(now.parts().moving(Map.of(part, shift)));
        if (spots.isEmpty()) {
            return plans.editAll(work.plan().id(), seen, "move a part", c -> c.with(moved.parts()));
        }
        Coordinate before = middle(now);
        Coordinate after = middle(moved);
        return plans.editAll(work.plan().id(), seen, "move a part", c -> c.with(moved.parts())
                .with(c.plate().standing(spots, after.x - before.x, after.y - before.y)));
    }

    private Coordinate middle(PlanContent content) {
        return CutModel.footprint(cuts.bodyAtHand(content), content.parts().hidden())
                .centre();
    }

    /** The others stay where they stand, though nobody may have said so yet. */
    private PlanState with(String id, long seen, int copy, UnaryOperator<Spot> change) {
        List<Spot> now = workbench.openNow(plans.get(id)).layout().spots();
        return edit(id, seen, "move copy " + (copy + 1), plate -> {
            Plate standing = plate.byHand().isEmpty() ? plate.standing(now) : plate;
            return standing.with(copy, change);
        });
    }

    private PlanState edit(String id, long seen, String label, UnaryOperator<Plate> change) {
        return plans.editAll(id, seen, label, c -> c.with(change.apply(c.plate())));
    }
}
