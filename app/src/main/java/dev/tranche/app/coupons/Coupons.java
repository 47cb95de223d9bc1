package dev.tranche.app.coupons;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.coupon.Coupon;
import dev.tranche.core.coupon.Coupon.Kind;
import dev.tranche.core.coupon.Coupon.Scale;
import dev.tranche.core.coupon.Toolpaths;
import dev.tranche.core.format.Part;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Volume;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes coupons: each is a plan with its toolpaths, and knows what its marks measure. */
@Service
class Coupons {
    /** A ladder's swap pushes as little as a plan can say, so that its first bars are still mixed. */
    private static final PurgeSettings LITTLE = new PurgeSettings(2, 0.1);

    private final CouponRepository coupons;
    private final Plans plans;
    private final Workshop workshop;
    private final Shelf shelf;
    private final FileStore files;
    private final ModelCuts cuts;
    private final TrancheProperties properties;

    Coupons(
            CouponRepository coupons,
            Plans plans,
            Workshop workshop,
            Shelf shelf,
            FileStore files,
            ModelCuts cuts,
            TrancheProperties properties) {
        this.coupons = coupons;
        this.plans = plans;
        this.workshop = workshop;
        this.shelf = shelf;
        this.files = files;
        this.cuts = cuts;
        this.properties = properties;
    }

    /**
     * A coupon that was made.
     *
     * @param out spool before {@code in}, which it measures
     * @param seen the first mark that is as it should be, once somebody has looked
     */
    record Made(
            String plan,
            String name,
            long printer,
            Kind kind,
            Spool out,
            Spool in,
            Scale scale,
            Optional<Double> seen) {
        /** What was seen, in mm³ or mm. */
        Optional<Double> measured() {
            return seen.map(scale::at);
        }
    }

    /**
     * Makes one.
     *
     * @param third spool, where the kind needs it: what is light beneath a stack
     */
    PlanState make(long printer, Kind kind, SpoolId out, SpoolId in, Optional<SpoolId> third) throws IOException {
        Machine machine = workshop.get(printer);
        Map<SpoolId, Spool> spools = shelf.byId();
        Spool from = spool(spools, out);
        Spool to = spool(spools, in);
        PurgeSettings settings = kind == Kind.PURGE_LADDER ? LITTLE : PurgeSettings.USUAL;
        Printer on = machine.printer();
        Coupon coupon =
                switch (kind) {
                    case EARLY_SWAP -> Coupon.earlySwap(on, out, in);
                    case PURGE_LADDER -> Coupon.purgeLadder(
                            on,
                            out,
                            in,
                            purge(machine, settings, from, to),
                            purge(machine, PurgeSettings.USUAL, from, to));
                    case STACK -> Coupon.stack(
                            on,
                            in,
                            out,
                            third.orElseThrow(() -> new Refusal("A stack needs a dark and a light spool beneath.")));
                    case GEARS -> Coupon.gears(on, in);
                };
        return keep(machine, coupon, name(kind, from, to), settings, spools);
    }

    private static Spool spool(Map<SpoolId, Spool> spools, SpoolId id) {
        return Optional.ofNullable(spools.get(id))
                .orElseThrow(() -> new Refusal("That spool is no longer on the shelf; reload the page."));
    }

    private static Volume purge(Machine machine, PurgeSettings settings, Spool out, Spool in) {
        Printer printer = machine.printer();
        return new PurgeModel(
                        printer.deadVolume(),
                        settings,
                        List.of(),
                        !printer.hotend().blends())
                .between(out, in)
                .volume();
    }

    private static String name(Kind kind, Spool out, Spool in) {
        return switch (kind) {
            case STACK -> kind.title() + " of " + in.name();
            case GEARS -> kind.title() + ", with " + in.name();
            default -> kind.title() + ", " + out.name() + " to " + in.name();
        };
    }

    private PlanState keep(
            Machine machine, Coupon coupon, String name, PurgeSettings settings, Map<SpoolId, Spool> spools)
            throws IOException {
        List<ThreeMfWriter.Thing> things = coupon.spools().stream()
                .map(s -> new ThreeMfWriter.Thing(
                        part(s), spools.get(s).name(), spools.get(s).colour(), List.of(coupon.mesh(s))))
                .toList();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ThreeMfWriter.write(name, things, bytes);
        FileStore.Kept model = files.keep(new ByteArrayInputStream(bytes.toByteArray()), properties.largestModel());
        ModelFile file = new ModelFile(model.hash(), "coupon.3mf", model.size());
        List<Part> parts = cuts.model(List.of(file), Progress.UNHEARD).parts();
        ColourPlan colours = ColourPlan.of(coupon.layers(), coupon.spools().get(0));
        for (SpoolId spool : coupon.spools().subList(1, coupon.spools().size())) {
            List<Integer> numbers = IntStream.range(0, parts.size())
                    .filter(i -> isOf(parts.get(i).name(), spool))
                    .boxed()
                    .toList();
            colours = colours.with(colours.regions()
                    .plus(new Region(spools.get(spool).name(), new Shape.Parts(numbers), spool, Range.ALL)));
        }
        PlanState plan = plans.create(name, new PlanContent(file, colours, settings, machine.id()));
        String gcode = Toolpaths.of(coupon, machine.printer(), spools);
        FileStore.Kept sliced = files.keep(
                new ByteArrayInputStream(gcode.getBytes(StandardCharsets.US_ASCII)), properties.largestGcode());
        plans.giveGcode(plan.id(), new PlanState.Gcode(sliced.hash(), "coupon.gcode"));
        CouponEntity entity = new CouponEntity();
        entity.plan = plan.id();
        entity.printer = machine.id();
        entity.kind = coupon.kind().name();
        List<SpoolId> order = coupon.spools();
        entity.out = order.get(0).value();
        entity.in = order.get(order.size() - 1).value();
        entity.first = coupon.scale().first();
        entity.step = coupon.scale().step();
        entity.marks = coupon.scale().marks();
        coupons.save(entity);
        return plans.get(plan.id());
    }

    /** Parts of one thing are numbered where there are several. */
    private static boolean isOf(String part, SpoolId spool) {
        return part.equals(part(spool)) || part.startsWith(part(spool) + " ");
    }

    private static String part(SpoolId spool) {
        return "spool " + spool.value();
    }

    List<Made> of(long printer) {
        List<Plans.Listed> listed = plans.listed();
        List<Made> made = new ArrayList<>();
        for (CouponEntity e : coupons.findByPrinter(printer)) {
            listed.stream().filter(p -> p.id().equals(e.plan)).findFirst().ifPresent(p -> made.add(made(e, p.name())));
        }
        return made;
    }

    Optional<Made> of(PlanState plan) {
        return coupons.findById(plan.id()).map(e -> made(e, plan.name()));
    }

    private Made made(CouponEntity e, String name) {
        Map<SpoolId, Spool> spools = shelf.byId();
        return new Made(
                e.plan,
                name,
                e.printer,
                Kind.valueOf(e.kind),
                spools.get(new SpoolId(e.out)),
                spools.get(new SpoolId(e.in)),
                new Scale(e.first, e.step, e.marks),
                Optional.ofNullable(e.seen));
    }

    /** Takes over what was seen: mark {@code mark} is the first that is as it should be. */
    @Transactional
    public void see(PlanState plan, double mark) {
        CouponEntity entity = coupons.findById(plan.id())
                .orElseThrow(() -> new Refusal("This plan is no coupon, so nothing is read off it."));
        Made made = made(entity, plan.name());
        if (made.kind() != Kind.GEARS && mark != Math.rint(mark)) {
            throw new Refusal("Give the number of the mark, such as 4.");
        }
        switch (made.kind()) {
            case PURGE_LADDER -> workshop.measured(
                    made.printer(), Coupon.measured(made.out().id(), made.in().id(), made.scale(), mark));
            case STACK -> shelf.change(made.in().covering(made.scale().at(mark)));
            case GEARS -> gears(made.printer(), Math.round(made.scale().at(mark) * 10) / 10.0);
            case EARLY_SWAP -> throw new Refusal("An early swap is looked at, and nothing is read off it.");
        }
        entity.seen = mark;
    }

    private void gears(long printer, double length) {
        Machine machine = workshop.get(printer);
        workshop.edit(
                printer,
                machine.version().edition(),
                Words.format("gears to nozzle %.1f mm, as measured", length),
                rig -> rig.with(rig.printer().with(rig.printer().drive().reaching(length))));
    }
}
