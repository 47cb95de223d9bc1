package dev.tranche.core.layer;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The layers of one print. Layer {@code i}, from 1, reaches from {@code z(i − 1)} to {@code z(i)}, with {@code
 * z(0) = 0} and {@code z(i) = h₁ + (i − 1) h}. A layer is printed when its middle lies inside the model.
 *
 * @param firstLayer h₁, above 0
 * @param layerHeight h, above 0
 * @param modelHeight H, above the bed, or above the raft if there is one
 */
public record LayerGrid(Height firstLayer, Height layerHeight, Height modelHeight) {
    /** More layers than any print has; a grid beyond it is a slip of the finger. */
    public static final int MOST_LAYERS = 20_000;

    private static final Pattern LAYER = Pattern.compile("\\s*(?:layer|l)\\s*(\\d{1,7})\\s*", Pattern.CASE_INSENSITIVE);
    private static final int THINNEST = 10;
    private static final int THICKEST = 5_000;

    public LayerGrid {
        check("first-layer height", firstLayer);
        check("layer height", layerHeight);
        if (count(firstLayer, layerHeight, modelHeight) > MOST_LAYERS) {
            throw Refusal.of(
                    "Layers of %s mm make %d layers of this model; at most %d can be planned, so choose thicker ones.",
                    layerHeight, count(firstLayer, layerHeight, modelHeight), MOST_LAYERS);
        }
    }

    private static void check(String what, Height height) {
        if (height.micrometres() < THINNEST || height.micrometres() > THICKEST) {
            throw Refusal.of("A %s of %s mm cannot be printed; give 0.01 to 5 mm.", what, height);
        }
    }

    /** N = max(1, 1 + ⌈(H − h₁)/h − ½⌉). */
    public int count() {
        return count(firstLayer, layerHeight, modelHeight);
    }

    private static int count(Height first, Height layer, Height model) {
        int h = layer.micrometres();
        int twice = 2 * (model.micrometres() - first.micrometres()) - h;
        return Math.max(1, 1 - Math.floorDiv(-twice, 2 * h));
    }

    /** Where {@code layer} ends and the next begins; {@code top(0)} is the bed. */
    public Height top(int layer) {
        if (layer < 0 || layer > count()) {
            throw new IllegalArgumentException("layer " + layer + " of " + count());
        }
        return layer == 0
                ? Height.ZERO
                : Height.ofMicrometres(firstLayer.micrometres() + (layer - 1) * layerHeight.micrometres());
    }

    public Height bottom(int layer) {
        return top(layer - 1);
    }

    /** Thickness of {@code layer}. */
    public Height thickness(int layer) {
        return layer == 1 ? firstLayer : layerHeight;
    }

    /** The heights at which sections are cut, layer by layer, in half micrometres. */
    public int[] middles() {
        int[] middles = new int[count()];
        for (int i = 1; i <= middles.length; i++) {
            middles[i - 1] = bottom(i).micrometres() + top(i).micrometres();
        }
        return middles;
    }

    /** Top of the highest layer: what the print will measure. */
    public Height printedHeight() {
        return top(count());
    }

    /**
     * The layer a colour meant to start at {@code height} really starts on: the lowest whose middle is above it.
     * Equal counts as not above.
     *
     * @throws Refusal if no layer's middle is above {@code height}
     */
    public Snap snap(Height height) {
        int layer = firstAbove(height);
        if (layer > count()) {
            throw Refusal.of(
                    "%s mm is above the last layer that could start a colour; the model is %s mm high and prints to %s mm.",
                    height, modelHeight, printedHeight());
        }
        return new Snap(layer, height, top(layer - 1));
    }

    /** Half way up {@code layer}, from 1. */
    public Height middle(int layer) {
        return Height.ofMicrometres((bottom(layer).micrometres() + top(layer).micrometres()) / 2);
    }

    /** Whether the middle of a layer is above {@code height}, so that a colour could start there. */
    public boolean goesAbove(Height height) {
        return firstAbove(height) <= count();
    }

    /** The lowest layer whose middle is above {@code height}; one more than there are if none is. */
    public int firstAbove(Height height) {
        int b = height.micrometres();
        int h = layerHeight.micrometres();
        int h1 = firstLayer.micrometres();
        int layer = h1 > 2 * b ? 1 : Math.max(2, Math.floorDiv(2 * b - 2 * h1 + 3 * h, 2 * h) + 1);
        return Math.min(layer, count() + 1);
    }

    /**
     * Reads where a colour is to start: millimetres as {@link Height#parse}, or the layer it is to begin with, as
     * {@code layer 16} or {@code L16}.
     */
    public Height startFrom(String text) {
        Matcher layer = LAYER.matcher(text == null ? "" : text);
        return layer.matches() ? bottom(number(layer)) : Height.parse(text);
    }

    /** Reads where a colour is to end: millimetres, or the layer it is to end with. */
    public Height endAt(String text) {
        Matcher layer = LAYER.matcher(text == null ? "" : text);
        return layer.matches() ? top(number(layer)) : Height.parse(text);
    }

    private int number(Matcher layer) {
        int number = Integer.parseInt(layer.group(1));
        if (number < 1 || number > count()) {
            throw Refusal.of("There is no layer %d; the model has layers 1 to %d.", number, count());
        }
        return number;
    }

    /** The layer whose plastic lies at {@code height}, limited to the print. */
    public int layerAt(Height height) {
        int above = height.micrometres() - firstLayer.micrometres();
        int layer = above < 0 ? 1 : 2 + above / layerHeight.micrometres();
        return Math.min(layer, count());
    }
}
