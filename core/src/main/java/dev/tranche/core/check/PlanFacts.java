package dev.tranche.core.check;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.handoff.Fit;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Looks;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.returns.Cure;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.AsSliced;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.Painting;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Surroundings;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * All that rules may look at.
 *
 * @param planId as stamped into files
 * @param state of the plan's swaps, as stamped into files
 * @param colouring of the plan's model, and {@code looks} how the finished piece looks
 * @param partNames what the parts are called, one a part
 * @param orders in which its colours could be printed, and {@code order} the one in which they are
 * @param tranches of the plan on its grid
 * @param footprint where the part, or the first copy of it, stands on the bed, mm
 * @param modelFootprint what one copy covers
 * @param layout where all copies stand; those that a sliced file holds, if there is one that fits
 * @param gap that is wanted between them, mm
 * @param returns how the nozzle comes back from swaps, and {@code cures} what makes fewer of its ways unclean, the best first
 * @param shelf the spools the plan names, and {@code atHand} those it could name
 * @param schedule of the print, if it has a start
 * @param written the state that the last file written for this plan holds
 * @param rehearsed what was not as planned when it was rehearsed as it is
 * @param file the sliced file, if there is one, and {@code match} if its layers are the plan's
 * @param tools of such a file that changes them, and {@code stops} that it holds already
 * @param fit how what it prints lies on the model
 * @param said what its owner said of it
 * @param rearranging what came of printing it in the plan's order
 */
public record PlanFacts(
        String planId,
        String state,
        Colouring colouring,
        Looks looks,
        List<String> partNames,
        Orders orders,
        PrintOrder order,
        List<Tranche> tranches,
        Envelope footprint,
        Footprint modelFootprint,
        Layout layout,
        double gap,
        ReturnPaths returns,
        List<Cure> cures,
        Rig rig,
        Map<SpoolId, Spool> shelf,
        List<SpoolId> atHand,
        Ledger ledger,
        Optional<SlicedFile> file,
        Optional<GridMatch> match,
        Optional<ToolTable> tools,
        Optional<StopTable> stops,
        Optional<Fit> fit,
        Said said,
        Rearranging rearranging,
        Optional<Schedule> schedule,
        Optional<String> written,
        Optional<String> rehearsed) {

    /** Whether the tower stands at a place. */
    boolean isOverTower(Point place) {
        Coordinate at = new Coordinate(place.x(), place.y());
        return returns.tower()
                .filter(t -> SimplePointInAreaLocator.isContained(at, t.outline()))
                .isPresent();
    }

    /** Whether something is printed at a place, as far as that is known. */
    boolean isOver(Point place) {
        return layout.copies().isEmpty() ? footprint.contains(place.x(), place.y()) : layout.covers(place);
    }

    public ColourPlan plan() {
        return colouring.plan();
    }

    public LayerGrid grid() {
        return colouring.model().grid();
    }

    List<Section> sections() {
        return colouring.model().sections();
    }

    public Printer printer() {
        return rig.printer();
    }

    /** The plan in the colours that its file paints; there has to be one that fits. */
    public AsSliced painted(Painting painting) {
        return AsSliced.painted(
                surroundings(),
                painting,
                plan(),
                tools.orElseThrow(() -> new Refusal("The file prints with one tool, so it says nothing of colours.")),
                spare());
    }

    /** What the sliced file prints beside the model; there has to be one that fits. */
    public Surroundings surroundings() {
        return new Surroundings(
                match.orElseThrow(() -> new Refusal("The file's layers are not the plan's; mend that first.")),
                colouring.model(),
                fit.map(Fit::copies).orElse(List.of()),
                printer().lineWidth());
    }

    /** Spools of the plastic of the plan's first that it could print with as well, those that it knows first. */
    List<SpoolId> spare() {
        Spool first = shelf.get(plan().starts().get(0).spool());
        return Stream.concat(plan().palette().stream().filter(atHand::contains), atHand.stream())
                .distinct()
                .filter(s -> !plan().spools().contains(s))
                .filter(s -> shelf.get(s).material() == first.material())
                .toList();
    }

    String label(SpoolId spool) {
        return plan().letter(spool) + " " + shelf.get(spool).name();
    }
}
