package dev.tranche.core.machine;

/** Where the carriage goes to find its place. */
public enum Corner {
    FRONT_LEFT("front left", true, true),
    FRONT_RIGHT("front right", false, true),
    REAR_LEFT("rear left", true, false),
    REAR_RIGHT("rear right", false, false);

    private final String title;
    private final boolean left;
    private final boolean front;

    Corner(String title, boolean left, boolean front) {
        this.title = title;
        this.left = left;
        this.front = front;
    }

    public String title() {
        return title;
    }

    /** Whether {@code axis} is homed where its numbers are low. */
    public boolean homesLow(Axis axis) {
        return axis == Axis.X ? left : front;
    }
}
