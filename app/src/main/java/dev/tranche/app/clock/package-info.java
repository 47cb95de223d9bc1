/** A print by the clock: when each swap comes, when nobody is there, and a calendar of it. */
package dev.tranche.app.clock;
