package dev.tranche.core.plate;

import dev.tranche.core.machine.Head;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.sequence.Thing;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** What a plate holds that stands by itself: each island of the model, copy by copy. */
public final class Things {
    /** Of more nobody prints one after another. */
    public static final int MOST = 1000;

    private static final int MOST_ISLANDS = 100;

    private Things() {}

    /**
     * @param copies of the model
     * @return nothing where there is only one, or where there are too many
     */
    public static List<Thing> of(Colouring colouring, Footprint footprint, int copies, Head head) {
        MultiPolygon model = footprint.inModel();
        int islands = model.getNumGeometries();
        if (islands * copies < 2 || islands > MOST_ISLANDS || islands * copies > MOST) {
            return List.of();
        }
        List<List<LayerColours>> layers = IntStream.range(0, islands)
                .mapToObj(i -> islands == 1 ? colouring.layers() : within(colouring, (Polygon) model.getGeometryN(i)))
                .toList();
        List<Boolean> high =
                layers.stream().map(l -> height(colouring, l) > head.height()).toList();
        List<Thing> things = new ArrayList<>();
        for (int copy = 0; copy < copies; copy++) {
            for (int island = 0; island < islands; island++) {
                things.add(new Thing(copy, island, layers.get(island), high.get(island)));
            }
        }
        return things;
    }

    /** How high a thing is, mm. */
    public static double height(Colouring colouring, List<LayerColours> layers) {
        int top = layers.size();
        while (top > 0 && layers.get(top - 1).tints().stream().noneMatch(Tint::prints)) {
            top--;
        }
        return top == 0 ? 0 : colouring.model().grid().top(top).millimetres();
    }

    private static List<LayerColours> within(Colouring colouring, Polygon island) {
        Map<LayerColours, LayerColours> known = new IdentityHashMap<>();
        return colouring.layers().stream()
                .map(l -> known.computeIfAbsent(
                        l,
                        all -> new LayerColours(
                                List.of(),
                                all.tints().stream()
                                        .map(t -> within(t, island))
                                        .filter(t -> !t.isEmpty())
                                        .toList())))
                .toList();
    }

    private static Tint within(Tint tint, Polygon island) {
        List<MultiPolygon> cells = new ArrayList<>();
        double size = 0;
        for (MultiPolygon cell : tint.cells()) {
            List<Polygon> pieces = new ArrayList<>();
            for (int i = 0; i < cell.getNumGeometries(); i++) {
                Polygon piece = (Polygon) cell.getGeometryN(i);
                // Islands lie apart, so that a piece lies in the one whose rectangle holds it and that it touches.
                if (island.getEnvelopeInternal().intersects(piece.getEnvelopeInternal())
                        && island.intersects(piece.getInteriorPoint())) {
                    pieces.add(piece);
                    size += piece.getArea();
                }
            }
            if (pieces.size() == cell.getNumGeometries()) {
                cells.add(cell);
            } else if (!pieces.isEmpty()) {
                cells.add(cell.getFactory().createMultiPolygon(pieces.toArray(Polygon[]::new)));
            }
        }
        return new Tint(tint.spool(), cells, size, 0, tint.prints() && size > 0);
    }
}
