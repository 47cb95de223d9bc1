package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import java.util.List;

/**
 * A box of filaments whose slot is chosen by pressing a switch with the carriage.
 *
 * @param lever the switch
 * @param holdSeconds how long it is held down, and left alone between two presses
 * @param presses how many presses choose slot 1, slot 2, …
 */
public record Selector(Lever lever, double holdSeconds, List<Integer> presses) {
    public Selector {
        presses = List.copyOf(presses);
        if (!(holdSeconds >= 0 && holdSeconds <= 30)) {
            throw Refusal.of("A hold of %s s is out of range; give 0 to 30 s.", holdSeconds);
        }
        if (presses.isEmpty() || presses.size() > 16) {
            throw Refusal.of("A selector box has 1 to 16 slots, not %d; give a press count for each.", presses.size());
        }
        for (int count : presses) {
            if (count < 1 || count > 40) {
                throw Refusal.of("%d presses for a slot are out of range; give 1 to 40.", count);
            }
        }
    }

    /**
     * Presses that choose {@code slot}, from 1.
     *
     * @throws Refusal if the box has no such slot
     */
    public int pressesFor(int slot) {
        if (slot < 1 || slot > presses.size()) {
            throw Refusal.of("The selector box has %d slots, and slot %d is asked for.", presses.size(), slot);
        }
        return presses.get(slot - 1);
    }
}
