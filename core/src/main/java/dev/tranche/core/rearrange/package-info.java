/**
 * One sliced file, printed in another order. A file that changes tools falls into pieces, one for each run of one tool on one
 * layer; they keep their bytes, and between them stand lines that give each piece what it takes for granted. Ways that would
 * lead through plastic which stands higher by then are led over it. What was put in is marked, so that the file that came in
 * can be had back, byte for byte.
 *
 * <p>Begin with {@link dev.tranche.core.rearrange.Rearranged}.
 */
package dev.tranche.core.rearrange;
