package dev.tranche.core.gcode;

import dev.tranche.core.machine.Dialect;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A printer's controller, as far as motion and heat go: it takes lines and keeps position, modes and
 * temperatures. Understands G0–G4, G20, G21, G28, G90–G92, M82, M83, M104, M109, M140, M190, M200, M204, M220.
 *
 * <p>The last line's move is read from {@link #dx()}, {@link #dy()}, {@link #dz()}, {@link #de()} and {@link
 * #length()}. All lengths are mm whatever unit the file uses. Not for two threads.
 */
public final class Controller {
    /** Asks for a temperature in words, without waiting; common practice. */
    private static final Pattern HEAT =
            Pattern.compile("SET_HEATER_TEMPERATURE HEATER=extruder TARGET=(\\d{1,4}(\\.\\d{1,3})?)(?!\\S)");

    /** What a line made the machine do. */
    public enum Effect {
        NONE,
        MOVE,
        /** Nothing moves for {@link #pause()} seconds. */
        DWELL,
        /** It waits for the nozzle. */
        HEAT,
        /** It waits for the bed. */
        BED,
        TOOL
    }

    /** The filament whose volume is counted where a file does not say which, mm (common practice). */
    private static final double USUAL_FILAMENT = 1.75;
    /** °C at which common plastics print, at the least; common practice. */
    public static final double PRINTING = 200;

    private double x;
    private double y;
    private double z;
    private double e;
    private double retracted;
    private boolean drawn;
    /** Of tools that rest. */
    private Map<Integer, Draw> resting = Map.of();
    /** Since a tool was chosen: how far the one before it was left drawn back, and this one, as far as is known, mm. */
    private double drawnBefore;

    private double drawnAsLeft;
    /** What has come out in one place since then, mm, and how far filament was drawn back before the last move. */
    private double pushed;

    private double drawnUntilNow;

    private int tool;
    private boolean toolKnown;
    private double feed = 25;
    private Units units = Units.MILLIMETRES;
    /** As {@link #units} have them. */
    private double unit = 1;

    private double filamentUnit = 1;
    private final Dialect dialect;
    private Modes modes = Modes.ABSOLUTE;
    /** As {@link #modes} have it. */
    private boolean relativeMoves;

    private boolean relativeExtrusion;
    private final Readings readings = new Readings();
    private double nozzleTarget = ControllerState.UNKNOWN;
    private double nozzleTemperature = Heater.ROOM;
    private double bedTemperature = Heater.ROOM;
    private double bedTarget = Heater.ROOM;
    private double speedFactor = 1;
    private double acceleration;
    private Trim trim = Trim.NONE;
    /** Number of the last G0 to G3, with which a line without a command goes on; 1 for G0, too, and 0 for none. */
    private int lastMove;
    /** How far the file's places are from the machine's since G92, mm. */
    private double originX;

    private double originY;

    private double dx;
    private double dy;
    private double dz;
    private double de;
    private double length;
    private double chord;
    private double sweep;
    private double centreX;
    private double centreY;
    private double pause;

    /** A cold controller at the origin, absolute, in millimetres. */
    public Controller(Dialect dialect) {
        this.dialect = dialect;
    }

    /** A controller in the middle of a file. */
    public Controller(ControllerState state, Dialect dialect) {
        this(dialect);
        x = state.x();
        y = state.y();
        z = state.z();
        e = state.e();
        retracted = state.draw().length();
        drawn = state.draw().byFirmware();
        feed = state.feed();
        measure(state.units());
        count(state.modes());
        nozzleTarget = state.nozzleTemperature();
        nozzleTemperature = state.nozzleNow();
        trim = state.trim();
    }

    public Effect execute(GcodeScanner line) {
        return switch (line.letter()) {
            case 'G' -> motion(line);
            case 'M' -> machine(line);
            case 'T' -> Effect.TOOL;
            case GcodeScanner.IN_WORDS -> inWords(line);
            default -> lastMove > 0 && line.goesOn()
                    ? (lastMove <= 1 ? straight(line) : arc(line, lastMove == 2))
                    : Effect.NONE;
        };
    }

    /** What the owner of a printer means by words only the printer knows, but for a few that all have. */
    private Effect inWords(GcodeScanner line) {
        String words = line.codeText();
        if (words.startsWith("TEMPERATURE_WAIT SENSOR=extruder")) {
            return awaitNozzle();
        }
        Matcher heat = HEAT.matcher(words);
        if (heat.lookingAt()) {
            nozzleTarget = Double.parseDouble(heat.group(1));
        }
        double before = trim.accelerationInWords();
        trim = trim.afterWords(line);
        acceleration = trim.accelerationInWords() == before ? acceleration : trim.accelerationInWords();
        return Effect.NONE;
    }

    private Effect motion(GcodeScanner line) {
        switch (line.number()) {
            case 0, 1 -> {
                lastMove = 1;
                return straight(line);
            }
            case 2, 3 -> {
                lastMove = line.number();
                return arc(line, lastMove == 2);
            }
            case 4 -> {
                pause = line.get('S', 0) + line.get('P', 0) / 1000;
                warm(pause);
                return Effect.DWELL;
            }
                // With words for an offset G10 is another command (RS-274).
            case 10 -> drawn |= !line.has('L') && !line.has('P');
            case 11 -> drawn = false;
            case 20 -> measure(units.inInches(true));
            case 21 -> measure(units.inInches(false));
            case 28 -> home(line);
            case 90 -> count(modes.moving(false));
            case 91 -> count(modes.moving(true));
            case 92 -> redefine(line);
            default -> {}
        }
        return Effect.NONE;
    }

    private void count(Modes other) {
        modes = other;
        relativeMoves = modes.relativeMoves();
        relativeExtrusion = modes.addsFilament(dialect);
    }

    private void measure(Units other) {
        units = other;
        unit = units.places();
        filamentUnit = units.filament();
    }

    /** From here on another tool prints, whose filament is drawn back as far as it was left; one never used is not. */
    void choose(int number) {
        if (toolKnown && number != tool) {
            drawnBefore = retracted;
            if (resting.isEmpty()) {
                resting = new HashMap<>();
            }
            resting.put(tool, new Draw(retracted, drawn));
            Draw left = resting.getOrDefault(number, Draw.NONE);
            retracted = left.length();
            drawn = left.byFirmware();
            drawnAsLeft = retracted;
            pushed = 0;
        }
        tool = number;
        toolKnown = true;
    }

    /**
     * By how much more the filament of the tool that was chosen was drawn back, or less where negative, than it was left, mm; known
     * when its first plastic comes, and told once. A file that keeps one retraction for all its tools pushes out with one what it
     * drew back with another, and pushes nothing where the other was not drawn back.
     */
    double drawnOtherwise() {
        double lies = drawnBefore - drawnAsLeft;
        double otherwise = lies > 0 ? Math.min(pushed, lies) : -Math.min(drawnUntilNow, -lies);
        if (otherwise < 0) {
            retracted = Math.max(0, Math.max(0, drawnUntilNow + otherwise) - de);
        }
        drawnBefore = drawnAsLeft;
        return otherwise;
    }

    private Effect straight(GcodeScanner line) {
        advance(line);
        length = Math.sqrt(dx * dx + dy * dy + dz * dz);
        chord = length;
        sweep = 0;
        return Effect.MOVE;
    }

    /** Takes the end point, the extruder and the feed from the line. */
    private void advance(GcodeScanner line) {
        double fromX = x;
        double fromY = y;
        double fromZ = z;
        if (line.has('X')) {
            double value = line.get('X') * unit;
            x = relativeMoves ? x + value : value;
        }
        if (line.has('Y')) {
            double value = line.get('Y') * unit;
            y = relativeMoves ? y + value : value;
        }
        if (line.has('Z')) {
            double value = line.get('Z') * unit;
            z = relativeMoves ? z + value : value;
        }
        dx = x - fromX;
        dy = y - fromY;
        dz = z - fromZ;
        de = 0;
        if (line.has('E')) {
            double value = line.get('E') * filamentUnit;
            de = relativeExtrusion ? value : value - e;
            if (modes.readsDifferently()) {
                readings.saw(modes, value, Math.hypot(dx, dy));
            }
            e += de;
            drawnUntilNow = retracted;
            retracted = Math.max(0, retracted - de);
            if (de > 0) {
                if (dx != 0 || dy != 0) {
                    printsHot();
                } else {
                    pushed += Math.max(0, de - drawnUntilNow);
                }
            }
        }
        if (line.has('F')) {
            double value = line.get('F') * unit / 60;
            if (value > 0) {
                feed = value;
            }
        }
    }

    /** What prints is as hot as it was told to be, or hot enough by lines that only the printer knows. */
    private void printsHot() {
        nozzleTemperature = nozzleTarget == ControllerState.UNKNOWN
                ? Math.max(nozzleTemperature, PRINTING)
                : Math.max(Heater.ROOM, nozzleTarget);
    }

    /** An arc in the XY plane by centre offsets or radius; its length includes a helix's rise. */
    private Effect arc(GcodeScanner line, boolean clockwise) {
        double fromX = x;
        double fromY = y;
        advance(line);
        double centreI = line.get('I', 0) * unit;
        double centreJ = line.get('J', 0) * unit;
        if (line.has('R')) {
            double r = line.get('R') * unit;
            double half = Math.hypot(dx, dy) / 2;
            double away = Math.sqrt(Math.max(0, r * r - half * half)) * (r < 0 ? -1 : 1) * (clockwise ? 1 : -1);
            if (half > 0) {
                centreI = dx / 2 + away * dy / (2 * half);
                centreJ = dy / 2 - away * dx / (2 * half);
            }
        }
        double radius = Math.hypot(centreI, centreJ);
        double start = Math.atan2(-centreJ, -centreI);
        double end = Math.atan2(y - (fromY + centreJ), x - (fromX + centreI));
        double turn = clockwise ? start - end : end - start;
        if (turn <= 1e-12) {
            turn += 2 * Math.PI;
        }
        sweep = clockwise ? -turn : turn;
        centreX = fromX + centreI;
        centreY = fromY + centreJ;
        length = Math.hypot(turn * radius, dz);
        chord = Math.sqrt(dx * dx + dy * dy + dz * dz);
        return Effect.MOVE;
    }

    private void home(GcodeScanner line) {
        boolean all = !line.names('X') && !line.names('Y') && !line.names('Z');
        x = all || line.names('X') ? 0 : x;
        y = all || line.names('Y') ? 0 : y;
        z = all || line.names('Z') ? 0 : z;
        originX = all || line.names('X') ? 0 : originX;
        originY = all || line.names('Y') ? 0 : originY;
    }

    private void redefine(GcodeScanner line) {
        originX += line.has('X') ? x - line.get('X') * unit : 0;
        originY += line.has('Y') ? y - line.get('Y') * unit : 0;
        x = line.has('X') ? line.get('X') * unit : x;
        y = line.has('Y') ? line.get('Y') * unit : y;
        z = line.has('Z') ? line.get('Z') * unit : z;
        if (line.has('E')) {
            e = line.get('E') * filamentUnit;
            readings.redefined(e);
        }
    }

    private Effect machine(GcodeScanner line) {
        if (Trim.isAbout(line.number())) {
            trim = trim.after(line);
        }
        switch (line.number()) {
            case 82 -> count(modes.feeding(false));
            case 83 -> count(modes.feeding(true));
            case 104 -> nozzleTarget = line.get('S', nozzleTarget);
            case 109 -> {
                nozzleTarget = line.get('S', line.get('R', nozzleTarget));
                return awaitNozzle();
            }
            case 140 -> bedTarget = line.get('S', bedTarget);
            case 190 -> {
                bedTarget = line.get('S', line.get('R', bedTarget));
                pause = Heater.BED.secondsFrom(bedTemperature, bedTarget);
                warm(pause);
                bedTemperature = bedTarget;
                return Effect.BED;
            }
            case 200 -> volume(line);
            case 204 -> acceleration = line.get('S', line.get('P', acceleration));
            case 220 -> speedFactor = Math.max(0.01, line.get('S', 100 * speedFactor) / 100);
            default -> {}
        }
        return Effect.NONE;
    }

    private Effect awaitNozzle() {
        pause = Heater.NOZZLE.secondsFrom(nozzleTemperature, nozzleTarget);
        warm(pause);
        nozzleTemperature = Math.max(Heater.ROOM, nozzleTarget);
        return Effect.HEAT;
    }

    /** While the machine waits for one thing, whatever else is asked to warm warms. */
    private void warm(double seconds) {
        nozzleTemperature = Heater.NOZZLE.after(nozzleTemperature, nozzleTarget, seconds);
        bedTemperature = Heater.BED.after(bedTemperature, bedTarget, seconds);
    }

    /** Whether the nozzle is hotter than it was told to be. */
    public boolean isCooling() {
        return nozzleTarget >= 0 && nozzleTarget < nozzleTemperature;
    }

    /** So many seconds pass in which the nozzle cools to what it was told, if it is hotter. */
    public void cool(double seconds) {
        if (isCooling()) {
            nozzleTemperature = Math.max(nozzleTarget, Heater.NOZZLE.cooled(nozzleTemperature, seconds));
        }
    }

    /** With a diameter the extruder counts volume; with none, or switched off, length (common practice). */
    private void volume(GcodeScanner line) {
        boolean off = line.has('S') ? line.get('S') == 0 : line.get('D', USUAL_FILAMENT) == 0;
        double known = units.countsVolume() ? units.diameter() : USUAL_FILAMENT;
        measure(units.countingVolumeOf(off ? 0 : line.get('D', known)));
    }

    /** Asks for a temperature without waiting, °C. */
    void heat(double degrees) {
        nozzleTarget = degrees;
    }

    /** A straight way, mm. */
    public interface Way {
        void leads(double fromX, double fromY, double toX, double toY);
    }

    /** The last move, seen from above; of an arc chords of at most an eighth of a radian, or a thousandth of it. */
    public void along(Way way) {
        double fromX = x - dx;
        double fromY = y - dy;
        if (sweep == 0) {
            way.leads(fromX, fromY, x, y);
            return;
        }
        int parts = 2 + (int) Math.min(1000, Math.abs(sweep) * 8);
        double radius = Math.hypot(fromX - centreX, fromY - centreY);
        double begins = Math.atan2(fromY - centreY, fromX - centreX);
        for (int i = 1; i <= parts; i++) {
            double angle = begins + sweep * i / parts;
            double toX = centreX + radius * Math.cos(angle);
            double toY = centreY + radius * Math.sin(angle);
            way.leads(fromX, fromY, toX, toY);
            fromX = toX;
            fromY = toY;
        }
    }

    Draw draw() {
        return new Draw(retracted, drawn);
    }

    public ControllerState state() {
        Draw now = draw();
        return new ControllerState(x, y, z, e, now, now, feed, modes, units, nozzleTarget, nozzleTemperature, trim);
    }

    /** Whether the file's places are the machine's, to 1 µm. */
    boolean standsOnOrigin() {
        return Math.abs(originX) < 0.001 && Math.abs(originY) < 0.001;
    }

    /** Of lines that firmwares read differently. */
    Readings readings() {
        return readings;
    }

    public double x() {
        return x;
    }

    public double y() {
        return y;
    }

    public double z() {
        return z;
    }

    public double dx() {
        return dx;
    }

    public double dy() {
        return dy;
    }

    public double dz() {
        return dz;
    }

    /** Filament fed by the last move, mm; negative when drawn back. */
    public double de() {
        return de;
    }

    /** Length of the last move's path, mm; 0 where only the extruder turned. */
    public double length() {
        return length;
    }

    /** From end to end of the last move, mm; less than {@link #length()} on an arc. */
    public double chord() {
        return chord;
    }

    /** mm/s, as the file asked for last. */
    public double feed() {
        return feed;
    }

    /** The extruder's count, mm. */
    public double e() {
        return e;
    }

    /** The extruder's count as the file gives it. */
    double count() {
        return counted(e);
    }

    /** So many mm of filament as the file gives them. */
    double counted(double filament) {
        return filament / filamentUnit;
    }

    boolean addsFilament() {
        return relativeExtrusion;
    }

    /** Angle that the last arc sweeps, radians, positive against the clock; 0 for a straight line. */
    public double sweep() {
        return sweep;
    }

    /** The last arc's centre, mm, as {@link #centreY()}. */
    public double centreX() {
        return centreX;
    }

    public double centreY() {
        return centreY;
    }

    /** Speed of the last move with M220 applied, mm/s. */
    public double speed() {
        return feed * speedFactor;
    }

    /** mm/s² as set by M204; 0 if it never was. */
    public double acceleration() {
        return acceleration;
    }

    /** Seconds the last DWELL or HEAT takes. */
    public double pause() {
        return pause;
    }

    /** What the nozzle is asked to be, °C; {@link ControllerState#UNKNOWN} if it never was. */
    public double nozzleTarget() {
        return nozzleTarget;
    }
}
