/**
 * The spools a hobbyist owns.
 */
package dev.tranche.app.shelf;
