package dev.tranche.core.macro;

/** What a macro answers. */
public enum Event {
    FIRST_LOAD("First load", "before layer 1 of a print"),
    SWAP("Swap", "wherever a plan changes the spool"),
    HALT("Halt", "wherever a plan stops without changing the spool"),
    HOST_PAUSE("Host pause", "when the host pauses the print"),
    HOST_RESUME("Host resume", "when the host goes on");

    private final String title;
    private final String when;

    Event(String title, String when) {
        this.title = title;
        this.when = when;
    }

    public String title() {
        return title;
    }

    /** When it happens, to follow “fires”. */
    public String when() {
        return when;
    }

    /** Whether the macro is a script of the host's, which knows nothing of the plan. */
    public boolean isHosts() {
        return this == HOST_PAUSE || this == HOST_RESUME;
    }
}
