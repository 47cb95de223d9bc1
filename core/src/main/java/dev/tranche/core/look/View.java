package dev.tranche.core.look;

/** How one looks at a finished piece. */
public enum View {
    /** From above, lying on white paper. */
    ABOVE,
    /** From beneath, its underside turned up, lying on white paper. */
    BELOW,
    /** From above, before a lamp. */
    LIGHT
}
