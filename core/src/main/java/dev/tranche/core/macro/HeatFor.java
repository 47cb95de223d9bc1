package dev.tranche.core.macro;

/** Whose temperature the nozzle is brought to. */
public enum HeatFor {
    INCOMING("the spool that goes in", MacroName.TEMP_IN),
    OUTGOING("the spool that comes out", MacroName.TEMP_OUT),
    HOTTER("the hotter of the two", MacroName.TEMP_HOTTER);

    private final String title;
    private final MacroName name;

    HeatFor(String title, MacroName name) {
        this.title = title;
        this.name = name;
    }

    /** The name of that temperature in texts. */
    MacroName inTexts() {
        return name;
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
