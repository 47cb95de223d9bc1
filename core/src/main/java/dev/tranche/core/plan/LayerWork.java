package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Sheet;
import dev.tranche.core.layer.CutModel;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/** Works out the colours of one layer, and takes over what is known of its shape already. */
final class LayerWork {
    private static final int WHOLE = -1;

    /**
     * What determines a cell, whatever its colour: of one part, or of the whole section where there is none, less the parts
     * {@code taken}, less the mask; or, of a zone, what lies within the mask.
     */
    private record Key(int part, Set<Integer> taken, Mask mask, boolean zone) {}

    private record Cell(MultiPolygon area, double squareMillimetres) {
        static Cell of(MultiPolygon area) {
            return new Cell(area, Areas.size(area));
        }
    }

    /** What has been worked out for a layer; its section is indexed once, when first asked for. */
    static final class Known {
        private final Map<Key, Cell> cells = new HashMap<>();
        private final Map<List<Key>, Tint> tints = new HashMap<>();
        private Sheet sheet;

        /** The same areas, whose tints have to be looked at anew. */
        Known withoutTints() {
            Known kept = new Known();
            kept.cells.putAll(cells);
            kept.sheet = sheet;
            return kept;
        }

        /** The layer's section. */
        Sheet sheet(MultiPolygon outline) {
            if (sheet == null) {
                sheet = new Sheet(outline);
            }
            return sheet;
        }
    }

    private final ColourPlan plan;
    private final CutModel model;
    private final double lineWidth;
    private final int layer;
    private final Known before;
    private final Known now;

    /** @param before what was known of the layer's shape, if anything was */
    LayerWork(ColourPlan plan, CutModel model, double lineWidth, int layer, Known before, Known now) {
        this.plan = plan;
        this.model = model;
        this.lineWidth = lineWidth;
        this.layer = layer;
        this.before = before == null ? new Known() : before;
        this.now = now;
        now.sheet = this.before.sheet;
    }

    /**
     * @param reach the regions that reach the layer
     * @param m those regions among themselves
     * @param base spool of the colour by height
     */
    LayerColours colours(Reach reach, Masks m, SpoolId base) {
        Map<SpoolId, List<Key>> bySpool = new LinkedHashMap<>();
        plan.palette().forEach(s -> bySpool.put(s, new ArrayList<>()));
        List<Field> fields = new ArrayList<>();
        List<List<Integer>> owned = owned(reach, m);
        field(fields, bySpool, Field.BASE, base, base(m));
        Set<Integer> later = new HashSet<>(m.parts());
        for (int i = 0; i < reach.regions().size(); i++) {
            int region = reach.regions().get(i);
            later.removeAll(owned.get(i));
            List<Key> keys = reach.shapes().get(i) instanceof Shape.Zone
                    ? List.of(new Key(WHOLE, m.partsAfter().get(i), m.masks().get(i), true))
                    : cells(owned.get(i), later, m.masks().get(i));
            field(fields, bySpool, region, plan.regions().get(region).spool(), keys);
        }
        List<Tint> tints = new ArrayList<>();
        bySpool.forEach((spool, keys) -> {
            Tint tint = tint(keys);
            if (!tint.isEmpty()) {
                tints.add(tint.in(spool));
            }
        });
        return new LayerColours(List.copyOf(fields), List.copyOf(tints));
    }

    private void field(List<Field> fields, Map<SpoolId, List<Key>> bySpool, int region, SpoolId spool, List<Key> keys) {
        List<Cell> cells = keys.stream().map(this::cell).toList();
        fields.add(new Field(
                region,
                spool,
                cells.stream().map(Cell::area).toList(),
                cells.stream().mapToDouble(Cell::squareMillimetres).sum()));
        bySpool.get(spool).addAll(keys);
    }

    /** For each of those regions the parts that it colours on this layer: those that no later region takes. */
    private List<List<Integer>> owned(Reach reach, Masks m) {
        List<List<Integer>> owned = new ArrayList<>();
        for (int i = 0; i < reach.shapes().size(); i++) {
            Set<Integer> after = m.partsAfter().get(i);
            owned.add(
                    reach.shapes().get(i) instanceof Shape.Parts p
                            ? p.numbers().stream()
                                    .filter(n -> n < model.solids().size() && !after.contains(n))
                                    .toList()
                            : List.of());
        }
        return owned;
    }

    /** The colour by height: all of the section, or the parts that no region colours, less what regions take. */
    private List<Key> base(Masks m) {
        if (m.parts().isEmpty()) {
            return List.of(new Key(WHOLE, Set.of(), m.zones(), false));
        }
        List<Integer> rest = IntStream.range(0, model.solids().size())
                .filter(n -> !m.parts().contains(n))
                .boxed()
                .toList();
        return cells(rest, m.parts(), m.zones());
    }

    /**
     * Parts of one region, each less the parts of later regions and less those before it, so that no two overlap.
     */
    private List<Key> cells(List<Integer> parts, Set<Integer> later, Mask mask) {
        List<Key> keys = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            int part = parts.get(i);
            Envelope box = model.section(part, layer).outline().getEnvelopeInternal();
            if (box.isNull()) {
                continue;
            }
            Set<Integer> taken = new TreeSet<>();
            later.stream().filter(n -> meets(n, box)).forEach(taken::add);
            parts.subList(0, i).stream().filter(n -> meets(n, box)).forEach(taken::add);
            keys.add(new Key(part, taken, mask, false));
        }
        return keys;
    }

    private boolean meets(int part, Envelope box) {
        return part < model.solids().size()
                && model.section(part, layer).outline().getEnvelopeInternal().intersects(box);
    }

    private Cell cell(Key key) {
        Cell cell = now.cells.get(key);
        if (cell == null) {
            cell = before.cells.get(key);
            cell = cell == null ? Cell.of(workOut(key)) : cell;
            now.cells.put(key, cell);
        }
        return cell;
    }

    private MultiPolygon workOut(Key key) {
        MultiPolygon area = key.part() == WHOLE
                ? model.section(layer).outline()
                : model.section(key.part(), layer).outline();
        if (key.zone()) {
            area = now.sheet(model.section(layer).outline()).within(key.mask().area());
        }
        for (int part : key.taken()) {
            if (part < model.solids().size()) {
                area = Areas.difference(area, model.section(part, layer).outline());
            }
        }
        return key.zone() ? area : without(area, key.mask().area());
    }

    private MultiPolygon without(MultiPolygon area, MultiPolygon mask) {
        return area == model.section(layer).outline() ? now.sheet(area).without(mask) : Areas.difference(area, mask);
    }

    private Tint tint(List<Key> keys) {
        Tint tint = now.tints.get(keys);
        if (tint == null) {
            tint = before.tints.get(keys);
            tint = tint == null ? Tint.of(keys.stream().map(k -> cell(k).area()).toList(), lineWidth) : tint;
            now.tints.put(List.copyOf(keys), tint);
        }
        return tint;
    }
}
