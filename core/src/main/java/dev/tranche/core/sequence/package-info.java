/**
 * In which order the colours of each layer are printed: between them lie the swaps. The numbered order is what slicing
 * programs print, the best order what would cost least, the best numbering brings the one near the other, and bands
 * print each colour several layers high.
 */
package dev.tranche.core.sequence;
