/** The purge between each pair of a plan's spools, how it comes about, and where it goes. */
package dev.tranche.app.purges;
