package dev.tranche.core.check;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Head;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plate.Clearance;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.returns.ReturnPath;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.sequence.Thing;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;

/** Rules on what stands where on the bed, and on the ways of the nozzle between. */
final class PlateRules {
    private PlateRules() {}

    /** Copies that have no room, reach beyond the bed, or stand in one another's way. */
    static List<Finding> copies(PlanFacts facts) {
        // A model that is larger than the bed is told by itself.
        if (facts.match().isPresent() || !ModelRules.tooLarge(facts).isEmpty()) {
            return List.of();
        }
        Layout layout = facts.layout();
        List<Finding> findings = new ArrayList<>();
        if (layout.withoutRoom() > 0) {
            int all = layout.copies().size() + layout.withoutRoom();
            findings.add(Finding.of(
                    Severity.STOP,
                    "too-many-copies",
                    Words.format(
                            "The bed of %s has room for %d of %d copies in rows; print them in several goes, or closer together.",
                            facts.printer().name(), layout.copies().size(), all)));
        }
        List<String> beyond = IntStream.range(0, layout.copies().size())
                .filter(i -> layout.copies().get(i).beyond())
                .mapToObj(i -> String.valueOf(i + 1))
                .toList();
        if (!beyond.isEmpty()) {
            findings.add(Finding.of(
                    Severity.STOP,
                    "copies-beyond",
                    Words.format(
                            "%s beyond the bed of %s%s; move %s on the plate, or arrange all anew.",
                            beyond.size() == 1
                                    ? "Copy " + beyond.get(0) + " reaches"
                                    : beyond.size() + " copies, from number " + beyond.get(0) + " on, reach",
                            facts.printer().name(),
                            rims(layout),
                            beyond.size() == 1 ? "it" : "them")));
        }
        if (!layout.tooNear().isEmpty()) {
            Layout.Pair pair = layout.tooNear().get(0);
            findings.add(Finding.of(
                    Severity.STOP,
                    "copies-too-near",
                    Words.format(
                            "Copies %d and %d %s%s; move one of them on the plate, or arrange all anew.",
                            pair.one() + 1,
                            pair.other() + 1,
                            pair.apart() == 0
                                    ? "stand in one another"
                                    : Words.format(
                                            "are %.1f mm apart, nearer than %s",
                                            pair.apart(),
                                            layout.margin() > 0
                                                    ? "the gap or the brims you want allow"
                                                    : "the gap you want"),
                            layout.tooNear().size() == 1 ? "" : ", and so on")));
        }
        return findings;
    }

    private static String rims(Layout layout) {
        return layout.margin() > 0 ? " with brim or skirt" : "";
    }

    /** A tower that stands where it cannot, or has no room at all. */
    static List<Finding> tower(PlanFacts facts) {
        TowerStand stand = facts.returns().tower().orElse(null);
        if (stand == null || stand.stands()) {
            return List.of();
        }
        String size = Words.format("The tower of %.0f × %.0f mm", stand.width(), stand.depth());
        if (!stand.byHand()) {
            return List.of(withoutRoom(facts, stand, size));
        }
        return List.of(Finding.of(
                        Severity.STOP,
                        "tower-stands-badly",
                        size
                                + (stand.beyond()
                                        ? Words.format(
                                                " reaches beyond the bed of %s%s",
                                                facts.printer().name(), rims(facts.layout()))
                                        : Words.format(
                                                " stands on or too near to copy %d",
                                                stand.tooNear().get(0) + 1))
                                + "; move it on the plate, or let Tranche find it a place.")
                .mendedBy(Fix.ofPlate("Find it a place", facts.layout(), p -> p.withTowerAnywhere())));
    }

    private static Finding withoutRoom(PlanFacts facts, TowerStand stand, String size) {
        Bed bed = facts.printer().bed();
        ReturnPaths paths = facts.returns();
        OptionalDouble width = paths.widthWithRoom(facts.layout(), facts.gap(), bed);
        Finding finding = Finding.of(
                Severity.STOP,
                "tower-without-room",
                Words.format(
                        "%s has no room on the bed of %s beside %s; %s",
                        size,
                        facts.printer().name(),
                        Words.count(facts.layout().copies().size(), "copy", "copies"),
                        width.isPresent()
                                ? Words.format("one %.0f mm wide would have.", width.getAsDouble())
                                : "print fewer copies, purge less, or purge beside the print."));
        return width.isEmpty()
                ? finding
                : finding.mendedBy(Fix.ofPurge(
                        Words.format("Make it %.0f mm wide", width.getAsDouble()),
                        p -> p.into(p.place().wide(width.getAsDouble()))));
    }

    /** Things that are printed whole, one after another, and over which the head does not come. */
    static List<Finding> headClears(PlanFacts facts) {
        boolean asPlanned =
                facts.match().isEmpty() || facts.rearranging().made().isPresent();
        if (!oneAfterAnother(facts) || !asPlanned) {
            return List.of();
        }
        Hotend hotend = facts.printer().hotend();
        return Clearance.of(
                        facts.orders().sequence(), facts.colouring(), facts.modelFootprint(), facts.layout(), hotend)
                .hit()
                .map(hit -> hits(facts, hit, hotend.head()))
                .stream()
                .toList();
    }

    private static Finding hits(PlanFacts facts, Clearance.Hit hit, Head head) {
        String standing = name(facts, hit.standing());
        Finding finding = Finding.of(
                Severity.STOP,
                "head-hits",
                hit.beam()
                        ? Words.format(
                                "Printed one after another, %s would stand %.1f mm high when %s is begun, and the printer clears %.0f mm; print all together.",
                                standing, hit.high(), name(facts, hit.printed()), head.height())
                        : Words.format(
                                "Printed one after another, %s would stand %.1f mm high beside %s, %.1f mm apart, and the head needs %.0f mm there; move them apart, or print all together.",
                                standing, hit.high(), name(facts, hit.printed()), hit.apart(), head.radius()));
        boolean copies = hit.standing().copy() != hit.printed().copy();
        return !hit.beam() && copies && facts.match().isEmpty()
                ? finding.mendedBy(Fix.ofPlate(
                        Words.format("Arrange them %.0f mm apart", head.radius()),
                        facts.layout(),
                        p -> p.arranged(p.copies(), Math.max(p.gap(), head.radius()))))
                : finding.mendedBy(
                        new Fix("Print all together", p -> p.with(p.ordering().by(Rule.NUMBERED))));
    }

    private static boolean oneAfterAnother(PlanFacts facts) {
        return facts.plan().ordering().rule() == Rule.ONE_AFTER_ANOTHER
                && facts.orders().things().size() > 1;
    }

    /** “copy 2”, “the part Lid”, or both. */
    private static String name(PlanFacts facts, Thing thing) {
        boolean parts = facts.orders().things().stream().anyMatch(t -> t.island() > 0);
        boolean copies = facts.orders().things().stream().anyMatch(t -> t.copy() > 0);
        String copy = Words.format("copy %d", thing.copy() + 1);
        if (!parts) {
            return copy;
        }
        Geometry island = facts.modelFootprint().inModel().getGeometryN(thing.island());
        CutModel model = facts.colouring().model();
        String part = IntStream.range(0, model.solids().size())
                .filter(i -> model.solids().get(i).stream()
                        .map(Section::outline)
                        .filter(o -> !o.isEmpty())
                        .findFirst()
                        .filter(o -> island.intersects(o.getInteriorPoint()))
                        .isPresent())
                .mapToObj(i -> facts.partNames().get(i))
                .findFirst()
                .map(name -> "“" + name + "”")
                .orElseGet(() -> Words.format("piece %d", thing.island() + 1));
        return copies ? part + " of " + copy : part;
    }

    /** A tower grows with the layers of everything. */
    static List<Finding> towerAmongThings(PlanFacts facts) {
        return oneAfterAnother(facts)
                        && facts.match().isEmpty()
                        && facts.ledger().tower().isPresent()
                ? List.of(Finding.of(
                                Severity.STOP,
                                "tower-begins-anew",
                                "A tower grows with the layers, and things printed one after another begin at the bed each time; purge beside the print, or print all together.")
                        .mendedBy(Fix.ofPurge("Purge beside the print", p -> p.into(new PurgePlace.Bin()))))
                : List.of();
    }

    /** Ways back from a swap that drag what hangs from the nozzle over another colour. */
    static List<Finding> returnPaths(PlanFacts facts) {
        List<ReturnPath> unclean = facts.returns().unclean();
        if (unclean.isEmpty()
                || facts.returns().tower().filter(t -> !t.stands()).isPresent()) {
            return List.of();
        }
        boolean tower = facts.returns().tower().isPresent();
        ReturnPath first = unclean.get(0);
        int copies = facts.layout().copies().size();
        Finding finding = Finding.of(
                        tower ? Severity.WARN : Severity.NOTE,
                        "return-paths",
                        Words.format(
                                "After %s of %d the nozzle comes back over another colour%s, first at %s over %.0f mm of %s%s; what hangs from it falls there%s.",
                                facts.ledger().changes(unclean.size()),
                                facts.ledger().swaps().size(),
                                tower ? " before it meets the tower" : "",
                                first.turns() ? "a blend" : "swap " + first.swap(),
                                Math.max(1, first.stained()),
                                facts.label(first.stains().get(0).spool()),
                                copies > 1
                                        ? Words.format(
                                                " on copy %d",
                                                first.stains().get(0).copy() + 1)
                                        : "",
                                facts.cures().isEmpty() ? ": wipe it in the swap macro before it returns" : ""))
                .at(first.layer());
        return List.of(
                facts.cures().isEmpty()
                        ? finding
                        : finding.mendedBy(Fix.of(facts.cures().get(0), facts.layout())));
    }
}
