package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Head;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * A printer's measures as they are typed.
 *
 * @param bedShape {@code rectangular} or {@code round}
 * @param minX of the travel, as {@code maxX}, {@code minY} and {@code maxY}
 * @param box whether there is a selector box, which the fields after it describe
 * @param presses for slot 1, 2, …, separated by commas
 */
record PrinterForm(
        String name,
        String bedShape,
        String bedWidth,
        String bedDepth,
        String maxHeight,
        String minX,
        String maxX,
        String minY,
        String maxY,
        Corner home,
        String nozzle,
        String inputs,
        String hottest,
        String heaterMinutes,
        String deadVolume,
        String reach,
        String headRadius,
        String headHeight,
        String filament,
        String drive,
        String gearsToNozzle,
        String parkX,
        String parkY,
        String travelSpeed,
        String printSpeed,
        String liftSpeed,
        String retractSpeed,
        String acceleration,
        String paceFromModel,
        String paceFromFile,
        String watts,
        Boolean box,
        Axis axis,
        String position,
        String across,
        String press,
        String hold,
        Boolean atHomingEnd,
        String presses) {

    /** As it was where nothing is said. */
    private Head head(Head before) {
        return headRadius == null || headHeight == null
                ? before
                : new Head(
                        Numbers.decimal("reach of the head round the nozzle", headRadius),
                        Numbers.decimal("height above the nozzle", headHeight));
    }

    /** As it was where nothing is said. */
    private Pace pace(Pace before) {
        return paceFromModel == null || paceFromFile == null
                ? before
                : new Pace(
                        Numbers.decimal("time by the model", paceFromModel),
                        Numbers.decimal("time by the file", paceFromFile));
    }

    /** {@code rig} with these measures. */
    Rig on(Rig rig) {
        Hotend hotend = new Hotend(
                Numbers.decimal("nozzle", nozzle),
                Numbers.whole("number of inputs", inputs),
                Numbers.whole("hottest temperature", hottest),
                Duration.ofSeconds(Math.round(60 * Numbers.decimal("heater limit", heaterMinutes))),
                new Volume(Numbers.decimal("dead volume", deadVolume)),
                Numbers.decimal("reach beside plastic", reach),
                head(rig.printer().hotend().head()));
        Printer printer = new Printer(
                name == null ? "" : name,
                bed(),
                new Travel(
                        Numbers.decimal("travel", minX),
                        Numbers.decimal("travel", maxX),
                        Numbers.decimal("travel", minY),
                        Numbers.decimal("travel", maxY)),
                Height.parse(maxHeight),
                home == null ? Corner.FRONT_LEFT : home,
                hotend,
                new Filament(Numbers.decimal("filament", filament)),
                driveChosen(),
                parkSpot(),
                Boolean.TRUE.equals(box) ? Optional.of(selector()) : Optional.empty(),
                new Motion(
                        Numbers.decimal("travel speed", travelSpeed),
                        Numbers.decimal("print speed", printSpeed),
                        Numbers.decimal("lift speed", liftSpeed),
                        Numbers.decimal("retract speed", retractSpeed),
                        Numbers.decimal("acceleration", acceleration),
                        rig.printer().motion().junctionDeviation(),
                        pace(rig.printer().motion().pace())),
                rig.printer().abilities(),
                Numbers.decimal("power", watts));
        boolean blends = hotend.inputs() != rig.printer().hotend().inputs();
        return rig.with(printer).with(blends ? rig.rack().agreeingWith(printer) : rig.rack());
    }

    private Bed bed() {
        double width = Numbers.decimal("bed width", bedWidth);
        return switch (bedShape == null ? "" : bedShape) {
            case "round" -> new Bed.Round(width);
            case "rectangular" -> new Bed.Rectangular(width, Numbers.decimal("bed depth", bedDepth));
            default -> throw Refusal.of(
                    "A bed is rectangular or round, not “%s”; choose one of the two.", Words.quoted(bedShape));
        };
    }

    private Drive driveChosen() {
        double length = Numbers.decimal("length from gears to nozzle", gearsToNozzle);
        return switch (drive == null ? "" : drive) {
            case "tube" -> new Drive.Tube(length);
            case "direct" -> new Drive.Direct(length);
            default -> throw Refusal.of(
                    "A drive is direct or through a tube, not “%s”; choose one of the two.", Words.quoted(drive));
        };
    }

    private Optional<Point> parkSpot() {
        if (!given(parkX) && !given(parkY)) {
            return Optional.empty();
        }
        if (!given(parkX) || !given(parkY)) {
            throw new Refusal("A park spot needs both X and Y; fill in both, or neither.");
        }
        return Optional.of(new Point(Numbers.decimal("park spot X", parkX), Numbers.decimal("park spot Y", parkY)));
    }

    Selector selector() {
        List<Integer> counts = new ArrayList<>();
        for (String count : (presses == null ? "" : presses).split("[,;\\s]+")) {
            if (!count.isBlank()) {
                counts.add(Numbers.whole("presses", count));
            }
        }
        return new Selector(
                new Lever(
                        axis == null ? Axis.X : axis,
                        Numbers.decimal("switch", position),
                        Numbers.decimal("press travel", press),
                        Boolean.TRUE.equals(atHomingEnd),
                        across == null || across.isBlank()
                                ? OptionalDouble.empty()
                                : OptionalDouble.of(Numbers.decimal("place on the other axis", across))),
                Numbers.decimal("hold", hold),
                counts);
    }

    private static boolean given(String text) {
        return text != null && !text.isBlank();
    }
}
