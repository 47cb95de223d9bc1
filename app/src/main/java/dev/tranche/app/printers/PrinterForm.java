package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * A printer and its swap macro as they are typed.
 *
 * @param bedShape {@code rectangular} or {@code round}
 * @param abilities one entry a ticked box: {@code M600} for a command, {@code M600:X} for a parameter
 * @param lift of the macro, as {@code retract} and {@code purgeSpeed}; only where the method has such a step
 */
record PrinterForm(
        String name,
        String bedShape,
        String bedWidth,
        String bedDepth,
        String maxHeight,
        String nozzle,
        String filament,
        String drive,
        String gearsToNozzle,
        String parkX,
        String parkY,
        String heaterMinutes,
        String deadVolume,
        String travelSpeed,
        String printSpeed,
        String acceleration,
        List<String> abilities,
        SwapMethod method,
        String lift,
        String retract,
        String purgeSpeed) {

    Printer printer() {
        return new Printer(
                name,
                bed(),
                Height.parse(maxHeight),
                Numbers.decimal("nozzle", nozzle),
                new Filament(Numbers.decimal("filament", filament)),
                driveChosen(),
                parkSpot(),
                Duration.ofSeconds(Math.round(60 * Numbers.decimal("heater limit", heaterMinutes))),
                new Volume(Numbers.decimal("dead volume", deadVolume)),
                new Motion(
                        Numbers.decimal("travel speed", travelSpeed),
                        Numbers.decimal("print speed", printSpeed),
                        Motion.COMMON.liftSpeed(),
                        Numbers.decimal("acceleration", acceleration),
                        Motion.COMMON.junctionDeviation()),
                abilitiesTicked());
    }

    SwapMacro macro() {
        SwapMethod chosen = method == null ? SwapMethod.PAUSE_AND_PARK : method;
        return new SwapMacro(chosen, chosen.ready().stream().map(this::adjusted).toList());
    }

    private Step adjusted(Step step) {
        if (step instanceof Step.Lift && given(lift)) {
            return new Step.Lift(Numbers.decimal("lift", lift));
        } else if (step instanceof Step.Retract && given(retract)) {
            return new Step.Retract(Numbers.decimal("retraction", retract));
        } else if (step instanceof Step.Purge && given(purgeSpeed)) {
            return new Step.Purge(Numbers.decimal("purge speed", purgeSpeed));
        }
        return step;
    }

    private Bed bed() {
        double width = Numbers.decimal("bed width", bedWidth);
        return "round".equals(bedShape)
                ? new Bed.Round(width)
                : new Bed.Rectangular(width, Numbers.decimal("bed depth", bedDepth));
    }

    private Drive driveChosen() {
        double length = Numbers.decimal("length from gears to nozzle", gearsToNozzle);
        return "tube".equals(drive) ? new Drive.Tube(length) : new Drive.Direct(length);
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

    private Abilities abilitiesTicked() {
        Map<Command, Set<Character>> ticked = new EnumMap<>(Command.class);
        for (String box : abilities == null ? List.<String>of() : abilities) {
            if (!box.contains(":")) {
                ticked.computeIfAbsent(Command.parse(box), c -> new TreeSet<>());
            }
        }
        for (String box : abilities == null ? List.<String>of() : abilities) {
            String[] parts = box.split(":", 2);
            Command command = Command.parse(parts[0]);
            if (parts.length == 2
                    && ticked.containsKey(command)
                    && command.parameters().contains(parts[1])
                    && parts[1].length() == 1) {
                ticked.get(command).add(parts[1].charAt(0));
            }
        }
        return new Abilities(ticked);
    }

    private static boolean given(String text) {
        return text != null && !text.isBlank();
    }
}
