/** The bed from above: how many copies stand on it, and where. */
package dev.tranche.app.plate;
