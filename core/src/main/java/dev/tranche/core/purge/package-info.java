/**
 * How much to push through when one spool follows another, from their colours and the melt the nozzle holds. The
 * melt zone is taken as an ideal stirred tank: after pushing V through a dead volume V₀ the old colour's share
 * is exp(−V/V₀) (wash-out of a continuous stirred tank; Levenspiel, "Chemical Reaction Engineering", from
 * memory).
 */
package dev.tranche.core.purge;
