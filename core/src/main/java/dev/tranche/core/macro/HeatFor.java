package dev.tranche.core.macro;

/** Whose temperature the nozzle is brought to. */
public enum HeatFor {
    INCOMING("the spool that goes in"),
    OUTGOING("the spool that comes out"),
    HOTTER("the hotter of the two");

    private final String title;

    HeatFor(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }

    int of(Moment moment) {
        return switch (this) {
            case INCOMING -> moment.temperatureIn();
            case OUTGOING -> moment.temperatureOut();
            case HOTTER -> Math.max(moment.temperatureIn(), moment.temperatureOut());
        };
    }
}
