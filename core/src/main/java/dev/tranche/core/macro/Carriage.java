package dev.tranche.core.macro;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.speech.Words;
import java.util.Optional;

/** What the carriage does at the edge of the bed: press a switch, work a cutter, wipe. */
final class Carriage {
    private static final double CUTTING_SPEED = 20;

    private final Printer printer;
    private final LineWriter out;

    Carriage(Printer printer, LineWriter out) {
        this.printer = printer;
        this.out = out;
    }

    /** Against a cutter, at the nearer end of its axis, and off it. */
    void cut(Step.Cut c) {
        boolean highEnd = c.position() > middle(c.axis());
        double beside = c.position() + (highEnd ? -c.travel() : c.travel());
        Word off = LineWriter.to(c.axis(), beside, "cutter's place and its travel");
        out.line("to the cutter", Word.of("G1"), off, out.travelFeed());
        out.line(
                "cut",
                Word.of("G1"),
                LineWriter.to(c.axis(), c.position(), "cutter's place"),
                LineWriter.feed(CUTTING_SPEED, "cutting speed"));
        out.line("off the cutter", Word.of("G1"), off, out.travelFeed());
    }

    /** Presses the switch until {@code slot} is chosen; false if the box has no such slot. */
    boolean press(Selector selector, int slot) {
        if (slot > selector.presses().size()) {
            return false;
        }
        Lever lever = selector.lever();
        int presses = selector.pressesFor(slot);
        Word beside = LineWriter.to(lever.axis(), lever.waiting(printer.home()), waiting(lever));
        out.line("beside the switch", Word.of("G1"), beside, out.travelFeed());
        lever.across()
                .ifPresent(place -> out.line(
                        "level with the switch",
                        Word.of("G1"),
                        LineWriter.to(lever.axis().other(), place, "switch on the other axis"),
                        out.travelFeed()));
        for (int i = 1; i <= presses; i++) {
            out.line(
                    Words.format("press %d of %d for slot %d", i, presses, slot),
                    Word.of("G1"),
                    LineWriter.to(lever.axis(), lever.position(), "switch"),
                    out.travelFeed());
            if (selector.holdSeconds() > 0) {
                out.dwell(selector.holdSeconds(), "hold", "hold of the selector");
            }
            out.line("let go", Word.of("G1"), beside, out.travelFeed());
            if (selector.holdSeconds() > 0 && i < presses) {
                out.dwell(selector.holdSeconds(), "between two presses", "hold of the selector");
            }
        }
        return true;
    }

    private String waiting(Lever lever) {
        return Words.format(
                "switch at %s mm %s press travel %s mm",
                Numerals.mm(lever.position()),
                lever.direction(printer.home()) > 0 ? "less" : "and",
                Numerals.mm(lever.travel()));
    }

    /** To and fro beside the park spot, towards the middle; false if there is none. */
    boolean wipe(Step.Wipe w) {
        Optional<Point> spot = printer.parkSpot();
        if (spot.isEmpty()) {
            return false;
        }
        double here = w.axis() == Axis.X ? spot.get().x() : spot.get().y();
        double there = here + (here > middle(w.axis()) ? -w.width() : w.width());
        for (int i = 0; i < w.strokes(); i++) {
            out.line(
                    "wipe",
                    Word.of("G1"),
                    LineWriter.to(w.axis(), there, "park spot and width of the step"),
                    out.travelFeed());
            out.line("wipe", Word.of("G1"), LineWriter.to(w.axis(), here, "park spot"), out.travelFeed());
        }
        return true;
    }

    private double middle(Axis axis) {
        return (printer.travel().low(axis) + printer.travel().high(axis)) / 2;
    }
}
