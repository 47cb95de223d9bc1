/**
 * A plan: which spool starts at which height, on which layers that really falls, and the spools themselves.
 * A plan is a value; every edit answers a new one or refuses with a sentence.
 */
package dev.tranche.core.plan;
