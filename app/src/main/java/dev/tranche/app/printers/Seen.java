package dev.tranche.app.printers;

/**
 * A printer as a page showed it when an edit was made there.
 *
 * @param id of the printer
 * @param seen the edition that was shown
 */
record Seen(long id, long seen) {}
