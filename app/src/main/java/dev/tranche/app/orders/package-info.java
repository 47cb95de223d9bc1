/** The orders in which a plan's colours can be printed, side by side with what each costs. */
package dev.tranche.app.orders;
