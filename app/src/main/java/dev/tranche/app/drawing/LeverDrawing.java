package dev.tranche.app.drawing;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.math.BigDecimal;

/**
 * How the carriage presses a switch, along one axis: where home is, where it waits, how far it presses.
 *
 * @param low px of the axis's low end, {@code high} of its high end
 * @param homeX px of the end where it homes
 * @param waitX px where it waits, {@code switchX} where the switch is pressed; drawn wider apart than they are
 * @param towardsHigh which way it presses
 */
public record LeverDrawing(
        int width,
        int height,
        double low,
        double high,
        double homeX,
        double waitX,
        double switchX,
        boolean towardsHigh,
        String axis,
        String lowText,
        String highText,
        String waitText,
        String switchText,
        String sum) {
    private static final double TRAVEL = 60;

    public static LeverDrawing of(Printer printer, Lever lever, int width) {
        Axis axis = lever.axis();
        double from = printer.travel().low(axis);
        double to = printer.travel().high(axis);
        double low = 30;
        double high = width - 30.0;
        double at = low + (lever.position() - from) / (to - from) * (high - low);
        int direction = lever.direction(printer.home());
        double switchX =
                Math.max(low + (direction > 0 ? TRAVEL : 0), Math.min(high - (direction > 0 ? 0 : TRAVEL), at));
        double waiting = lever.waiting(printer.home());
        return new LeverDrawing(
                width,
                96,
                low,
                high,
                printer.home().homesLow(axis) ? low : high,
                switchX - direction * TRAVEL,
                switchX,
                direction > 0,
                axis.name(),
                plain(from),
                plain(to),
                plain(waiting),
                plain(lever.position()),
                Words.format(
                        "%s %s %s = %s mm",
                        plain(lever.position()), direction > 0 ? "−" : "+", plain(lever.travel()), plain(waiting)));
    }

    private static String plain(double value) {
        return BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
    }
}
