package dev.tranche.app.desk;

import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.pictures.ScoreDrawing;
import dev.tranche.app.pictures.SectionDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.pictures.ThinDrawing;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Halts;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the desk's templates. */
@Component
class DeskViews {
    private static final Map<String, Function<Ledger, Derivation>> FIGURES = Map.of(
            "swapCount", Ledger::swapCount,
            "purgeLength", Ledger::purgeLength,
            "wasteGrams", Ledger::wasteGrams,
            "plainTime", Ledger::plainTime,
            "addedTime", Ledger::addedTime,
            "totalTime", Ledger::totalTime,
            "timePerColour", Ledger::timePerColour,
            "cost", Ledger::cost);

    private final Shelf shelf;
    private final Choices choices;
    private final PaintViews paints;
    private final Workshop workshop;
    private final RegionViews regionViews;
    private final Drawings drawings;
    private final Grounds grounds;
    private final Heard heard;

    DeskViews(
            Shelf shelf,
            Choices choices,
            PaintViews paints,
            Workshop workshop,
            RegionViews regionViews,
            Drawings drawings,
            Grounds grounds,
            Heard heard) {
        this.grounds = grounds;
        this.heard = heard;
        this.shelf = shelf;
        this.choices = choices;
        this.paints = paints;
        this.workshop = workshop;
        this.regionViews = regionViews;
        this.drawings = drawings;
    }

    /** A colour start as a row of the list, highest first. */
    record StartRow(int index, SpoolMark mark, String wished, String layers, String snap, boolean movable) {}

    /** A halt as a row of its list. */
    record HaltRow(int index, int layer, String height, String note) {}

    /** Where the cursor stands, in every way a program may count. */
    record Cursor(
            int layer,
            int start,
            int of,
            String bottom,
            String top,
            String fromZero,
            Optional<String> inFile,
            double sectionY,
            double sectionHeight,
            double scoreX,
            Optional<String> nozzle,
            OptionalInt lower,
            OptionalInt higher) {}

    /** The whole desk. */
    void show(Workpiece work, Shown shown, int zoom, Model model) {
        int layer = layer(work, shown);
        SpoolId suggested = suggested(work, layer);
        moved(work, shown, zoom, model);
        regionViews.show(work, shown, suggested, model);
        List<SpoolMark> marks = SpoolMark.palette(work);
        model.addAttribute("heard_plan", heard.plan(work));
        model.addAttribute("marks", marks);
        model.addAttribute("markOf", marks.stream().collect(Collectors.toMap(SpoolMark::id, Function.identity())));
        model.addAttribute("starts", starts(work));
        model.addAttribute("halts", halts(work));
        model.addAttribute("spools", choices.of(work.plan()));
        paints.show(work, layer, model);
        model.addAttribute("suggested", suggested);
        model.addAttribute("machines", workshop.all());
        model.addAttribute("materials", Material.values());
    }

    /** What moves with the cursor: the layer, and where it lies in the other drawings. */
    void moved(Workpiece work, Shown shown, int zoom, Model model) {
        int layer = layer(work, shown);
        SectionDrawing section = drawings.section(work, shown.isToScale());
        ScoreDrawing score = drawings.score(work, layer, zoom);
        boolean pair = shown.beside() != null;
        model.addAttribute("work", work);
        model.addAttribute("plan", work.plan());
        model.addAttribute("side", shown.sideOr());
        model.addAttribute("section", section);
        Cursor cursor = cursor(work, layer, section, score);
        LayerDrawing drawing = drawing(work, layer, shown);
        model.addAttribute("plan_layer", drawing);
        model.addAttribute("kept_layer", pair ? drawing(work, limited(work, shown.beside()), shown) : null);
        model.addAttribute("thin_of", thin(work, pair, layer, pair ? limited(work, shown.beside()) : layer));
        model.addAttribute("even", shown.isToScale());
        model.addAttribute("drawn", Boolean.TRUE.equals(shown.drawn()));
        model.addAttribute("score", score);
        model.addAttribute("cursor", cursor);
        model.addAttribute("heard_layer", heard.layer(cursor, drawing));
        if (!pair) {
            drawings.ahead(work, layer, limited(work, layer + 1), limited(work, layer - 1));
        }
    }

    /** How a figure came about, and what it rests on; {@code key} is the name of its method. */
    void opened(Workpiece work, String key, Model model) {
        model.addAttribute("derivation", figure(work, key));
        model.addAttribute("grounds", grounds.of(work, key));
    }

    private static Derivation figure(Workpiece work, String key) {
        Function<Ledger, Derivation> figure = FIGURES.get(key);
        if (figure == null) {
            throw new Refusal("There is no such figure; reload the page.");
        }
        return figure.apply(work.ledger()).rounded();
    }

    private static int layer(Workpiece work, Shown shown) {
        return limited(work, shown.layer() == null ? firstBorder(work) : shown.layer());
    }

    private LayerDrawing drawing(Workpiece work, int layer, Shown shown) {
        return drawings.layer(
                work, layer, shown.regionOr(), Boolean.TRUE.equals(shown.drawn()), shown.beside() != null);
    }

    /** By layer, as far as it is known where they are too thin. */
    private Map<Integer, ThinDrawing> thin(Workpiece work, boolean pair, int... layers) {
        Map<Integer, ThinDrawing> known = new HashMap<>();
        for (int layer : layers) {
            drawings.thin(work, layer, pair).ifPresent(t -> known.put(layer, t));
        }
        return known;
    }

    /** Where a layer is too thin. */
    void thin(Workpiece work, int layer, boolean pair, Model model) {
        model.addAttribute("thin", drawings.thinNow(work, limited(work, layer), pair));
    }

    static int limited(Workpiece work, int layer) {
        return Math.max(1, Math.min(work.grid().count(), layer));
    }

    /** Where a newcomer looks first: the first layer of the second colour, or of the first flat. */
    private static int firstBorder(Workpiece work) {
        if (!work.ledger().swaps().isEmpty()) {
            return work.ledger().swaps().get(0).layer();
        }
        if (work.tranches().size() > 1) {
            return work.tranches().get(1).firstLayer();
        }
        return work.cut().model().surfaces().stream()
                .map(s -> work.grid().layerAt(s.height()))
                .findFirst()
                .orElse(1);
    }

    /** The spool a new colour most likely wants: one the plan has not, else one that this layer has not. */
    private SpoolId suggested(Workpiece work, int layer) {
        SpoolId here = work.trancheOf(layer).spool();
        List<SpoolId> all = shelf.all().stream().map(Spool::id).toList();
        return all.stream()
                .filter(id -> !work.colours().palette().contains(id))
                .findFirst()
                .or(() -> all.stream().filter(id -> !id.equals(here)).findFirst())
                .orElse(here);
    }

    private static Cursor cursor(Workpiece work, int layer, SectionDrawing section, ScoreDrawing score) {
        LayerGrid grid = work.grid();
        double y = section.bottom() - grid.top(layer).millimetres() * section.perMillimetre();
        List<Integer> swaps = work.ledger().swaps().stream().map(Swap::layer).toList();
        return new Cursor(
                layer,
                work.trancheOf(layer).index(),
                grid.count(),
                grid.bottom(layer).toString(),
                grid.top(layer).toString(),
                Integer.toString(layer - 1),
                work.match().flatMap(m -> m.markerOf(layer)),
                y,
                grid.thickness(layer).millimetres() * section.perMillimetre(),
                score.cursor(work, layer),
                work.colours().layers().raft().equals(Height.ZERO)
                        ? Optional.empty()
                        : Optional.of(grid.top(layer)
                                .plus(work.colours().layers().raft())
                                .toString()),
                swaps.stream()
                        .mapToInt(Integer::intValue)
                        .filter(s -> s < layer)
                        .max(),
                swaps.stream()
                        .mapToInt(Integer::intValue)
                        .filter(s -> s > layer)
                        .min());
    }

    private static List<HaltRow> halts(Workpiece work) {
        List<HaltRow> rows = new ArrayList<>();
        for (Halt halt : work.colours().halts().list()) {
            int layer = Halts.stops(halt, work.grid())
                    ? work.grid().snap(halt.wished()).layer()
                    : work.grid().count();
            rows.add(new HaltRow(rows.size(), layer, halt.wished().toString(), halt.note()));
        }
        return rows;
    }

    private static List<StartRow> starts(Workpiece work) {
        List<StartRow> rows = new ArrayList<>();
        List<ColourStart> starts = work.colours().starts().list();
        for (int i = 0; i < starts.size(); i++) {
            int index = i;
            Optional<Tranche> tranche =
                    work.tranches().stream().filter(t -> t.index() == index).findFirst();
            rows.add(new StartRow(
                    i,
                    SpoolMark.of(work, starts.get(i).spool()),
                    starts.get(i).wished().toString(),
                    tranche.map(DeskViews::layers).orElse("no layer"),
                    tranche.filter(t -> t.start().error() != 0)
                            .map(DeskViews::snap)
                            .orElse(""),
                    i > 0));
        }
        Collections.reverse(rows);
        return rows;
    }

    private static String layers(Tranche t) {
        return Words.layers(t.firstLayer(), t.lastLayer());
    }

    private static String snap(Tranche t) {
        return Words.format(
                "prints at %s mm (%+.2f)", t.start().actual(), t.start().errorMillimetres());
    }
}
