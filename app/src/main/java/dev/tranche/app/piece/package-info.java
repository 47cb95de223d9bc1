/** The finished piece to look at: as a body to turn, from above, from beneath, held to light. */
package dev.tranche.app.piece;
