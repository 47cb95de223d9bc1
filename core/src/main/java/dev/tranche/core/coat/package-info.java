/**
 * Where several colours lie on each layer of one part: drawn on squares, from the lines of a sliced file or from the faces of a
 * model that its file paints ({@code Coating}), and made into regions, one a colour.
 */
package dev.tranche.core.coat;
