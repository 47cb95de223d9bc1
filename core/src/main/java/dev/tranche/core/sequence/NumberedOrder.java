package dev.tranche.core.sequence;

import java.util.ArrayList;
import java.util.List;

/**
 * The order most slicing programs print in (common practice): a layer begins with the loaded colour if it has it, and
 * goes on by number.
 *
 * @param numbers places in the palette in the order of their numbers
 */
record NumberedOrder(int[] numbers) {

    /** The orders of {@code stages}, one a stage, as places in the palette. */
    List<int[]> orders(List<Stage> stages) {
        List<int[]> orders = new ArrayList<>(stages.size());
        int loaded = -1;
        for (Stage stage : stages) {
            int[] order = order(stage.colours(), loaded);
            orders.add(order);
            loaded = order.length == 0 ? loaded : order[order.length - 1];
        }
        return orders;
    }

    int[] order(int colours, int loaded) {
        int[] order = new int[Integer.bitCount(colours)];
        int at = 0;
        boolean carried = loaded >= 0 && (colours >> loaded & 1) == 1;
        if (carried) {
            order[at++] = loaded;
        }
        for (int c : numbers) {
            if ((colours >> c & 1) == 1 && !(carried && c == loaded)) {
                order[at++] = c;
            }
        }
        return order;
    }
}
