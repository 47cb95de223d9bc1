/**
 * The finished piece as it will look: which stack of plastic lies at each spot under the eye, and what colour that is.
 * {@link dev.tranche.core.look.Looks} answers it from above, from beneath and held to light.
 */
package dev.tranche.core.look;
