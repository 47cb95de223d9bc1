package dev.tranche.core.check;

import dev.tranche.core.machine.Bed;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.returns.ReturnPath;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;

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
                            "%s beyond the bed of %s; move %s on the plate, or arrange all anew.",
                            beyond.size() == 1
                                    ? "Copy " + beyond.get(0) + " reaches"
                                    : beyond.size() + " copies, from number " + beyond.get(0) + " on, reach",
                            facts.printer().name(),
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
                                    : Words.format("are %.1f mm apart, nearer than the gap you want", pair.apart()),
                            layout.tooNear().size() == 1 ? "" : ", and so on")));
        }
        return findings;
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
                                                " reaches beyond the bed of %s",
                                                facts.printer().name())
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
                                "After %s of %d the nozzle comes back over another colour%s, first at swap %d over %.0f mm of %s%s; what hangs from it falls there.",
                                Words.count(unclean.size(), "swap"),
                                facts.ledger().swaps().size(),
                                tower ? " before it meets the tower" : "",
                                first.swap(),
                                Math.max(1, first.stained()),
                                facts.label(first.stains().get(0).spool()),
                                copies > 1
                                        ? Words.format(
                                                " on copy %d",
                                                first.stains().get(0).copy() + 1)
                                        : ""))
                .at(first.layer());
        return List.of(
                facts.cures().isEmpty()
                        ? finding
                        : finding.mendedBy(Fix.of(facts.cures().get(0), facts.layout())));
    }
}
