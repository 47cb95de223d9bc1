package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Halts;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Starts;
import java.util.List;
import java.util.Optional;

/** The colours of a plan, by height and by region. */
public record StoredColours(
        Layers layers,
        List<Start> starts,
        List<SpoolNumber> palette,
        List<Stop> halts,
        Areas regions,
        Order ordering,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<List<StoredMixture>> mixtures) {

    public static StoredColours of(ColourPlan c) {
        return new StoredColours(
                Layers.of(c.layers()),
                c.starts().list().stream().map(Start::of).toList(),
                c.palette().stream().map(SpoolNumber::of).toList(),
                c.halts().list().stream().map(Stop::of).toList(),
                Areas.of(c.regions()),
                Order.of(c.ordering()),
                Optional.of(c.mixtures().list().stream().map(StoredMixture::of).toList())
                        .filter(list -> !list.isEmpty()));
    }

    public ColourPlan plan() {
        return new ColourPlan(
                layers.settings(),
                new Starts(starts.stream().map(Start::start).toList()),
                palette.stream().map(SpoolNumber::id).toList(),
                new Halts(halts.stream().map(Stop::halt).toList()),
                regions.regions(),
                ordering.ordering(),
                new Mixtures(mixtures.orElse(List.of()).stream()
                        .map(StoredMixture::mixture)
                        .toList()));
    }

    /** Layers as chosen. */
    record Layers(Micrometres firstLayer, Micrometres layerHeight, Micrometres raft, double shrink) {

        static Layers of(LayerSettings l) {
            return new Layers(
                    Micrometres.of(l.firstLayer()),
                    Micrometres.of(l.layerHeight()),
                    Micrometres.of(l.raft()),
                    l.shrink());
        }

        public LayerSettings settings() {
            return new LayerSettings(firstLayer.height(), layerHeight.height(), raft.height(), shrink);
        }
    }

    /** Where a colour starts. */
    record Start(Micrometres wished, SpoolNumber spool) {

        static Start of(ColourStart c) {
            return new Start(Micrometres.of(c.wished()), SpoolNumber.of(c.spool()));
        }

        public ColourStart start() {
            return new ColourStart(wished.height(), spool.id());
        }
    }

    /** A halt. */
    record Stop(Micrometres wished, String note) {

        static Stop of(Halt h) {
            return new Stop(Micrometres.of(h.wished()), h.note());
        }

        public Halt halt() {
            return new Halt(wished.height(), note);
        }
    }

    /** A range of heights. */
    record Between(Micrometres from, Optional<Micrometres> to) {

        static Between of(Range r) {
            return new Between(Micrometres.of(r.from()), r.to().map(Micrometres::of));
        }

        public Range range() {
            return new Range(from.height(), to.map(Micrometres::height));
        }
    }

    /** A region. */
    record Area(String name, StoredShape shape, SpoolNumber spool, Between range) {

        static Area of(Region r) {
            return new Area(r.name(), StoredShape.of(r.shape()), SpoolNumber.of(r.spool()), Between.of(r.range()));
        }

        public Region region() {
            return new Region(name, shape.shape(), spool.id(), range.range());
        }
    }

    /** Regions in their order. */
    record Areas(List<Area> list) {

        static Areas of(Regions r) {
            return new Areas(r.list().stream().map(Area::of).toList());
        }

        public Regions regions() {
            return new Regions(list.stream().map(Area::region).toList());
        }
    }

    /** How the colours of a layer are put in order. */
    record Order(String rule, String aim, List<SpoolNumber> numbering) {

        static Order of(Ordering o) {
            return new Order(
                    o.rule().name(),
                    o.aim().name(),
                    o.numbering().stream().map(SpoolNumber::of).toList());
        }

        public Ordering ordering() {
            return new Ordering(
                    Ordering.Rule.valueOf(rule),
                    Ordering.Aim.valueOf(aim),
                    numbering.stream().map(SpoolNumber::id).toList());
        }
    }
}
