/**
 * A plan: which spool starts at which height, on which layers that really falls, which parts and zones have colours of
 * their own, which colours each layer then holds and where, and the spools themselves.
 * A plan is a value; every edit answers a new one or refuses with a sentence.
 */
package dev.tranche.core.plan;
