package dev.tranche.core.plan;

/** Classes of plastic between which a swap needs more care. */
public enum Material {
    PLA("PLA", 1.24),
    PETG("PETG", 1.27),
    ABS_ASA("ABS or ASA", 1.05),
    TPU("TPU", 1.21),
    OTHER("Other", 1.20);

    private final String title;
    private final double density;

    Material(String title, double density) {
        this.title = title;
        this.density = density;
    }

    public String title() {
        return title;
    }

    /** Usual density, g/cm³; datasheet values, from memory. */
    public double density() {
        return density;
    }
}
