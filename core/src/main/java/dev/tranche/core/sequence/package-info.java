/**
 * In which order the colours of each layer are printed: between them lie the swaps. So far one order is known, the one
 * that carries the loaded colour over.
 */
package dev.tranche.core.sequence;
