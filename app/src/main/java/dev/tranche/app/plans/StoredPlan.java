package dev.tranche.app.plans;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.app.stored.Format;
import dev.tranche.app.stored.StoredColours;
import dev.tranche.app.stored.StoredPlacement;
import dev.tranche.app.stored.StoredPurge;
import dev.tranche.core.check.Asides;
import dev.tranche.core.estimate.PrintSettings;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Rims;
import dev.tranche.core.plate.Spot;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** A plan as it is stored, in the database and in plan files. */
public record StoredPlan(
        List<File> files,
        StoredColours colours,
        StoredPurge purge,
        long printer,
        StoredPlacement placement,
        Parts parts,
        int copies,
        Optional<LocalDateTime> start,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Places> plate,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Filling> filling,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Map<String, String>> aside) {
    public static final Format<PlanContent, StoredPlan> FORMAT =
            new Format<>(StoredPlan.class, 1, StoredPlan::of, StoredPlan::plan, plan -> plan.files().stream()
                    .map(ModelFile::hash)
                    .collect(Collectors.toSet()));

    public static StoredPlan of(PlanContent plan) {
        return new StoredPlan(
                plan.files().stream().map(File::of).toList(),
                StoredColours.of(plan.colours()),
                StoredPurge.of(plan.purge()),
                plan.printer(),
                StoredPlacement.of(plan.placement()),
                Parts.of(plan.parts()),
                plan.copies(),
                plan.start(),
                Places.of(plan.plate()),
                Optional.of(plan.filling())
                        .filter(f -> !f.equals(PrintSettings.COMMON))
                        .map(Filling::of),
                Optional.of(plan.asides().reasons()).filter(reasons -> !reasons.isEmpty()));
    }

    public PlanContent plan() {
        return new PlanContent(
                files.stream().map(File::file).toList(),
                colours.plan(),
                purge.settings(),
                printer,
                placement.placement(),
                parts.all(),
                plate.map(p -> p.plate(copies)).orElseGet(() -> Plate.ONE.times(copies)),
                start,
                filling.map(Filling::settings).orElse(PrintSettings.COMMON),
                aside.map(Asides::new).orElse(Asides.NONE));
    }

    /** How the estimate takes the model to be filled; the infill is a share. */
    record Filling(int walls, int solidLayers, double infill) {
        static Filling of(PrintSettings settings) {
            return new Filling(settings.walls(), settings.shellLayers(), settings.infill());
        }

        PrintSettings settings() {
            return new PrintSettings(walls, solidLayers, infill);
        }
    }

    /** Where copies stand, if somebody has said so, and how far apart. */
    record Places(
            double gap,
            List<Place> copies,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Place> tower,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> brim,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> skirt) {
        static Optional<Places> of(Plate plate) {
            boolean usual = plate.byHand().isEmpty()
                    && plate.gap() == Plate.USUAL_GAP
                    && plate.tower().isEmpty()
                    && plate.rims().equals(Rims.NONE);
            return usual
                    ? Optional.empty()
                    : Optional.of(new Places(
                            plate.gap(),
                            plate.byHand().stream().map(Place::of).toList(),
                            plate.tower().map(Place::of),
                            wide(plate.rims().brim()),
                            wide(plate.rims().skirt())));
        }

        Plate plate(int number) {
            return new Plate(
                    number,
                    gap,
                    copies.stream().map(Place::spot).toList(),
                    tower.map(Place::spot),
                    new Rims(brim.orElse(0.0), skirt.orElse(0.0)));
        }

        private static Optional<Double> wide(double millimetres) {
            return millimetres > 0 ? Optional.of(millimetres) : Optional.empty();
        }
    }

    /** Where one stands: mm on the bed, and degrees. */
    record Place(double x, double y, double turn) {
        static Place of(Spot spot) {
            return new Place(spot.x(), spot.y(), spot.turn());
        }

        Spot spot() {
            return new Spot(x, y, turn);
        }
    }

    /** A model file. */
    record File(String hash, String name, long size) {
        static File of(ModelFile f) {
            return new File(f.hash(), f.name(), f.size());
        }

        ModelFile file() {
            return new ModelFile(hash, name, size);
        }
    }

    /** Notes on parts by their numbers. */
    record Parts(Map<Integer, Note> notes) {
        static Parts of(PartNotes parts) {
            Map<Integer, Note> notes = new TreeMap<>();
            parts.notes().forEach((number, n) -> notes.put(number, Note.of(n)));
            return new Parts(notes);
        }

        PartNotes all() {
            Map<Integer, PartNotes.Note> all = new TreeMap<>();
            notes.forEach((number, n) -> all.put(number, n.note()));
            return new PartNotes(all);
        }
    }

    /** A note on a part. */
    record Note(
            String name,
            boolean hidden,
            String group,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Moved> moved) {
        static Note of(PartNotes.Note note) {
            Optional<Moved> moved = Optional.of(note.shift())
                    .filter(s -> !s.equals(Shift.NONE))
                    .map(s ->
                            new Moved(s.x(), s.y(), s.z(), Optional.of(s.turn()).filter(t -> t != 0)));
            return new Note(note.name(), note.hidden(), note.group(), moved);
        }

        PartNotes.Note note() {
            Shift shift = moved.map(Moved::shift).orElse(Shift.NONE);
            return new PartNotes.Note(name, hidden, group, shift);
        }
    }

    /** By how many mm a part is moved from where its file has it, and by how many degrees it is turned. */
    record Moved(double x, double y, double z, @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> turn) {
        Shift shift() {
            return new Shift(x, y, z, turn.orElse(0.0));
        }
    }
}
