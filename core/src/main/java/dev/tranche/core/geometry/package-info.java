/**
 * Meshes and the sections cut from them.
 *
 * <p>A {@link dev.tranche.core.geometry.Mesh} is a bag of triangles whose heights are whole micrometres; {@link
 * dev.tranche.core.geometry.SectionSweep} cuts it at many heights in one pass and gives, for each, a {@link
 * dev.tranche.core.geometry.Section}: closed polygons in mm, handled from there on with JTS. Input need not be
 * welded: edges meet where their corners are equal to the bit, which is how exporters write them. Where a mesh
 * is open, chains are closed by the shortest straight line and the section says how many.
 */
package dev.tranche.core.geometry;
