package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.gcode.SlicedLayer.Warming;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;

/** Where lines may be put in, as a file is being read: which doors it has passed since its last plastic. */
final class Doors {
    /** On the way from one line of plastic to the next, that are kept. */
    private static final int MOST_TRAVELS = 64;

    private final Controller controller;
    /** Where each travel since the last plastic has ended. */
    private final List<Coordinate> travels = new ArrayList<>();
    /** How long the file has waited for the nozzle so far, s. */
    private double warmed;
    /** Before the first travel since the last plastic. */
    private Passed last;
    /** Whether plastic has come out since the last travel, so that the next travel is a door. */
    private boolean wanted = true;
    /** Where the tool was changed since the last plastic. */
    private Optional<Passed> ofTool = Optional.empty();
    /** Before the first plastic; nothing as long as none has come, and {@code fed} the line that may bring it. */
    private Door start;

    private Door fed;

    /** A door of which it is not known yet where it leads, with the travels and the waiting before it. */
    record Passed(Door door, int travels, double warmed) {
        private Passed in(ControllerState state) {
            return new Passed(new Door(door.offset(), door.line(), state), travels, warmed);
        }
    }

    Doors(Controller controller) {
        this.controller = controller;
    }

    /** Before a move is made. */
    void before(GcodeScanner move) {
        if (wanted && !move.has('E') && (move.has('X') || move.has('Y') || move.has('Z'))) {
            last = passed(move, controller.state());
            wanted = false;
        }
        if (start == null && move.has('E')) {
            fed = door(move, controller.state());
        }
    }

    /** Before the first plastic of all comes out. */
    void fed() {
        if (start == null) {
            start = wanted ? fed : last.door();
        }
    }

    /** The door before the first plastic of all; null if there is none. */
    Door start() {
        return start;
    }

    /** The next travel is a door. */
    void open() {
        wanted = true;
    }

    /** Another tool was chosen, and its filament stands so. */
    void toolChosen(GcodeScanner line, ControllerState there) {
        ofTool = Optional.of(passed(line, there));
    }

    /** Its filament turns out to be drawn back so much further, mm. */
    void drawnFurther(double by) {
        long chosen = ofTool.map(Passed::door).map(Door::offset).orElse(Long.MAX_VALUE);
        ofTool = ofTool.map(p -> p.in(p.door().state().drawnFurther(by, false)));
        if (last != null && last.door().offset() > chosen) {
            last = last.in(last.door().state().drawnFurther(by, true));
        }
    }

    /** That of the tool, if it was changed since the last plastic. */
    Optional<Passed> ofTool() {
        return ofTool;
    }

    /** The door before the layer whose first plastic is about to come. */
    Optional<Door> ofLayer() {
        return wanted ? Optional.empty() : Optional.ofNullable(last).map(this::leadingHere);
    }

    /** Plastic is laid. */
    void laid() {
        travels.clear();
        ofTool = Optional.empty();
        wanted = true;
    }

    void travelled() {
        if (travels.size() == MOST_TRAVELS) {
            travels.remove(MOST_TRAVELS - 1);
        }
        travels.add(new Coordinate(controller.x(), controller.y()));
    }

    /** The file has waited for the nozzle, s. */
    void warmed(double seconds) {
        warmed += seconds;
    }

    static Door door(GcodeScanner line, ControllerState state) {
        return new Door(line.offset(), line.line(), state);
    }

    private Passed passed(GcodeScanner line, ControllerState state) {
        return new Passed(door(line, state), travels.size(), warmed);
    }

    /** With the way from there to where the plastic that is about to come begins. */
    Door leadingHere(Passed passed) {
        List<Coordinate> way = passed.travels() < travels.size()
                ? travels.subList(passed.travels(), travels.size())
                : List.of(new Coordinate(controller.x() - controller.dx(), controller.y() - controller.dy()));
        return passed.door().leadingTo(way, new Warming(warmed - passed.warmed(), controller.nozzleTarget()));
    }
}
