package dev.tranche.core.plan;

/** Classes of plastic between which a swap needs more care. */
public enum Material {
    PLA("PLA", 1.24, 190, 230, 205),
    PETG("PETG", 1.27, 220, 260, 240),
    ABS_ASA("ABS or ASA", 1.05, 230, 270, 245),
    TPU("TPU", 1.21, 205, 245, 225),
    OTHER("Other", 1.20, 150, 450, 220);

    private final String title;
    private final double density;
    private final int coolest;
    private final int hottest;
    private final int usual;

    Material(String title, double density, int coolest, int hottest, int usual) {
        this.title = title;
        this.density = density;
        this.coolest = coolest;
        this.hottest = hottest;
        this.usual = usual;
    }

    public String title() {
        return title;
    }

    /** Usual density, g/cm³; datasheet values, from memory. */
    public double density() {
        return density;
    }

    /** The lowest °C at which it is usually printed, as {@code hottest} the highest; what makers print on spools, from memory. */
    public int coolest() {
        return coolest;
    }

    public int hottest() {
        return hottest;
    }

    /** °C to begin with. */
    public int usualTemperature() {
        return usual;
    }

    /** °C for the first layer to begin with: a little more, so that it sticks (common practice). */
    public int usualFirstLayer() {
        return usual + 5;
    }

    /** Whether it is usually printed at {@code celsius}. */
    public boolean isUsual(int celsius) {
        return celsius >= coolest && celsius <= hottest;
    }
}
