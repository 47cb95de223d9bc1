package dev.tranche.app.plans;

import dev.tranche.core.check.Asides;
import dev.tranche.core.estimate.PrintSettings;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Words;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What undo and redo go back and forth through.
 *
 * @param files of the model, aligned by their own origins; the parts are numbered through them in this order
 * @param colours by height and by region
 * @param purge how it wants to be purged
 * @param printer id of the printer that will print it
 * @param placement how the model is scaled and which way it lies
 * @param parts names, and which are left out
 * @param plate how many copies, and where they stand
 * @param start of the print by the clock, where the machine stands
 * @param filling that the estimate goes by
 * @param asides findings that are known and not to be told again
 */
public record PlanContent(
        List<ModelFile> files,
        ColourPlan colours,
        PurgeSettings purge,
        long printer,
        Placement placement,
        PartNotes parts,
        Plate plate,
        Optional<LocalDateTime> start,
        PrintSettings filling,
        Asides asides) {
    public PlanContent {
        files = List.copyOf(files);
    }

    /** A model as its file has it. */
    public PlanContent(ModelFile file, ColourPlan colours, PurgeSettings purge, long printer) {
        this(List.of(file), colours, purge, printer);
    }

    /** A model as its files have it. */
    public PlanContent(List<ModelFile> files, ColourPlan colours, PurgeSettings purge, long printer) {
        this(
                files,
                colours,
                purge,
                printer,
                Placement.AS_IS,
                PartNotes.NONE,
                Plate.ONE,
                Optional.empty(),
                PrintSettings.COMMON,
                Asides.NONE);
    }

    public PlanContent with(ColourPlan changed) {
        return new PlanContent(files, changed, purge, printer, placement, parts, plate, start, filling, asides);
    }

    public PlanContent with(PurgeSettings changed) {
        return new PlanContent(files, colours, changed, printer, placement, parts, plate, start, filling, asides);
    }

    public PlanContent with(PartNotes changed) {
        return new PlanContent(files, colours, purge, printer, placement, changed, plate, start, filling, asides);
    }

    public PlanContent with(PrintSettings changed) {
        return new PlanContent(files, colours, purge, printer, placement, parts, plate, start, changed, asides);
    }

    public PlanContent with(Asides changed) {
        return new PlanContent(files, colours, purge, printer, placement, parts, plate, start, filling, changed);
    }

    public PlanContent plus(ModelFile file) {
        List<ModelFile> more = new ArrayList<>(files);
        more.add(file);
        return new PlanContent(more, colours, purge, printer, placement, parts, plate, start, filling, asides);
    }

    public PlanContent on(long otherPrinter) {
        return new PlanContent(files, colours, purge, otherPrinter, placement, parts, plate, start, filling, asides);
    }

    public PlanContent times(int other) {
        return with(plate.times(other));
    }

    public PlanContent with(Plate other) {
        return new PlanContent(files, colours, purge, printer, placement, parts, other, start, filling, asides);
    }

    public int copies() {
        return plate.copies();
    }

    public PlanContent startingAt(Optional<LocalDateTime> other) {
        return new PlanContent(files, colours, purge, printer, placement, parts, plate, other, filling, asides);
    }

    /**
     * The model placed otherwise. Heights of colours, halts and regions move along where it is scaled as it lies, and
     * zones where it is scaled evenly or turned; where it is laid on another side they stay, as nobody but its owner
     * knows where they belong now.
     */
    public PlanContent with(Placement other) {
        double factor = other.scaleZ() / placement.scaleZ();
        ColourPlan moved = heightsFollow(other) && factor != 1 ? colours.scaledBy(factor) : colours;
        PartNotes laid = parts;
        if (zonesFollow(other)) {
            moved = moved.along(factor, other.turn() - placement.turn());
            laid = parts.along(factor, other.turn() - placement.turn());
        }
        return new PlanContent(files, moved, purge, printer, other, laid, plate, start, filling, asides);
    }

    private boolean heightsFollow(Placement other) {
        boolean upright = placement.downX() == 0 && placement.downY() == 0;
        return placement.liesAs(other) && (upright || placement.scalesEvenly() && other.scalesEvenly());
    }

    private boolean zonesFollow(Placement other) {
        return placement.liesAs(other) && placement.scalesEvenly() && other.scalesEvenly();
    }

    /** What did not follow the model when it was placed otherwise, as a sentence; nothing if all did. */
    public Optional<String> leftBehindSince(PlanContent before) {
        if (placement.equals(before.placement)) {
            return Optional.empty();
        }
        boolean heights = !before.heightsFollow(placement)
                && (colours.starts().size() > 1
                        || colours.halts().size() > 0
                        || colours.regions().list().stream()
                                .anyMatch(r -> !r.range().equals(Range.ALL)));
        boolean zones = !before.zonesFollow(placement)
                && colours.regions().list().stream().anyMatch(r -> !r.shape().isByPart());
        return heights || zones
                ? Optional.of(Words.format(
                        "%s stayed where they were; look whether they still belong there.",
                        heights && zones ? "Heights and zones" : heights ? "Heights of colours" : "Zones"))
                : Optional.empty();
    }
}
