package dev.tranche.core.format;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Arrays;
import java.util.StringTokenizer;

/** Places of corners by their numbers, from 0, as a file lists them; in the file's unit. */
final class Places {
    private double[] coordinates = new double[1536];
    private int count;

    void add(double x, double y, double z) {
        if (3 * count == coordinates.length) {
            coordinates = Arrays.copyOf(coordinates, 2 * coordinates.length);
        }
        coordinates[3 * count] = x;
        coordinates[3 * count + 1] = y;
        coordinates[3 * count + 2] = z;
        count++;
    }

    /** The next of a line's words, which stands {@code line} lines down the file. */
    static double coordinate(StringTokenizer words, int line, String text) {
        try {
            return number(words.hasMoreTokens() ? words.nextToken() : "");
        } catch (NumberFormatException e) {
            throw Refusal.of(
                    "Line %d, “%s”, does not give three coordinates; repair or export the model again.",
                    line, Words.quoted(text));
        }
    }

    /**
     * A number of a file of text, which some programs write as their computer's language does: with a comma.
     *
     * @throws NumberFormatException if it is none
     */
    static double number(String word) {
        return Double.parseDouble(word.indexOf(',') < 0 ? word : word.replace(',', '.'));
    }

    int count() {
        return count;
    }

    /** @param axis 0 for X, 1 for Y, 2 for Z */
    double at(int place, int axis) {
        return coordinates[3 * place + axis];
    }
}
