/**
 * The layers a printer will really print: the grid, the snapping of heights to it, and the heights at which the
 * model offers a place for a colour to start. Layers are numbered from 1; everything is computed on whole
 * micrometres.
 */
package dev.tranche.core.layer;
