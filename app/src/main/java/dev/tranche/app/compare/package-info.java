/** A plan beside variants of itself. */
package dev.tranche.app.compare;
