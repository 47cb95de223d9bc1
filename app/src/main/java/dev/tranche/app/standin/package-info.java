/**
 * The simulated printer as a process of its own, and the way to it: two local sockets, the wire and the hands. A real device may
 * take the place of what is at the other end of the wire.
 */
package dev.tranche.app.standin;
