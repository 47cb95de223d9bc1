package dev.tranche.app.desk;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.rig.Rack;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills what shows the blends and fades of a plan. */
@Component
class PaintViews {
    private final Choices choices;
    private final Figures figures;

    PaintViews(Choices choices, Figures figures) {
        this.choices = choices;
        this.figures = figures;
    }

    /** How much of a spool is in a blend, in per cent. */
    public record Portion(long spool, String name, String percent) {}

    /**
     * A mixture of the plan.
     *
     * @param portions of a blend
     * @param begins of a fade, as {@code ends}, mm
     * @param idle whether nothing is printed with it
     */
    public record Row(
            SpoolMark mark, boolean fades, List<Portion> portions, String begins, String ends, boolean idle) {}

    /** A blend that the printer's rack keeps. */
    public record Preset(int extruder, String name) {}

    /**
     * A fade that nobody has made yet, over the colour under the cursor.
     *
     * @param from paint beneath it, {@code to} above it
     */
    public record Proposed(long from, long to, String begins, String ends) {}

    /** A row of a blend that nobody has made yet. */
    public record Input(long spool, int percent) {}

    void show(Workpiece work, int layer, Model model) {
        boolean blends = work.machine().printer().hotend().blends();
        List<Row> rows = work.colours().mixtures().list().stream()
                .filter(m -> work.spool(m.id()) != null)
                .map(m -> row(work, m))
                .toList();
        model.addAttribute("blends", blends || !rows.isEmpty());
        model.addAttribute("paints", rows);
        model.addAttribute("presets", presets(work));
        model.addAttribute("proposed", proposed(work, layer));
        model.addAttribute("inputs", inputs(work));
    }

    private Row row(Workpiece work, Mixture m) {
        SpoolMark mark = SpoolMark.of(work, m.id());
        boolean idle = !work.colours().spools().contains(m.id());
        return m instanceof Mixture.Fade f
                ? new Row(mark, true, List.of(), f.begins().toString(), f.ends().toString(), idle)
                : new Row(
                        mark,
                        false,
                        m.recipe(0).portions().stream()
                                .map(p -> new Portion(
                                        p.spool().value(),
                                        work.spool(p.spool()).name(),
                                        figures.plain(Math.rint(p.share() * 1e4) / 100)))
                                .toList(),
                        "",
                        "",
                        idle);
    }

    private static List<Preset> presets(Workpiece work) {
        Rack rack = work.machine().rig().rack();
        List<Preset> presets = new ArrayList<>();
        for (int t = 0; t < rack.size(); t++) {
            int number = t;
            rack.recipe(t)
                    .filter(r -> work.shelf().keySet().containsAll(r.spools()))
                    .filter(r -> work.colours().mixtures().list().stream()
                            .noneMatch(m ->
                                    m instanceof Mixture.Blend b && b.recipe().equals(r)))
                    .ifPresent(r -> presets.add(
                            new Preset(number, r.name(s -> work.spool(s).name()))));
        }
        return presets;
    }

    /** Over the tranche under the cursor, from what lies beneath it into what lies above. */
    private Proposed proposed(Workpiece work, int layer) {
        Tranche here = work.trancheOf(layer);
        List<Tranche> all = work.tranches();
        int at = all.indexOf(here);
        Optional<Tranche> below = at > 0 ? Optional.of(all.get(at - 1)) : Optional.empty();
        Optional<Tranche> above = at + 1 < all.size() ? Optional.of(all.get(at + 1)) : Optional.empty();
        SpoolId from = plain(work, below.map(Tranche::spool).orElse(here.spool()));
        SpoolId to = above.map(Tranche::spool)
                .map(s -> plain(work, s))
                .filter(s -> !s.equals(from))
                .orElseGet(() -> second(work, from));
        return new Proposed(
                from.value(),
                to.value(),
                work.grid().bottom(here.firstLayer()).toString(),
                work.grid().top(here.lastLayer()).toString());
    }

    /** A fade does not begin or end with a fade. */
    private static SpoolId plain(Workpiece work, SpoolId paint) {
        return work.colours()
                .mixtures()
                .find(paint)
                .filter(m -> m instanceof Mixture.Fade)
                .map(m -> m.recipe(Mixture.TURNED).most())
                .orElse(paint);
    }

    /** What else the nozzle holds, or else the shelf. */
    private SpoolId second(Workpiece work, SpoolId first) {
        return inputs(work).stream()
                .map(i -> new SpoolId(i.spool()))
                .filter(s -> !s.equals(first))
                .findFirst()
                .orElse(first);
    }

    /** What feeds the nozzle in equal shares; two spools where nothing is known of it. */
    private List<Input> inputs(Workpiece work) {
        List<SpoolId> fed = new ArrayList<>();
        (work.ledger().feeding().isEmpty()
                        ? work.machine().rig().rack().inputs()
                        : work.ledger().feeding())
                .forEach(i -> i.filter(s -> work.shelf().containsKey(s)).ifPresent(fed::add));
        List<SpoolId> others = new ArrayList<>(work.colours().palette());
        choices.of(work.plan()).stream().map(Spool::id).forEach(others::add);
        int rows = Math.max(2, work.machine().printer().hotend().inputs());
        others.stream()
                .filter(s -> !s.isMixture() && !fed.contains(s))
                .distinct()
                .limit(Math.max(0, rows - fed.size()))
                .forEach(fed::add);
        int count = Math.min(Recipe.MOST, fed.size());
        return IntStream.range(0, count)
                .mapToObj(i -> new Input(fed.get(i).value(), i == 0 ? 100 - (count - 1) * (100 / count) : 100 / count))
                .toList();
    }
}
