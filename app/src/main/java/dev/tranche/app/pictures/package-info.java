/** Drawings of an opened plan, as paths in pixels: section, layer, score, orders, bands, clock. */
package dev.tranche.app.pictures;
